import { describe, expect, test } from 'vitest';
import { combine, unite } from '../../src/core/geometry/boolean/union';
import { largestCircleIn } from '../../src/core/geometry/inscribed';
import { flattenPath, type Path, transformPath } from '../../src/core/geometry/path';
import { compose, type Point, rotation, translation } from '../../src/core/geometry/point';
import { narrowest, narrowPlaces } from '../../src/core/geometry/width';
import { leastWidth, strengthOf } from '../../src/core/inspect/strength';
import { measureOutlines } from '../../src/core/prepare/outline';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { windingNumber } from '../support/area';
import { wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { type Chance, chance } from '../support/random';
import { sample } from '../support/scale';

const at = (p: Path, x: number, y: number, turn = 0): Path =>
  transformPath(p, compose(rotation(turn), translation(x, y)));
const outlines = (paths: readonly Path[]) =>
  measureOutlines(paths.map((path) => ({ path, labels: path.segments.map((_, i) => i) })));
const united = (...paths: Path[]): readonly Path[] => unite(wasmEngine, paths);
const widthOf = (paths: readonly Path[], most: number) => narrowest(narrowPlaces(paths, most, 'inside'))?.width;

describe('widths with known answers', () => {
  test('a bar, at any turn', () => {
    for (const turn of [0, 17, 45, 90])
      expect(widthOf([at(roundedRectangle(50, 2, 0), 3, 4, turn)], 3)).toBeCloseTo(2, 3);
  });

  test('the neck of two circles that overlap', () => {
    const pair = united(at(ellipsePath(10, 10), 0, 0), at(ellipsePath(10, 10), 9.9, 0));
    expect(widthOf(pair, 3)).toBeCloseTo(2 * Math.sqrt(25 - 4.95 ** 2), 2);
  });

  test('squares that overlap at a corner', () => {
    const pair = united(roundedRectangle(10, 10, 0), at(roundedRectangle(10, 10, 0), 9.5, 9.5));
    expect(widthOf(pair, 3)).toBeCloseTo(Math.hypot(0.5, 0.5), 3);
  });

  test('the thin side of a ring whose hole is off its middle', () => {
    const ring = combine(wasmEngine, 'difference', {
      subject: [ellipsePath(20, 20)],
      other: [at(ellipsePath(17, 17), 0.7, 0)],
    });
    expect(widthOf(ring, 3)).toBeCloseTo(0.8, 2);
  });

  test('a gap between two circles, and none where there is room', () => {
    const pair = [at(ellipsePath(10, 10), 0, 0), at(ellipsePath(10, 10), 10.2, 0)];
    expect(narrowest(narrowPlaces(pair, 1, 'outside'))?.width).toBeCloseTo(0.2, 2);
    expect(narrowPlaces(pair, 0.15, 'outside')).toEqual([]);
  });

  test('what is wide enough is not narrow; nothing asked, nothing found', () => {
    expect(narrowPlaces([roundedRectangle(50, 3.01, 0)], 3, 'inside')).toEqual([]);
    expect(narrowPlaces([roundedRectangle(50, 2, 0)], 0, 'inside')).toEqual([]);
    expect(narrowPlaces([], 3, 'inside')).toEqual([]);
  });
});

describe('stretches', () => {
  test('a thin bar between two plates is one stretch, named by what lies on both sides', () => {
    const plates = outlines(
      united(
        at(roundedRectangle(20, 20, 0), -25, 0),
        at(roundedRectangle(20, 20, 0), 25, 0),
        roundedRectangle(60, 1.2, 0),
      ),
    );
    const { thin, tight } = strengthOf(plates, { least: 2, kerf: 0.2 });
    expect(thin).toHaveLength(1);
    expect(thin[0]?.width).toBeCloseTo(1.2, 2);
    expect(thin[0]?.box.maxX).toBeGreaterThan(14);
    expect(tight).toEqual([]);
  });

  test('corners and short points are not thin; a long taper is', () => {
    expect(leastWidth(outlines([roundedRectangle(30, 20, 0)]), 5)).toBeNull();
    const wedge = (length: number): Path => ({
      closed: true,
      segments: [
        { kind: 'line', x0: 0, y0: -4, x1: length, y1: 0 },
        { kind: 'line', x0: length, y0: 0, x1: 0, y1: 4 },
        { kind: 'line', x0: 0, y0: 4, x1: 0, y1: -4 },
      ],
    });
    expect(leastWidth(outlines([wedge(12)]), 2)).toBeNull();
    expect(leastWidth(outlines([wedge(80)]), 2)).not.toBeNull();
  });
});

test('the largest circle in a hole', () => {
  expect(largestCircleIn(roundedRectangle(12, 5, 0)).radius).toBeCloseTo(2.5, 2);
  expect(largestCircleIn(ellipsePath(8, 8)).radius).toBeCloseTo(4, 2);
  expect(largestCircleIn(at(roundedRectangle(10, 10, 0), 40, 0, 45)).radius).toBeCloseTo(5, 2);
});

/** Height of the first plate's middle, where its hole is. */
const Y0 = 3;

/** Plates joined by bars at odd angles, some with a hole in the first. */
function anyShape(next: Chance): readonly Path[] {
  const plates = Array.from({ length: 2 + Math.floor(next() * 3) }, (_, i) => {
    const [w, h] = [8 + next() * 6, 8 + next() * 6];
    return at(
      next() < 0.5 ? ellipsePath(w, h) : roundedRectangle(w, h, 2),
      i * 16,
      i === 0 ? Y0 : next() * 6,
      next() * 360,
    );
  });
  const bars = plates
    .slice(1)
    .map((_, i) => at(roundedRectangle(20, 0.6 + next() * 2, 0), i * 16 + 8, 3, next() * 30 - 15));
  const whole = united(...plates, ...bars);
  if (next() < 0.5) return whole;
  return combine(wasmEngine, 'difference', {
    subject: whole,
    other: [at(ellipsePath(2 + next() * 2, 2 + next() * 2), next() - 0.5, Y0 + next() - 0.5)],
  });
}

type Sample = { readonly x: number; readonly y: number; readonly normals: readonly Point[] };

/** The shortest chord between two points of the outline that face each other, by trying all pairs. */
function bruteWidth(paths: readonly Path[], most: number): number {
  const step = 0.06;
  const polygons = paths.map((p) => flattenPath(p, 0.001));
  const samples: Sample[] = polygons.flatMap((points) =>
    points.flatMap((p, i) => {
      const before = points[(i + points.length - 1) % points.length] as Point;
      const q = points[(i + 1) % points.length] as Point;
      const normal = (a: Point, b: Point) => {
        const l = Math.hypot(b.x - a.x, b.y - a.y);
        return { x: -(b.y - a.y) / l, y: (b.x - a.x) / l };
      };
      const [m, n] = [normal(before, p), normal(p, q)];
      const turn = m.x * n.y - m.y * n.x;
      // Where the outline turns in, a point faces every way between.
      const fan =
        turn < -0.02
          ? Array.from({ length: 41 }, (_, k) => {
              const [x, y] = [m.x + ((n.x - m.x) * k) / 40, m.y + ((n.y - m.y) * k) / 40];
              const l = Math.hypot(x, y) || 1;
              return { x: x / l, y: y / l };
            })
          : [n];
      const count = Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / step);
      return [
        { ...p, normals: fan },
        ...Array.from({ length: count - 1 }, (_, k) => ({
          x: p.x + ((q.x - p.x) * (k + 1)) / count,
          y: p.y + ((q.y - p.y) * (k + 1)) / count,
          normals: [n],
        })),
      ];
    }),
  );
  const isIn = (x: number, y: number) => polygons.reduce((w, polygon) => w + windingNumber(polygon, x, y), 0) > 0;
  const faces = (s: Sample, x: number, y: number) => s.normals.some((n) => n.x * x + n.y * y > 0.985);
  let best = most;
  samples.forEach((p, i) => {
    for (let k = i + 1; k < samples.length; k++) {
      const q = samples[k] as Sample;
      const [dx, dy] = [q.x - p.x, q.y - p.y];
      if (Math.abs(dx) >= best || Math.abs(dy) >= best) continue;
      const l = Math.hypot(dx, dy);
      if (l >= best || l < 0.1 || !faces(p, dx / l, dy / l) || !faces(q, -dx / l, -dy / l)) continue;
      if ([0.2, 0.5, 0.8].every((t) => isIn(p.x + t * dx, p.y + t * dy))) best = l;
    }
  });
  return best;
}

test('the narrowest width of shapes by chance is what trying all pairs of points finds', { tags: 'slow' }, () => {
  const next = chance(99);
  const count = sample(10, 200);
  let worst = 0;
  const bad: string[] = [];
  for (let i = 0; i < count; i++) {
    const shape = anyShape(next);
    const ours = leastWidth(outlines(shape), 4) ?? 4;
    const theirs = bruteWidth(shape, 4);
    const off = Math.abs(ours - theirs);
    worst = Math.max(worst, off);
    if (off > 0.02) bad.push(`${i}: ${ours.toFixed(3)} against ${theirs.toFixed(3)} mm`);
  }
  figure({
    name: `Narrowest width of ${count} shapes: farthest from trying all pairs`,
    value: worst,
    digits: 4,
    unit: 'mm',
    aim: { most: 0.02 },
  });
  expect(bad).toEqual([]);
});
