/** New operations: where they run, what they are called, and in which colour. */
import { expect, test } from 'vitest';
import { addOperation, RUNNING_ORDER } from '../../src/core/commands/operations';
import { colourOf } from '../../src/core/document/colour-of';
import type { Job } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { jobWith } from '../support/jobs';

const plain = jobWith([]);
const names = (job: Job) => job.operations.map((o) => o.name);
const only = (...kinds: string[]): Job => ({
  ...plain,
  operations: plain.operations.filter((o) => kinds.includes(o.kind)),
});

test('one runs after the last of its kind, and is numbered', () => {
  const more = addOperation(addOperation(plain, 'engrave'), 'engrave');
  const at = names(more).indexOf('Engrave');
  expect(names(more).slice(at, at + 3)).toEqual(['Engrave', 'Engrave 2', 'Engrave 3']);
  expect(names(addOperation(plain, 'cut')).slice(-2)).toEqual(['Cut', 'Cut 2']);
});

test('the first of a kind runs before what runs later, and follows the colour key', () => {
  expect(names(addOperation(only('engrave', 'cut'), 'score'))).toEqual(['Engrave', 'Score', 'Cut']);
  expect(names(addOperation(only('mark', 'cut'), 'engrave'))).toEqual(['Engrave', 'Mark', 'Cut']);
  expect(names(addOperation(only('engrave'), 'cut'))).toEqual(['Engrave', 'Cut']);
  const first = addOperation(only('cut'), 'engrave').operations[0];
  expect(first?.colour).toBeNull();
});

test('no two have the same colour in files, nor nearly', () => {
  let job = plain;
  for (let n = 0; n < 12; n++) job = addOperation(job, RUNNING_ORDER[n % RUNNING_ORDER.length] ?? 'cut');
  const colours = job.operations.map((o) => colourOf(o, job));
  expect(new Set(colours).size).toBe(16);
  const parts = colours.map((c) => [1, 3, 5].map((i) => Number.parseInt(c.slice(i, i + 2), 16)));
  for (const [i, a] of parts.entries())
    for (const b of parts.slice(0, i)) expect(Math.hypot(...a.map((v, k) => v - (b[k] as number)))).toBeGreaterThan(40);
});

test('there are no more than the limit, and the job it was made from stays as it was', () => {
  let job = plain;
  for (let n = 0; n < LIMITS.operations + 3; n++) job = addOperation(job, 'cut');
  expect(job.operations).toHaveLength(LIMITS.operations);
  expect(new Set(names(job)).size).toBe(LIMITS.operations);
  expect(plain.operations).toHaveLength(4);
});
