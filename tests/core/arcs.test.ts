import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { pathToArcs } from '../../src/core/geometry/arcs';
import { uniteLabelled } from '../../src/core/geometry/boolean/union';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { isContinuous, pathLength } from '../../src/core/geometry/path';
import {
  type Arc,
  arcAbout,
  arcRadius,
  arcToCubics,
  cubic,
  pointAt,
  quadratic,
  type Segment,
  subSegment,
} from '../../src/core/geometry/segment';
import { boxOf, segmentLength } from '../../src/core/geometry/segment-measures';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf } from '../../src/core/job/export';
import { faces, rawOutlines, set, typeface, wasmEngine } from '../support/faces';
import { NAME_JOBS } from '../support/names';
import { sample } from '../support/scale';

/** The farthest a point of one list of segments lies from the other, which is measured as fine chords. */
function deviation(from: readonly Segment[], to: readonly Segment[], samples = 24, fine = 2000): number {
  const chords = to.flatMap((s) => {
    const steps = s.kind === 'line' ? 1 : fine;
    return Array.from({ length: steps }, (_, i) => [pointAt(s, i / steps), pointAt(s, (i + 1) / steps)] as const);
  });
  let worst = 0;
  for (const s of from)
    for (let i = 0; i <= samples; i++) {
      const p = pointAt(s, i / samples);
      let least = Infinity;
      for (const [a, b] of chords) {
        const [dx, dy] = [b.x - a.x, b.y - a.y];
        const l = dx * dx + dy * dy;
        const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / l));
        least = Math.min(least, Math.hypot(a.x + u * dx - p.x, a.y + u * dy - p.y));
      }
      worst = Math.max(worst, least);
    }
  return worst;
}

/** Bounds of lines and arcs agree with those of the curves this closely. */
const BOUNDS_MM = 0.0021;

/** How far the fine chords themselves may lie off a sharp bend. */
const MEASURE_MM = 2e-5;

const n = fc.double({ min: -60, max: 60, noNaN: true });
const curve = fc.oneof(
  fc.tuple(n, n, n, n, n, n).map((v) => quadratic(...v)),
  fc.tuple(n, n, n, n, n, n, n, n).map((v) => cubic(...v)),
);

test('lines and arcs stay within the tolerance, both ways, and meet end to start', { tags: 'slow' }, () => {
  fc.assert(
    fc.property(
      curve.filter((s) => Math.hypot(s.x1 - s.x0, s.y1 - s.y0) > 0.01),
      fc.constantFrom(0.2, 0.02, 0.005),
      (s, tolerance) => {
        const arcs = pathToArcs({ segments: [s], closed: false }, tolerance);
        for (const [i, a] of arcs.entries()) {
          const before = i === 0 ? { x1: s.x0, y1: s.y0 } : (arcs[i - 1] as Segment);
          expect(Math.hypot(a.x0 - before.x1, a.y0 - before.y1)).toBeLessThan(1e-8);
        }
        expect(deviation([s], arcs, 60)).toBeLessThanOrEqual(tolerance + MEASURE_MM);
        expect(deviation(arcs, [s], 12)).toBeLessThanOrEqual(tolerance + MEASURE_MM);
      },
    ),
    { numRuns: sample(6, 400) },
  );
});

const totalLength = (segments: readonly Segment[]) => segments.reduce((sum, s) => sum + segmentLength(s), 0);

test('letters need few arcs, both ways within the tolerance, at true bounds', { tags: 'slow' }, () => {
  for (const family of ['Pacifico', 'Libre Baskerville', 'Poppins']) {
    const paths = rawOutlines(set(family, 'Alder Lane'), typeface(family));
    const curves = paths.flatMap((p) => p.segments);
    const arcs = paths.flatMap((p) => pathToArcs(p, 0.02));
    expect(arcs.length).toBeLessThan(curves.length * 1.6);
    for (const path of paths) {
      const fitted = pathToArcs(path, 0.02);
      const [box, fittedBox] = [boxOf(path.segments), boxOf(fitted)];
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
        expect(Math.abs(fittedBox[side] - box[side])).toBeLessThanOrEqual(BOUNDS_MM);
      expect(isContinuous({ segments: fitted, closed: true })).toBe(true);
      expect(Math.abs(totalLength(fitted) - totalLength(path.segments))).toBeLessThanOrEqual(0.021);
    }
    for (const path of paths.slice(0, 4)) {
      const fitted = pathToArcs(path, 0.02);
      expect(deviation(path.segments, fitted, 16, 200)).toBeLessThanOrEqual(0.02);
      expect(deviation(fitted, path.segments, 16, 200)).toBeLessThanOrEqual(0.02);
    }
  }
});

test('a long path is as long as its curves, however many stretches it takes, and no nearer than it must be', {
  tags: 'slow',
}, () => {
  const [word] = uniteLabelled(wasmEngine, [rawOutlines(set('Pacifico', 'minimum hum'), typeface('Pacifico'))], 0.005)
    .map((o) => o.path)
    .sort((a, b) => b.segments.length - a.segments.length);
  if (!word) throw new Error('no word');
  for (const tolerance of [0.1, 0.02, 0.005]) {
    const fitted = pathToArcs(word, tolerance);
    expect(Math.abs(totalLength(fitted) - totalLength(word.segments))).toBeLessThanOrEqual(tolerance + 0.001);
    expect(deviation(fitted, word.segments, 4, 24)).toBeLessThanOrEqual(tolerance + 0.002);
  }
  expect(pathToArcs(word, 0.1).length).toBeLessThan(pathToArcs(word, 0.005).length);
});

test('a circle of curves becomes a circle of arcs, whatever its nodes', () => {
  for (const pieces of [4, 8, 12, 5]) {
    const round = arcAbout(0, 0, 30, 0.3, 2 * Math.PI);
    const cubics = Array.from({ length: pieces }, (_, i) =>
      arcToCubics(subSegment(round, i / pieces, (i + 1) / pieces) as Arc, 0.005),
    ).flat();
    const arcs = pathToArcs({ segments: cubics, closed: true }, 0.02);
    expect(arcs.every((s) => s.kind === 'arc' && Math.abs(arcRadius(s) - 30) < 0.02)).toBe(true);
    expect(arcs.length).toBeLessThanOrEqual(6);
  }
});

test('curves that meet at a corner are not fitted over it', () => {
  const corner = [quadratic(0, 0, 10, 0, 10, 10), quadratic(10, 10, 10, 9, 20, 20)];
  const arcs = pathToArcs({ segments: corner, closed: false }, 0.5);
  expect(arcs.some((s) => Math.hypot(s.x1 - 10, s.y1 - 10) < 1e-9)).toBe(true);
});

test('a straight curve becomes a line, a point nothing', () => {
  const arcsOf = (s: Segment) => pathToArcs({ segments: [s], closed: false }, 0.02);
  expect(arcsOf(cubic(0, 0, 1, 0, 2, 0, 3, 0)).every((s) => s.kind === 'line')).toBe(true);
  expect(arcsOf(quadratic(5, 5, 5, 5, 5, 5))).toEqual([]);
});

test('a long path that strays to one side is as long in arcs as it is', () => {
  // Of few paths can no shape of arcs be found at once whose length is right.
  const job = (NAME_JOBS['tied name'] as (words: string) => Job)('Øyvind Ångström');
  const drawing = drawingOf(job, new Evaluator(wasmEngine).evaluate(job, faces));
  const paths = drawing?.layers.flatMap(({ drawn }) => drawn.flatMap(drawnPaths)) ?? [];
  const longest = paths.reduce((a, b) => (pathLength(b) > pathLength(a) ? b : a));
  for (const tolerance of [0.02, 0.05]) {
    const arcs = pathToArcs(longest, tolerance);
    expect(Math.abs(pathLength({ segments: arcs, closed: true }) - pathLength(longest))).toBeLessThanOrEqual(
      tolerance + 0.001 + 1e-9,
    );
  }
});
