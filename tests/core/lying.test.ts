/** How outlines lie to others, against regions whose overlap is known. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Lying, laid, lyingTo, ON_MM } from '../../src/core/geometry/lying';
import { closedPath, type Path, reversePath, transformPath } from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { ellipsePath } from '../../src/core/prepare/shape';

const rectangle = (x: number, y: number, w: number, h: number): Path =>
  closedPath([line(x, y, x + w, y), line(x + w, y, x + w, y + h), line(x + w, y + h, x, y + h), line(x, y + h, x, y)]);
const circle = (x: number, y: number, across: number): Path =>
  transformPath(ellipsePath(across, across), translation(x, y));
const how = (a: readonly Path[], b: readonly Path[]): Lying => lyingTo(laid(a), laid(b)).how;

test('across, within and apart; touching and coincident edges do not cross', () => {
  const plate = [rectangle(0, 0, 100, 50)];
  expect(how([rectangle(90, 10, 20, 20)], plate)).toBe('across');
  expect(how([rectangle(10, 10, 20, 20)], plate)).toBe('within');
  expect(how(plate, [rectangle(10, 10, 20, 20)])).toBe('apart');
  expect(how([rectangle(110, 10, 20, 20)], plate)).toBe('apart');
  // Edge to edge, outside and inside, and the same outline once more.
  expect(how([rectangle(100, 10, 20, 20)], plate)).toBe('apart');
  expect(how([rectangle(80, 10, 20, 20)], plate)).toBe('within');
  expect(how(plate, plate)).toBe('apart');
  // Over each other along their own edges: no corner of one lies in the other.
  expect(how([rectangle(60, 0, 100, 50)], plate)).toBe('across');
  // Bars that cross have no corner in each other.
  const { how: crossed, where } = lyingTo(laid([rectangle(45, -20, 10, 90)]), laid(plate));
  expect(crossed).toBe('across');
  expect(where.minX).toBeGreaterThanOrEqual(45);
  expect(where.maxX).toBeLessThanOrEqual(55);
  // A corner in a corner, through a node.
  expect(how([rectangle(100, 50, -10, -10)], plate)).toBe('within');
});

test('what lies in a hole is apart; open lines lie too', () => {
  const ring = [circle(0, 0, 100), reversePath(circle(0, 0, 60))];
  expect(how([circle(0, 0, 20)], ring)).toBe('apart');
  expect(how([circle(40, 0, 10)], ring)).toBe('within');
  expect(how([circle(30, 0, 10)], ring)).toBe('across');
  const stroke = (x0: number, x1: number): Path => ({ segments: [line(x0, 0, x1, 0)], closed: false });
  expect(how([stroke(35, 45)], ring)).toBe('within');
  expect(how([stroke(35, 80)], ring)).toBe('across');
  expect(how([stroke(-200, 200)], ring)).toBe('across');
  expect(how([stroke(60, 80)], ring)).toBe('apart');
  expect(how([], ring)).toBe('apart');
  expect(how(ring, [])).toBe('apart');
});

test('circles, wherever they lie: by the distance of their middles', () => {
  const radius = fc.double({ min: 1, max: 60, noNaN: true });
  const angle = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true });
  fc.assert(
    fc.property(radius, radius, fc.double({ min: 0, max: 150, noNaN: true }), angle, (r, s, d, turn) => {
      const a = [circle(d * Math.cos(turn), d * Math.sin(turn), 2 * r)];
      const b = [circle(0, 0, 2 * s)];
      const [outside, inside] = [d - (r + s), s - (d + r)];
      // As deep as an edge is wide it may be taken for either.
      const deepest = 8 * ON_MM;
      if (outside > deepest) expect(how(a, b)).toBe('apart');
      else if (inside > deepest) expect(how(a, b)).toBe('within');
      else if (d + s < r - deepest) expect(how(a, b)).toBe('apart');
      else if (outside < -deepest && inside < -deepest && d + s > r + deepest) expect(how(a, b)).toBe('across');
    }),
  );
});
