/** The right side: the parts in order, and the findings. */
import { Combine, Copy, Eye, EyeOff, Lock, LockOpen, Split, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { moveEntry } from '@/core/commands/changed';
import { removeParts, split, takeIn } from '@/core/commands/parts';
import { editPicture } from '@/core/commands/pictures';
import { partWords } from '@/core/document/part-words';
import type { Operation, Part } from '@/core/document/schema';
import { boxHeight, boxWidth, isEmptyBox } from '@/core/geometry/point';
import type { Finding } from '@/core/inspect/finding';
import { groupsOf, openGroups } from '@/core/rules/groups';
import { formatLengthNumber, type LengthUnit } from '@/core/units/quantity';
import { Heading } from '@/ui/heading';
import { useListed } from '@/ui/listed';
import { OperationMark } from '@/ui/marks';
import { SortableList, useSortableRow } from '@/ui/sortable';
import type { PartView } from '@/worker/view';
import styles from './bench.module.css';
import { useBeside } from './beside';
import { duplicateChosen } from './clipboard';
import { FindingRow } from './finding-row';
import { FindingsAlike } from './findings-alike';
import { ownMiddle } from './seen';
import { StarterNote } from './starter-note';
import { change, choosePicture, dispatch, select, selectAlso, useBench } from './store';

/** "rectangle, 4 × ellipse cut out, ALDER LANE cut out". */
function describe(part: Part): string {
  const counts = new Map<string, number>();
  for (const m of part.members) {
    const what =
      m.kind === 'lettering'
        ? m.text.trim().split('\n').join(' / ') || 'no words yet'
        : m.kind === 'artwork'
          ? m.name || 'drawing'
          : m.kind === 'trace'
            ? `traced from ${m.name || 'a picture'}`
            : m.kind;
    const words = m.role === 'join' ? what : m.role === 'punch' ? `${what} cut out` : `within ${what}`;
    counts.set(words, (counts.get(words) ?? 0) + 1);
  }
  return [...counts].map(([words, n]) => (n > 1 ? `${n} × ${words}` : words)).join(', ');
}

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

type IconProps = {
  readonly label: string;
  readonly title?: string;
  readonly icon: typeof Copy;
  readonly pressed?: boolean;
  readonly onClick: () => void;
};

const CardButton = ({ label, title = label, icon: Icon, pressed, onClick }: IconProps) => (
  <button
    type="button"
    className={styles.iconButton}
    aria-label={label}
    aria-pressed={pressed}
    title={title}
    onClick={onClick}
  >
    <Icon size={15} />
  </button>
);

/** Drawn anew only when its own part changes: jobs have hundreds of them. */
const PartCard = memo(function PartCard({ part, operations, size, on, alone, into }: CardProps) {
  const row = useSortableRow(part.id, partWords(part));
  const [refusal, setRefusal] = useState<string | null>(null);
  const edit = (recipe: (p: Part) => void) =>
    change((draft) => {
      const p = draft.parts.find((x) => x.id === part.id);
      if (p) recipe(p);
    });
  const words = describe(part);
  const about = [
    part.hidden ? 'hidden' : '',
    part.reference ? 'for reference' : '',
    part.keep === 'outside' ? 'cut out of the sheet' : '',
    words.toLowerCase() === partWords(part).toLowerCase() ? '' : words,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <li ref={row.ref} style={row.style} className={styles.card} data-on={on}>
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
                <span key={`${w.what}-${w.operation}`} className={operation.on ? '' : 'text-decoration-line-through'}>
                  <OperationMark kind={operation.kind} />
                  {operation.name.toLowerCase()}
                  {w.what === 'fill' && operation.kind !== 'engrave' ? ' (fill)' : ''}
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
    </li>
  );
});

const removePart = (partId: string): void => dispatch((job) => removeParts(job, [partId]));

/** Findings listed at first, and more at each press. */
const LISTED = 50;

/** The card of one part: it looks up by itself what it shows, so that an edit elsewhere leaves it alone. */
function CardOf({ id }: { id: string }) {
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

const Cards = ({ ids }: { ids: readonly string[] }) => (
  <ul className="list-unstyled m-0" aria-label="Parts">
    {ids.map((id) => (
      <CardOf key={id} id={id} />
    ))}
  </ul>
);

const reorder = (from: number, to: number): void => change((draft) => void moveEntry(draft.parts, from, to));

function Parts() {
  const ids = useBench(useShallow((s) => s.job.parts.map((part) => part.id)));
  return (
    <>
      <Heading beside={ids.length || undefined}>Parts</Heading>
      {ids.length === 0 && <p className="nf-muted nf-small">Nothing here yet. Add lettering or a shape on the left.</p>}
      <SortableList name="parts" ids={ids} onMove={reorder}>
        <Cards ids={ids} />
      </SortableList>
    </>
  );
}

/** Pictures that lie under the parts; one that is locked or covered is chosen here. */
function PlacedPictures() {
  const pictures = useBench((s) => s.job.pictures);
  const at = useBench((s) => s.atPicture);
  if (pictures.length === 0) return null;
  return (
    <>
      <Heading beside={pictures.length}>Pictures under them</Heading>
      <ul className="list-unstyled m-0" aria-label="Pictures">
        {pictures.map((picture) => (
          <li key={picture.id} className={styles.card} data-on={picture.id === at}>
            <div className="d-flex align-items-center">
              <button
                type="button"
                className={`${styles.plainButton} flex-fill`}
                style={{ minWidth: 0 }}
                aria-pressed={picture.id === at}
                title={picture.name}
                onClick={() => choosePicture(picture.id)}
              >
                <span className="d-block text-truncate">{picture.name || 'Without a name'}</span>
              </button>
              <CardButton
                label={picture.shown ? `Hide ${picture.name}` : `Show ${picture.name}`}
                icon={picture.shown ? Eye : EyeOff}
                onClick={() =>
                  dispatch((job) =>
                    editPicture(job, picture.id, (p) => {
                      p.shown = !p.shown;
                    }),
                  )
                }
              />
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}

function Findings() {
  const findings = useBeside((view) => view?.findings) ?? NO_FINDINGS;
  const isEmpty = useBench((s) => s.view === null || s.job.parts.length === 0);
  const open = openGroups(findings);
  const left = findings.filter((f) => f.leftReason !== null);
  const listed = useListed([...open, ...groupsOf(left)], LISTED);
  const beside =
    findings.length === 0
      ? ''
      : [`${open.length} to look at`, left.length > 0 ? `${left.length} left as is` : ''].filter(Boolean).join(' · ');
  return (
    <>
      <Heading beside={beside}>Findings</Heading>
      {!isEmpty && findings.length === 0 && <p className="nf-muted nf-small">Nothing to look at.</p>}
      <ul className={styles.findings} aria-label="Findings">
        {listed.shown.map((group) => {
          const [first] = group.findings;
          if (group.findings.length > 1) return <FindingsAlike key={group.key} group={group} />;
          return first && <FindingRow key={group.key} finding={first} />;
        })}
      </ul>
      {listed.more}
    </>
  );
}

const NO_FINDINGS: readonly Finding[] = [];

/** The right side of the bench: parts and findings. */
export const JobSheet = () => (
  <aside className={styles.jobSheet} aria-label="Job sheet">
    <StarterNote />
    <Parts />
    <PlacedPictures />
    <Findings />
  </aside>
);
