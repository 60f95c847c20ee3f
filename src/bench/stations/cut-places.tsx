/** The cuts of the selected part, one a row: where each begins and its tabs, to be chosen and let go without a pointer. */
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { letGoCutPlaces } from '@/core/commands/cut-places';
import type { Job } from '@/core/document/schema';
import { Heading } from '@/ui/heading';
import { VirtualRows } from '@/ui/virtual-rows';
import type { CutView } from '@/worker/view';
import type { AtCut } from '../at';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { letGoTabsOf, removeChosenCut, setSideOf } from '../cut-edits';
import { chooseCut, dispatch, useBench } from '../store';

type OneCut = { readonly operationId: string; readonly cut: CutView; readonly number: number };

/** Begins and tabs of the part that is selected; nothing where there is nothing to move. */
export function CutPlaces({ job }: { job: Job }) {
  const partId = useBench((s) => s.selection.partId);
  const part = job.parts.find((p) => p.id === partId);
  const operations = useBeside((view) => view?.operations);
  const on = new Set(job.operations.filter((o) => o.on).map((o) => o.id));
  const cuts =
    operations
      ?.filter((o) => on.has(o.id))
      .flatMap((o) => o.cuts.filter((c) => c.partId === partId).map((cut) => ({ operationId: o.id, cut }))) ?? [];
  if (!part || cuts.length === 0) return null;
  const byKey = new Map(
    cuts.map((c, i): [string, OneCut] => [`${c.operationId}/${c.cut.nth}`, { ...c, number: i + 1 }]),
  );
  const byHand = part.starts.length + part.tabs.length + part.sides.length;
  return (
    <>
      <Heading beside={byHand > 0 ? `${byHand} by hand` : undefined}>Cuts one by one</Heading>
      <p className="nf-muted nf-small mb-1">
        Starts and tabs are dragged on the sheet, or chosen here and moved with the arrow keys.
      </p>
      <VirtualRows label="Cuts one by one" keys={[...byKey.keys()]} estimate={32}>
        {(key) => {
          const one = byKey.get(key);
          return one && <Row one={one} isLocked={part.locked} />;
        }}
      </VirtualRows>
      {byHand > 0 && !part.locked && (
        <Button variant="word" onClick={() => dispatch((doc) => letGoCutPlaces(doc, part.id))}>
          Let all of them go
        </Button>
      )}
    </>
  );
}

function Row({ one: { operationId, cut, number }, isLocked }: { one: OneCut; isLocked: boolean }) {
  const chosen = useBench((s) => s.atCut);
  const hasSides = useBench((s) => s.job.operations.find((o) => o.id === operationId)?.kerfSide !== 'line');
  const isHere = chosen?.operationId === operationId && chosen.partId === cut.partId && chosen.nth === cut.nth;
  const at = (place: AtCut['place']): AtCut => ({ operationId, partId: cut.partId, nth: cut.nth, place });
  const button = (place: AtCut['place'], word: string, byHand: boolean) => (
    <button
      key={place}
      type="button"
      className={styles.cutPlace}
      aria-pressed={isHere && chosen.place === place}
      data-by-hand={byHand}
      title={byHand ? 'Placed by hand' : 'Placed by itself'}
      onClick={() => chooseCut(at(place))}
    >
      {word}
    </button>
  );
  const tabsByHand = cut.tabs.some((tab) => tab.byHand !== null);
  return (
    <fieldset className={styles.cutRow} aria-label={`Cut ${number}`}>
      <span className="nf-muted nf-small">{number}</span>
      {cut.start && button('start', 'start', cut.start.byHand !== null)}
      {cut.tabs.map((tab, i) => button(i, `tab ${i + 1}`, tab.byHand !== null))}
      {hasSides && (
        <Form.Select
          size="sm"
          className={styles.cutSide}
          aria-label={`Side of cut ${number}`}
          disabled={isLocked}
          value={cut.side.is}
          onChange={(e) => setSideOf(cut, e.target.value as CutView['side']['is'])}
        >
          <option value="usual">beside</option>
          <option value="line">on it</option>
          <option value="other">other side</option>
        </Form.Select>
      )}
      {isHere && !isLocked && chosen.place === 'start' && cut.start?.byHand != null && (
        <Button variant="word" onClick={() => removeChosenCut()}>
          let go
        </Button>
      )}
      {isHere && !isLocked && chosen.place !== 'start' && (
        <Button variant="word" onClick={() => removeChosenCut()}>
          take out
        </Button>
      )}
      {tabsByHand && !isLocked && (
        <Button variant="word" onClick={() => letGoTabsOf(cut)}>
          place anew
        </Button>
      )}
    </fieldset>
  );
}
