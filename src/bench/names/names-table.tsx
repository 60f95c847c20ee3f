/** The table of names: cells are typed into, a row is taken in hand, and what it comes to stands beside it. */
import { createColumnHelper, tableFeatures, useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type CSSProperties, useEffect, useMemo, useRef } from 'react';
import { nextRow } from '@/core/commands/roster';
import type { Column, Roster, RosterRow } from '@/core/document/schema';
import { ColumnHead } from './column-head';
import { focusCell } from './focus-cell';
import styles from './names.module.css';
import { NamesRow } from './names-row';
import { useRows } from './rows';

const ROW_PX = 30;
const BEYOND = 10;

const features = tableFeatures({});
type Listed = { readonly row: RosterRow; readonly nth: number };
const helper = createColumnHelper<typeof features, Listed>();

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
  // In the same list as those that are there: typed into, it becomes one of them without being drawn anew.
  const next = useMemo(() => nextRow(roster), [roster]);
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
          {[
            ...virtual.getVirtualItems().map(({ index, start }) => {
              const listed = rows[index]?.original;
              return (
                listed && (
                  <NamesRow
                    key={listed.row.id}
                    row={listed.row}
                    nth={listed.nth}
                    columns={roster.columns}
                    seen={seen.get(listed.row.id)}
                    inHand={listed.nth === inHand}
                    go={steady}
                    top={start}
                    offered={null}
                  />
                )
              );
            }),
            next && (
              <NamesRow
                key={next.id}
                row={next}
                nth={rows.length}
                columns={roster.columns}
                seen={undefined}
                inHand={false}
                go={steady}
                top={virtual.getTotalSize()}
                offered="Type or paste names"
              />
            ),
          ]}
        </tbody>
      </table>
    </div>
  );
}
