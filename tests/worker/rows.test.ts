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
