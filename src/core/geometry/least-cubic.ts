/**
 * The cubic nearest to a run of points, its ends where the first and the last of them lie. At each end the direction may be given, or
 * be what fits best. Handles by least squares (Schneider 1990, "An algorithm for automatically fitting digitized curves", with free
 * directions too), between rounds of which the parameters of the points move to their feet on the curve by Newton's method.
 */
import { floatAt } from './elements';
import type { Point } from './point';
import { type Cubic, cubic } from './segment';

/** A run of points `from` to `to` of a list, and the unit directions of travel at its ends; null: what fits best. */
export type PointRun = {
  readonly points: readonly Point[];
  readonly from: number;
  readonly to: number;
  readonly start: Point | null;
  readonly end: Point | null;
};

/** A cubic, and how far the points are from it at most and in the mean of squares. */
export type LeastCubic = { readonly curve: Cubic; readonly worst: number; readonly rms: number };

/** Most points of a run that are looked at. */
const SAMPLES = 40;
/** Rounds of fitting; it ends earlier where a round wins less than this share. */
const ROUNDS = 8;
const WON = 0.02;
/** After two rounds a curve this many times as far off as is enough does not come near any more. */
const HOPELESS = 5;

const xs = new Float64Array(SAMPLES);
const ys = new Float64Array(SAMPLES);
const ts = new Float64Array(SAMPLES);
/** Sums over the points of a run, from which its handles follow: products of the two middle Bernstein polynomials, and with what is left. */
type Sums = {
  readonly s11: number;
  readonly s12: number;
  readonly s22: number;
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
};

/** The handles of least squares: first ax, ay, then bx, by from the ends; null where the points do not tell them. */
function handlesOf(
  { s11, s12, s22, x1, y1, x2, y2 }: Sums,
  u: Point | null,
  w: Point | null,
): [number, number, number, number] | null {
  if (!u && !w) {
    const det = s11 * s22 - s12 * s12;
    if (!(det > 1e-12 * s11 * s22)) return null;
    return [
      (s22 * x1 - s12 * x2) / det,
      (s22 * y1 - s12 * y2) / det,
      (s11 * x2 - s12 * x1) / det,
      (s11 * y2 - s12 * y1) / det,
    ];
  }
  if (u && w) {
    const c01 = s12 * (u.x * w.x + u.y * w.y);
    const [r0, r1] = [u.x * x1 + u.y * y1, w.x * x2 + w.y * y2];
    const det = s11 * s22 - c01 * c01;
    if (!(det > 1e-12 * s11 * s22)) return null;
    const [a, b] = [(s22 * r0 - c01 * r1) / det, (s11 * r1 - c01 * r0) / det];
    return [a * u.x, a * u.y, b * w.x, b * w.y];
  }
  // One is given: what is free follows it.
  const det = s11 - (s12 * s12) / s22;
  const other = s22 - (s12 * s12) / s11;
  if (u) {
    if (!(det > 1e-12 * s11)) return null;
    const a = (u.x * x1 + u.y * y1 - (s12 / s22) * (u.x * x2 + u.y * y2)) / det;
    return [a * u.x, a * u.y, (x2 - s12 * a * u.x) / s22, (y2 - s12 * a * u.y) / s22];
  }
  const way = w as Point;
  if (!(other > 1e-12 * s22)) return null;
  const b = (way.x * x2 + way.y * y2 - (s12 / s11) * (way.x * x1 + way.y * y1)) / other;
  return [(x1 - s12 * b * way.x) / s11, (y1 - s12 * b * way.y) / s11, b * way.x, b * way.y];
}

/**
 * The nearest cubic to a run of points; null where they lie on one spot, or no curve runs forwards through them. One that is nowhere
 * farther off than `enough` is not made better; 0 for the nearest.
 */
export function leastCubic({ points, from, to, start, end }: PointRun, enough = 0): LeastCubic | null {
  const n = Math.min(SAMPLES, to - from + 1);
  if (n < 2) return null;
  let length = 0;
  for (let k = 0; k < n; k++) {
    const p = points[from + Math.round((k * (to - from)) / (n - 1))] as Point;
    xs[k] = p.x;
    ys[k] = p.y;
    if (k > 0) length += Math.hypot(p.x - floatAt(xs, k - 1), p.y - floatAt(ys, k - 1));
    ts[k] = length;
  }
  const [px, py, qx, qy] = [floatAt(xs, 0), floatAt(ys, 0), floatAt(xs, n - 1), floatAt(ys, n - 1)];
  const chord = Math.hypot(qx - px, qy - py);
  if (length === 0 || chord === 0) return null;
  for (let k = 0; k < n; k++) ts[k] = floatAt(ts, k) / length;
  const back = end && { x: -end.x, y: -end.y };
  let best: LeastCubic | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    let [s11, s12, s22, x1, y1, x2, y2] = [0, 0, 0, 0, 0, 0, 0];
    for (let k = 1; k < n - 1; k++) {
      const t = floatAt(ts, k);
      const w = 1 - t;
      const b1 = 3 * w * w * t;
      const b2 = 3 * w * t * t;
      const head = w * w * w + b1;
      const tail = t * t * t + b2;
      const rx = floatAt(xs, k) - head * px - tail * qx;
      const ry = floatAt(ys, k) - head * py - tail * qy;
      s11 += b1 * b1;
      s12 += b1 * b2;
      s22 += b2 * b2;
      x1 += b1 * rx;
      y1 += b1 * ry;
      x2 += b2 * rx;
      y2 += b2 * ry;
    }
    const handles = n >= 4 ? handlesOf({ s11, s12, s22, x1, y1, x2, y2 }, start, back) : null;
    let [ax, ay, bx, by] = handles ?? [0, 0, 0, 0];
    const least = 1e-3 * chord;
    const [a, b] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
    const goesOn = (!start || ax * start.x + ay * start.y > least) && (!end || bx * end.x + by * end.y < -least);
    if (!goesOn || a < least || b < least || a > 3 * length || b > 3 * length) {
      const third = length / 3;
      const [cx, cy] = [(qx - px) / chord, (qy - py) / chord];
      ax = third * (start?.x ?? cx);
      ay = third * (start?.y ?? cy);
      bx = -third * (end?.x ?? cx);
      by = -third * (end?.y ?? cy);
    }
    const [hx, hy, kx, ky] = [px + ax, py + ay, qx + bx, qy + by];
    let worst = 0;
    let sum = 0;
    for (let k = 1; k < n - 1; k++) {
      const t = floatAt(ts, k);
      const w = 1 - t;
      const [k0, k1, k2, k3] = [w * w * w, 3 * w * w * t, 3 * w * t * t, t * t * t];
      const ex = k0 * px + k1 * hx + k2 * kx + k3 * qx - floatAt(xs, k);
      const ey = k0 * py + k1 * hy + k2 * ky + k3 * qy - floatAt(ys, k);
      const dx = 3 * (w * w * ax + 2 * w * t * (kx - hx) - t * t * bx);
      const dy = 3 * (w * w * ay + 2 * w * t * (ky - hy) - t * t * by);
      const speed = dx * dx + dy * dy;
      // What is off along the curve is a matter of the parameter, what is off across it is an error.
      const off = speed === 0 ? Math.hypot(ex, ey) : Math.abs(ex * dy - ey * dx) / Math.sqrt(speed);
      worst = Math.max(worst, off);
      sum += off * off;
      if (speed === 0) continue;
      const ddx = 6 * (w * (kx - 2 * hx + px) + t * (qx - 2 * kx + hx));
      const ddy = 6 * (w * (ky - 2 * hy + py) + t * (qy - 2 * ky + hy));
      const slope = speed + ex * ddx + ey * ddy;
      const next = t - (ex * dx + ey * dy) / (slope > 0 ? slope : speed);
      if (next > 0 && next < 1) ts[k] = next;
    }
    const rms = Math.sqrt(sum / Math.max(1, n - 2));
    const before = best?.rms ?? Infinity;
    if (!best || rms < best.rms) best = { curve: cubic(px, py, hx, hy, kx, ky, qx, qy), worst, rms };
    if (worst <= enough || (round > 0 && rms > before * (1 - WON))) break;
    if (round > 1 && enough > 0 && worst > HOPELESS * enough) break;
  }
  return best;
}
