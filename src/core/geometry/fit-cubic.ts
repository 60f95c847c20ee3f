/**
 * Cubics through a smooth curve given by its points and directions. The two handle lengths come from least squares
 * (Schneider 1990, "An algorithm for automatically fitting digitized curves"), with the parameters of the samples moved
 * to the nearest points between rounds; a curve that does not fit within the tolerance is halved.
 */
import { numberAt } from './elements';
import type { Point } from './point';
import { type Cubic, cubic, pointAt } from './segment';
import { nearestParameter } from './segment-measures';

/** A point and the unit direction of travel there. */
export type Sample = { readonly x: number; readonly y: number; readonly tx: number; readonly ty: number };

const SAMPLES = 9;
const ROUNDS = 3;
/** Curves are halved at most this often: one that does not fit by then has no direction to fit. */
const DEEPEST = 6;

/** Cubics from parameter `from` to `to` of a smooth curve, within `tolerance` mm of it. */
export function fitCubics(
  at: (t: number) => Sample,
  {
    from,
    to,
    tolerance,
    depth = 0,
  }: { readonly from: number; readonly to: number; readonly tolerance: number; readonly depth?: number | undefined },
): Cubic[] {
  const samples: Sample[] = [];
  for (let i = 0; i < SAMPLES; i++) samples.push(at(from + ((to - from) * i) / (SAMPLES - 1)));
  const fitted = fitOne(samples, tolerance);
  if (depth >= DEEPEST || (fitted.within && staysWithin(fitted, at, { from, to, tolerance }))) return [fitted.curve];
  const middle = (from + to) / 2;
  return [
    ...fitCubics(at, { from, to: middle, tolerance, depth: depth + 1 }),
    ...fitCubics(at, { from: middle, to, tolerance, depth: depth + 1 }),
  ];
}

/** Whether the curve is near a cubic between the samples of its fit, too. */
function staysWithin(
  { curve, parameters }: Fit,
  at: (t: number) => Sample,
  { from, to, tolerance }: { readonly from: number; readonly to: number; readonly tolerance: number },
): boolean {
  for (let i = 0; i < SAMPLES - 1; i++) {
    const s = at(from + ((to - from) * (i + 0.5)) / (SAMPLES - 1));
    // Where it is near about there the nearest place, which takes longer to find, is nearer still.
    if (away(curve, (numberAt(parameters, i) + numberAt(parameters, i + 1)) / 2, s) <= tolerance) continue;
    if (away(curve, nearestParameter(curve, s.x, s.y), s) > tolerance) return false;
  }
  return true;
}

/** How far a cubic is from a point, at a parameter. */
function away(curve: Cubic, t: number, { x, y }: Point): number {
  const p = pointAt(curve, t);
  return Math.hypot(p.x - x, p.y - y);
}

/** A cubic, about where on it the samples are, and whether it is near all of them. */
type Fit = { readonly curve: Cubic; readonly parameters: readonly number[]; readonly within: boolean };

function fitOne(samples: readonly Sample[], tolerance: number): Fit {
  const first = samples[0] as Sample;
  const last = samples[samples.length - 1] as Sample;
  const chord = Math.hypot(last.x - first.x, last.y - first.y);
  const parameters = byChordLength(samples);
  let curve = withHandles(first, last, chord / 3, chord / 3);
  let worst = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const handles = leastSquares(samples, parameters, chord);
    curve = withHandles(first, last, handles[0], handles[1]);
    // What is near where the samples are taken to be is nearer still at their nearest places.
    if (samples.every((s, i) => away(curve, numberAt(parameters, i), s) <= tolerance))
      return { curve, parameters, within: true };
    worst = 0;
    for (let i = 1; i < samples.length - 1; i++) {
      const s = samples[i] as Sample;
      const t = footNear(curve, s, numberAt(parameters, i));
      parameters[i] = t;
      worst = Math.max(worst, away(curve, t, s));
    }
    if (worst <= tolerance) break;
  }
  return { curve, parameters, within: worst <= tolerance };
}

/** How far from where it is sought a foot may be. */
const FOOT_WITHIN = 0.15;
const FOOT_ROUNDS = 10;
/** Steps this small end the search. */
const FOOT_STEP = 1e-13;

/** The parameter of the foot of a point's perpendicular on a cubic, by Gauss and Newton from one near it. */
function footNear({ x0, y0, ax, ay, bx, by, x1, y1 }: Cubic, { x, y }: Point, near: number): number {
  // Written out, without points in between: most of what fitting takes goes here.
  const low = Math.max(0, near - FOOT_WITHIN);
  const high = Math.min(1, near + FOOT_WITHIN);
  let t = near;
  for (let k = 0; k < FOOT_ROUNDS; k++) {
    const u = 1 - t;
    const [c0, c1, c2, c3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    const dx = 3 * (u * u * (ax - x0) + 2 * u * t * (bx - ax) + t * t * (x1 - bx));
    const dy = 3 * (u * u * (ay - y0) + 2 * u * t * (by - ay) + t * t * (y1 - by));
    const speed = dx * dx + dy * dy;
    if (speed === 0) break;
    const px = c0 * x0 + c1 * ax + c2 * bx + c3 * x1;
    const py = c0 * y0 + c1 * ay + c2 * by + c3 * y1;
    const next = Math.min(high, Math.max(low, t + ((x - px) * dx + (y - py) * dy) / speed));
    if (Math.abs(next - t) < FOOT_STEP) break;
    t = next;
  }
  return t;
}

function byChordLength(samples: readonly Sample[]): number[] {
  const lengths = [0];
  for (let i = 1; i < samples.length; i++) {
    const p = samples[i - 1] as Sample;
    const q = samples[i] as Sample;
    lengths.push(numberAt(lengths, i - 1) + Math.hypot(q.x - p.x, q.y - p.y));
  }
  const whole = lengths[lengths.length - 1] || 1;
  return lengths.map((l) => l / whole);
}

const withHandles = (p: Sample, q: Sample, a: number, b: number): Cubic =>
  cubic(p.x, p.y, p.x + a * p.tx, p.y + a * p.ty, q.x - b * q.tx, q.y - b * q.ty, q.x, q.y);

/** Handle lengths that bring the cubic nearest to the samples; a third of the chord where that has no sensible answer. */
function leastSquares(samples: readonly Sample[], parameters: readonly number[], chord: number): [number, number] {
  const p = samples[0] as Sample;
  const q = samples[samples.length - 1] as Sample;
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let x0 = 0;
  let x1 = 0;
  samples.forEach((s, i) => {
    const t = numberAt(parameters, i);
    const u = 1 - t;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const start = u * u * u + b1;
    const end = t * t * t + b2;
    const rx = s.x - start * p.x - end * q.x;
    const ry = s.y - start * p.y - end * q.y;
    c00 += b1 * b1;
    c01 -= b1 * b2 * (p.tx * q.tx + p.ty * q.ty);
    c11 += b2 * b2;
    x0 += b1 * (p.tx * rx + p.ty * ry);
    x1 -= b2 * (q.tx * rx + q.ty * ry);
  });
  const det = c00 * c11 - c01 * c01;
  const a = (x0 * c11 - x1 * c01) / det;
  const b = (c00 * x1 - c01 * x0) / det;
  const least = 1e-3 * chord;
  const usable = Number.isFinite(a) && Number.isFinite(b) && a > least && b > least && a < 4 * chord && b < 4 * chord;
  return usable ? [a, b] : [chord / 3, chord / 3];
}
