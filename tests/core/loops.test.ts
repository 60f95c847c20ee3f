/**
 * Drifting loops that cross themselves, drawn with a pen of known width and found again: what the pen followed is the truth. The outlines
 * are made by another library's offsetting. `npm run verify` looks at two hundred.
 */
import { expect, test } from 'vitest';
import { nestPaths } from '../../src/core/geometry/nesting';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { centerlineOf, penOf } from '../../src/core/toolpath/centerline/centerline';
import { figure } from '../support/figures';
import { penned, type Tip } from '../support/pen';
import { chance } from '../support/random';
import { distanceTo, mean, quantile } from '../support/truth';

const full = process.env.NEEDLEFILE_VERIFY === '1';
const LOOPS = full ? 200 : 24;
const STEPS = 160;

/** The way of a pen that goes round and round an ellipse while that moves on. */
function loopBy(next: () => number): { readonly points: readonly Point[]; readonly width: number } {
  const [turns, drift] = [1.1 + 1.4 * next(), 2 + 5 * next()];
  const [rx, ry, from, width] = [3 + 3 * next(), 3 + 4 * next(), 2 * Math.PI * next(), 0.8 + 0.6 * next()];
  const points = Array.from({ length: STEPS + 1 }, (_, i) => {
    const angle = from + (2 * Math.PI * turns * i) / STEPS;
    return { x: (drift * turns * i) / STEPS + rx * Math.cos(angle), y: ry * Math.sin(angle) };
  });
  return { points, width };
}

/** Points along a line, no farther apart than a tenth of the pen. */
const along = (points: readonly Point[], width: number): Point[] =>
  points.slice(1).flatMap((q, i) => {
    const p = points[i] as Point;
    const n = Math.max(1, Math.ceil((10 * Math.hypot(q.x - p.x, q.y - p.y)) / width));
    return Array.from({ length: n }, (_, k) => ({ x: p.x + ((q.x - p.x) * k) / n, y: p.y + ((q.y - p.y) * k) / n }));
  });

test('loops that cross themselves lie where the pen went', { timeout: 300_000, tags: 'slow' }, () => {
  const next = chance(24);
  const [toTruth, fromTruth]: [number[], number[]] = [[], []];
  let drawn = 0;
  while (drawn < LOOPS) {
    const { points, width } = loopBy(next);
    const tip: Tip = drawn % 2 === 0 ? 'round' : 'flat';
    const way: Path = {
      closed: false,
      segments: points.slice(1).map((q, i) => line((points[i] as Point).x, (points[i] as Point).y, q.x, q.y)),
    };
    const region = penned([way], width, tip);
    const { depth } = nestPaths(region);
    if (depth.filter((d) => d === 0).length !== 1) continue;
    drawn++;
    // The outline first, then its holes.
    const ordered = region.map((path, i) => ({ path, d: depth[i] as number })).sort((a, b) => a.d - b.d);
    const paths = ordered.map((o) => o.path);
    const pen = penOf([paths]);
    const ends = tip === 'round' ? 'short' : 'tip';
    const found = centerlineOf(paths, { detail: 0.45, smooth: 0.01, ends, pen }).paths.map((p) => {
      const flat = flattenPath(p, width / 500);
      return p.closed ? [...flat, flat[0] as Point] : flat;
    });
    for (const one of found) toTruth.push(...along(one, width).map((p) => distanceTo(p, [points]) / width));
    fromTruth.push(...along(points, width).map((p) => distanceTo(p, found) / width));
  }
  const put = (name: string, value: number, most: number, digits: number) =>
    figure({ name: `middle lines of ${LOOPS} loops that cross themselves: ${name}`, value, digits, aim: { most } });
  put('mean distance to the truth, pens', mean(toTruth), 0.01, 4);
  put('distance of 99 % to the truth, pens', quantile(toTruth, 0.99), 0.12, 3);
  put('distance of 99 % from the truth, pens', quantile(fromTruth, 0.99), 0.25, 3);
  expect(mean(toTruth)).toBeLessThanOrEqual(0.01);
  expect(quantile(toTruth, 0.99)).toBeLessThanOrEqual(0.12);
  expect(quantile(fromTruth, 0.99)).toBeLessThanOrEqual(0.25);
});
