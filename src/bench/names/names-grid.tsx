/** All rows as pictures, the worst first: filtered by what is wrong with them, mended one by one or all alike. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Roster, RosterRow } from '@/core/document/schema';
import type { RowSeen } from '@/core/job/rows';
import { openGroups } from '@/core/rules/groups';
import { mendingOf } from '@/core/rules/mend';
import { isThin } from '@/core/rules/strength';
import { JobPicture } from '@/ui/job-picture';
import { SeverityMark } from '../finding-row';
import { takeRow, useBench } from '../store';
import { mendRows, useMending } from './mending';
import styles from './names.module.css';
import { useRows } from './rows';
import { type FoundInRows, foundInRows, severityOf, worstFirst } from './summary';

/** Height of a line of pictures, and the least width of one, in px. */
const LINE_PX = 160;
const CARD_PX = 150;

const Card = memo(function Card({
  row,
  title,
  seen,
  inHand,
  within,
}: {
  row: RosterRow;
  within: Largest;
  title: string;
  seen: RowSeen | undefined;
  inHand: boolean;
}) {
  const severity = severityOf(seen);
  const [first] = openGroups(seen?.findings ?? []);
  return (
    <button
      type="button"
      className={styles.card}
      data-hand={inHand}
      aria-pressed={inHand}
      title={first?.sentence ?? title}
      onClick={() => takeRow(row.id)}
    >
      <span className={styles.picture}>
        {seen && <JobPicture picture={seen.picture} title={title} within={within} />}
      </span>
      <span className={styles.under}>
        <b>
          {severity && <SeverityMark severity={severity} isLeft={false} />}
          <span className="text-truncate">{title}</span>
          {row.own && <span className="nf-muted ms-auto fw-normal">its own</span>}
        </b>
        <p>{seen ? (first?.sentence ?? 'Nothing to look at.') : 'Being computed …'}</p>
      </span>
    </button>
  );
});

/** The size of the largest, in mm, so that all are seen in the same scale. */
type Largest = { readonly width: number; readonly height: number };

function largestOf(seen: ReadonlyMap<string, RowSeen>): Largest {
  let [width, height] = [1, 1];
  for (const { size } of seen.values()) {
    width = Math.max(width, size?.width ?? 0);
    height = Math.max(height, size?.height ?? 0);
  }
  return { width, height };
}

/** What can be done in one press about what was found: in the rows it was found in, or in all. */
function Mends({ found, made }: { found: FoundInRows; made: number }) {
  const job = useBench((s) => s.job);
  const busy = useMending((s) => s.busy);
  const mending = mendingOf(job, found.example);
  const words = isThin(found.code) ? 'Thicken just enough' : mending && 'run' in mending ? mending.words : null;
  if (words === null) return <span className="nf-muted align-self-center">Mended row by row, on the sheet.</span>;
  const count = found.rowIds.length;
  const mend = (changeFor: 'all' | 'row') => void mendRows({ code: found.code, rowIds: found.rowIds, changeFor });
  return (
    <>
      <Button variant="plain" disabled={busy !== null} onClick={() => mend('row')}>
        {words}: {count === 1 ? 'in this row' : `in these ${count}`}
      </Button>
      {count < made && (
        <Button variant="plain" disabled={busy !== null} onClick={() => mend('all')}>
          {words}: in all rows
        </Button>
      )}
    </>
  );
}

/** The rows as pictures. */
export function NamesGrid({ roster, inHand, titles }: { roster: Roster; inHand: number; titles: readonly string[] }) {
  // The virtual list changes in place, which the compiler can't see.
  'use no memo';
  const seen = useRows((s) => s.seen);
  const [filter, setFilter] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const [across, setAcross] = useState(4);
  useEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const watch = new ResizeObserver(() => setAcross(Math.max(1, Math.floor(box.clientWidth / CARD_PX))));
    watch.observe(box);
    return () => watch.disconnect();
  }, []);
  const made = roster.rows.filter((row) => !row.out);
  const within = useMemo(() => largestOf(seen), [seen]);
  const found = useMemo(() => foundInRows(roster, seen), [roster, seen]);
  const chosen = found.find((f) => f.code === filter);
  const ids = chosen && new Set(chosen.rowIds);
  const rows = worstFirst(
    made.filter((row) => !ids || ids.has(row.id)),
    seen,
  );
  const places = new Map(roster.rows.map((row, i) => [row.id, i]));
  const virtual = useVirtualizer({
    count: Math.ceil(rows.length / across),
    getScrollElement: () => scroller.current,
    estimateSize: () => LINE_PX,
    overscan: 2,
  });
  return (
    <>
      <fieldset className={styles.filters} aria-label="What is found in them">
        <Button variant="plain" active={!chosen} aria-pressed={!chosen} onClick={() => setFilter(null)}>
          All {made.length}
        </Button>
        {found.map(({ code, severity, words, rowIds }) => (
          <Button
            key={code}
            variant="plain"
            active={code === filter}
            aria-pressed={code === filter}
            title={words}
            onClick={() => setFilter(code === filter ? null : code)}
          >
            <SeverityMark severity={severity} isLeft={false} />
            <span className="text-truncate">{words}</span>
            <span className="nf-figure">{rowIds.length}</span>
          </Button>
        ))}
        {chosen && <Mends found={chosen} made={made.length} />}
      </fieldset>
      <div className={styles.scroller} ref={scroller}>
        <div className={styles.cards} style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <div
              key={index}
              className={styles.cardRow}
              style={{ top: start, gridTemplateColumns: `repeat(${across}, minmax(0, 1fr))` }}
            >
              {rows.slice(index * across, (index + 1) * across).map((row) => {
                const nth = places.get(row.id) ?? 0;
                return (
                  <Card
                    key={row.id}
                    row={row}
                    title={titles[nth] ?? ''}
                    seen={seen.get(row.id)}
                    inHand={nth === inHand}
                    within={within}
                  />
                );
              })}
            </div>
          ))}
        </div>
      </div>
    </>
  );
}
