/** What is done to a roster: columns, rows, cells. */
import { expect, test } from 'vitest';
import {
  addColumn,
  addRows,
  editColumn,
  editRows,
  freeColumnName,
  moveRow,
  nextRow,
  putCells,
  removeColumn,
  removeRows,
  renameColumn,
  rosterOf,
  setCell,
  setRoster,
  sortRows,
} from '../../src/core/commands/roster';
import type { Job, Lettering, Part } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { beginRoster } from '../../src/core/roster/begin';
import { setFieldCase } from '../../src/core/roster/case';
import { renamedField } from '../../src/core/roster/fields';
import { jobWith, lettering, partOf } from '../support/jobs';

const job = (): Job =>
  setRoster(
    jobWith([partOf([lettering('To ‹Name›, ‹bed›')])], { title: '‹Name›' }),
    rosterOf(['Name', 'Bed'], [['Rowan', '10'], ['Åse', '9'], ['ivy']]),
  );
const cellsOf = (of: Job) => of.roster?.rows.map((row) => row.cells);
const wordsOf = (of: Job) => (of.parts[0] as Part).members.map((m) => (m as Lettering).text)[0];

test('a list begins with the words there are in its first row, and a field in their place', () => {
  const begun = beginRoster(jobWith([partOf([lettering('Alder\nLane')])]), 'part', 'words');
  expect(wordsOf(begun)).toBe('‹Name›');
  expect(cellsOf(begun)).toEqual([['Alder\nLane']]);
  const named = beginRoster(jobWith([partOf([lettering('Ivy')], { name: 'Ivy' })]), 'part', 'words');
  expect(named.parts[0]?.name).toBe('‹Name›');
  expect(beginRoster(begun, 'part', 'words')).toBe(begun);
  // Without words its one row is the job as it is, to be made as often as one wants.
  expect(cellsOf(beginRoster(jobWith([]), null, null))).toEqual([['']]);
});

test('names of columns: each once, without marks, no longer than they may be', () => {
  expect(freeColumnName(' ‹Name›\nof it ', [])).toBe('Name of it');
  expect(freeColumnName('name', ['Name'])).toBe('name 2');
  expect(freeColumnName('', [])).toBe('Column');
});

test('a column is called otherwise: fields in words, in the title and in words of a row’s own go on standing for it', () => {
  const own = editRows(job(), ['r2'], (row) => {
    row.own = {
      parts: [{ id: 'part', set: {}, steps: [], members: [{ id: 'words', set: { text: 'Dear ‹NAME›' } }] }],
      leftAsIs: [],
    };
  });
  const renamed = renameColumn(own, 'c1', 'Whom', renamedField);
  expect(renamed.roster?.columns[0]?.name).toBe('Whom');
  expect(wordsOf(renamed)).toBe('To ‹Whom›, ‹bed›');
  expect(renamed.title).toBe('‹Whom›');
  expect(renamed.roster?.rows[1]?.own?.parts[0]?.members[0]?.set.text).toBe('Dear ‹Whom›');
  expect(renameColumn(job(), 'c1', 'Bed', renamedField).roster?.columns[0]?.name).toBe('Bed 2');
  expect(renameColumn(job(), 'c1', ' ', renamedField).roster?.columns[0]?.name).toBe('Name');
});

test('a column that is taken out takes its cells along, and leaves the field to be found', () => {
  const without = removeColumn(job(), 'c1');
  expect(cellsOf(without)).toEqual([['10'], ['9'], []]);
  expect(wordsOf(without)).toBe('To ‹Name›, ‹bed›');
});

test('columns are put in behind the others, with a name and an id of their own', () => {
  const more = addColumn(job(), { kind: 'number', name: 'Name', start: 1, step: 1, digits: 2 }).job;
  expect(more.roster?.columns[2]).toEqual({ id: 'c3', kind: 'number', name: 'Name 2', start: 1, step: 1, digits: 2 });
  const edited = editColumn(more, 'c3', (column) => {
    if (column.kind === 'number') column.step = 5;
  });
  expect(edited.roster?.columns[2]).toMatchObject({ step: 5 });
});

test('cells are typed; what is the same changes nothing', () => {
  const before = job();
  expect(setCell(before, 'r1', 0, 'Rowan')).toBe(before);
  expect(cellsOf(setCell(before, 'r3', 1, '7'))?.[2]).toEqual(['ivy', '7']);
  expect(setCell(before, 'gone', 0, 'x')).toBe(before);
});

test('a table that is put in reaches beyond the rows and columns there are; other columns than typed ones are passed over', () => {
  const numbered = addColumn(job(), { kind: 'number', name: 'No', start: 1, step: 1, digits: 1 }).job;
  const { job: put, sentence } = putCells(numbered, { row: 2, column: 1 }, [
    ['a', 'b', 'c'],
    ['d', 'e', 'f'],
  ]);
  expect(sentence).toBeNull();
  expect(put.roster?.columns.map((c) => c.name)).toEqual(['Name', 'Bed', 'No', 'Column']);
  expect(cellsOf(put)).toEqual([
    ['Rowan', '10'],
    ['Åse', '9'],
    ['ivy', 'a', '', 'c'],
    ['', 'd', '', 'f'],
  ]);
  expect(new Set(put.roster?.rows.map((row) => row.id)).size).toBe(4);
});

test('the row that is offered below the last is the one put in next', () => {
  for (const rows of [job(), removeRows(job(), ['r2']), removeRows(job(), ['r1', 'r2', 'r3'])]) {
    const roster = rows.roster as NonNullable<Job['roster']>;
    expect(addRows(rows, 1).roster?.rows.at(-1)).toEqual(nextRow(roster));
  }
  expect(nextRow(rosterOf(['Name'], Array<string[]>(LIMITS.rosterRows).fill(['x'])))).toBeNull();
});

test('rows are put in, taken out, put elsewhere, and put in order as people do', () => {
  expect(cellsOf(addRows(job(), 2, 1))).toEqual([['Rowan', '10'], [], [], ['Åse', '9'], ['ivy']]);
  expect(cellsOf(removeRows(job(), ['r1', 'r3']))).toEqual([['Åse', '9']]);
  expect(cellsOf(moveRow(job(), 'r1', 9))?.map((c) => c[0])).toEqual(['Åse', 'ivy', 'Rowan']);
  expect(cellsOf(sortRows(job(), 0))?.map((c) => c[0])).toEqual(['Åse', 'ivy', 'Rowan']);
  expect(cellsOf(sortRows(job(), 1))?.map((c) => c[1])).toEqual([undefined, '9', '10']);
});

test('words with fields in capitals: plain words, and the cells of the columns they take', () => {
  const capitals = setFieldCase(job(), 'part', 'words', 'upper');
  expect(wordsOf(capitals)).toBe('TO ‹Name›, ‹bed›');
  expect(cellsOf(capitals)?.map((c) => c[0])).toEqual(['ROWAN', 'ÅSE', 'IVY']);
  const plain = jobWith([partOf([lettering('Alder')])]);
  expect(setFieldCase(plain, 'part', 'words', 'upper')).toBe(plain);
});

test('a job without a roster stays as it is', () => {
  const plain = jobWith([]);
  for (const done of [
    addRows(plain, 1),
    setCell(plain, 'r1', 0, 'x'),
    putCells(plain, { row: 0, column: 0 }, [['x']]).job,
    removeRows(plain, ['r1']),
    sortRows(plain, 0),
  ])
    expect(done).toBe(plain);
});
