/** A test piece made from the job; and in a test piece, what came out well pressed on the sheet and kept in the cut chart. */
import { useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { cameOutWell, TEST_PIECE } from '@/core/trial/test-piece';
import { triedRow } from '@/core/trial/tried-row';
import { Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { JOBS } from '@/ui/questions';
import { useKeepEntry } from '@/ui/use-keep-entry';
import { useShop } from '@/ui/use-shop';
import { computing } from '@/worker/client';
import { say, useBench } from '../../store';

/** Makes a test piece; in one, says what came out well. */
export function TestPiece({ isOff }: { isOff: boolean }) {
  const isOne = useBench((s) => s.job.tags.includes(TEST_PIECE));
  return isOne ? <CameOutWell /> : <MakeOne isOff={isOff} />;
}

function MakeOne({ isOff }: { isOff: boolean }) {
  const client = useQueryClient();
  const job = useBench((s) => s.job);
  const running = job.operations.filter((o) => o.on && job.parts.some((p) => p.work.some((w) => w.operation === o.id)));
  const [chosen, setChosen] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<{ readonly words: string; readonly id: string | null } | null>(null);
  const operation = running.find((o) => o.id === chosen) ?? running.find((o) => o.kind === 'cut') ?? running[0];
  if (!operation) return null;
  const make = async () => {
    setBusy(true);
    setSaid(null);
    try {
      const piece = await computing().testPiece(job, operation.id);
      if (!piece) return;
      if ('sentence' in piece) return setSaid({ words: piece.sentence, id: null });
      const { id } = await call(API.createJob, {}, { document: piece, extras: null });
      setSaid({ words: `Made: ${piece.title}.`, id });
      void client.invalidateQueries({ queryKey: JOBS });
    } catch (reason) {
      setSaid({ words: reason instanceof Error ? reason.message : 'It could not be made.', id: null });
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <Heading beside="in the same stock">Test piece</Heading>
      <Row label="To try" htmlFor="try-operation">
        <Form.Select id="try-operation" value={operation.id} onChange={(e) => setChosen(e.target.value)}>
          {running.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}
            </option>
          ))}
        </Form.Select>
      </Row>
      <Button
        variant="plain"
        className="w-100 mb-1"
        title="Fragile letters at true size, slots for the width of the cut, and a field of settings around the cut chart’s"
        disabled={isOff || busy}
        onClick={() => void make()}
      >
        {busy ? 'Making it …' : 'Make a test piece'}
      </Button>
      {said && (
        <p className={`nf-small mb-0${said.id ? '' : ' text-danger'}`} role="status">
          {said.words} {said.id && <Link href={`/jobs/${said.id}?at=prove`}>Open it</Link>}
        </p>
      )}
    </>
  );
}

function CameOutWell() {
  const job = useBench((s) => s.job);
  const partId = useBench((s) => s.selection.partId);
  const shop = useShop();
  const { keep } = useKeepEntry(say);
  const part = job.parts.find((p) => p.id === partId);
  const well = part && cameOutWell(job, part);
  const keepRow = async () => {
    if (!well) return;
    const row = triedRow(shop, job, well);
    if ('sentence' in row) return say(row.sentence);
    if (await keep('chart', row.id ?? crypto.randomUUID().slice(0, 13), row.entry))
      say(`The cut chart has it now, as tried: ${well.words}.`);
  };
  return (
    <>
      <Heading>What came out well</Heading>
      {well ? (
        <Button variant="primary" className="w-100 mb-1" onClick={() => void keepRow()}>
          Keep in the cut chart: {well.words}
        </Button>
      ) : (
        <p className="nf-muted nf-small mb-0">
          Press the square that came out best on the sheet, or the slot that its tongue just fits: its settings become
          the cut chart’s, as tried.
        </p>
      )}
    </>
  );
}
