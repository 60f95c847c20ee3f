/** Several parts at once: what is set for all of them, what they have in common, and choosing those that are alike. */
import { expect, test } from 'vitest';
import { partsSought, type Sought } from '../../src/bench/parts/find-parts';
import { type Likeness, partsAlike } from '../../src/core/commands/alike';
import { giveWork } from '../../src/core/commands/lines';
import { common, forParts } from '../../src/core/commands/several';
import { editStep } from '../../src/core/commands/steps';
import { stepIn } from '../../src/core/kinds/steps';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const tag = (id: string, words: string, more: Draft = {}) => partOf([lettering(words)], { id, ...more });
const job = jobWith([
  tag('a', 'Oak'),
  tag('b', 'Elm', { locked: true }),
  tag('c', 'Ash', { work: [{ what: 'fill', operation: 'engrave' }] }),
  partOf([lettering('Fir', 'Poppins')], { id: 'd', name: 'Door', reference: true }),
  partOf([lettering('Yew')], { id: 'e', hidden: true, work: [] }),
]);
const part = (of: typeof job, id: string) => of.parts.find((p) => p.id === id);

test('all that are given are edited as one change, what is locked stays', () => {
  const measure = { capHeightMm: 20, leastWidthMm: 1, kerfMm: null };
  const next = forParts(job, ['a', 'b', 'c', 'nowhere'], (now, id) =>
    editStep(now, id, 'thicken', measure, (step) => {
      step.by = 0.7;
    }),
  );
  expect(['a', 'c'].map((id) => stepIn(part(next, id) as never, 'thicken')?.by)).toEqual([0.7, 0.7]);
  expect(part(next, 'b')).toBe(part(job, 'b'));
  expect(part(next, 'd')).toBe(part(job, 'd'));
  expect(forParts(job, [], (now, id) => giveWork(now, id, 'outline', 'score'))).toBe(job);
});

test('what several have is one value, or mixed', () => {
  expect(common([1, 1, 1])).toEqual({ value: 1, mixed: false });
  expect(common([1, 1, 2])).toEqual({ value: 1, mixed: true });
  expect(common([{ tip: 1 }, { tip: 1 }])).toEqual({ value: { tip: 1 }, mixed: false });
  expect(common([null, undefined]).mixed).toBe(true);
  expect(common([false])).toEqual({ value: false, mixed: false });
});

test.each<[Likeness, string, string[]]>([
  ['work', 'a', ['a', 'b', 'd']],
  ['work', 'c', ['c']],
  ['face', 'a', ['a', 'b', 'c', 'e']],
  ['face', 'd', ['d']],
  ['made', 'a', ['a', 'b', 'c', 'd', 'e']],
  ['size', 'a', ['a', 'c']],
  ['size', 'e', ['e']],
  ['work', 'nowhere', []],
])('alike in %s to %s', (likeness, id, wanted) => {
  const sizes: Record<string, number> = { a: 20, b: 20.2, c: 20.04, d: 19 };
  const sizeOf = (of: string) => (sizes[of] === undefined ? null : { width: sizes[of], height: 10 });
  expect(partsAlike(job, id, likeness, sizeOf)).toEqual(wanted);
});

test.each<[Partial<Sought>, string[]]>([
  [{}, ['a', 'b', 'c', 'd', 'e']],
  [{ words: 'ASH' }, ['c']],
  [{ words: 'do fir' }, ['d']],
  [{ words: 'oak elm' }, []],
  [{ about: 'locked' }, ['b']],
  [{ about: 'hidden' }, ['e']],
  [{ about: 'reference' }, ['d']],
  [{ about: 'unworked' }, ['e']],
  [{ about: 'found' }, ['c', 'e']],
  [{ about: { operation: 'engrave' } }, ['c']],
  [{ about: { operation: 'cut' }, words: 'o' }, ['a', 'd']],
])('looked for by %j', (sought, wanted) => {
  const found = partsSought(job, { words: '', about: '', ...sought }, new Set(['c', 'e']));
  expect(found.map((p) => p.id)).toEqual(wanted);
});
