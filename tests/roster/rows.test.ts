/** Rows of a roster: prepared like jobs of their own, remembered, mended, written. */
import { describe, expect, test, vi } from 'vitest';
import { changed } from '../../src/core/commands/changed';
import { newLayout, setLayout, setPlaces } from '../../src/core/commands/layout';
import { editRows, setCell } from '../../src/core/commands/roster';
import { setWords } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { apart, packed, rowFiles, rowList } from '../../src/core/job/row-files';
import { fieldFindings, type RowDone, RowsSeen } from '../../src/core/job/rows';
import { finished } from '../../src/core/memo';
import { jobInRow } from '../../src/core/roster/in-row';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';
import { NAME_JOBS, namesFor, rosterOfNames } from '../support/names';
import { inFull } from '../support/scale';

const filling = { today: '2026-11-30' };
const FORMATS = ['svg', 'dxf', 'pdf', 'hpgl'] as const;
const textOf = (bytes: Uint8Array) => Buffer.from(bytes).toString('latin1');

test.for(Object.entries(NAME_JOBS))(
  'files of a row are byte for byte those of a job of its own: %s',
  { tags: 'slow' },
  ([, make]) => {
    const names = namesFor(inFull ? 500 : 30);
    const job = make('‹Name›', { roster: rosterOfNames(names) });
    const evaluator = new Evaluator(wasmEngine);
    const made = finished(
      rowFiles(job, {
        filling,
        rowIds: null,
        scope: { partIds: null },
        write: (one, result, scope) => makeFiles(one, result, [...FORMATS], { ...scope, row: '' }),
        evaluator,
        faces,
      }),
    );
    expect(made.refused).toEqual([]);
    expect(made.rows).toHaveLength(names.length);
    let written = 0;
    names.forEach((name, i) => {
      const single = make(name.trim());
      // Its own evaluator: nothing is shared with the rows.
      const result = new Evaluator(wasmEngine).evaluate(single, faces);
      const alone = finished(makeFiles(single, result, [...FORMATS], { partIds: null }));
      expect(made.rows[i]?.files.map((f) => textOf(f.bytes))).toEqual(alone.files.map((f) => textOf(f.bytes)));
      written += alone.files.length;
    });
    expect(written).toBeGreaterThan(3 * names.length);
  },
);

/** Three names, and what looking them over told. */
function looking(job: Job, seen = new RowsSeen(), evaluator = new Evaluator(wasmEngine)) {
  const evaluated = vi.spyOn(evaluator, 'steps');
  const look = (now: Job, about = '') => {
    evaluated.mockClear();
    const told: RowDone[] = [];
    const steps = seen.steps(now, { filling, about, tell: (done) => told.push(done), evaluator, faces });
    const progress: number[] = [];
    for (let step = steps.next(); !step.done; step = steps.next()) progress.push(step.value.done / step.value.of);
    return { told, evaluated: evaluated.mock.calls.length, progress };
  };
  return { look, first: look(job) };
}
const three = (): Job =>
  jobWith([partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 10 } })])], {
    roster: rosterOfNames(['Rowan', 'Bo', 'ij']),
  });

describe('looking rows over', () => {
  test('each is told with its picture, findings, size and whether it is one piece', () => {
    const { told, progress } = looking(three()).first;
    expect(told.map(({ rowId, seen }) => [rowId, seen.isOnePiece])).toEqual([
      ['r0', false],
      ['r1', false],
      ['r2', false],
    ]);
    expect(told.every(({ seen }) => seen.picture.shapes.length > 0 && (seen.size?.width ?? 0) > 5)).toBe(true);
    expect(told[2]?.seen.findings.map((f) => f.code)).toContain('loose');
    expect(progress.at(-1)).toBe(1);
    expect(progress).toEqual([...progress].sort((a, b) => a - b));
  });

  test('what a change does not hang on is remembered; going back is too', () => {
    const job = three();
    const { look, first } = looking(job);
    expect(first.evaluated).toBe(3);
    expect(look(job)).toMatchObject({ evaluated: 0, told: { length: 3 } });
    const typed = setCell(job, 'r1', 0, 'Bob');
    expect(look(typed).evaluated).toBe(1);
    // The same names in another order are the same.
    expect(look(changed(typed, (draft) => void draft.roster?.rows.reverse())).evaluated).toBe(0);
    const moved = { ...typed, sheet: { ...typed.sheet, width: 250 } };
    expect(look(moved).evaluated).toBe(3);
    expect(look(typed).evaluated).toBe(0);
    // Another typeface at hand is another job.
    expect(look(typed, 'more').evaluated).toBe(3);
  });

  test('a row of its own is another, and one that is left out is none', () => {
    const job = three();
    const { look } = looking(job);
    const own = editRows(job, ['r0'], (row) => {
      row.own = { parts: [{ id: 'part', set: { hangsTogether: 'no' }, members: [], steps: [] }], leftAsIs: [] };
    });
    const { told, evaluated } = look(own);
    expect(evaluated).toBe(1);
    expect(told[0]?.seen.isOnePiece).toBe(true);
    const out = editRows(job, ['r1'], (row) => {
      row.out = true;
    });
    expect(look(out).told.map((d) => d.rowId)).toEqual(['r0', 'r2']);
    // It is looked over anew when it is taken in again: what is not there is not kept.
    expect(look(job).evaluated).toBe(1);
  });

  test('no roster, no rows', () => {
    expect(looking({ ...three(), roster: null }).first).toMatchObject({ told: [], evaluated: 0 });
  });
});

test('an empty cell and a field without a column are found in their row, and can be left', () => {
  const job = jobWith([partOf([lettering('‹Name›\n‹Bed›')])], { roster: rosterOfNames(['Rowan', ' ']) });
  const said = (nth: number, of = job) =>
    fieldFindings(of, nth, filling).map((f) => [f.code, f.severity, f.sentence, f.leftReason]);
  expect(said(0)).toEqual([['missing-column', 'fault', 'There is no column “Bed” for ‹Bed›.', null]]);
  expect(said(1)).toEqual([
    ['missing-column', 'fault', 'There is no column “Bed” for ‹Bed›.', null],
    ['empty-cell', 'caution', '“Name” is empty in this row.', null],
  ]);
  const [, empty] = fieldFindings(job, 1, filling);
  const left = editRows(job, ['r1'], (row) => {
    row.own = { parts: [], leftAsIs: [{ finding: empty?.key ?? '', reason: 'a blank one' }] };
  });
  expect(said(1, left)[1]?.[3]).toBe('a blank one');
  expect(fieldFindings({ ...job, roster: null }, 0, filling)).toEqual([]);
  expect(fieldFindings(job, 7, filling)).toEqual([]);
});

describe('files of rows', () => {
  const bytes = new Uint8Array([1]);
  const row = (nth: number, ...names: string[]) => ({
    rowId: `r${nth}`,
    nth,
    files: names.map((name) => ({ name, bytes })),
  });

  test('names that rows share are told apart, whatever their capitals', () => {
    expect(
      apart([row(0, 'a.svg', 'a.dxf'), row(1, 'A.svg'), row(2, 'a.svg', 'a_2.svg')]).map((r) =>
        r.files.map((f) => f.name),
      ),
    ).toEqual([['a.svg', 'a.dxf'], ['A_2.svg'], ['a_3.svg', 'a_2_2.svg']]);
  });

  test('the list says what is where; cells that begin like a formula are made harmless', () => {
    const job = jobWith([], { roster: rosterOfNames(['=1+1', 'Alder, "Lane"', '@x', '+1', '-Ivy']), title: 'Tags' });
    const list = rowList(job, [row(0, 'a.svg'), row(1, 'b.svg', 'b.dxf'), row(2), row(3), row(4)], filling);
    expect(list.name).toBe('tags_list.csv');
    expect(new TextDecoder('utf-8', { ignoreBOM: true }).decode(list.bytes)).toBe(
      '\uFEFFNo.,Name,Copies,Files\r\n' +
        `1,"'=1+1",1,a.svg\r\n2,"Alder, ""Lane""",1,b.svg b.dxf\r\n3,"'@x",1,\r\n4,"'+1",1,\r\n5,"'-Ivy",1,\r\n`,
    );
  });

  test('many are packed into one, the same bytes whenever', () => {
    const files = apart([row(0, 'a.svg'), row(1, 'a.svg')]).flatMap((r) => r.files);
    const zip = packed('names.zip', files);
    expect(textOf(zip.bytes.slice(0, 2))).toBe('PK');
    expect(packed('names.zip', files)).toEqual(zip);
  });

  test('those asked for alone, named by their row', () => {
    const made = finished(
      rowFiles(three(), {
        filling,
        rowIds: ['r1'],
        scope: { partIds: null },
        write: (one, result, scope) => makeFiles(one, result, ['svg'], scope),
        evaluator: new Evaluator(wasmEngine),
        faces,
      }),
    );
    expect(made.rows.map((r) => [r.rowId, r.files.map((f) => f.name)])).toEqual([['r1', ['trial_bo.svg']]]);
  });
});

test('a row and the same words typed are the same job', () => {
  const job = three();
  expect(jobInRow(job, 1, filling)).toEqual(setWords({ ...job, roster: null }, 'part', 'words', 'Bo'));
});

test('where names lie on sheets prepares no row anew, and where a row lies by itself is then not found', () => {
  const document = jobWith([partOf([lettering('‹Name›', 'Poppins')], { placement: { x: 900, y: 20 } })], {
    roster: rosterOfNames(['Rowan', 'Ivy']),
  });
  const evaluator = new Evaluator(wasmEngine);
  const seen = new RowsSeen();
  const look = (job: Job) => {
    const told: RowDone[] = [];
    finished(seen.steps(job, { filling: { today: '' }, about: '', tell: (row) => told.push(row), evaluator, faces }));
    return told.map((row) => row.seen);
  };
  const codes = (job: Job) =>
    look(job).map((row) => row.findings.map((f) => f.code).filter((code) => code === 'off-sheet'));
  expect(codes(document)).toEqual([['off-sheet'], ['off-sheet']]);
  const laid = setLayout(document, newLayout());
  expect(codes(laid)).toEqual([[], []]);
  const place = { row: 'r0', copy: 0, parts: [], sheet: 0, scale: 1, turn: 0, x: 5, y: 5, locked: false };
  const before = look(laid);
  const moved = look(setPlaces(laid, [place]));
  expect(moved.map((row, i) => row === before[i])).toEqual([true, true]);
});

test('what was prepared before leaves no trace in a file: a name fitted to its width is the same after one that begins alike', () => {
  const tag = NAME_JOBS['engraved tag'];
  if (!tag) throw new Error('no such job');
  const dxf = (evaluator: Evaluator) => {
    const job = tag('Johayo Fihaoril');
    const { files } = finished(makeFiles(job, evaluator.evaluate(job, faces), ['dxf'], { partIds: null }));
    return files.map((f) => textOf(f.bytes));
  };
  const used = new Evaluator(wasmEngine);
  used.evaluate(tag('Jograti Iltixyze'), faces);
  expect(dxf(used)).toEqual(dxf(new Evaluator(wasmEngine)));
});
