import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closedPath, flattenPath, pathArea } from '../../src/core/geometry/path';
import { applyMatrix, compose, rotation, scaling, translation } from '../../src/core/geometry/point';
import {
  arcAbout,
  arcBetween,
  arcRadius,
  arcToCubics,
  cubic,
  derivativeAt,
  greatestSpeed,
  line,
  pointAt,
  quadratic,
  quadraticToCubic,
  reverseSegment,
  type Segment,
  stepsWithin,
  subSegment,
  tangentAt,
  transformSegment,
  withEnds,
} from '../../src/core/geometry/segment';
import {
  crossingNear,
  nearestParameter,
  segmentArea,
  segmentBox,
  segmentLength,
} from '../../src/core/geometry/segment-measures';

const n = fc.double({ min: -200, max: 200, noNaN: true });
const anySegment: fc.Arbitrary<Segment> = fc.oneof(
  fc.tuple(n, n, n, n).map((v) => line(...v)),
  fc.tuple(n, n, n, n, n, n).map((v) => quadratic(...v)),
  fc.tuple(n, n, n, n, n, n, n, n).map((v) => cubic(...v)),
  fc
    .tuple(
      n,
      n,
      fc.double({ min: 0.5, max: 200, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: 0.05, max: 6, noNaN: true }),
      fc.boolean(),
    )
    .map(([x, y, r, from, sweep, back]) => arcAbout(x, y, r, from, back ? -sweep : sweep)),
);
const t = fc.double({ min: 0, max: 1, noNaN: true });

const near = (a: { x: number; y: number }, b: { x: number; y: number }, within: number) =>
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThanOrEqual(within);

describe('any segment', () => {
  test('a part of it lies on it', () => {
    fc.assert(
      fc.property(anySegment, t, t, t, (s, from, to, at) => {
        const part = subSegment(s, from, to);
        near(pointAt(part, at), pointAt(s, from + (to - from) * at), 1e-7);
      }),
    );
  });

  test('reversed it runs back', () => {
    fc.assert(
      fc.property(anySegment, t, (s, at) => {
        near(pointAt(reverseSegment(s), at), pointAt(s, 1 - at), 1e-8);
      }),
    );
  });

  test('its box holds it and is tight', () => {
    fc.assert(
      fc.property(anySegment, (s) => {
        const box = segmentBox(s);
        let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
        for (let i = 0; i <= 400; i++) {
          const p = pointAt(s, i / 400);
          minX = Math.min(minX, p.x);
          maxX = Math.max(maxX, p.x);
          minY = Math.min(minY, p.y);
          maxY = Math.max(maxY, p.y);
        }
        expect(minX).toBeGreaterThanOrEqual(box.minX - 1e-7);
        expect(maxX).toBeLessThanOrEqual(box.maxX + 1e-7);
        expect(minY).toBeGreaterThanOrEqual(box.minY - 1e-7);
        expect(maxY).toBeLessThanOrEqual(box.maxY + 1e-7);
        expect(minX - box.minX).toBeLessThan(0.02);
        expect(box.maxY - maxY).toBeLessThan(0.02);
      }),
    );
  });

  test('chords in its steps stay within the tolerance', () => {
    fc.assert(
      fc.property(anySegment, fc.constantFrom(0.5, 0.05, 0.005), t, (s, tolerance, at) => {
        const steps = stepsWithin(s, tolerance);
        const i = Math.min(steps - 1, Math.floor(at * steps));
        const a = pointAt(s, i / steps);
        const b = pointAt(s, (i + 1) / steps);
        const p = pointAt(s, at);
        const chord = line(a.x, a.y, b.x, b.y);
        const foot = pointAt(chord, nearestParameter(chord, p.x, p.y));
        near(p, foot, tolerance * 1.001 + 1e-9);
      }),
    );
  });

  test('its length is that of fine chords', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(anySegment, (s) => {
        let length = 0;
        const steps = 4000;
        for (let i = 0; i < steps; i++) {
          const a = pointAt(s, i / steps);
          const b = pointAt(s, (i + 1) / steps);
          length += Math.hypot(b.x - a.x, b.y - a.y);
        }
        expect(Math.abs(segmentLength(s) - length)).toBeLessThan(1e-4 * length + 1e-3);
      }),
      { numRuns: 60 },
    );
  });

  test('a nearly straight or doubled-back quadratic has its length too', () => {
    for (const sag of [0, 1e-9, 1e-5, 1e-3, 0.1]) {
      expect(segmentLength(quadratic(0, 0, 10, sag, 20, 0))).toBeCloseTo(20, 2);
      expect(segmentLength(quadratic(0, 0, 30, sag, 0, 0))).toBeCloseTo(30, 1);
    }
    expect(segmentLength(quadratic(3, 3, 3, 3, 3, 3))).toBe(0);
    // The parabola y = x² from 0 to 1: √5/2 + asinh(2)/4.
    expect(segmentLength(quadratic(0, 0, 0.5, 0, 1, 1))).toBeCloseTo(Math.sqrt(5) / 2 + Math.asinh(2) / 4, 12);
  });

  test('its area is that of fine chords', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(anySegment, (s) => {
        const steps = 8000;
        let area = 0;
        for (let i = 0; i < steps; i++) {
          const a = pointAt(s, i / steps);
          const b = pointAt(s, (i + 1) / steps);
          area += (a.x * b.y - b.x * a.y) / 2;
        }
        expect(Math.abs(segmentArea(s) - area)).toBeLessThan(0.05);
      }),
      { numRuns: 60 },
    );
  });

  test('moved, turned and mirrored it goes where its points go', () => {
    fc.assert(
      fc.property(
        anySegment,
        n,
        n,
        fc.double({ min: -360, max: 360, noNaN: true }),
        fc.boolean(),
        t,
        (s, x, y, turn, mirror, at) => {
          const m = compose(compose(mirror ? scaling(-1, 1) : scaling(1), rotation(turn)), translation(x, y));
          const [moved] = transformSegment(s, m) as [Segment];
          near(pointAt(moved, at), applyMatrix(m, pointAt(s, at)), 1e-6);
        },
      ),
    );
  });
});

test('a quadratic as a cubic is the same curve', () => {
  const q = quadratic(0, 0, 10, 20, 30, -4);
  for (let i = 0; i <= 10; i++) near(pointAt(q, i / 10), pointAt(quadraticToCubic(q), i / 10), 1e-12);
});

test('cubics for an arc stay within the tolerance asked for', () => {
  for (const [r, tolerance] of [
    [5, 1e-4],
    [500, 1e-3],
    [10_000, 1e-4],
  ] as const) {
    const arc = arcAbout(3, 4, r, 0.3, 5);
    for (const c of arcToCubics(arc, tolerance))
      for (let i = 0; i <= 20; i++) {
        const p = pointAt(c, i / 20);
        expect(Math.abs(Math.hypot(p.x - 3, p.y - 4) - r)).toBeLessThanOrEqual(tolerance * 1.05 + 1e-9);
      }
  }
});

test('unequal scaling turns an arc into curves on the ellipse', () => {
  const pieces = transformSegment(arcAbout(0, 0, 10, 0, Math.PI), scaling(2, 1));
  for (const s of pieces)
    for (let i = 0; i <= 10; i++) {
      const p = pointAt(s, i / 10);
      expect(Math.hypot(p.x / 20, p.y / 10)).toBeCloseTo(1, 4);
    }
});

test('a crossing is found exactly', () => {
  const a = cubic(0, 0, 10, 30, 20, -30, 30, 0);
  const b = line(0, -3, 30, 4);
  const found = crossingNear(a, b, 0.5, 0.5);
  expect(found).not.toBeNull();
  const [ta, tb] = found as readonly [number, number];
  near(pointAt(a, ta), pointAt(b, tb), 1e-9);
  expect(crossingNear(line(0, 0, 10, 0), line(0, 1, 10, 1), 0.5, 0.5)).toBeNull();
});

test('a full circle of arcs has the area of the circle', () => {
  const quarter = Math.PI / 2;
  const circle = closedPath([0, 1, 2, 3].map((i) => arcAbout(7, -2, 12, i * quarter, quarter)));
  expect(pathArea(circle)).toBeCloseTo(Math.PI * 144, 8);
  expect(flattenPath(circle, 0.01).length).toBeGreaterThan(40);
  expect(arcRadius(circle.segments[0] as ReturnType<typeof arcAbout>)).toBeCloseTo(12, 12);
});

describe('ends replaced', () => {
  const [from, to] = [
    { x: -3, y: 2 },
    { x: 21, y: -4 },
  ];
  const ends = (s: Segment) => [s.x0, s.y0, s.x1, s.y1];

  test('of a cubic: each handle goes with its own end, so that the direction there stays', () => {
    const s = cubic(0, 0, 4, 7, 12, 9, 20, 0);
    const moved = withEnds(s, from, to);
    expect(ends(moved)).toEqual([-3, 2, 21, -4]);
    expect(moved).toEqual(cubic(-3, 2, 1, 9, 13, 5, 21, -4));
    for (const t of [0, 1] as const) {
      expect(tangentAt(moved, t).x).toBeCloseTo(tangentAt(s, t).x, 12);
      expect(tangentAt(moved, t).y).toBeCloseTo(tangentAt(s, t).y, 12);
    }
    // One end alone moves one handle alone.
    expect(withEnds(s, from, { x: 20, y: 0 })).toEqual(cubic(-3, 2, 1, 9, 12, 9, 20, 0));
    expect(withEnds(s, { x: 0, y: 0 }, to)).toEqual(cubic(0, 0, 4, 7, 13, 5, 21, -4));
  });

  test('of a quadratic: its one handle goes half the way of both', () => {
    expect(withEnds(quadratic(0, 0, 10, 10, 20, 0), from, to)).toEqual(quadratic(-3, 2, 9, 9, 21, -4));
  });

  test('of a line it is the line between them, of an arc an arc that turns as much', () => {
    expect(withEnds(line(0, 0, 20, 0), from, to)).toEqual(line(-3, 2, 21, -4));
    const s = arcBetween({ x: 0, y: 0 }, { x: 20, y: 0 }, 1.2);
    const moved = withEnds(s, from, to);
    expect(ends(moved)).toEqual([-3, 2, 21, -4]);
    expect(moved.kind === 'arc' && moved.sweep).toBe(1.2);
    const r = (x: number, y: number) => (moved.kind === 'arc' ? Math.hypot(x - moved.cx, y - moved.cy) : 0);
    expect(r(-3, 2)).toBeCloseTo(r(21, -4), 9);
  });

  test('with the same ends is the very segment', () => {
    const s = cubic(0, 0, 4, 7, 12, 9, 20, 0);
    expect(withEnds(s, { x: 0, y: 0 }, { x: 20, y: 0 })).toBe(s);
    for (const [start, end] of [
      [
        { x: 1e-9, y: 0 },
        { x: 20, y: 0 },
      ],
      [
        { x: 0, y: 1e-9 },
        { x: 20, y: 0 },
      ],
      [
        { x: 0, y: 0 },
        { x: 20 + 1e-9, y: 0 },
      ],
      [
        { x: 0, y: 0 },
        { x: 20, y: 1e-9 },
      ],
    ] as const)
      expect(withEnds(s, start, end)).not.toBe(s);
  });

  test('that lie together leave no arc', () => {
    const s = arcBetween({ x: 0, y: 0 }, { x: 20, y: 0 }, 1.2);
    expect(withEnds(s, from, from)).toEqual(line(-3, 2, -3, 2));
  });
});

test('nowhere does a segment go faster than its greatest speed, and a line and an arc just as fast', () => {
  fc.assert(
    fc.property(anySegment, fc.double({ min: 0, max: 1, noNaN: true }), (s, t) => {
      const d = derivativeAt(s, t);
      const most = greatestSpeed(s);
      expect(Math.hypot(d.x, d.y)).toBeLessThanOrEqual(most * (1 + 1e-9) + 1e-9);
      if (s.kind === 'line' || s.kind === 'arc') expect(Math.hypot(d.x, d.y)).toBeCloseTo(most, 6);
    }),
  );
  expect(greatestSpeed(quadratic(0, 0, 1, 0, 1, 5))).toBe(10);
  expect(greatestSpeed(cubic(0, 0, 1, 0, 1, 5, 1, 6))).toBe(15);
});
