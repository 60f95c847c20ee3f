/** Papers: the proof sheet to print and sign, the work at true size, a picture for the customer, the words in several faces. */
import { proxy } from 'comlink';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { SHIPPED_FACES } from '@/core/lettering/catalogue';
import { LIMITS } from '@/core/limits';
import { download } from '@/ui/download';
import { Row, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { pngOf } from '@/ui/png';
import { today } from '@/ui/when';
import { computing } from '@/worker/client';
import type { PaperAsked } from '@/worker/papers';
import { proofOf, proveNow, useProof } from '../../proof/proving';
import { useBench } from '../../store';

const OUTLINED = SHIPPED_FACES.filter((f) => !f.manner.startsWith('one line') && !f.manner.startsWith('lines'));
/** Pixels of the longer side of a picture. */
const PNG_SIDE = 2400;

type Said = { readonly words: string; readonly bad: boolean } | null;

/** Makes papers and pictures of the job. */
export function Papers({ isOff }: { isOff: boolean }) {
  const job = useBench((s) => s.job);
  const paper = job.units === 'in' ? 'letter' : 'a4';
  const [busy, setBusy] = useState<string | null>(null);
  const [said, setSaid] = useState<Said>(null);
  const [measures, setMeasures] = useState(true);
  const [faces, setFaces] = useState<readonly string[]>([]);
  const hasWords = job.parts.some((p) => p.members.some((m) => m.kind === 'lettering'));

  const make = async (words: string, asked: () => Promise<PaperAsked | null>, as: 'file' | 'png' = 'file') => {
    setBusy(words);
    setSaid(null);
    try {
      const now = await asked();
      const made =
        now &&
        (await computing().paper(
          job,
          now,
          proxy((done: number, of: number) => setBusy(`${words} ${Math.round((100 * done) / of)} %`)),
        ));
      if (!made) return;
      if ('sentence' in made) return setSaid({ words: made.sentence, bad: true });
      const name = as === 'png' ? made.name.replace(/\.svg$/, '.png') : made.name;
      const bytes = as === 'png' ? await pngOf(made.bytes, PNG_SIDE) : made.bytes;
      download(name, bytes, as === 'png' ? 'image/png' : name.endsWith('.pdf') ? 'application/pdf' : 'image/svg+xml');
      setSaid({ words: `Made: ${name}`, bad: false });
    } catch (reason) {
      setSaid({ words: `It could not be made: ${reason instanceof Error ? reason.message : 'unknown'}.`, bad: true });
    } finally {
      setBusy(null);
    }
  };
  const sheet = async (): Promise<PaperAsked | null> => {
    const { proved } = useProof.getState();
    const view =
      (proved?.partIds === null && proofOf(proved, job)) || (await proveNow({ partIds: null, date: today() }));
    if (!view) return null;
    const isRefused = view.files.length === 0;
    const differences = isRefused ? [...view.refused] : view.findings.map((f) => f.sentence);
    const proof = {
      machine: view.machine,
      differences,
      files: view.files.map(({ name, sha256 }) => ({ name, sha256 })),
    };
    return { which: 'proof sheet', paper, date: today(), proof };
  };
  const off = isOff || busy !== null;
  const toggle = (family: string) =>
    setFaces((now) =>
      now.includes(family) ? now.filter((f) => f !== family) : [...now, family].slice(-LIMITS.facesCompared),
    );
  return (
    <>
      <Heading beside={paper === 'a4' ? 'A4' : 'letter size'}>On paper</Heading>
      <Button variant="plain" className="w-100 mb-1" disabled={off} onClick={() => void make('Proof sheet …', sheet)}>
        Proof sheet, to sign
      </Button>
      <Button
        variant="plain"
        className="w-100 mb-1"
        title="In pages that are pasted together by marks"
        disabled={off}
        onClick={() => void make('True size …', async () => ({ which: 'true size', paper }))}
      >
        At true size
      </Button>
      <Heading>For the customer</Heading>
      <Switch label="With its measures" on={measures} onChange={setMeasures} />
      <Row label="Picture">
        <div className="d-flex gap-1">
          {(['PNG', 'SVG'] as const).map((kind) => (
            <Button
              key={kind}
              variant="plain"
              className="flex-fill"
              aria-label={`Picture as ${kind}`}
              disabled={off}
              onClick={() =>
                void make('Picture …', async () => ({ which: 'picture', measures }), kind === 'PNG' ? 'png' : 'file')
              }
            >
              {kind}
            </Button>
          ))}
        </div>
      </Row>
      {hasWords && (
        <details className="nf-small mb-1">
          <summary>The same words in several typefaces</summary>
          <p className="nf-muted mb-1">Up to {LIMITS.facesCompared} on one page, to choose from.</p>
          {OUTLINED.map(({ family }) => (
            <Form.Check
              key={family}
              type="checkbox"
              id={`face-${family}`}
              label={family}
              checked={faces.includes(family)}
              onChange={() => toggle(family)}
            />
          ))}
          <Button
            variant="plain"
            className="w-100 mt-1"
            disabled={off || faces.length === 0}
            onClick={() => void make('Typefaces …', async () => ({ which: 'faces', faces }))}
          >
            {faces.length === 0 ? 'Choose some' : `One page with ${faces.length}`}
          </Button>
        </details>
      )}
      {busy && (
        <p className="nf-small mb-0" role="status">
          {busy}
        </p>
      )}
      {said && !busy && (
        <p className={`nf-small mb-0${said.bad ? ' text-danger' : ''}`} role="status">
          {said.words}
        </p>
      )}
    </>
  );
}
