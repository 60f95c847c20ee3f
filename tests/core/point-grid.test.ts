/** Points near each other: as comparing each with each finds them. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { PointGrid } from '../../src/core/geometry/point-grid';

const REACH = 0.002;
const near = (grid: PointGrid, i: number): number[] => {
  const found: number[] = [];
  grid.eachNear(i, (j) => found.push(j));
  return found.sort((a, b) => a - b);
};

test('all points within reach, itself among them, and no others', () => {
  // Places on a lattice of half the reach, in all four quarters of the plane and far out.
  const place = fc
    .tuple(fc.constantFrom(-1e5, -0.001, 0, 3, 1e5), fc.integer({ min: -4, max: 4 }))
    .map(([a, k]) => a + k * (REACH / 2));
  fc.assert(
    fc.property(fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 60 }), (points) => {
      const [x, y] = [Float64Array.from(points, (p) => p[0]), Float64Array.from(points, (p) => p[1])];
      const grid = new PointGrid(x, y, REACH);
      for (const [i, p] of points.entries()) {
        const wanted = points.flatMap((q, j) => (Math.hypot(q[0] - p[0], q[1] - p[1]) <= REACH ? [j] : []));
        expect(near(grid, i)).toEqual(wanted);
      }
    }),
  );
});

test('many on one spot are all found', () => {
  const n = 500;
  const grid = new PointGrid(new Float64Array(n).fill(7), new Float64Array(n).fill(-7), REACH);
  expect(near(grid, 3)).toHaveLength(n);
});
