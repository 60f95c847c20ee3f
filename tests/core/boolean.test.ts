import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { ClipEngine } from '../../src/core/geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM } from '../../src/core/geometry/boolean/session';
import { combine, unite } from '../../src/core/geometry/boolean/union';
import {
  closedPath,
  isContinuous,
  type Path,
  pathArea,
  pathLength,
  regionArea,
  reversePath,
  transformPath,
} from '../../src/core/geometry/path';
import { compose, rotation, scaling, translation } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { segmentLength } from '../../src/core/geometry/segment-measures';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { nonZeroArea } from '../support/area';
import { scriptEngine, wasmEngine } from '../support/faces';
import { sample } from '../support/scale';

const at = (p: Path, x: number, y: number, turn = 0): Path =>
  transformPath(p, compose(rotation(turn), translation(x, y)));
const lengthOf = (paths: readonly Path[]): number => paths.reduce((sum, p) => sum + pathLength(p), 0);
const square = roundedRectangle(10, 10, 0);
const circle = ellipsePath(10, 10);

const ENGINES: [string, ClipEngine][] = [
  [wasmEngine.name, wasmEngine],
  [scriptEngine.name, scriptEngine],
];

describe.each(ENGINES)('booleans on %s', (_name, engine) => {
  test('two squares that overlap', () => {
    const r = unite(engine, [at(square, 0, 0), at(square, 5, 5)]);
    expect(r).toHaveLength(1);
    expect(regionArea(r)).toBeCloseTo(175, 9);
    expect(r[0]?.segments).toHaveLength(8);
  });

  test('two circles keep their arcs and cross where circles cross', () => {
    const r = unite(engine, [at(circle, 0, 0), at(circle, 6, 0)]);
    expect(r).toHaveLength(1);
    const lens = 2 * 25 * Math.acos(0.6) - 3 * Math.sqrt(4 * 25 - 36);
    expect(regionArea(r)).toBeCloseTo(2 * Math.PI * 25 - lens, 6);
    expect(r[0]?.segments.every((s) => s.kind === 'arc')).toBe(true);
    const crossings = r[0]?.segments.filter((s) => Math.abs(s.x0 - 3) < 1e-7 && Math.abs(Math.abs(s.y0) - 4) < 1e-7);
    expect(crossings).toHaveLength(2);
  });

  test('shapes that only touch, share an edge, or lie on each other', () => {
    expect(regionArea(unite(engine, [at(square, 0, 0), at(square, 10, 0)]))).toBeCloseTo(200, 6);
    expect(unite(engine, [at(square, 0, 0), at(square, 10, 0)])).toHaveLength(1);
    expect(regionArea(unite(engine, [at(square, 0, 0), at(square, 0, 0)]))).toBeCloseTo(100, 9);
    expect(regionArea(unite(engine, [at(square, 0, 0), at(square, 10, 3)]))).toBeCloseTo(200, 6);
    expect(regionArea(unite(engine, [at(circle, 0, 0), at(circle, 10, 0)]))).toBeCloseTo(50 * Math.PI, 3);
    expect(regionArea(unite(engine, [circle, circle, reversePath(circle), circle]))).toBeCloseTo(25 * Math.PI, 6);
  });

  test('edges that lie on each other at an angle leave no sliver', () => {
    for (const turn of [7, 30, 45, 61.3]) {
      const a = transformPath(at(square, 0, 0), rotation(turn));
      const b = transformPath(at(square, 10, 2), rotation(turn));
      const r = unite(engine, [a, b]);
      expect(r).toHaveLength(1);
      expect(regionArea(r)).toBeCloseTo(200, 2);
    }
  });

  test('a hole is kept, clockwise', () => {
    const ring = [ellipsePath(20, 20), reversePath(ellipsePath(10, 10))];
    const r = unite(engine, ring);
    expect(r).toHaveLength(2);
    expect(r.map(pathArea).sort((a, b) => a - b)[0]).toBeCloseTo(-25 * Math.PI, 6);
  });

  test('difference and intersection', () => {
    expect(regionArea(combine(engine, 'difference', { subject: [square], other: [at(square, 5, 0)] }))).toBeCloseTo(
      50,
      9,
    );
    expect(regionArea(combine(engine, 'intersection', { subject: [square], other: [at(circle, 0, 0)] }))).toBeCloseTo(
      25 * Math.PI,
      3,
    );
    expect(combine(engine, 'difference', { subject: [circle], other: [roundedRectangle(30, 30, 0)] })).toEqual([]);
    expect(combine(engine, 'intersection', { subject: [], other: [square] })).toEqual([]);
  });

  test('nothing in, nothing out', () => {
    expect(unite(engine, [])).toEqual([]);
  });

  test('tiny and metre-wide work', () => {
    const tiny = unite(
      engine,
      [transformPath(square, scaling(0.02)), transformPath(at(square, 5, 5), scaling(0.02))],
      5e-4,
    );
    expect(regionArea(tiny)).toBeCloseTo(175 * 0.0004, 6);
    const huge = unite(engine, [transformPath(circle, scaling(900)), transformPath(at(circle, 6, 0), scaling(900))]);
    const lens = 2 * 25 * Math.acos(0.6) - 3 * Math.sqrt(4 * 25 - 36);
    expect(regionArea(huge) / 810_000).toBeCloseTo(50 * Math.PI - lens, 6);
  });

  test('a heap of turned shapes has the area of its fill, closed outlines and no lost edge', { tags: 'slow' }, () => {
    const shape = fc.record({
      kind: fc.constantFrom('square', 'circle', 'rounded', 'ellipse'),
      x: fc.double({ min: -15, max: 15, noNaN: true }),
      y: fc.double({ min: -15, max: 15, noNaN: true }),
      turn: fc.constantFrom(0, 90, 33.3, 45, 12),
    });
    fc.assert(
      fc.property(fc.array(shape, { minLength: 1, maxLength: 8 }), (shapes) => {
        const paths = shapes.map((s) =>
          at(
            { square, circle, rounded: roundedRectangle(14, 6, 2), ellipse: ellipsePath(16, 7) }[s.kind] as Path,
            s.x,
            s.y,
            s.turn,
          ),
        );
        const session = new BooleanSession(engine, FLATTEN_MM, true);
        const out = session.rebuild(session.clip('union', session.add(paths, 0))).map((l) => l.path);
        expect(session.figures.lostEdges).toBe(0);
        expect(out.every(isContinuous)).toBe(true);
        const off = Math.abs(regionArea(out) - nonZeroArea(paths));
        // Curves that nearly coincide are told apart only as far as they are flattened.
        const along = shapes.some((a, i) => shapes.some((b, j) => j > i && Math.hypot(a.x - b.x, a.y - b.y) < 0.5));
        expect(off).toBeLessThan(along ? FLATTEN_MM * lengthOf(out) : 2e-4 * regionArea(out));
      }),
      { numRuns: sample(80, 3000) },
    );
  });
});

/** Two circles of radius 30 that cross under so many degrees, turned about so that chords meet them anywhere: where they meet is known. */
test.each([4, 6, 10, 20, 60])('curves that cross under %i° meet where they truly cross', (degrees) => {
  const apart = 30 * Math.cos((degrees * Math.PI) / 360);
  const up = 30 * Math.sin((degrees * Math.PI) / 360);
  for (let turn = 0; turn < 90; turn += 7) {
    const circle = (side: number) =>
      transformPath(ellipsePath(60, 60), compose(rotation(turn), translation(side * apart, 0)));
    const [made] = unite(wasmEngine, [circle(-1), circle(1)]);
    const corners = (made?.segments ?? []).filter(({ x0 }) => Math.abs(x0) < 1).map(({ x0, y0 }) => [x0, Math.abs(y0)]);
    for (const [x = 9, y = 9] of corners) {
      expect(Math.abs(x)).toBeLessThan(1e-6);
      expect(Math.abs(y - up)).toBeLessThan(1e-6);
    }
    expect(corners.length).toBeGreaterThanOrEqual(2);
  }
});

test('a chain of operations in one session is rebuilt once', () => {
  const session = new BooleanSession(wasmEngine);
  const plate = session.add([roundedRectangle(100, 50, 5)], 0);
  const hole = session.add([at(circle, 20, 0)], 1);
  const bridge = session.add([at(roundedRectangle(20, 2, 0), 20, 0)], 2);
  const out = session.rebuild(session.clip('union', [...session.clip('difference', plate, hole), ...bridge]));
  const labels = new Set(out.flatMap((l) => l.labels));
  expect(labels).toEqual(new Set([0, 1, 2]));
  const strip = 2 * (25 * Math.asin(0.2) + Math.sqrt(24));
  const expected = 100 * 50 - (4 - Math.PI) * 25 - 25 * Math.PI + strip;
  expect(regionArea(out.map((l) => l.path))).toBeCloseTo(expected, 3);
});

describe('specks', () => {
  const rect = (x0: number, y0: number, x1: number, y1: number): Path =>
    closedPath([line(x0, y0, x1, y0), line(x1, y0, x1, y1), line(x1, y1, x0, y1), line(x0, y1, x0, y0)]);
  const lengths = (paths: readonly Path[]) => paths.flatMap((path) => path.segments.map(segmentLength));

  test.each(ENGINES)(
    '%s: what two outlines miss each other by less than can be told leaves no segment',
    (_, engine) => {
      // The edge of one lies a tenth of a micrometre from the corner of the other.
      for (const off of [0.0001, -0.0001]) {
        const made = unite(engine, [rect(0, 0, 10, 10), rect(-5, 5, 10 - off, 15)]);
        expect(made).toHaveLength(1);
        expect(Math.min(...lengths(made))).toBeGreaterThan(0.0005);
        expect(Math.abs(regionArea(made))).toBeCloseTo(200, 2);
        expect(made.every(isContinuous)).toBe(true);
      }
      // A step that can be told stays one.
      const stepped = unite(engine, [rect(0, 0, 10, 10), rect(-5, 5, 9.99, 15)]);
      expect(Math.min(...lengths(stepped))).toBeCloseTo(0.01, 3);
    },
  );
});
