/** The card of a part in the list of parts: what it is, how large, what is done to it, and what can be done with it. */
import { Combine, Copy, Eye, EyeOff, Lock, LockOpen, Split, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import { removeParts, split, takeIn } from '@/core/commands/parts';
import { aboutPart, partWords } from '@/core/document/part-words';
import type { Operation, Part } from '@/core/document/schema';
import { boxHeight, boxWidth, isEmptyBox } from '@/core/geometry/point';
import { formatLengthNumber, type LengthUnit } from '@/core/units/quantity';
import { OperationMark } from '@/ui/marks';
import { useSortableRow } from '@/ui/sortable';
import type { PartView } from '@/worker/view';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { CardButton } from '../card-button';
import { duplicateChosen } from '../clipboard';
import { ownMiddle } from '../seen';
import { change, dispatch, select, selectAlso, useBench } from '../store';

function sizeWords(view: PartView | undefined, units: LengthUnit): string {
  if (!view || isEmptyBox(view.size)) return '';
  const n = (mm: number) => formatLengthNumber(mm, units, units === 'mm' ? 1 : 2);
  return `${n(boxWidth(view.size))} × ${n(boxHeight(view.size))}`;
}

type CardProps = {
  readonly part: Part;
  readonly operations: readonly Operation[];
  readonly size: string;
  readonly on: boolean;
  /** Whether it is all that is selected. */
  readonly alone: boolean;
  /** Another part that is selected, into which this one may be taken. */
  readonly into: string | null;
};

/** Drawn anew only when its own part changes: jobs have hundreds of them. */
const PartCard = memo(function PartCard({ part, operations, size, on, alone, into }: CardProps) {
  const row = useSortableRow(part.id, partWords(part));
  const [refusal, setRefusal] = useState<string | null>(null);
  const edit = (recipe: (p: Part) => void) =>
    change((draft) => {
      const p = draft.parts.find((x) => x.id === part.id);
      if (p) recipe(p);
    });
  const words = aboutPart(part);
  const about = [
    part.hidden ? 'hidden' : '',
    part.reference ? 'for reference' : '',
    part.keep === 'outside' ? 'cut out of the sheet' : '',
    words.toLowerCase() === partWords(part).toLowerCase() ? '' : words,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <div ref={row.ref} style={row.style} className={styles.card} data-on={on}>
      <button
        type="button"
        className={styles.plainButton}
        aria-pressed={on}
        onClick={(e) => (e.shiftKey || e.ctrlKey || e.metaKey ? selectAlso(part.id) : select(part.id))}
        title={on ? undefined : 'Shift or Ctrl adds it to what is selected'}
      >
        <span className={styles.cardHead}>
          <span title={partWords(part)}>{partWords(part)}</span>
          <span className="nf-figure fw-normal">{size}</span>
        </span>
        {about && <span className="d-block nf-muted nf-small text-truncate">{about}</span>}
      </button>
      <div className="d-flex justify-content-between align-items-end">
        <div className={styles.ops}>
          {(part.reference ? [] : part.work).map((w) => {
            const operation = operations.find((o) => o.id === w.operation);
            return (
              operation && (
                <span
                  key={`${w.what}-${w.operation}-${w.only !== null}`}
                  className={operation.on ? '' : 'text-decoration-line-through'}
                >
                  <OperationMark kind={operation.kind} />
                  {operation.name.toLowerCase()}
                  {w.what === 'fill' && operation.kind !== 'engrave' ? ' (fill)' : ''}
                  {w.only ? ' (some letters)' : ''}
                </span>
              )
            );
          })}
          {part.reference ? <span>not worked</span> : part.work.length === 0 && <span>no operation</span>}
        </div>
        <div className="d-flex align-items-center">
          {into !== null && !part.locked && (
            <CardButton
              label={`Make one part of ${into} and ${partWords(part)}`}
              icon={Combine}
              onClick={() => {
                const { job, selection } = useBench.getState();
                const done = takeIn(job, selection.partId ?? '', part.id, ownMiddle);
                dispatch(() => done.job);
                setRefusal(done.sentence);
              }}
            />
          )}
          {alone && !part.locked && part.members.filter((m) => m.role === 'join').length > 1 && (
            <CardButton
              label="Split"
              title="Split: a part for every joined member"
              icon={Split}
              onClick={() => {
                const done = split(useBench.getState().job, part.id);
                dispatch(() => done.job);
                setRefusal(done.sentence);
              }}
            />
          )}
          {(alone || part.locked) && (
            <CardButton
              label={part.locked ? 'Unlock' : 'Lock'}
              title={part.locked ? 'Unlock' : 'Lock: not moved or changed by hand'}
              icon={part.locked ? Lock : LockOpen}
              pressed={part.locked}
              onClick={() =>
                edit((p) => {
                  p.locked = !p.locked;
                })
              }
            />
          )}
          <CardButton
            label={part.hidden ? 'Show' : 'Hide'}
            title={part.hidden ? 'Show' : 'Hide: neither shown nor exported'}
            icon={part.hidden ? EyeOff : Eye}
            onClick={() =>
              edit((p) => {
                p.hidden = !p.hidden;
              })
            }
          />
          {alone && (
            <>
              <CardButton label="Duplicate" title="Duplicate (D)" icon={Copy} onClick={duplicateChosen} />
              {!part.locked && <CardButton label="Remove" icon={Trash2} onClick={() => removePart(part.id)} />}
            </>
          )}
          {row.grip}
        </div>
      </div>
      {refusal && (
        <p role="alert" className="nf-small text-danger mb-0">
          {refusal}
        </p>
      )}
    </div>
  );
});

const removePart = (partId: string): void => dispatch((job) => removeParts(job, [partId]));

/** The card of one part: it looks up by itself what it shows, so that an edit elsewhere leaves it alone. */
export function CardOf({ id }: { id: string }) {
  const part = useBench((s) => s.job.parts.find((p) => p.id === id));
  const operations = useBench((s) => s.job.operations);
  const units = useBench((s) => s.job.units);
  const size = sizeWords(
    useBeside((view) => view?.parts.find((p) => p.id === id)),
    units,
  );
  const on = useBench((s) => s.selection.partId === id || s.selection.others.includes(id));
  const alone = useBench((s) => s.selection.partId === id && s.selection.others.length === 0);
  const into = useBench((s) => {
    const chosen = s.selection.others.length === 0 && s.selection.partId !== id ? s.selection.partId : null;
    const other = chosen === null ? undefined : s.job.parts.find((p) => p.id === chosen);
    return other && !other.locked ? partWords(other) : null;
  });
  return part ? <PartCard part={part} operations={operations} size={size} on={on} alone={alone} into={into} /> : null;
}
