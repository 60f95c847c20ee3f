/** Rows as the page asks for them: told as they are there, stopped, mended in one row or in all. */
import { expect, test } from 'vitest';
import type { Job, Lettering } from '../../src/core/document/schema';
import type { RowDone } from '../../src/core/job/rows';
import { stepIn } from '../../src/core/kinds/steps';
import { jobInRow } from '../../src/core/roster/in-row';
import { hostHere } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';
import { rosterOfNames } from '../support/names';

const TODAY = '2026-11-30';
const job = (names: string[], more: object = {}): Job =>
  jobWith([partOf([lettering('‹Name›', 'Pacifico', { size: { by: 'capital', mm: 20 } })])], {
    roster: rosterOfNames(names),
    ...more,
  });

test('all rows are told, and the newest question ends those before it', async () => {
  const host = hostHere();
  const told: RowDone[] = [];
  const one = host.rows(job(['Rowan', 'Ivy', 'Sage']), TODAY, (rows) => told.push(...rows));
  const two = host.rows(job(['Fern']), TODAY, (rows) => told.push(...rows));
  expect(await one).toBeNull();
  expect(await two).toBe(true);
  expect(told.map((d) => d.rowId)).toEqual(['r0']);
});

test('faces that a row has of its own are brought too', async () => {
  const own = job(['Rowan', 'Ivy']);
  const [, ivy] = own.roster?.rows ?? [];
  if (ivy)
    ivy.own = {
      parts: [{ id: 'part', set: {}, steps: [], members: [{ id: 'words', set: { face: 'Bebas Neue' } }] }],
      leftAsIs: [],
    };
  const told: RowDone[] = [];
  await hostHere().rows(own, TODAY, (rows) => told.push(...rows));
  expect(told.flatMap((d) => d.seen.findings.map((f) => f.code))).not.toContain('no-typeface');
});

test('what is loose is joined in the rows it is found in, or in all', async () => {
  const document = job(['Rowan', 'ij', 'Ivy']);
  const mend = { code: 'loose', rowIds: ['r1'] };
  const closed = (of: Job | undefined, nth: number) =>
    of && (jobInRow(of, nth, { today: TODAY }).parts.flatMap((p) => p.members) as Lettering[])[0]?.closeUp !== null;
  const alone = await hostHere().mendRows(document, { ...mend, changeFor: 'row' }, TODAY);
  expect(alone?.mended).toBe(1);
  expect([0, 1, 2].map((i) => closed(alone?.job, i))).toEqual([false, true, false]);
  expect(alone?.job.roster?.rows.map((row) => row.own !== null)).toEqual([false, true, false]);
  const all = await hostHere().mendRows(document, { ...mend, changeFor: 'all' }, TODAY);
  expect([0, 1, 2].map((i) => closed(all?.job, i))).toEqual([true, true, true]);
  expect(all?.job.roster?.rows.every((row) => row.own === null)).toBe(true);
  const none = await hostHere().mendRows(document, { code: 'loose', rowIds: ['r0', 'gone'], changeFor: 'row' }, TODAY);
  expect(none).toEqual({ job: document, mended: 0 });
});

test('what is thin is thickened just enough: by as much as the row needs, or as all of them do', {
  tags: 'slow',
}, async () => {
  const document = jobWith(
    [partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 12 } })], { hangsTogether: 'no' })],
    { roster: rosterOfNames(['S', 'a', 'B']), sheet: { width: 300, height: 200, leastWidth: 2.6 } },
  );
  const byOf = (of: Job, nth: number) =>
    stepIn(jobInRow(of, nth, { today: TODAY }).parts[0] ?? { steps: [] }, 'thicken')?.by ?? 0;
  const thin = { code: 'thin', rowIds: ['r0', 'r1', 'r2'] };
  const alone = await hostHere().mendRows(document, { ...thin, changeFor: 'row' }, TODAY);
  const needs = [0, 1, 2].map((i) => byOf(alone?.job as Job, i));
  // Only rows that are thin are mended, each by what it needs.
  expect(alone?.mended).toBe(needs.filter((by) => by > 0).length);
  expect(new Set(needs).size).toBeGreaterThan(1);
  const all = await hostHere().mendRows(document, { ...thin, changeFor: 'all' }, TODAY);
  expect([0, 1, 2].map((i) => byOf(all?.job as Job, i))).toEqual(Array(3).fill(Math.max(...needs)));
});

test('all names are proved by themselves, or the sheets they lie on; what is refused is told by its name', async () => {
  const host = hostHere();
  const asked = { scope: { partIds: null, date: TODAY }, today: TODAY };
  const three = job(['rowan', 'ivy', 'sage']);
  const out: Job = {
    ...three,
    roster: three.roster && { ...three.roster, rows: three.roster.rows.map((row, i) => ({ ...row, out: i === 1 })) },
  };
  const steps: string[] = [];
  const proofs = await host.proveNames(out, asked, (done, of) => steps.push(`${done}/${of}`));
  expect(steps).toEqual(['0/2', '1/2']);
  expect(proofs?.map(({ title, rowId, findings }) => [title, rowId, findings])).toEqual([
    ['rowan', 'r0', []],
    ['sage', 'r2', []],
  ]);
  // The files are those of a job with that name.
  const alone = await host.prove(jobInRow(out, 2, { today: TODAY }), { ...asked.scope, row: 'sage' });
  expect(proofs?.[1]?.files).toEqual(alone?.files.map(({ name, sha256 }) => ({ name, sha256 })));

  const place = (row: string, sheet: number) => ({ row, copy: 0, sheet, turn: 90, x: 200, y: 30 });
  const laid = job(['rowan', '', 'sage'], { layout: { places: [place('r0', 0), place('r2', 2)] } });
  const sheets = await host.proveNames(laid, asked);
  expect(sheets?.map(({ title, rowId, findings, files }) => [title, rowId, findings.length, files.length])).toEqual([
    ['Sheet 1', null, 0, 1],
    ['Sheet 3', null, 0, 1],
  ]);
  const nothing = await host.proveNames(job(['']), asked);
  expect(nothing).toMatchObject([{ title: expect.any(String), files: [], refused: [] }]);
});

test('proving names ends when it is stopped, and when it is asked anew', async () => {
  const host = hostHere();
  const asked = { scope: { partIds: null }, today: TODAY };
  const many = job(['rowan', 'ivy', 'sage']);
  const stopped = host.proveNames(many, asked, (done) => {
    if (done === 1) void host.stopProvingNames(many);
  });
  expect(await stopped).toBeNull();
  const before = host.proveNames(many, asked);
  const now = host.proveNames(job(['fern']), asked);
  expect(await before).toBeNull();
  expect((await now)?.map(({ title }) => title)).toEqual(['fern']);
});
