/** Lines in long runs and a short way between them. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { isContinuous, type Path, pathLength } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { greedyPointOrder, joinedRuns, nearestNext } from '../../src/core/toolpath/runs';

const open = (...places: readonly (readonly [number, number])[]): Path => ({
  closed: false,
  segments: places.slice(1).map(([x, y], i) => {
    const [fromX, fromY] = places[i] as readonly [number, number];
    return line(fromX, fromY, x, y);
  }),
});

const sum = (paths: readonly Path[]): number => paths.reduce((all, p) => all + pathLength(p), 0);

test('lines that meet end to end are one, whichever way they run; where three meet the straight one goes on', () => {
  const made = joinedRuns([open([0, 0], [5, 0]), open([9, 1], [5, 0]), open([5, 0], [5, 7])]);
  expect(made.map((p) => p.segments.length).sort()).toEqual([1, 2]);
  expect(made.every(isContinuous)).toBe(true);
});

test('a ring of open lines closes', () => {
  const made = joinedRuns([open([0, 0], [5, 0]), open([5, 5], [5, 0]), open([5, 5], [0, 0])]);
  expect(made).toHaveLength(1);
  expect(made[0]?.closed).toBe(true);
  expect(isContinuous(made[0] as Path)).toBe(true);
});

const grid = fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 6 }));

test('nothing is lost or drawn twice, and no run is broken', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(grid, grid), { maxLength: 20 }), (ends) => {
      const lines = ends.filter(([a, b]) => a[0] !== b[0] || a[1] !== b[1]).map(([a, b]) => open(a, b));
      const made = nearestNext(joinedRuns(lines));
      expect(sum(made)).toBeCloseTo(sum(lines), 9);
      expect(made.reduce((n, p) => n + p.segments.length, 0)).toBe(lines.length);
      expect(made.every(isContinuous)).toBe(true);
    }),
  );
});

test('the nearest end is always taken next', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(grid, grid), { minLength: 1, maxLength: 15 }), (ends) => {
      const lines = ends.map(([a, b]) => open(a, b));
      const made = nearestNext(lines);
      expect(made).toHaveLength(lines.length);
      let here: Point = { x: 0, y: 0 };
      made.forEach((path, i) => {
        const s = path.segments[0];
        const taken = Math.hypot((s?.x0 ?? 0) - here.x, (s?.y0 ?? 0) - here.y);
        for (const other of made.slice(i)) {
          const t = other.segments[0] as Path['segments'][number];
          expect(taken).toBeLessThanOrEqual(Math.hypot(t.x0 - here.x, t.y0 - here.y) + 1e-9);
          expect(taken).toBeLessThanOrEqual(Math.hypot(t.x1 - here.x, t.y1 - here.y) + 1e-9);
        }
        here = { x: s?.x1 ?? 0, y: s?.y1 ?? 0 };
      });
    }),
  );
});

test('points, each once, the nearest next', () => {
  fc.assert(
    fc.property(fc.array(grid, { maxLength: 30 }), (places) => {
      const points = places.map(([x, y]) => ({ x, y }));
      const made = greedyPointOrder(points);
      expect([...made].sort((a, b) => a.x - b.x || a.y - b.y)).toEqual(
        [...points].sort((a, b) => a.x - b.x || a.y - b.y),
      );
      let here: Point = { x: 0, y: 0 };
      made.forEach((p, i) => {
        const least = Math.min(...made.slice(i).map((q) => Math.hypot(q.x - here.x, q.y - here.y)));
        expect(Math.hypot(p.x - here.x, p.y - here.y)).toBeCloseTo(least, 9);
        here = p;
      });
    }),
  );
});

test('a line is not joined to itself: whose ends meet it stays open, among others too', () => {
  const loop = open([0, 0], [5, 0], [5, 5], [0, 0]);
  expect(joinedRuns([loop])).toEqual([loop]);
  const made = joinedRuns([loop, open([0, 0], [-5, 0])]);
  expect(made.map((p) => p.closed)).toEqual([false]);
  expect(made[0]?.segments).toHaveLength(4);
  expect(isContinuous(made[0] as Path)).toBe(true);
});

test('closed lines stay as they are, and no others are joined to them', () => {
  const ring: Path = { ...open([0, 0], [5, 0], [5, 5], [0, 0]), closed: true };
  const made = joinedRuns([ring, open([0, 0], [-5, 0])]);
  expect(made).toHaveLength(2);
  expect(made[0]).toBe(ring);
  expect(nearestNext([ring])[0]).toBe(ring);
});

test('lines that are joined meet exactly, whatever lay between their ends, and what has no length goes', () => {
  const near = [open([0, 0], [5, 0]), open([5.002, 0.001], [9, 3]), open([9.001, 3], [0.002, -0.001])];
  const [ring, ...more] = joinedRuns(near) as [Path, ...Path[]];
  expect(more).toEqual([]);
  expect(ring.closed).toBe(true);
  expect(isContinuous(ring)).toBe(true);
  expect(joinedRuns([open([3, 3], [3, 3 + 1e-6]), open([7, 0], [9, 0])])).toHaveLength(1);
});

test('from a place, the nearest next', () => {
  const lines = [open([0, 0], [1, 0]), open([10, 0], [11, 0])];
  expect(nearestNext(lines).map((p) => p.segments[0]?.x0)).toEqual([0, 10]);
  expect(nearestNext(lines, { x: 12, y: 0 }).map((p) => p.segments[0]?.x0)).toEqual([11, 1]);
});

test('ends a few micrometres apart are one place, farther ones are not', () => {
  const pair = (gap: number) => joinedRuns([open([0, 0], [5, 0]), open([5 + gap, 0], [9, 0])]).length;
  expect(pair(0.002)).toBe(1);
  expect(pair(0.02)).toBe(2);
});
