/**
 * The cubic nearest to a run of points, its ends where the first and the last of them lie. At each end the direction may be given, or
 * be what fits best. Handles by least squares (Schneider 1990, "An algorithm for automatically fitting digitized curves", with free
 * directions too), between rounds of which the parameters of the points move to their feet on the curve by Newton's method.
 */
import { floatAt } from './elements';
import type { Point } from './point';
import { type Cubic, cubic } from './segment';
import { solve } from './solve';

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

const xs = new Float64Array(SAMPLES);
const ys = new Float64Array(SAMPLES);
const ts = new Float64Array(SAMPLES);
/** Normal equations for two, three or four unknowns, each row with its right side. */
const EQUATIONS = [2, 3, 4].map((n) => Array.from({ length: n }, () => new Float64Array(n + 1)));

/** The nearest cubic to a run of points; null where they lie on one spot, or no curve runs forwards through them. */
export function leastCubic({ points, from, to, start, end }: PointRun): LeastCubic | null {
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
  // What each unknown adds to x and to y for one unit of its Bernstein polynomial: 0 the first handle's, 1 the second's.
  const unknowns: { readonly of: 0 | 1; readonly x: number; readonly y: number }[] = [];
  const put = (of: 0 | 1, way: Point | null) => {
    if (way) unknowns.push({ of, x: way.x, y: way.y });
    else unknowns.push({ of, x: 1, y: 0 }, { of, x: 0, y: 1 });
  };
  put(0, start);
  put(1, end && { x: -end.x, y: -end.y });
  const count = unknowns.length;
  const rows = EQUATIONS[count - 2] as Float64Array[];
  let best: LeastCubic | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    for (const row of rows) row.fill(0);
    for (let k = 1; k < n - 1; k++) {
      const t = floatAt(ts, k);
      const w = 1 - t;
      const b1 = 3 * w * w * t;
      const b2 = 3 * w * t * t;
      const head = w * w * w + b1;
      const tail = t * t * t + b2;
      const rx = floatAt(xs, k) - head * px - tail * qx;
      const ry = floatAt(ys, k) - head * py - tail * qy;
      for (let i = 0; i < count; i++) {
        const u = unknowns[i] as (typeof unknowns)[number];
        const bu = u.of === 0 ? b1 : b2;
        const row = rows[i] as Float64Array;
        for (let j = 0; j < count; j++) {
          const v = unknowns[j] as (typeof unknowns)[number];
          row[j] = floatAt(row, j) + bu * (v.of === 0 ? b1 : b2) * (u.x * v.x + u.y * v.y);
        }
        row[count] = floatAt(row, count) + bu * (u.x * rx + u.y * ry);
      }
    }
    let [ax, ay, bx, by] = [0, 0, 0, 0];
    if (n - 2 >= Math.ceil(count / 2) && solve(rows)) {
      for (let i = 0; i < count; i++) {
        const u = unknowns[i] as (typeof unknowns)[number];
        const value = floatAt(rows[i] as Float64Array, count);
        if (u.of === 0) {
          ax += value * u.x;
          ay += value * u.y;
        } else {
          bx += value * u.x;
          by += value * u.y;
        }
      }
    }
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
    if (round > 0 && rms > before * (1 - WON)) break;
  }
  return best;
}
