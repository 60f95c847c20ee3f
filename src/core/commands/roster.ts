/** What can be done to a job's roster: its columns, rows and cells; fields in words follow. */
import type { Column, Job, Roster, RosterRow } from '../document/schema';
import { LIMITS } from '../limits';
import { FIELD_MARKS } from '../schema/roster';
import { cutTo } from '../units/text';
import { changed, type Refusable } from './changed';

/** Rows and columns as they are typed or read: each cell as text. */
export type Table = readonly (readonly string[])[];

/** A column before it has an id. */
export type NewColumn = Column extends infer C ? (C extends Column ? Omit<C, 'id'> : never) : never;

/** An id that none of those taken is. */
function idsFrom(stem: string, taken: Iterable<string>): () => string {
  const all = new Set(taken);
  let n = 0;
  return () => {
    for (;;) {
      const id = `${stem}${++n}`;
      if (!all.has(id)) {
        all.add(id);
        return id;
      }
    }
  };
}

/** A name that a column can have and no other has: without marks of fields, a number behind it where it is taken. */
export function freeColumnName(wanted: string, taken: readonly string[]): string {
  const plain = wanted.replace(new RegExp(FIELD_MARKS, 'g'), ' ').replace(/\s+/g, ' ').trim();
  const stem = cutTo(plain, LIMITS.columnCharacters).trim() || 'Column';
  const used = new Set(taken.map((name) => name.toLowerCase()));
  for (let n = 1; ; n++) {
    const end = n === 1 ? '' : ` ${n}`;
    const name = `${cutTo(stem, LIMITS.columnCharacters - end.length).trim()}${end}`;
    if (!used.has(name.toLowerCase())) return name;
  }
}

/** A cell as a roster keeps it. */
const asCell = (text: string): string => cutTo(text, LIMITS.cellCharacters);

const emptyRow = (id: string, cells: readonly string[] = []): RosterRow => ({
  id,
  cells: cells.map(asCell),
  copies: 1,
  out: false,
  own: null,
});

/** A roster of names with columns that are called so; rows beyond the limit are left out. */
export function rosterOf(columns: readonly string[], rows: Table): Roster {
  const columnId = idsFrom('c', []);
  const rowId = idsFrom('r', []);
  const names: string[] = [];
  for (const wanted of columns.slice(0, LIMITS.columns)) names.push(freeColumnName(wanted, names));
  return {
    columns: names.map((name) => ({ id: columnId(), kind: 'typed', name })),
    rows: rows.slice(0, LIMITS.rosterRows).map((cells) => emptyRow(rowId(), cells.slice(0, names.length))),
  };
}

/** Give a job a roster, in the place of the one it has. */
export const setRoster = (job: Job, roster: Roster | null): Job => (job.roster === roster ? job : { ...job, roster });

const inRoster = (job: Job, recipe: (roster: Roster, job: Job) => void): Job =>
  job.roster ? changed(job, (draft) => recipe(draft.roster as Roster, draft)) : job;

/** Put a column in behind the others; a sentence where there is no room. */
export function addColumn(job: Job, column: NewColumn): Refusable {
  if ((job.roster?.columns.length ?? 0) >= LIMITS.columns)
    return { job, sentence: `A list has up to ${LIMITS.columns} columns.` };
  const next = inRoster(job, ({ columns }) => {
    const id = idsFrom(
      'c',
      columns.map((c) => c.id),
    )();
    const name = freeColumnName(
      column.name,
      columns.map((c) => c.name),
    );
    columns.push({ ...column, id, name } as Column);
  });
  return { job: next, sentence: null };
}

/** Change what a column is by its settings; its name and cells stay. */
export const editColumn = (job: Job, columnId: string, recipe: (column: Column) => void): Job =>
  inRoster(job, ({ columns }) => {
    const column = columns.find((c) => c.id === columnId);
    if (column) recipe(column);
  });

/** Call a column otherwise; fields in words go on standing for it. `rename` says what words become. */
export function renameColumn(
  job: Job,
  columnId: string,
  wanted: string,
  rename: (text: string, from: string, to: string) => string,
): Job {
  return inRoster(job, (roster, draft) => {
    const column = roster.columns.find((c) => c.id === columnId);
    if (!column) return;
    const from = column.name;
    const name = freeColumnName(
      wanted,
      roster.columns.filter((c) => c !== column).map((c) => c.name),
    );
    if (wanted.trim() === '' || name === from) return;
    column.name = name;
    draft.title = rename(draft.title, from, name);
    for (const part of draft.parts) {
      part.name = rename(part.name, from, name);
      for (const member of part.members) if (member.kind === 'lettering') member.text = rename(member.text, from, name);
    }
    for (const { own } of roster.rows)
      for (const { members } of own?.parts ?? [])
        for (const { set } of members) if (typeof set.text === 'string') set.text = rename(set.text, from, name);
  });
}

/** Take a column out, with its cells; fields that stood for it stay in the words, and are found. */
export const removeColumn = (job: Job, columnId: string): Job =>
  inRoster(job, ({ columns, rows }) => {
    const at = columns.findIndex((c) => c.id === columnId);
    if (at < 0) return;
    columns.splice(at, 1);
    for (const row of rows) row.cells.splice(at, 1);
  });

/** The empty row that is put in next, by `addRows`; null where the roster is full. */
export function nextRow({ rows }: Roster): RosterRow | null {
  if (rows.length >= LIMITS.rosterRows) return null;
  const taken = rows.map((row) => row.id);
  return emptyRow(idsFrom('r', taken)());
}

/** Put empty rows in before a place, behind all others where it is left out. */
export const addRows = (job: Job, count: number, before?: number): Job =>
  inRoster(job, ({ rows }) => {
    const id = idsFrom(
      'r',
      rows.map((r) => r.id),
    );
    const room = Math.max(0, Math.min(count, LIMITS.rosterRows - rows.length));
    rows.splice(before ?? rows.length, 0, ...Array.from({ length: room }, () => emptyRow(id())));
  });

/** Type a cell. */
export const setCell = (job: Job, rowId: string, column: number, text: string): Job =>
  inRoster(job, ({ rows }) => {
    const row = rows.find((r) => r.id === rowId);
    if (!row || (row.cells[column] ?? '') === text) return;
    while (row.cells.length <= column) row.cells.push('');
    row.cells[column] = asCell(text);
  });

/** Where a table is put in: the row and the column of its first cell. */
export type CellPlace = { readonly row: number; readonly column: number };

/**
 * Put a table in over the cells there are; rows and typed columns are put in where it reaches beyond them. Cells that fall on running
 * numbers and dates are passed over. With what did not fit.
 */
export function putCells(job: Job, { row, column }: CellPlace, table: Table): Refusable {
  if (!job.roster || table.length === 0) return { job, sentence: null };
  let lost = 0;
  const next = inRoster(job, ({ columns, rows }) => {
    const wide = Math.min(LIMITS.columns, column + table.reduce((most, cells) => Math.max(most, cells.length), 0));
    const columnId = idsFrom(
      'c',
      columns.map((c) => c.id),
    );
    while (columns.length < wide)
      columns.push({
        id: columnId(),
        kind: 'typed',
        name: freeColumnName(
          'Column',
          columns.map((c) => c.name),
        ),
      });
    const id = idsFrom(
      'r',
      rows.map((r) => r.id),
    );
    const room = Math.min(LIMITS.rosterRows, row + table.length);
    lost = row + table.length - room;
    while (rows.length < room) rows.push(emptyRow(id()));
    table.slice(0, room - row).forEach((cells, i) => {
      const into = rows[row + i] as RosterRow;
      cells.slice(0, wide - column).forEach((text, k) => {
        if (columns[column + k]?.kind !== 'typed') return;
        while (into.cells.length <= column + k) into.cells.push('');
        into.cells[column + k] = asCell(text);
      });
    });
  });
  const most = LIMITS.rosterRows.toLocaleString('en');
  return {
    job: next,
    sentence: lost > 0 ? `A list has up to ${most} rows: the last ${lost.toLocaleString('en')} were left out.` : null,
  };
}

/** Change rows, by their ids. */
export function editRows(job: Job, rowIds: readonly string[], recipe: (row: RosterRow) => void): Job {
  const ids = new Set(rowIds);
  return inRoster(job, ({ rows }) => {
    for (const row of rows) if (ids.has(row.id)) recipe(row);
  });
}

/** Take rows out. */
export function removeRows(job: Job, rowIds: readonly string[]): Job {
  const ids = new Set(rowIds);
  return inRoster(job, (roster) => {
    roster.rows = roster.rows.filter((row) => !ids.has(row.id));
  });
}

/** Put a row elsewhere in the list. */
export const moveRow = (job: Job, rowId: string, to: number): Job =>
  inRoster(job, ({ rows }) => {
    const from = rows.findIndex((row) => row.id === rowId);
    if (from >= 0) rows.splice(Math.max(0, Math.min(to, rows.length - 1)), 0, ...rows.splice(from, 1));
  });

/** Order rows by what is typed in a column, as people do: numbers by their size, accents beside their letters. */
export function sortRows(job: Job, column: number): Job {
  const order = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
  return inRoster(job, (roster) => {
    roster.rows = roster.rows
      .map((row, i) => ({ row, i }))
      .sort((a, b) => order.compare(a.row.cells[column] ?? '', b.row.cells[column] ?? '') || a.i - b.i)
      .map(({ row }) => row);
  });
}
