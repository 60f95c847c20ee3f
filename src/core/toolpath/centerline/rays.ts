/** Where a track ends, its direction there and how it bends, from as much of it as tells. */
import type { Point } from '../../geometry/point';
import type { TrackPoint } from './track';

/** How much of a track tells its direction, in radii. */
const TELLING = 2;
const LEAST_TELLING = 0.4;
/** How far its points may lie from one bend, in radii. */
const OFF = 0.015;
/** How far an end is taken on to meet something, in radii. */
export const REACH = 4.5;
/** Two ends that are left over turn in a corner from here on. */
export const CORNER = (30 * Math.PI) / 180;

/** The end of a stroke: where it is, which way it runs out, and half its width. */
export type Ray = {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly bend: number;
  readonly r: number;
};

/** A parabola through the last stretch of a track, `telling` radii long; how far points lie from it comes with it. */
function parabola(points: readonly TrackPoint[], end: 0 | 1, telling: number): { ray: Ray; off: number } {
  const n = points.length;
  const at = (k: number) => points[end === 1 ? n - 1 - k : k] as TrackPoint;
  const tip = at(0);
  const near: TrackPoint[] = [tip];
  let length = 0;
  for (let k = 1; k < n; k++) {
    length += Math.hypot(at(k).x - at(k - 1).x, at(k).y - at(k - 1).y);
    if (length > telling * tip.r && near.length > 3) break;
    near.push(at(k));
  }
  const back = near[near.length - 1] as TrackPoint;
  const chord = Math.hypot(tip.x - back.x, tip.y - back.y);
  const bare = { x: tip.x, y: tip.y, bend: 0, r: tip.r };
  if (near.length < 2 || chord === 0) return { ray: { ...bare, dx: 1, dy: 0 }, off: 0 };
  const [ux, uy] = [(tip.x - back.x) / chord, (tip.y - back.y) / chord];
  if (near.length < 4) return { ray: { ...bare, dx: ux, dy: uy }, off: 0 };
  // v = a + b·u + c·u², u along the chord from the tip (negative backwards), v to its left.
  let [s1, s2, s3, s4, t0, t1, t2] = [0, 0, 0, 0, 0, 0, 0];
  const local = near.map((p) => {
    const [px, py] = [p.x - tip.x, p.y - tip.y];
    return { u: (px * ux + py * uy) / chord, v: (-px * uy + py * ux) / chord };
  });
  const s0 = local.length;
  for (const { u, v } of local) {
    s1 += u;
    s2 += u * u;
    s3 += u ** 3;
    s4 += u ** 4;
    t0 += v;
    t1 += u * v;
    t2 += u * u * v;
  }
  const det = s0 * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s2 * s3) + s2 * (s1 * s3 - s2 * s2);
  if (Math.abs(det) < 1e-9) return { ray: { ...bare, dx: ux, dy: uy }, off: 0 };
  const a = (t0 * (s2 * s4 - s3 * s3) - s1 * (t1 * s4 - t2 * s3) + s2 * (t1 * s3 - t2 * s2)) / det;
  const b = (s0 * (t1 * s4 - t2 * s3) - t0 * (s1 * s4 - s2 * s3) + s2 * (s1 * t2 - s2 * t1)) / det;
  const c = (s0 * (s2 * t2 - s3 * t1) - s1 * (s1 * t2 - s2 * t1) + t0 * (s1 * s3 - s2 * s2)) / det;
  const size = Math.hypot(1, b);
  const off = Math.max(...local.map(({ u, v }) => Math.abs(a + b * u + c * u * u - v))) * chord;
  const bend = (2 * c) / chord / size ** 3;
  const most = 0.7 / tip.r;
  return {
    ray: {
      x: tip.x - a * chord * uy,
      y: tip.y + a * chord * ux,
      dx: (ux - b * uy) / size,
      dy: (uy + b * ux) / size,
      bend: Math.max(-most, Math.min(most, bend)),
      r: tip.r,
    },
    off,
  };
}

/** Where a track ends, its direction there and how it bends (1/mm, positive to the left), from as much of it as is one bend. */
export function rayOf(points: readonly TrackPoint[], end: 0 | 1): Ray {
  let best = parabola(points, end, TELLING);
  for (let telling = TELLING * 0.7; telling > LEAST_TELLING && best.off > OFF * best.ray.r; telling *= 0.7)
    best = parabola(points, end, telling);
  return best.ray;
}

/** Where two rays cross ahead of both, or a little behind; null where they do not. */
export function cornerOf(a: Ray, b: Ray): Point | null {
  const det = a.dx * b.dy - a.dy * b.dx;
  if (Math.abs(det) < Math.sin(CORNER / 2)) return null;
  const [gx, gy] = [b.x - a.x, b.y - a.y];
  const s = (gx * b.dy - gy * b.dx) / det;
  const t = (gx * a.dy - gy * a.dx) / det;
  const [most, least] = [REACH * Math.max(a.r, b.r), -1.2 * Math.max(a.r, b.r)];
  if (s > most || t > most || s < least || t < least) return null;
  return { x: a.x + s * a.dx, y: a.y + s * a.dy };
}
