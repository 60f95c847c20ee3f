/** Strokes over what other lines miss: every place is gone over, however its rows are told. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { closedPath } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import type { MissedPlace } from '../../src/core/toolpath/hatch/cover';
import { strokesOverMissed } from '../../src/core/toolpath/hatch/over-missed';
import { polygonsOf, turnBy } from '../../src/core/toolpath/hatch/polygons';
import { finished } from '../support/generators';

const RADIUS = 0.5;
const room = polygonsOf(
  [closedPath([line(-50, -50, 50, -50), line(50, -50, 50, 50), line(50, 50, -50, 50), line(-50, 50, -50, -50)])],
  0.01,
  turnBy(0),
);

/** A place of rows, each a height with the left and right end of one of its stretches. */
const placeOf = (rows: readonly (readonly [number, number, number])[]): MissedPlace => ({
  area: 1,
  minX: Math.min(...rows.map((r) => r[1])),
  maxX: Math.max(...rows.map((r) => r[2])),
  minY: Math.min(...rows.map((r) => r[0])),
  maxY: Math.max(...rows.map((r) => r[0])),
  rows: rows.flat(),
});

/** How far the farthest point of the rows is from any stroke. */
function farthest(rows: readonly (readonly [number, number, number])[]): number {
  const { xy, start } = finished(strokesOverMissed([placeOf(rows)], room, RADIUS));
  const distance = (x: number, y: number): number => {
    let least = Number.POSITIVE_INFINITY;
    for (let s = 0; s + 1 < start.length; s++)
      for (let i = (start[s] as number) + 1; i < (start[s + 1] as number); i++) {
        const [ax, ay, bx, by] = xy.subarray(2 * i - 2, 2 * i + 2) as unknown as [number, number, number, number];
        const [dx, dy] = [bx - ax, by - ay];
        const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
        least = Math.min(least, Math.hypot(ax + t * dx - x, ay + t * dy - y));
      }
    return least;
  };
  return Math.max(...rows.flatMap(([y, lo, hi]) => [distance(lo, y), distance((lo + hi) / 2, y), distance(hi, y)]));
}

test('a place that begins with two stretches in one row is gone over from end to end', () => {
  const long = Array.from({ length: 60 }, (_, i): [number, number, number] => [i * 0.05, 0.3 + i * 0.1, 0.9 + i * 0.1]);
  expect(farthest([[0, 0, 0.1], ...long])).toBeLessThan(RADIUS);
});

test('rows of a place that grew together may come in any order', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 80 }),
      fc.double({ min: -2, max: 2, noNaN: true }),
      fc.integer({ min: 0, max: 79 }),
      (count, lean, from) => {
        const rows = Array.from({ length: count }, (_, i): [number, number, number] => [
          i * 0.04,
          i * 0.04 * lean,
          i * 0.04 * lean + 0.4,
        ]);
        const cut = from % count;
        expect(farthest([...rows.slice(cut), ...rows.slice(0, cut)])).toBeLessThan(RADIUS);
      },
    ),
    { numRuns: 60, seed: 5 },
  );
});
