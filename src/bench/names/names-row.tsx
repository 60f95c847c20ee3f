/** A row of the table of names: its cells are typed into, and what it comes to stands beside them. */
import { Undo2, X } from 'lucide-react';
import { type ClipboardEvent, type KeyboardEvent, memo } from 'react';
import { addRows, editRows, putCells, removeRows, setCell } from '@/core/commands/roster';
import type { Roster, RosterRow } from '@/core/document/schema';
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
import { cellId } from './focus-cell';
import styles from './names.module.css';
import { severityOf } from './summary';

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

type RowProps = {
  readonly row: RosterRow;
  readonly nth: number;
  readonly columns: Roster['columns'];
  readonly seen: RowSeen | undefined;
  readonly inHand: boolean;
  readonly go: (nth: number, column: number) => void;
  readonly top: number;
  /** Words in its first field while it is only offered below the last: it is there once something is typed into it. */
  readonly offered: string | null;
};

/** Type into a cell; a row that was only offered is there from then on, and in hand. */
function type(row: RosterRow, column: number, text: string): void {
  const isNew = !useBench.getState().document.roster?.rows.some(({ id }) => id === row.id);
  dispatchDocument(
    (job) => setCell(isNew ? addRows(job, 1) : job, row.id, column, keepable(text)),
    `cell:${row.id}:${column}`,
  );
  if (isNew) takeRow(row.id);
}

/** How often a row is made, what was found about it, and what can be done with it. */
function RowEnds({ row, nth, seen }: Pick<RowProps, 'row' | 'nth' | 'seen'>) {
  const severity = row.out ? null : severityOf(seen);
  const words = row.out ? 'Left out' : wordsOf(seen);
  return (
    <>
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
    </>
  );
}

/** One row of the table. The one offered below the last keeps its field from its first key on, so that no key is lost. */
export const NamesRow = memo(function NamesRow(props: RowProps) {
  const { row, nth, columns, seen, inHand, go, top, offered } = props;
  const first = columns.findIndex((column) => column.kind === 'typed');
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
        {offered === null && (
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
        )}
      </th>
      {columns.map((column, i) => (
        <td key={column.id} data-typed={column.kind === 'typed'}>
          {column.kind === 'typed' ? (
            <input
              id={cellId(nth, i)}
              aria-label={`${column.name}, ${offered === null ? `row ${nth + 1}` : 'a further row'}`}
              placeholder={(i === first && offered) || undefined}
              value={row.cells[i] ?? ''}
              maxLength={LIMITS.cellCharacters}
              dir="auto"
              autoComplete="off"
              spellCheck={false}
              onFocus={() => offered === null && takeRow(row.id)}
              onPaste={(e) => paste(e, nth, i)}
              onKeyDown={(e) => onKey(e, i)}
              onChange={(e) => type(row, i, e.target.value)}
            />
          ) : (
            offered === null && (
              <span className="nf-figure">{cellOf(column, { index: i, row, nth }, { today: today() })}</span>
            )
          )}
        </td>
      ))}
      {offered === null && <RowEnds row={row} nth={nth} seen={seen} />}
    </tr>
  );
});
