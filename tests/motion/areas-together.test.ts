/** Areas gone over together: the best of all ways to part them, by trying every one, and hardly more for many. */
import { describe, expect, test } from 'vitest';
import { type InkRows, uniteRows } from '../../src/core/geometry/ink-rows';
import type { Point } from '../../src/core/geometry/point';
import { finished } from '../../src/core/memo';
import { type AreaMotion, rowsRun } from '../../src/core/motion/area-rows';
import { asGiven, sharingGap, together as togetherSteps } from '../../src/core/motion/areas-together';
import { straightSeconds } from '../../src/core/motion/machine-motion';
import { figure } from '../support/figures';
import { type Chance, chance } from '../support/random';
import { sample } from '../support/scale';
import { annealedAreas } from './anneal-areas';
import { alike, block } from './blocks';

const together = (...args: Parameters<typeof togetherSteps>) => finished(togetherSteps(...args));
const allTogether = (rows: readonly InkRows[], m: AreaMotion, from: Point): number =>
  asGiven(rows, [rows.map((_, i) => i)], m, from).seconds;
const STEP = 0.5;
const HOME: Point = { x: 0, y: 0 };
const motion = (speed: number, a: number, more: Partial<AreaMotion['areas']> = {}): AreaMotion => ({
  areas: { rows: 'own', way: 'both', runUp: 5, turnSeconds: 0.02, ...more },
  working: alike(speed, a),
  idle: alike(400, a),
  step: STEP,
  standsFor: 1,
});
const box = (x: number, y: number, w: number, h: number): InkRows => block(x, y, w, h, STEP);
const boxes = (next: Chance, count: number): InkRows[] =>
  Array.from({ length: count }, () => box(300 * next(), 200 * next(), 15 + 80 * next(), 5 + 25 * next()));

/** Every way to part some things. */
function* parted(things: readonly number[]): Generator<number[][]> {
  const [first, ...rest] = things;
  if (first === undefined) {
    yield [];
    return;
  }
  for (const groups of parted(rest)) {
    yield [[first], ...groups];
    for (let k = 0; k < groups.length; k++) yield groups.map((g, i) => (i === k ? [first, ...g] : g));
  }
}
function* orders<T>(all: readonly T[]): Generator<T[]> {
  if (all.length === 0) yield [];
  for (const one of all) for (const rest of orders(all.filter((o) => o !== one))) yield [one, ...rest];
}

/** The least seconds of all ways to part areas, to order the groups and to go over each from below or above. */
function leastOf(rows: readonly InkRows[], m: AreaMotion): number {
  let least = Infinity;
  for (const groups of parted(rows.map((_, i) => i))) {
    const runs = groups.map((g) => rowsRun(uniteRows(g.map((i) => rows[i] as InkRows)), m));
    const work = runs.reduce((sum, r) => sum + (r?.seconds ?? 0), 0);
    if (work >= least) continue;
    for (const order of orders(runs))
      for (let ways = 0; ways < 1 << order.length; ways++) {
        let [at, sum] = [HOME, work];
        order.forEach((r, k) => {
          const [begin, end] = (ways >> k) & 1 ? [r?.to, r?.from] : [r?.from, r?.to];
          sum += straightSeconds((begin?.x ?? 0) - at.x, (begin?.y ?? 0) - at.y, m.idle);
          at = end ?? at;
        });
        least = Math.min(least, sum);
      }
  }
  return least;
}

/** The least seconds of all ways to part areas, the goes of each in the best order, by trying what comes next from wherever one is. */
function leastOfParted(rows: readonly InkRows[], m: AreaMotion): number {
  const known = new Map<string, ReturnType<typeof rowsRun>>();
  const run = (group: readonly number[]) => {
    const key = group.join();
    if (!known.has(key)) known.set(key, rowsRun(uniteRows(group.map((i) => rows[i] as InkRows)), m));
    return known.get(key);
  };
  let least = Infinity;
  for (const groups of parted(rows.map((_, i) => i))) {
    const runs = groups.map((g) => run([...g].sort((a, b) => a - b)));
    const work = runs.reduce((sum, r) => sum + (r?.seconds ?? 0), 0);
    const onwards = (left: number, at: Point, spent: number): void => {
      if (spent >= least) return;
      if (left === 0) {
        least = spent;
        return;
      }
      runs.forEach((r, k) => {
        if (!r || !((left >> k) & 1)) return;
        for (const [begin, end] of [
          [r.from, r.to],
          [r.to, r.from],
        ] as const)
          onwards(left & ~(1 << k), end, spent + straightSeconds(begin.x - at.x, begin.y - at.y, m.idle));
      });
    };
    if (work < least) onwards((1 << runs.length) - 1, HOME, work);
  }
  return least;
}

describe('areas gone over together', () => {
  test('beside each other and near, in one go; far apart, each by itself', () => {
    const m = motion(300, 3000);
    const groups = (rows: InkRows[]) => together(rows, m, HOME).groups.map((g) => [...g.areas]);
    expect(groups([box(0, 0, 40, 20), box(50, 0, 40, 20)])).toEqual([[0, 1]]);
    expect(groups([box(0, 0, 40, 20), box(900, 0, 40, 20)])).toHaveLength(2);
    // Half of the rows in common, with much to cross.
    expect(groups([box(0, 0, 40, 20), box(300, 10, 40, 20)])).toHaveLength(2);
    expect(together([], m, HOME)).toEqual({ groups: [], seconds: 0 });
  });

  test('every way to part up to five areas: none is better', () => {
    const next = chance(5);
    for (let i = 0; i < sample(10, 300); i++) {
      const rows = boxes(next, 2 + Math.floor(4 * next()));
      const m = motion(100 + 500 * next(), 1000 + 8000 * next(), { way: next() < 0.8 ? 'both' : 'one' });
      const found = together(rows, m, HOME);
      expect(found.seconds).toBeCloseTo(leastOf(rows, m), 6);
      expect(found.groups.flatMap((g) => [...g.areas]).sort()).toEqual(rows.map((_, k) => k));
      expect(found.seconds).toBeLessThanOrEqual(allTogether(rows, m, HOME) + 1e-9);
    }
  });

  test('every way to part eight areas: none is better', { tags: 'slow' }, () => {
    const next = chance(88);
    for (let i = 0; i < sample(1, 20); i++) {
      const rows = boxes(next, 8);
      const m = motion(100 + 500 * next(), 1000 + 8000 * next());
      expect(together(rows, m, HOME).seconds).toBeCloseTo(leastOfParted(rows, m), 6);
    }
  });

  test('of twenty areas it is at least as good as all together, or each by itself', { tags: 'slow' }, () => {
    const next = chance(8);
    for (let i = 0; i < sample(2, 10); i++) {
      const rows = boxes(next, 20);
      const m = motion(300, 3000);
      const found = together(rows, m, HOME);
      expect(found.groups.flatMap((g) => [...g.areas]).sort((a, b) => a - b)).toEqual(rows.map((_, k) => k));
      expect(found.seconds).toBeLessThanOrEqual(allTogether(rows, m, HOME) + 1e-9);
    }
  });

  test('of forty areas a long search finds hardly anything better', { tags: 'slow' }, () => {
    const next = chance(40);
    const worse: number[] = [];
    for (let i = 0; i < sample(1, 10); i++) {
      const rows = boxes(next, 40);
      const m = motion(100 + 500 * next(), 1000 + 8000 * next());
      const least = annealedAreas(rows, m, HOME, { turns: sample(20_000, 400_000), seed: i + 1 });
      worse.push(together(rows, m, HOME).seconds / least - 1);
    }
    figure({
      name: 'forty areas parted into goes, against simulated annealing, worst',
      value: 100 * Math.max(...worse),
      digits: 2,
      unit: '%',
      aim: { most: 0.5 },
    });
    expect(Math.max(...worse)).toBeLessThan(0.005);
  });

  test('groups in a given order: each by itself, and all with the shortest way between', () => {
    const m = motion(300, 3000);
    const rows = [box(0, 0, 40, 20), box(200, 50, 40, 20)];
    const { runs, seconds } = asGiven(rows, [[1], [0]], m, HOME);
    const each = [1, 0].map((i) => rowsRun(rows[i] as InkRows, m));
    expect(runs.map((r) => r.seconds)).toEqual(each.map((r) => r?.seconds));
    let least = Infinity;
    for (const first of [0, 1])
      for (const second of [0, 1]) {
        const [a, b] = each.map((r, k) => ([first, second][k] ? [r?.to, r?.from] : [r?.from, r?.to])) as [
          Point,
          Point,
        ][];
        if (!a || !b) continue;
        const way = straightSeconds(a[0].x, a[0].y, m.idle) + straightSeconds(b[0].x - a[1].x, b[0].y - a[1].y, m.idle);
        least = Math.min(least, way + (each[0]?.seconds ?? 0) + (each[1]?.seconds ?? 0));
      }
    expect(seconds).toBeCloseTo(least, 9);
  });

  test('rows are worth sharing up to a gap that takes as long to cross as to turn twice and get up to speed', () => {
    for (const [speed, a, turnSeconds] of [
      [300, 3000, 0.02],
      [600, 8000, 0.1],
      [100, 1500, 0],
    ] as const) {
      const m = motion(speed, a, { turnSeconds });
      const gap = sharingGap(60, m) ?? NaN;
      // Each row by itself has another run-up and run-out, another getting up to speed, and another turn.
      const more = (2 * 5 + speed ** 2 / a) / speed + turnSeconds;
      expect(gap).toBeGreaterThan(0.97 * more * speed);
      expect(gap).toBeLessThan(1.05 * more * speed);
      const pair = (mm: number) => [box(0, 0, 60, 150), box(60 + mm, 0, 60, 150)];
      const goes = (mm: number) => together(pair(mm), m, { x: 0, y: 75 }).groups.length;
      expect([goes(0.9 * gap), goes(1.1 * gap)]).toEqual([1, 2]);
    }
  });
});
