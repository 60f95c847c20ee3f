/** Commands on the order of an operation and on times that were measured. */
import { expect, test } from 'vitest';
import { measureTime, movePinned, orderBy, pinPart } from '../../src/core/commands/order';
import type { Job } from '../../src/core/document/schema';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { jobWith, lettering, partOf } from '../support/jobs';

const parts = ['a', 'b', 'c'].map((id) => partOf([lettering('I')], { id }));
const job = (): Job => jobWith(parts);
const order = (made: Job) => made.operations.find((o) => o.id === 'cut')?.order;

test('the order of one operation goes by something else', () => {
  const made = orderBy(job(), 'cut', 'rows');
  expect(order(made)).toEqual({ by: 'rows', pinned: [], found: null });
  expect(made.operations.filter((o) => o.order.by === 'rows')).toHaveLength(1);
});

test('parts are pinned behind those that are, moved among them, and let go', () => {
  const both = pinPart(pinPart(job(), 'cut', 'c', true), 'cut', 'a', true);
  expect(order(both)).toEqual({ by: 'way', pinned: ['c', 'a'], found: null });
  expect(order(pinPart(both, 'cut', 'c', true))?.pinned).toEqual(['a', 'c']);
  expect(order(movePinned(both, 'cut', 0, 1))?.pinned).toEqual(['a', 'c']);
  expect(order(pinPart(both, 'cut', 'c', false))?.pinned).toEqual(['a']);
});

test('a measured time sets a factor for the kind on this machine, within bounds, and is taken back', () => {
  const on: Job = { ...job(), machine: { ...machineSchema.parse({ name: 'M', kind: 'laser' }), id: 'm' } };
  const measured = (seconds: number) => measureTime(on, 'cut', { seconds, reckoned: 40 });
  expect(measured(50).machine?.factors).toEqual({ cut: 1.25, score: 1, engrave: 1, mark: 1 });
  expect(measured(1e9).machine?.factors.cut).toBe(20);
  expect(measured(0.1).machine?.factors.cut).toBe(0.05);
  expect(measureTime(measured(50), 'cut', null).machine?.factors.cut).toBe(1);
  expect(measureTime(on, 'cut', { seconds: 5, reckoned: 0 })).toBe(on);
  expect(measureTime(job(), 'cut', { seconds: 5, reckoned: 4 })).toEqual(job());
});
