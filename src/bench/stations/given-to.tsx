/** Which part goes to which operation: row by row, or all rows that are chosen at once. */
import { Fragment } from 'react';
import Form from 'react-bootstrap/Form';
import { giveWork } from '@/core/commands/lines';
import { common } from '@/core/commands/several';
import { partsOnSheet } from '@/core/document/on-sheet';
import { partWords } from '@/core/document/part-words';
import type { Job, Part, Work } from '@/core/document/schema';
import { stepIn } from '@/core/kinds/steps';
import { WORKS, workKind, workOn } from '@/core/kinds/works';
import { Heading } from '@/ui/heading';
import { VirtualRows } from '@/ui/virtual-rows';
import styles from '../bench.module.css';
import { dispatch, selectAlso, selectedParts, selectParts, useBench } from '../store';
import { OperationSelect } from './operation-select';

/** What is worked of every part, whatever its steps; and what only steps draw. */
const OF_SHAPE = WORKS.filter(({ draws }) => draws === null);
const OF_STEPS = WORKS.filter(({ draws }) => draws !== null);

const COLUMNS = { gridTemplateColumns: `auto minmax(0, 1fr) repeat(${OF_SHAPE.length}, 88px)` };

/** Which operation does some work, on all of the parts. */
function Given({
  parts,
  what,
  of,
}: {
  parts: readonly Part[];
  what: Work['what'];
  /** Whose work it is, for screen readers. */
  of: string;
}) {
  const now = common(parts.map((part) => workOn(part.work, what)?.operation ?? ''));
  return (
    <OperationSelect
      {...now}
      label={`${workKind(what).word} of ${of}`}
      none="–"
      onChange={(operation) =>
        dispatch((job) => parts.reduce((next, part) => giveWork(next, part.id, what, operation), job))
      }
    />
  );
}

/** The fields of some parts: their shape’s in the row, what their steps draw beneath. */
function Fields({ parts, of }: { parts: readonly Part[]; of: string }) {
  return (
    <>
      {OF_SHAPE.map(({ what }) => (
        <Given key={what} parts={parts} what={what} of={of} />
      ))}
      {OF_STEPS.filter(({ draws }) => parts.every((part) => draws !== null && stepIn(part, draws)?.on)).map(
        ({ what }) => (
          <Fragment key={what}>
            <span />
            <span className="nf-muted text-end">{workKind(what).word.toLowerCase()}</span>
            <Given parts={parts} what={what} of={of} />
            <span />
          </Fragment>
        ),
      )}
    </>
  );
}

const Row = ({ part, isChosen }: { part: Part; isChosen: boolean }) => (
  <div className={styles.assign} style={COLUMNS} data-on={isChosen}>
    <Form.Check aria-label={`Choose ${partWords(part)}`} checked={isChosen} onChange={() => selectAlso(part.id)} />
    <span className={styles.assigned} title={partWords(part)}>
      {partWords(part)}
    </span>
    <Fields parts={[part]} of={partWords(part)} />
  </div>
);

/** A row for each part, chosen by its box; those that are chosen are given all at once in the row above. */
export function GivenTo({ job }: { job: Job }) {
  const selection = useBench((s) => s.selection);
  const chosenIds = new Set(selectedParts(selection));
  const worked = partsOnSheet(job).filter((part) => !part.reference);
  const byId = new Map(worked.map((part) => [part.id, part]));
  const chosen = worked.filter((part) => chosenIds.has(part.id));
  const isAll = chosen.length === worked.length;
  if (worked.length === 0)
    return (
      <>
        <Heading>Given to</Heading>
        <p className="nf-muted nf-small">No parts yet.</p>
      </>
    );
  return (
    <>
      <Heading beside={chosen.length > 1 ? `${chosen.length} chosen` : undefined}>Given to</Heading>
      <div className={styles.assign} style={COLUMNS}>
        <Form.Check
          aria-label="Choose all parts"
          ref={(box: HTMLInputElement | null) => {
            if (box) box.indeterminate = chosen.length > 0 && !isAll;
          }}
          checked={isAll}
          onChange={() => selectParts(isAll ? [] : worked.map((part) => part.id))}
        />
        <span className="nf-muted">Part</span>
        {OF_SHAPE.map(({ what, word }) => (
          <span key={what} className="nf-muted">
            {word}
          </span>
        ))}
      </div>
      {chosen.length > 1 && (
        <div className={styles.assign} style={COLUMNS} data-on="true">
          <span />
          <b>All {chosen.length} chosen</b>
          <Fields parts={chosen} of={`all ${chosen.length} chosen`} />
        </div>
      )}
      <VirtualRows label="Given to" keys={[...byId.keys()]} estimate={36}>
        {(id) => {
          const part = byId.get(id);
          return part && <Row part={part} isChosen={chosenIds.has(id)} />;
        }}
      </VirtualRows>
    </>
  );
}
