/** Centres of weight, and convex hulls. */
import { flattenPath, type Path } from './path';
import type { Point } from './point';

/** How much something weighs, and where its weight has its middle. */
export type Weight = Point & { readonly weight: number };

/**
 * Area enclosed by closed paths, whichever way they run together, and its centroid (Green's theorem on chords within `tolerance`);
 * of open paths their length and its middle.
 */
export function weightOf(paths: readonly Path[], tolerance: number): Weight {
  let [area, x, y] = [0, 0, 0];
  let [length, lx, ly] = [0, 0, 0];
  for (const path of paths) {
    const points = flattenPath(path, tolerance);
    points.forEach((p, i) => {
      const q = points[i + 1] ?? (path.closed ? points[0] : undefined);
      if (!q) return;
      if (path.closed) {
        const cross = p.x * q.y - q.x * p.y;
        area += cross / 2;
        x += ((p.x + q.x) * cross) / 6;
        y += ((p.y + q.y) * cross) / 6;
      } else {
        const run = Math.hypot(q.x - p.x, q.y - p.y);
        length += run;
        lx += (run * (p.x + q.x)) / 2;
        ly += (run * (p.y + q.y)) / 2;
      }
    });
  }
  if (Math.abs(area) > 0) return { weight: Math.abs(area), x: x / area, y: y / area };
  return length > 0 ? { weight: length, x: lx / length, y: ly / length } : { weight: 0, x: 0, y: 0 };
}

/** The middle of several weights; null where they weigh nothing. */
export function middleOfWeights(weights: readonly Weight[]): Point | null {
  let [sum, x, y] = [0, 0, 0];
  for (const w of weights) {
    sum += w.weight;
    x += w.weight * w.x;
    y += w.weight * w.y;
  }
  return sum > 0 ? { x: x / sum, y: y / sum } : null;
}

/** The corners of the convex hull of points, counter-clockwise (Andrew's monotone chain, 1979). */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  if (sorted.length < 3) return sorted;
  const half = (list: readonly Point[]): Point[] => {
    const out: Point[] = [];
    for (const p of list) {
      for (;;) {
        const [a, b] = [out[out.length - 2], out[out.length - 1]];
        if (!a || !b || (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) > 0) break;
        out.pop();
      }
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}
