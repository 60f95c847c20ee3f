/** Straight stretches of an outline, and their lines of least squares. */
import { floatAt } from '../geometry/elements';
import type { Point } from '../geometry/point';

/** How far the segments may be from the points, and how far the points stray from the edge they tell, in pixels. */
export type PieceSettings = { readonly tolerance: number; readonly noise: number };

/** A straight stretch of points, and its line of least squares. */
export type Straight = { readonly from: number; readonly to: number; readonly p: Point; readonly way: Point };

/** A straight stretch within a curve is at least so long, in pixels; longer by the root of how many times more loosely it is followed than this. */
const LEAST_STRAIGHT = 12;
const CLOSELY = 0.12;

/** How long a straight stretch within a curve has to be. */
export const leastStraight = ({ tolerance }: PieceSettings): number =>
  LEAST_STRAIGHT * Math.sqrt(Math.max(1, tolerance / CLOSELY));

/** Sums over the first points of a list, from which the line of least squares through any of them is had at once. */
type Sums = {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly xx: Float64Array;
  readonly xy: Float64Array;
  readonly yy: Float64Array;
};

function sumsOf(points: readonly Point[]): Sums {
  const n = points.length + 1;
  const sums = {
    x: new Float64Array(n),
    y: new Float64Array(n),
    xx: new Float64Array(n),
    xy: new Float64Array(n),
    yy: new Float64Array(n),
  };
  const origin = points[0] ?? { x: 0, y: 0 };
  points.forEach((p, i) => {
    const [x, y] = [p.x - origin.x, p.y - origin.y];
    sums.x[i + 1] = floatAt(sums.x, i) + x;
    sums.y[i + 1] = floatAt(sums.y, i) + y;
    sums.xx[i + 1] = floatAt(sums.xx, i) + x * x;
    sums.xy[i + 1] = floatAt(sums.xy, i) + x * y;
    sums.yy[i + 1] = floatAt(sums.yy, i) + y * y;
  });
  return sums;
}

/** The line of least squares through points `from` to `to`: a point of it, and its direction. */
function leastLine(points: readonly Point[], sums: Sums, from: number, to: number): { p: Point; way: Point } {
  const n = to - from + 1;
  const over = (list: Float64Array) => floatAt(list, to + 1) - floatAt(list, from);
  const [mx, my] = [over(sums.x) / n, over(sums.y) / n];
  const [cxx, cxy, cyy] = [over(sums.xx) / n - mx * mx, over(sums.xy) / n - mx * my, over(sums.yy) / n - my * my];
  const angle = 0.5 * Math.atan2(2 * cxy, cxx - cyy);
  const [first, last, origin] = [points[from] as Point, points[to] as Point, points[0] as Point];
  let way = { x: Math.cos(angle), y: Math.sin(angle) };
  if (way.x * (last.x - first.x) + way.y * (last.y - first.y) < 0) way = { x: -way.x, y: -way.y };
  return { p: { x: mx + origin.x, y: my + origin.y }, way };
}

/** What points `from` to `to` stray from their line of least squares in the mean of squares: that alone, since it is asked most. */
function strayOf(sums: Sums, from: number, to: number): number {
  const n = to - from + 1;
  const [mx, my] = [
    (floatAt(sums.x, to + 1) - floatAt(sums.x, from)) / n,
    (floatAt(sums.y, to + 1) - floatAt(sums.y, from)) / n,
  ];
  const cxx = (floatAt(sums.xx, to + 1) - floatAt(sums.xx, from)) / n - mx * mx;
  const cxy = (floatAt(sums.xy, to + 1) - floatAt(sums.xy, from)) / n - mx * my;
  const cyy = (floatAt(sums.yy, to + 1) - floatAt(sums.yy, from)) / n - my * my;
  const half = (cxx - cyy) / 2;
  return Math.sqrt(Math.max(0, (cxx + cyy) / 2 - Math.sqrt(half * half + cxy * cxy)));
}

/** How far the middle of a stretch bulges from the line of least squares, by a parabola. */
function bulge(points: readonly Point[], from: number, to: number, p: Point, way: Point): number {
  let [s2, s4, n, v0, v2] = [0, 0, 0, 0, 0];
  let most = 0;
  for (let i = from; i <= to; i++) {
    const q = points[i] as Point;
    const u = (q.x - p.x) * way.x + (q.y - p.y) * way.y;
    const v = (q.y - p.y) * way.x - (q.x - p.x) * way.y;
    s2 += u * u;
    s4 += u * u * u * u;
    v0 += v;
    v2 += v * u * u;
    n++;
    most = Math.max(most, Math.abs(u));
  }
  const det = n * s4 - s2 * s2;
  return det > 0 ? Math.abs(((n * v2 - s2 * v0) / det) * most * most) : 0;
}

/** Straight stretches of at least `least` pixels, the longest from each place. */
export function straights(points: readonly Point[], least: number, { noise }: PieceSettings): Straight[] {
  const sums = sumsOf(points);
  const out: Straight[] = [];
  const most = 0.02 + 1.3 * noise;
  const isStraight = (i: number, j: number) => strayOf(sums, i, j) <= most;
  const n = points.length;
  for (let i = 0; i < n - 1; ) {
    let j = i + 1;
    for (let step = 4; step >= 1; ) {
      const next = Math.min(n - 1, j + step);
      if (next > j && isStraight(i, next)) {
        j = next;
        step *= 2;
      } else step = step > 1 ? Math.min(step >> 1, 1 << 20) : 0;
    }
    const [p, q] = [points[i] as Point, points[j] as Point];
    if (Math.hypot(q.x - p.x, q.y - p.y) >= least) {
      const found = leastLine(points, sums, i, j);
      if (bulge(points, i, j, found.p, found.way) <= 0.03 + (2.5 * noise) / Math.sqrt(j - i + 1) + noise / 4) {
        out.push({ from: i, to: j, p: found.p, way: found.way });
        i = j;
        continue;
      }
    }
    i += Math.max(1, Math.min(3, (j - i) >> 2));
  }
  return out;
}

/** The foot of a point on the line of a stretch. */
export const foot = (q: Point, { p, way }: Straight): Point => {
  const u = (q.x - p.x) * way.x + (q.y - p.y) * way.y;
  return { x: p.x + u * way.x, y: p.y + u * way.y };
};

/** How far a point is from the line of a stretch. */
export const offLine = ({ p, way }: Straight, q: Point): number => Math.abs((q.y - p.y) * way.x - (q.x - p.x) * way.y);
