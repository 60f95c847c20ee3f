/** Areas parted into goes and put together again: which operation goes over what, in which order, with whose settings. */
import { expect, test } from 'vitest';
import { goOverInGoes } from '../../src/core/commands/areas';
import type { Job } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { jobWith, lettering, partOf } from '../support/jobs';

const filled = (id: string, operation: string) => partOf([lettering('I')], { id, work: [{ what: 'fill', operation }] });
const SETTINGS = { settings: { typed: { speed: 77 } }, scan: { interval: 0.2 } };
const one = jobWith(
  ['a', 'b', 'c'].map((id) => filled(id, 'engrave')),
  {
    operations: [
      { id: 'engrave', name: 'Engrave', kind: 'engrave', ...SETTINGS },
      { id: 'cut', name: 'Cut', kind: 'cut' },
    ],
  },
);
const runs = (job: Job) =>
  job.operations.map((o) => ({
    name: o.name,
    parts: job.parts.filter((p) => p.work.some((w) => w.operation === o.id)).map((p) => p.id),
  }));

test('an operation for each group, in the order of the goes, with the settings of the first and colours of their own', () => {
  const apart = goOverInGoes(one, ['engrave'], [['a'], ['c'], ['b']]);
  expect(runs(apart)).toEqual([
    { name: 'Engrave', parts: ['a'] },
    { name: 'Engrave 2', parts: ['c'] },
    { name: 'Engrave 3', parts: ['b'] },
    { name: 'Cut', parts: [] },
  ]);
  const [first, second, third] = apart.operations;
  for (const own of [second, third]) {
    expect(own?.settings).toEqual(first?.settings);
    expect(own?.scan).toEqual(first?.scan);
    expect(own?.colour).not.toBeNull();
  }
  expect(second?.colour).not.toBe(third?.colour);
  expect(goOverInGoes(one, ['engrave'], [['a', 'b', 'c']])).toBe(one);
  expect(goOverInGoes(one, ['gone'], [['a']])).toBe(one);
  expect(goOverInGoes(one, ['engrave'], [])).toBe(one);
});

test('put together again: what has nothing to do any more is taken out, what has is kept', () => {
  const apart = goOverInGoes(one, ['engrave'], [['a'], ['c'], ['b']]);
  const ids = apart.operations.slice(0, 3).map((o) => o.id);
  const together = goOverInGoes(apart, ids, [['c', 'a', 'b']]);
  expect(runs(together)).toEqual([
    { name: 'Engrave', parts: ['a', 'b', 'c'] },
    { name: 'Cut', parts: [] },
  ]);
  const used: Job = {
    ...apart,
    parts: apart.parts.map((p) =>
      p.id === 'a' ? { ...p, work: [...p.work, { what: 'outline', operation: ids[1] as string, only: null }] } : p,
    ),
  };
  expect(goOverInGoes(used, ids, [['a', 'b', 'c']]).operations.map((o) => o.name)).toEqual([
    'Engrave',
    'Engrave 2',
    'Cut',
  ]);
});

test('parted otherwise as few parts as can be change their operation, and goes run in their order', () => {
  const apart = goOverInGoes(one, ['engrave'], [['a'], ['b', 'c']]);
  const ids = apart.operations.slice(0, 2).map((o) => o.id);
  expect(runs(apart).map((o) => o.name)).toEqual(['Engrave 2', 'Engrave', 'Cut']);
  const again = goOverInGoes(apart, ids, [['b', 'c'], ['a']]);
  // The group that is run first now is gone over by the operation that had it.
  expect(runs(again).slice(0, 2)).toEqual([
    { name: 'Engrave', parts: ['b', 'c'] },
    { name: 'Engrave 2', parts: ['a'] },
  ]);
});

test('where no more operations may be there, nothing is changed', () => {
  const full: Job = {
    ...one,
    operations: Array.from({ length: LIMITS.operations }, (_, i) => ({
      ...(one.operations[0] as Job['operations'][number]),
      id: i === 0 ? 'engrave' : `o${i}`,
    })),
  };
  expect(goOverInGoes(full, ['engrave'], [['a'], ['b']])).toBe(full);
});
