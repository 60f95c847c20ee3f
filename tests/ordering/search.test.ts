/** Orders: what must come first does, nothing is lost, the best is found where it can be known, and annealing finds none that is better. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Point } from '../../src/core/geometry/point';
import { byRows, spreadOut } from '../../src/core/toolpath/ordering/patterns';
import { searchOrder } from '../../src/core/toolpath/ordering/search';
import {
  costInLength,
  costInSeconds,
  type Order,
  type Stop,
  type ToOrder,
  tourCost,
  withoutCircles,
} from '../../src/core/toolpath/ordering/stops';
import { figure } from '../support/figures';
import { inFull, sample } from '../support/scale';
import { annealed } from './anneal';
import { jobByChance } from './random-jobs';

const HOME: Point = { x: 0, y: 0 };
const SECONDS = costInSeconds(500, 3000);
const found = (job: ToOrder, how: 'quick' | 'full' = 'full', cost = SECONDS): Order => {
  const search = searchOrder(job, { from: HOME, cost, how });
  for (let step = search.next(); ; step = search.next()) {
    expectValid(job, step.done ? step.value : step.value.order);
    if (step.done) return step.value;
  }
};
function expectValid({ stops, first }: ToOrder, { order, ways }: Order): void {
  expect([...order].sort((a, b) => a - b)).toEqual(stops.map((_, i) => i));
  const at: number[] = [];
  order.forEach((i, k) => {
    at[i] = k;
  });
  first.forEach((list, i) => {
    for (const j of list) expect(at[j]).toBeLessThan(at[i] as number);
  });
  stops.forEach((stop, i) => {
    expect(ways[i]).toBeLessThan(stop.ways.length);
  });
}
const dot = (x: number, y: number): Stop => ({ isOpen: false, ways: [{ from: { x, y }, to: { x, y } }] });
const lineStop = (p: Point, q: Point): Stop => ({
  isOpen: true,
  ways: [
    { from: p, to: q },
    { from: q, to: p },
  ],
});

/** The least cost of all orders and ways, tried one after the other (dynamic programming over what is done). */
function leastOf({ stops, first }: ToOrder, cost = SECONDS): number {
  const n = stops.length;
  const known = new Map<string, number>();
  const onwards = (done: number, at: Point): number => {
    if (done === (1 << n) - 1) return 0;
    const key = `${done}|${at.x},${at.y}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    let least = Infinity;
    stops.forEach((stop, i) => {
      if ((done >> i) & 1 || (first[i] ?? []).some((j) => !((done >> j) & 1))) return;
      for (const { from, to } of stop.ways)
        least = Math.min(least, cost(from.x - at.x, from.y - at.y) + onwards(done | (1 << i), to));
    });
    known.set(key, least);
    return least;
  };
  return onwards(0, HOME);
}

describe('small jobs', () => {
  const place = fc.record({ x: fc.integer({ min: 0, max: 60 }), y: fc.integer({ min: 0, max: 60 }) });
  const stop = fc.oneof(
    place.map(({ x, y }) => dot(x, y)),
    fc.tuple(place, place).map(([p, q]) => lineStop(p, q)),
    fc
      .array(place, { minLength: 2, maxLength: 4 })
      .map((all): Stop => ({ isOpen: false, ways: all.map((p) => ({ from: p, to: p })) })),
  );
  test('the best order is found', () => {
    fc.assert(
      fc.property(fc.array(stop, { minLength: 1, maxLength: 8 }), fc.array(fc.nat(7)), (stops, befores) => {
        const first = stops.map((_, i) => [...new Set(befores.filter((j) => j < i && j % 3 === i % 3))]);
        const job = { stops, first };
        const made = tourCost(job, found(job), HOME, SECONDS);
        const least = leastOf(job);
        expect(made).toBeCloseTo(least, 9);
      }),
      { numRuns: sample(60, 600) },
    );
  });

  test('nothing, and one thing', () => {
    expect(found({ stops: [], first: [] }).order).toHaveLength(0);
    expect([...found({ stops: [lineStop({ x: 9, y: 0 }, { x: 1, y: 0 })], first: [[]] }).ways]).toEqual([1]);
  });
});

test('a row of dots is gone along from the nearest end, its lines in the direction of the way', () => {
  const stops = [4, 1, 3, 0, 2].map((k) => lineStop({ x: 20 * k + 10, y: 0 }, { x: 20 * k, y: 0 }));
  const { order, ways } = found({ stops, first: stops.map(() => []) }, 'quick', costInLength);
  expect([...order]).toEqual([3, 1, 4, 2, 0]);
  expect([...ways]).toEqual([1, 1, 1, 1, 1]);
});

test('the same job gives the same order', () => {
  const job = jobByChance(2, 60);
  expect(found(job)).toEqual(found(job));
});

test('jobs by chance: valid orders all the way, quick and full', () => {
  for (const seed of [0, 1, 2, 3]) {
    const job = jobByChance(seed, 50);
    const [quick, full] = [found(job, 'quick'), found(job)].map((o) => tourCost(job, o, HOME, SECONDS)) as [
      number,
      number,
    ];
    expect(full).toBeLessThanOrEqual(quick + 1e-9);
  }
});

test('row by row, and spread so that neighbours do not follow each other', () => {
  const stops = Array.from({ length: 24 }, (_, i) => dot(10 * (i % 6), 10 * Math.floor(i / 6)));
  const job: ToOrder = { stops, first: stops.map((_, i) => (i === 3 ? [20] : [])) };
  const rows = byRows(job, HOME, costInLength);
  expectValid(job, rows);
  expect([...rows.order].slice(0, 6)).toEqual([18, 19, 20, 21, 22, 23]);
  expect([...rows.order].slice(6, 12)).toEqual([17, 16, 15, 14, 13, 12]);
  const spread = spreadOut(job, HOME, costInLength);
  expectValid(job, spread);
  const near = [...spread.order].slice(1).filter((i, k) => {
    const p = stops[spread.order[k] as number]?.ways[0]?.from as Point;
    const q = stops[i]?.ways[0]?.from as Point;
    return Math.hypot(p.x - q.x, p.y - q.y) < 19;
  });
  // The last ones may have nothing else left.
  expect(near.length).toBeLessThan(2);
});

test('what goes in a circle is taken once', () => {
  expect(withoutCircles([[1], [2], [0]])).toEqual([[1], [2], []]);
  expect(withoutCircles([[], [0], [0, 1]])).toEqual([[], [0], [0, 1]]);
});

test('annealing finds no better orders', { tags: 'slow' }, () => {
  const jobs = sample(4, 60);
  // About a minute of it on the machine this was written on, or three seconds (6 µs a turn).
  const turns = inFull ? 10_000_000 : 500_000;
  const over = Array.from({ length: jobs }, (_, seed) => {
    const job = jobByChance(seed, inFull ? 50 + 4 * seed : 60 + 20 * seed);
    const ours = tourCost(job, found(job), HOME, SECONDS);
    return ours / annealed(job, found(job, 'quick'), { cost: SECONDS, turns, seed: seed + 1 }) - 1;
  });
  const mean = over.reduce((a, b) => a + b, 0) / jobs;
  figure({
    name: `order of ${jobs} jobs: idle time over what annealing finds in ${turns / 1e6} million turns, on the mean`,
    value: 100 * mean,
    digits: 2,
    unit: '%',
    aim: { most: 0 },
    note: `at most ${(100 * Math.max(...over)).toFixed(2)} %; aim 2 %`,
  });
  expect(mean).toBeLessThanOrEqual(0);
  expect(Math.max(...over)).toBeLessThan(0.02);
});
