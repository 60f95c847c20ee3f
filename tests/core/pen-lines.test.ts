/** Lines found again from the edges a pen left, and the smoothing of those that come from the axis. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { turnInto } from '../../src/core/geometry/measure';
import { flattenPath, isContinuous, type Path, pathLength } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { arcAbout, cubic, line, type Segment } from '../../src/core/geometry/segment';
import { centerlineOf, penOf } from '../../src/core/toolpath/centerline/centerline';
import { eased } from '../../src/core/toolpath/centerline/ease';
import { withoutJogs } from '../../src/core/toolpath/centerline/jogs';
import { letterOf } from '../support/cover';
import { typeface } from '../support/faces';
import { penned, type Tip } from '../support/pen';

const WIDTH = 2;
const open = (...segments: Segment[]): Path => ({ segments, closed: false });
const polyline = (...places: readonly (readonly [number, number])[]): Path =>
  open(
    ...places.slice(1).map(([x, y], i) => {
      const [fromX, fromY] = places[i] as readonly [number, number];
      return line(fromX, fromY, x, y);
    }),
  );

function farthest(from: readonly Path[], to: readonly Path[]): number {
  const segments = to.flatMap((p) => {
    const points = flattenPath(p, 0.001);
    if (p.closed && points[0]) points.push(points[0]);
    return points.slice(1).map((q, i) => [points[i] as Point, q] as const);
  });
  const places = from.flatMap((p) => flattenPath(p, 0.001));
  return Math.max(
    ...places.map(({ x, y }) =>
      Math.min(
        ...segments.map(([a, b]) => {
          const [dx, dy] = [b.x - a.x, b.y - a.y];
          const size = dx * dx + dy * dy;
          const t = size > 0 ? Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / size)) : 0;
          return Math.hypot(a.x + t * dx - x, a.y + t * dy - y);
        }),
      ),
    ),
  );
}

const found = (drawn: readonly Path[], tip: Tip = 'round') =>
  centerlineOf(penned(drawn, WIDTH, tip), {
    detail: 0.45,
    smooth: 0.005,
    ends: tip === 'round' ? 'short' : 'tip',
    pen: WIDTH / 2,
  }).paths;

describe('drawn with one pen', () => {
  test('is told by its widths, and that a typeface is not', { tags: 'slow' }, () => {
    const drawn = penned([polyline([0, 0], [20, 0], [30, 12])], WIDTH, 'round');
    expect(penOf([drawn])).toBeCloseTo(1, 2);
    expect(penOf('HVon'.split('').flatMap((c) => letterOf(typeface('Libre Baskerville'), c, 100)))).toBeNull();
    expect(penOf([])).toBeNull();
  });

  test.each(['round', 'flat'] as const)('any smooth stroke comes back, with %s ends', { tags: 'slow' }, (tip) => {
    const place = fc.tuple(fc.double({ min: 8, max: 16, noNaN: true }), fc.double({ min: -5, max: 5, noNaN: true }));
    fc.assert(
      fc.property(place, place, place, (a, b, c) => {
        const drawn = open(cubic(0, 0, a[0], a[1], a[0] + b[0], b[1], a[0] + b[0] + c[0], c[1]));
        const lines = found([drawn], tip);
        expect(lines).toHaveLength(1);
        expect(farthest(lines, [drawn])).toBeLessThan(0.03 * WIDTH);
        expect(farthest([drawn], lines)).toBeLessThan(0.06 * WIDTH);
      }),
      { numRuns: 25 },
    );
  });

  test('strokes that cross at a small angle both run straight through', () => {
    const drawn = [polyline([0, 0], [30, 0]), polyline([0, -3], [30, 3])];
    const lines = found(drawn);
    expect(lines.map((p) => p.segments.length)).toEqual([1, 1]);
    expect(farthest(lines, drawn)).toBeLessThan(0.02 * WIDTH);
    expect(farthest(drawn, lines)).toBeLessThan(0.02 * WIDTH);
  });

  test('a loop that the pen has filled is still one', () => {
    const r = 0.8;
    const loop = open(
      line(-12, -r, 0, -r),
      ...[0, 1, 2, 3].map((k) => arcAbout(0, 0, r, ((k - 1) * Math.PI) / 2, Math.PI / 2)),
      line(0, -r, 12, -r),
    );
    const outlines = penned([loop], WIDTH, 'round');
    expect(outlines).toHaveLength(1);
    const lines = found([loop]);
    // Where it leaves the bar no edge shows it: a good guess there, exact elsewhere.
    expect(farthest(lines, [loop])).toBeLessThan(0.15 * WIDTH);
    expect(farthest([loop], lines)).toBeLessThan(0.15 * WIDTH);
    expect(Math.max(...lines.flatMap((p) => flattenPath(p, 0.01)).map((p) => p.y))).toBeCloseTo(r, 2);
  });

  test('an end that sticks out by a fifth of the pen is an end, less than the detail asked is none', () => {
    const drawn = [polyline([0, 0], [20, 0]), polyline([10, -10], [10, 0.7])];
    const above = found(drawn)
      .flatMap((p) => flattenPath(p, 0.01))
      .map((p) => p.y);
    expect(Math.max(...above)).toBeCloseTo(0.7, 1);
    const coarse = centerlineOf(penned([drawn[0] as Path, polyline([10, 0], [10, 0.7])], WIDTH, 'round'), {
      detail: 1,
      smooth: 0.005,
      ends: 'short',
      pen: WIDTH / 2,
    }).paths;
    expect(coarse).toHaveLength(1);
  });

  test('a stretch that the pen went back over is one line', () => {
    const lines = found([polyline([0, 0], [0, 12], [0.2, 2], [8, 12])]);
    expect(lines.reduce((n, p) => n + pathLength(p), 0)).toBeLessThan(12 + Math.hypot(7.8, 10) + 2);
  });
});

describe('jogs and kinks', () => {
  const strokePoint = (x: number, y: number) => ({ x, y, r: 1, open: Math.PI, corner: false });

  test('a step aside is left out, a corner and a bend are not', () => {
    const stepped = Array.from({ length: 60 }, (_, i) => strokePoint(i * 0.2, i < 30 ? 0 : 0.2));
    const kept = withoutJogs(stepped, false, 1);
    expect(kept.length).toBeLessThan(stepped.length);
    expect(kept[0]).toEqual(stepped[0]);
    expect(kept[kept.length - 1]).toEqual(stepped[59]);
    const corner = Array.from({ length: 60 }, (_, i) => strokePoint(Math.min(i, 30) * 0.2, Math.max(0, i - 30) * 0.2));
    expect(withoutJogs(corner, false, 1)).toHaveLength(60);
    const bend = Array.from({ length: 60 }, (_, i) => strokePoint(4 * Math.cos(i / 20), 4 * Math.sin(i / 20)));
    expect(withoutJogs(bend, false, 1)).toHaveLength(60);
  });

  const turns = (path: Path) =>
    path.segments.flatMap((s, i) => {
      if (i === 0 && !path.closed) return [];
      const before = path.segments[(i + path.segments.length - 1) % path.segments.length] as Segment;
      return [(turnInto(before, s) * 180) / Math.PI];
    });

  test('a small bend becomes smooth, a corner stays, and so does a bend between long straight stretches', () => {
    const bent = open(cubic(0, 0, 3, 0.5, 6, 0.5, 9, 0), cubic(9, 0, 12, 0.5, 15, 0.5, 18, 0));
    expect(Math.max(...turns(bent))).toBeGreaterThan(15);
    const smooth = eased(bent, 1);
    expect(Math.max(...turns(smooth))).toBeLessThan(1);
    expect(isContinuous(smooth)).toBe(true);
    expect(farthest([smooth], [bent])).toBeLessThan(0.05);
    const sharp = polyline([0, 0], [5, 0], [5, 5]);
    expect(eased(sharp, 1)).toBe(sharp);
    const drawn = polyline([0, 0], [5, 0], [10, 1.5]);
    expect(eased(drawn, 1)).toBe(drawn);
  });

  test('a ring stays a ring, wherever its bends are', () => {
    const ring: Path = {
      closed: true,
      segments: [0, 1, 2, 3].map((k) => {
        const [a, b] = [(k * Math.PI) / 2, ((k + 1) * Math.PI) / 2];
        const at = (t: number, r: number) => [r * Math.cos(t), r * Math.sin(t)] as const;
        const [p, q, u, v] = [at(a, 5), at(b, 5), at(a + 0.7, 6.2), at(b - 0.7, 6.2)];
        return cubic(p[0], p[1], u[0], u[1], v[0], v[1], q[0], q[1]);
      }),
    };
    const made = eased(ring, 1);
    expect(made.closed).toBe(true);
    expect(isContinuous(made)).toBe(true);
    expect(Math.max(...turns(made))).toBeLessThan(9);
  });
});
