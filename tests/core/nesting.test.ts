import fc from 'fast-check';
import { expect, test } from 'vitest';
import { nestPaths } from '../../src/core/geometry/nesting';
import { closedPath, flattenPath, type Path, reversePath, transformPath } from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import { arcAbout, cubic, line, pointAt, quadratic } from '../../src/core/geometry/segment';
import { nearestParameter } from '../../src/core/geometry/segment-measures';
import { windingAt, windingIn } from '../../src/core/geometry/winding';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { windingNumber } from '../support/area';
import { rawOutlines, set, typeface } from '../support/faces';

const n = fc.double({ min: -50, max: 50, noNaN: true });

/** A closed path of one segment of each kind; it may well cross itself. */
const anyPath = fc.array(n, { minLength: 16, maxLength: 16 }).map((v): Path => {
  const at = (i: number) => v[i] as number;
  const arc = arcAbout(at(0), at(1), 1 + Math.abs(at(2)), at(3), 0.2 + Math.abs(at(4)) / 10);
  return closedPath([
    arc,
    quadratic(arc.x1, arc.y1, at(5), at(6), at(7), at(8)),
    cubic(at(7), at(8), at(9), at(10), at(11), at(12), at(13), at(14)),
    line(at(13), at(14), arc.x0, arc.y0),
  ]);
});

const distance = (path: Path, x: number, y: number): number =>
  Math.min(
    ...path.segments.map((s) => {
      const p = pointAt(s, nearestParameter(s, x, y));
      return Math.hypot(p.x - x, p.y - y);
    }),
  );

test('winding about curves is that about fine chords', { tags: 'slow' }, () => {
  fc.assert(
    fc.property(anyPath, n, n, (path, x, y) => {
      fc.pre(distance(path, x, y) > 0.05);
      expect(windingAt(path, x, y)).toBe(windingNumber(flattenPath(path, 0.001), x, y));
      expect(windingAt(reversePath(path), x, y) + windingAt(path, x, y)).toBe(0);
    }),
    { numRuns: 400 },
  );
});

test('winding in a path that is prepared is that about it, also where segments are as tall as it', () => {
  // One path of many, joined as they are; winding counts what each closes by itself.
  const long = fc.array(anyPath, { minLength: 13, maxLength: 40 }).map(
    (all): Path => ({
      closed: true,
      segments: all.flatMap((path) => path.segments),
    }),
  );
  const zigzag = closedPath(
    Array.from({ length: 300 }, (_, i) => line(i / 7, (i % 2) * 40, (i + 1) / 7, ((i + 1) % 2) * 40)).concat(
      line(300 / 7, 0, 0, 0),
    ),
  );
  const level = closedPath(Array.from({ length: 60 }, (_, i) => line(i, 3, (i + 1) % 60, 3)));
  fc.assert(
    fc.property(
      fc.oneof(long, fc.constantFrom(zigzag, level)),
      fc.array(fc.tuple(n, n), { minLength: 20 }),
      (path, places) => {
        const about = windingIn(path);
        for (const [x, y] of places) expect(about(x, y)).toBe(windingAt(path, x, y));
        for (const s of path.segments.slice(0, 20)) expect(about(-60, s.y0)).toBe(windingAt(path, -60, s.y0));
      },
    ),
    { numRuns: 60 },
  );
});

test('winding where the ray runs through nodes and along level edges', () => {
  const square = roundedRectangle(10, 10, 0);
  for (const y of [-4.999, 0, 4.999]) expect(windingAt(square, 0, y)).toBe(1);
  const diamond = closedPath([line(5, 0, 0, 5), line(0, 5, -5, 0), line(-5, 0, 0, -5), line(0, -5, 5, 0)]);
  expect(windingAt(diamond, 0, 0)).toBe(1);
  expect(windingAt(diamond, -6, 0)).toBe(0);
  expect(windingAt(diamond, -6, 5)).toBe(0);
  const round = ellipsePath(10, 10);
  expect(windingAt(round, 0, 0)).toBe(1);
  expect(windingAt(round, -7, 0)).toBe(0);
  expect(windingAt(round, -7, 5)).toBe(0);
});

test('rings in rings, side by side, in any order', () => {
  const rings = [50, 40, 30, 20, 10].map((d) => ellipsePath(d, d));
  const beside = transformPath(ellipsePath(8, 8), translation(60, 0));
  const inBeside = transformPath(roundedRectangle(3, 3, 0), translation(60, 0));
  const all = [rings[2], beside, rings[0], inBeside, rings[4], rings[1], rings[3]] as Path[];
  expect(nestPaths(all).depth).toEqual([2, 0, 0, 1, 4, 1, 3]);
  expect(nestPaths(all).parent).toEqual([5, -1, -1, 1, 6, 2, 0]);
});

test('an outline in the bounds of another but not inside it', () => {
  const c = rawOutlines(set('Archivo Black', 'C'), typeface('Archivo Black'));
  const dot = transformPath(ellipsePath(1, 1), translation(11, 10));
  expect(nestPaths([...c, dot]).parent).toEqual([-1, -1]);
  const o = rawOutlines(set('Archivo Black', 'O'), typeface('Archivo Black'));
  expect(nestPaths([...o, dot]).depth).toEqual([0, 1, 2]);
});

test('an outline that touches the one around it lies in it all the same', () => {
  const outer = roundedRectangle(10, 10, 0);
  const inner = closedPath([line(5, 0, 0, 5), line(0, 5, -5, 0), line(-5, 0, 0, -5), line(0, -5, 5, 0)]);
  expect(nestPaths([inner, outer]).parent).toEqual([1, -1]);
});
