/** The table of names: cells are typed into, a row is taken in hand, and what it comes to stands beside it. */
import { createColumnHelper, tableFeatures, useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Undo2, X } from 'lucide-react';
import { type ClipboardEvent, type CSSProperties, type KeyboardEvent, memo, useEffect, useMemo, useRef } from 'react';
import { flushSync } from 'react-dom';
import { addRows, editRows, putCells, removeRows, setCell } from '@/core/commands/roster';
import type { Column, Roster, RosterRow } from '@/core/document/schema';
import type { RowSeen } from '@/core/job/rows';
import { LIMITS } from '@/core/limits';
import { cellOf } from '@/core/roster/fields';
import { likeTheOthers } from '@/core/roster/kept';
import { readPasted } from '@/core/roster/read-list';
import { openGroups } from '@/core/rules/groups';
import { keepable } from '@/core/units/text';
import { today } from '@/ui/when';
import { SeverityMark } from '../finding-row';
import { dispatchDocument, say, takeRow, useBench } from '../store';
import { ColumnHead } from './column-head';
import { cellId, focusCell, focusNow } from './focus-cell';
import styles from './names.module.css';
import { useRows } from './rows';
import { severityOf } from './summary';

const ROW_PX = 30;
const BEYOND = 10;

const features = tableFeatures({});
type Listed = { readonly row: RosterRow; readonly nth: number };
const helper = createColumnHelper<typeof features, Listed>();

/** What was found about a row, in one line. */
function wordsOf(seen: RowSeen | undefined): string {
  const open = openGroups(seen?.findings ?? []);
  const [first] = open;
  if (!first) return '';
  return open.length === 1 ? first.sentence : `${first.sentence} And ${open.length - 1} more.`;
}

/** Several cells pasted at a place come in the place of those there; one cell goes into its field like any words. */
function paste(event: ClipboardEvent, nth: number, column: number): void {
  const table = readPasted(keepable(event.clipboardData.getData('text/plain')));
  if (table.length <= 1 && (table[0]?.length ?? 0) <= 1) return;
  event.preventDefault();
  const { document } = useBench.getState();
  const done = putCells(document, { row: nth, column }, table);
  dispatchDocument(() => done.job);
  say(done.sentence);
}

/** A row below the last, which is there once something is typed or pasted into it. */
function NextRow({ roster, top, go }: { roster: Roster; top: number; go: RowProps['go'] }) {
  const nth = roster.rows.length;
  if (nth >= LIMITS.rosterRows) return null;
  const type = (column: number, text: string) => {
    // The row is there before the next key comes in, and goes on being typed into.
    flushSync(() =>
      dispatchDocument((job) => {
        const more = addRows(job, 1);
        const row = more.roster?.rows[nth];
        return row ? setCell(more, row.id, column, keepable(text)) : more;
      }),
    );
    focusNow(nth, column);
  };
  const first = roster.columns.findIndex((column) => column.kind === 'typed');
  return (
    <tr className={styles.row} style={{ top }} data-next>
      <th scope="row" />
      {roster.columns.map((column, i) => (
        <td key={column.id}>
          {column.kind === 'typed' && (
            <input
              id={cellId(nth, i)}
              aria-label={`${column.name}, a further row`}
              placeholder={i === first ? 'Type or paste names' : undefined}
              value=""
              autoComplete="off"
              spellCheck={false}
              onPaste={(e) => paste(e, nth, i)}
              onKeyDown={(e) => {
                if (e.key === 'ArrowUp') {
                  e.preventDefault();
                  go(nth - 1, i);
                }
              }}
              onChange={(e) => type(i, e.target.value)}
            />
          )}
        </td>
      ))}
    </tr>
  );
}

type RowProps = {
  readonly row: RosterRow;
  readonly nth: number;
  readonly columns: Roster['columns'];
  readonly seen: RowSeen | undefined;
  readonly inHand: boolean;
  readonly go: (nth: number, column: number) => void;
  readonly top: number;
};

const TableRow = memo(function TableRow({ row, nth, columns, seen, inHand, go, top }: RowProps) {
  const severity = row.out ? null : severityOf(seen);
  const words = row.out ? 'Left out' : wordsOf(seen);
  const onKey = (event: KeyboardEvent<HTMLInputElement>, column: number) => {
    const down = event.key === 'ArrowDown' || (event.key === 'Enter' && !event.shiftKey);
    const up = event.key === 'ArrowUp' || (event.key === 'Enter' && event.shiftKey);
    if (!down && !up) return;
    event.preventDefault();
    go(nth + (down ? 1 : -1), column);
  };
  return (
    <tr className={styles.row} data-hand={inHand} data-out={row.out} style={{ top }} aria-rowindex={nth + 2}>
      <th scope="row">
        <button
          type="button"
          className={styles.number}
          aria-pressed={inHand}
          aria-label={`Row ${nth + 1} on the sheet`}
          title={inHand ? 'This row is on the sheet' : 'Put this row on the sheet'}
          onClick={() => takeRow(row.id)}
        >
          {nth + 1}
        </button>
      </th>
      {columns.map((column, i) => (
        <td key={column.id} data-typed={column.kind === 'typed'}>
          {column.kind === 'typed' ? (
            <input
              id={cellId(nth, i)}
              aria-label={`${column.name}, row ${nth + 1}`}
              value={row.cells[i] ?? ''}
              maxLength={LIMITS.cellCharacters}
              dir="auto"
              autoComplete="off"
              spellCheck={false}
              onFocus={() => takeRow(row.id)}
              onPaste={(e) => paste(e, nth, i)}
              onKeyDown={(e) => onKey(e, i)}
              onChange={(e) =>
                dispatchDocument((job) => setCell(job, row.id, i, keepable(e.target.value)), `cell:${row.id}:${i}`)
              }
            />
          ) : (
            <span className="nf-figure">{cellOf(column, { index: i, row, nth }, { today: today() })}</span>
          )}
        </td>
      ))}
      <td className={styles.copies}>
        <input
          aria-label={`Copies, row ${nth + 1}`}
          inputMode="numeric"
          value={row.copies}
          onChange={(e) => {
            const copies = Number(e.target.value.replace(/\D/g, '').slice(-4));
            if (copies >= 1 && copies <= LIMITS.copiesOfRow)
              dispatchDocument(
                (job) =>
                  editRows(job, [row.id], (r) => {
                    r.copies = copies;
                  }),
                `copies:${row.id}`,
              );
          }}
        />
      </td>
      <td className={styles.found} title={words}>
        {severity && <SeverityMark severity={severity} isLeft={false} />}
        <span className="text-truncate">{words}</span>
      </td>
      <td className={styles.ends}>
        {row.own && (
          <button
            type="button"
            title="This row has settings of its own. Press to make it like the others again"
            aria-label={`Row ${nth + 1} like the others`}
            className={styles.own}
            onClick={() => dispatchDocument((job) => likeTheOthers(job, row.id))}
          >
            its own <Undo2 size={11} aria-hidden="true" />
          </button>
        )}
        <button
          type="button"
          className={styles.small}
          onClick={() =>
            dispatchDocument((job) =>
              editRows(job, [row.id], (r) => {
                r.out = !r.out;
              }),
            )
          }
        >
          {row.out ? 'take in' : 'leave out'}
        </button>
        <button
          type="button"
          className={styles.small}
          aria-label={`Take row ${nth + 1} out of the list`}
          title="Take this row out of the list"
          onClick={() => dispatchDocument((job) => removeRows(job, [row.id]))}
        >
          <X size={13} />
        </button>
      </td>
    </tr>
  );
});

/** The table. */
export function NamesTable({ roster, inHand }: { roster: Roster; inHand: number }) {
  // The virtual list changes in place, which the compiler can't see.
  'use no memo';
  const seen = useRows((s) => s.seen);
  const scroller = useRef<HTMLDivElement>(null);
  const data = useMemo(() => roster.rows.map((row, nth) => ({ row, nth })), [roster.rows]);
  const columns = useMemo(
    () => roster.columns.map((column: Column) => helper.display({ id: column.id, meta: column })),
    [roster.columns],
  );
  const table = useTable({ features, columns, data, getRowId: ({ row }) => row.id });
  const { rows } = table.getRowModel();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: BEYOND,
  });
  const go = (nth: number, column: number) => {
    if (nth < 0 || nth > roster.rows.length) return;
    // One that is not in sight is brought there first.
    if (nth < roster.rows.length) virtual.scrollToIndex(nth);
    focusCell(nth, column);
  };
  const goNow = useRef(go);
  useEffect(() => {
    goNow.current = go;
  });
  const steady = useMemo(() => (nth: number, column: number) => goNow.current(nth, column), []);
  // A row that is taken in hand elsewhere comes into sight.
  useEffect(() => {
    if (inHand >= 0) virtual.scrollToIndex(inHand, { align: 'auto' });
  }, [inHand, virtual]);
  return (
    <div className={styles.scroller} ref={scroller}>
      <table
        className={styles.table}
        aria-label="Names"
        aria-rowcount={rows.length + 1}
        style={{ '--columns': roster.columns.length } as CSSProperties}
      >
        <thead>
          <tr>
            <th scope="col" className={styles.number}>
              <span className="visually-hidden">Row</span>
            </th>
            {roster.columns.map((column, i) => (
              <ColumnHead key={column.id} column={column} index={i} />
            ))}
            <th scope="col" className={styles.copies}>
              Copies
            </th>
            <th scope="col">To look at</th>
            <th scope="col">
              <span className="visually-hidden">The row</span>
            </th>
          </tr>
        </thead>
        <tbody style={{ height: virtual.getTotalSize() + ROW_PX }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const listed = rows[index]?.original;
            return (
              listed && (
                <TableRow
                  key={listed.row.id}
                  row={listed.row}
                  nth={listed.nth}
                  columns={roster.columns}
                  seen={seen.get(listed.row.id)}
                  inHand={listed.nth === inHand}
                  go={steady}
                  top={start}
                />
              )
            );
          })}
          <NextRow roster={roster} top={virtual.getTotalSize()} go={steady} />
        </tbody>
      </table>
    </div>
  );
}
