/** Limits of lists of names, by their names. */
import { expect } from 'vitest';
import { addColumn, addRows, putCells, rosterOf, setRoster } from '../../src/core/commands/roster';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { readList } from '../../src/core/roster/read-list';
import { jobWith } from '../support/jobs';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };
const listOf = <T>(count: number, make: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i));

/** Whether a document with a roster is taken; if not, its first sentence. */
function said(roster: object): string | null {
  const read = checkJob({ format: 15, sheet: { width: 300, height: 200 }, roster });
  return read.ok ? null : (read.sentences[0] ?? '');
}
/** The same of a layout. */
function laidSaid(layout: object): string | null {
  const read = checkJob({ format: 15, sheet: { width: 300, height: 200 }, layout });
  return read.ok ? null : (read.sentences[0] ?? '');
}
const typed = (id: string, name: string) => ({ id, kind: 'typed', name });
const rowsOf = (count: number, more: object = {}) => listOf(count, (i) => ({ id: `r${i}`, ...more }));
const withRoster = (columns: string[], rows: string[][]): Job => setRoster(jobWith([]), rosterOf(columns, rows));
const list = (text: string) => readList(new TextEncoder().encode(text));
const read = (text: string) => {
  const answer = list(text);
  if (!answer.ok) throw new Error(answer.sentence);
  return answer;
};

export const ROSTER_LIMITS = {
  rosterRows: () => {
    expect(said({ columns: [], rows: rowsOf(LIMITS.rosterRows) })).toBeNull();
    expect(said({ columns: [], rows: rowsOf(LIMITS.rosterRows + 1) })).toMatch(/rows.*2,?000/);
    limits.rosterRows = 3;
    const job = withRoster(['Name'], [['a'], ['b']]);
    expect(addRows(job, 5).roster?.rows).toHaveLength(3);
    const put = putCells(job, { row: 1, column: 0 }, [['x'], ['y'], ['z'], ['w']]);
    expect(put.job.roster?.rows.map((r) => r.cells[0])).toEqual(['a', 'x', 'y']);
    expect(put.sentence).toBe('A list has up to 3 rows: the last 2 were left out.');
    expect(putCells(job, { row: 1, column: 0 }, [['x'], ['y']]).sentence).toBeNull();
    expect(read('a\nb\nc').notes).toEqual([]);
    const long = read('a\nb\nc\nd');
    expect(long.rows).toHaveLength(3);
    expect(long.notes).toEqual(['A list has up to 3 rows: those after them were left out.']);
  },
  columns: () => {
    const columns = (count: number) => listOf(count, (i) => typed(`c${i}`, `C ${i}`));
    expect(said({ columns: columns(LIMITS.columns) })).toBeNull();
    expect(said({ columns: columns(LIMITS.columns + 1) })).toMatch(/columns/);
    limits.columns = 2;
    const job = withRoster(['A', 'B'], []);
    expect(addColumn(job, { kind: 'typed', name: 'C' })).toEqual({ job, sentence: 'A list has up to 2 columns.' });
    expect(putCells(job, { row: 0, column: 1 }, [['x', 'y', 'z']]).job.roster).toMatchObject({
      columns: [{ name: 'A' }, { name: 'B' }],
      rows: [{ cells: ['', 'x'] }],
    });
    const wide = read('a,b,c\nd,e,f');
    expect(wide.rows).toEqual([
      ['a', 'b'],
      ['d', 'e'],
    ]);
    expect(wide.notes).toEqual(['It has 3 columns; the first 2 were taken.']);
  },
  cellCharacters: () => {
    const cell = (length: number) =>
      said({ columns: [typed('c', 'C')], rows: rowsOf(1, { cells: ['x'.repeat(length)] }) });
    expect(cell(LIMITS.cellCharacters)).toBeNull();
    expect(cell(LIMITS.cellCharacters + 1)).toMatch(/cells/);
    limits.cellCharacters = 3;
    expect(putCells(withRoster(['A'], []), { row: 0, column: 0 }, [['abcd']]).job.roster?.rows[0]?.cells).toEqual([
      'abc',
    ]);
    const long = read('abc\nabcd');
    expect(long.rows).toEqual([['abc'], ['abc']]);
    expect(long.notes).toEqual(['One cell is longer than 3 characters and was cut there.']);
  },
  columnCharacters: () => {
    const column = (length: number) => said({ columns: [typed('c', 'x'.repeat(length))] });
    expect(column(LIMITS.columnCharacters)).toBeNull();
    expect(column(LIMITS.columnCharacters + 1)).toMatch(/name/);
    limits.columnCharacters = 4;
    expect(rosterOf(['abcdef', 'abcdef'], []).columns.map((c) => c.name)).toEqual(['abcd', 'ab 2']);
  },
  copiesOfRow: () => {
    const copies = (count: number) => said({ columns: [], rows: rowsOf(1, { copies: count }) });
    expect(copies(LIMITS.copiesOfRow)).toBeNull();
    expect(copies(LIMITS.copiesOfRow + 1)).toMatch(/copies/);
    expect(copies(0)).toMatch(/copies/);
  },
  laidSheets: () => {
    const place = (sheet: number) => laidSaid({ places: [{ row: 'r1', sheet, x: 0, y: 0 }] });
    expect(place(LIMITS.laidSheets - 1)).toBeNull();
    expect(place(LIMITS.laidSheets)).toMatch(/sheet/);
  },
  laidPlaces: () => {
    const places = (count: number) => laidSaid({ places: listOf(count, () => ({ row: 'r1', sheet: 0, x: 0, y: 0 })) });
    expect(places(LIMITS.laidPlaces)).toBeNull();
    expect(places(LIMITS.laidPlaces + 1)).toMatch(/places/);
  },
  offCutCorners: () => {
    const round = (count: number) =>
      listOf(count, (i) => [
        100 + 90 * Math.cos((2 * Math.PI * i) / count),
        100 + 90 * Math.sin((2 * Math.PI * i) / count),
      ]);
    const on = (count: number) => checkJob({ format: 15, sheet: { width: 200, height: 200, offCut: round(count) } });
    expect(on(LIMITS.offCutCorners).ok).toBe(true);
    expect(on(LIMITS.offCutCorners + 1).ok).toBe(false);
    expect(on(2).ok).toBe(false);
  },
  blanksAlong: () => {
    const { blanksAlong } = LIMITS;
    expect(laidSaid({ blanks: { columns: blanksAlong, rows: blanksAlong } })).toBeNull();
    expect(laidSaid({ blanks: { columns: blanksAlong + 1 } })).toMatch(/blanks/i);
    expect(laidSaid({ blanks: { rows: blanksAlong + 1 } })).toMatch(/blanks/i);
    expect(laidSaid({ blanks: { leftOut: [blanksAlong ** 2 - 1] } })).toBeNull();
    expect(laidSaid({ blanks: { leftOut: [blanksAlong ** 2] } })).toMatch(/blanks/i);
  },
  laidScale: () => {
    const scaled = (scale: number) => laidSaid({ places: [{ row: 'r', sheet: 0, turn: 0, x: 0, y: 0, scale }] });
    expect(scaled(LIMITS.laidScale)).toBeNull();
    expect(scaled(1 / LIMITS.laidScale)).toBeNull();
    expect(scaled(LIMITS.laidScale * 1.01)).toMatch(/scale/);
    expect(scaled(0.99 / LIMITS.laidScale)).toMatch(/scale/);
  },
  laidTurns: () => {
    expect(laidSaid({ turns: LIMITS.laidTurns })).toBeNull();
    expect(laidSaid({ turns: LIMITS.laidTurns + 1 })).toMatch(/turns/);
    expect(laidSaid({ turns: 0 })).toMatch(/turns/);
  },
  spacingMm: () => {
    expect(laidSaid({ spacing: LIMITS.spacingMm, margin: LIMITS.spacingMm })).toBeNull();
    expect(laidSaid({ spacing: LIMITS.spacingMm + 1 })).toMatch(/spacing/);
    expect(laidSaid({ margin: -1 })).toMatch(/margin/);
  },
  runningNumber: () => {
    const number = (start: number, step = 1) =>
      said({ columns: [{ id: 'n', kind: 'number', name: 'No', start, step }] });
    expect(number(LIMITS.runningNumber, -LIMITS.runningNumber)).toBeNull();
    expect(number(LIMITS.runningNumber + 1)).toMatch(/start/);
    expect(number(1, LIMITS.runningNumber + 1)).toMatch(/step/);
    expect(number(1, 0)).toMatch(/step/);
  },
  listBytes: () => {
    limits.listBytes = 1024 * 1024;
    expect(readList(new Uint8Array(1024 * 1024).fill(0x61))).toMatchObject({ ok: true });
    expect(readList(new Uint8Array(1024 * 1024 + 1).fill(0x61))).toEqual({
      ok: false,
      sentence: 'This list has 2 MB; up to 1 MB can be read.',
    });
  },
};
