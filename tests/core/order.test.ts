import fc from 'fast-check';
import { expect, test } from 'vitest';
import { nestPaths } from '../../src/core/geometry/nesting';
import { type Path, pathArea, pathBox, transformPath } from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import type { Segment } from '../../src/core/geometry/segment';
import { roundedRectangle } from '../../src/core/prepare/shape';
import { insideFirst } from '../../src/core/toolpath/order';

const orderOf = (paths: readonly Path[]) =>
  insideFirst(
    paths.map((path) => ({ path, box: pathBox(path), area: pathArea(path) })),
    nestPaths(paths).parent,
  );
const at = (x: number, y: number, side = 1): Path => transformPath(roundedRectangle(side, side, 0), translation(x, y));
const start = (path: Path) => path.segments[0] as Segment;

test('the nearest start is always taken next', () => {
  const place = fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }));
  fc.assert(
    fc.property(fc.uniqueArray(place, { maxLength: 40, selector: String }), (places) => {
      const paths = places.map(([x, y]) => at(3 * x, 3 * y));
      const order = orderOf(paths);
      expect([...order].sort((a, b) => a - b)).toEqual(paths.map((_, i) => i));
      let from = { x: 0, y: 0 };
      const left = new Set(order);
      for (const i of order) {
        const d = (k: number) => Math.hypot(start(paths[k] as Path).x0 - from.x, start(paths[k] as Path).y0 - from.y);
        expect(d(i)).toBeLessThanOrEqual(Math.min(...[...left].map(d)) + 1e-9);
        left.delete(i);
        from = { x: start(paths[i] as Path).x0, y: start(paths[i] as Path).y0 };
      }
    }),
  );
});

test('what lies inside comes first, at every depth, wherever it starts', () => {
  const paths = [at(100, 100, 50), at(0, 0, 10), at(100, 100, 10), at(100, 100, 30), at(110, 110, 4)];
  expect(orderOf(paths)).toEqual([1, 2, 4, 3, 0]);
});

test('nothing to order', () => {
  expect(orderOf([])).toEqual([]);
});
