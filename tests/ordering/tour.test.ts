/** The tour that a search changes: what it reckons of its moves is what its order costs, whatever was changed and taken back. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  costInSeconds,
  fingerprint,
  isOrderOf,
  type Order,
  type Stop,
  type ToOrder,
  tourCost,
} from '../../src/core/toolpath/ordering/stops';
import { Tour } from '../../src/core/toolpath/ordering/tour';
import { sample } from '../support/scale';

const HOME = { x: 0, y: 0 };
const SECONDS = costInSeconds(500, 3000);
const place = fc.record({ x: fc.integer({ min: 0, max: 90 }), y: fc.integer({ min: 0, max: 90 }) });
const closed = fc
  .array(place, { minLength: 1, maxLength: 4 })
  .map((all): Stop => ({ isOpen: false, ways: all.map((p) => ({ from: p, to: p })) }));
const open = fc.tuple(place, place).map(
  ([p, q]): Stop => ({
    isOpen: true,
    ways: [
      { from: p, to: q },
      { from: q, to: p },
    ],
  }),
);
const fixed = fc.tuple(place, place).map(([from, to]): Stop => ({ isOpen: false, ways: [{ from, to }] }));

/** Jobs in which everything may be run backwards, and others: with lead-ins, and with what must come first. */
const symmetric = fc
  .array(fc.oneof(closed, open), { minLength: 4, maxLength: 14 })
  .map((stops): ToOrder => ({ stops, first: stops.map(() => []) }));
const bound = fc.array(fc.oneof(closed, open, fixed), { minLength: 4, maxLength: 14 }).map(
  (stops): ToOrder => ({
    stops,
    first: stops.map((_, i) => (i > 2 && i % 3 === 0 ? [i - 1, i - 3] : [])),
  }),
);
const change = fc.tuple(fc.nat(12), fc.nat(5), fc.nat(5), fc.boolean());

test('what its moves cost is kept right through changes, beginnings and what is taken back', () => {
  fc.assert(
    fc.property(
      fc.oneof(symmetric, bound),
      fc.array(change, { maxLength: 12 }),
      fc.boolean(),
      (job, changes, isFree) => {
        const tour = new Tour(job, { at: HOME, isFree }, SECONDS);
        const costs = () => {
          const order = tour.given();
          expect(isOrderOf(job, order)).toBe(true);
          const first = job.stops[order.order[0] as number]?.ways[order.ways[order.order[0] as number] as number]?.from;
          const toFirst = isFree && first ? SECONDS(first.x, first.y) : 0;
          expect(tour.total()).toBeCloseTo(tourCost(job, order, HOME, SECONDS) - toFirst, 9);
          return tour.total();
        };
        costs();
        for (const [i, a, b, isTakenBack] of changes) {
          const [before, order] = [costs(), tour.given()];
          tour.keepChanges();
          const gained = tour.swap(i, i + 1 + a, i + 1 + a + b, true);
          if (gained !== Number.NEGATIVE_INFINITY) expect(costs()).toBeCloseTo(before - gained, 9);
          const begun = tour.beginBest();
          expect(begun).toBeGreaterThanOrEqual(0);
          costs();
          if (!isTakenBack) continue;
          tour.takeBack();
          expect(tour.given()).toEqual(order);
          expect(costs()).toBeCloseTo(before, 9);
        }
      },
    ),
    { numRuns: sample(150, 3000) },
  );
});

test('an order is one only where each is in it once, in a way it has, after what comes first', () => {
  const stop: Stop = { isOpen: false, ways: [{ from: HOME, to: HOME }] };
  const job: ToOrder = { stops: [stop, stop, stop], first: [[], [0], []] };
  const order = (list: number[], ways = [0, 0, 0]): Order => ({
    order: Int32Array.from(list),
    ways: Int32Array.from(ways),
  });
  expect(isOrderOf(job, order([0, 1, 2]))).toBe(true);
  expect(isOrderOf(job, order([2, 0, 1]))).toBe(true);
  for (const bad of [order([1, 0, 2]), order([0, 1]), order([0, 0, 1]), order([0, 1, 3]), order([0, 1, 2], [0, 1, 0])])
    expect(isOrderOf(job, bad)).toBe(false);
  expect(isOrderOf(job, order([0, 1, 2], [0, 0]))).toBe(false);
});

test('a fingerprint is the same for the same, and another one for anything else', () => {
  const job: ToOrder = {
    stops: [
      { isOpen: false, ways: [{ from: { x: 1, y: 2 }, to: { x: 1, y: 2 } }] },
      { isOpen: true, ways: [{ from: { x: 3, y: 4 }, to: { x: 5, y: 6 } }] },
    ],
    first: [[], [0]],
  };
  const same = JSON.parse(JSON.stringify(job)) as ToOrder;
  const own = fingerprint(job);
  expect(own).toMatch(/^[0-9a-f]{16}$/);
  expect(fingerprint(same)).toBe(own);
  const [a, b] = job.stops as [Stop, Stop];
  const moved = (stop: Stop, mm: number): Stop => ({
    ...stop,
    ways: stop.ways.map((w) => ({ ...w, from: { x: w.from.x + mm, y: w.from.y } })),
  });
  const others: ToOrder[] = [
    { ...job, first: [[], []] },
    { ...job, first: [[1], []] },
    { ...job, stops: [b, a] },
    { ...job, stops: [a, { ...b, isOpen: false }] },
    { ...job, stops: [a, { ...b, ways: [...b.ways, ...b.ways] }] },
    { ...job, stops: [moved(a, 2e-6), b] },
    { ...job, stops: [a, moved(b, -2e-6)] },
    { ...job, stops: [moved(a, 20_000), b] },
    { stops: [a], first: [[]] },
  ];
  expect(new Set([own, ...others.map(fingerprint)]).size).toBe(others.length + 1);
});
