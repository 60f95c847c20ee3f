/** Where a stroke is cut off: the edge between two corners, and the two edges that lead to it. */
import type { Samples } from '../../geometry/medial';

/** A stroke is cut off between two corners of at least this much, no farther than this many radii from where it ends. */
const CAP_CORNER = (45 * Math.PI) / 180;
const MOST_CAP = 3;
/** The edges that lead to them run side by side within this angle, and are straight within this one. */
const PARALLEL = (25 * Math.PI) / 180;
const EDGE_BENDS = (8 * Math.PI) / 180;

/** The cut-off end of a stroke: where it is, and which way it faces. */
export type Cap = {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly straight: number;
  readonly width: number;
  /** The two corners. */
  readonly corners: readonly [number, number];
  /** Angle between the two edges, in radians. */
  readonly spread: number;
};

/** From a sample on, the first one at which the outline turns sharply, within `reach`; -1 where there is none. */
function cornerFrom(s: Samples, from: number, step: ArrayLike<number>, reach: number): number {
  let length = 0;
  let before = from;
  for (let i = step[from] as number; i !== from; i = step[i] as number) {
    const [ux, uy] = [(s.x[i] as number) - (s.x[before] as number), (s.y[i] as number) - (s.y[before] as number)];
    length += Math.hypot(ux, uy);
    if (length > reach) return -1;
    const after = step[i] as number;
    const [vx, vy] = [(s.x[after] as number) - (s.x[i] as number), (s.y[after] as number) - (s.y[i] as number)];
    if (Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > CAP_CORNER) return i;
    before = i;
  }
  return -1;
}

/** Direction from a corner along an edge away from the cap, over a stretch that stays straight, and how long that is. */
function edgeFrom(
  s: Samples,
  corner: number,
  step: ArrayLike<number>,
  reach: number,
): { dx: number; dy: number; length: number } {
  let i = corner;
  let far = corner;
  let [dx, dy, length] = [0, 0, 0];
  for (;;) {
    i = step[i] as number;
    const [x, y] = [(s.x[i] as number) - (s.x[corner] as number), (s.y[i] as number) - (s.y[corner] as number)];
    const d = Math.hypot(x, y);
    if (i === corner || (length > 0 && (x * dx + y * dy) / d < Math.cos(EDGE_BENDS))) break;
    [dx, dy, length, far] = [x / d, y / d, d, i];
    if (d > reach) break;
  }
  return far === corner ? { dx: 0, dy: 0, length: 0 } : { dx, dy, length };
}

/** The cut-off end of a stroke that a sample lies on: its middle, and the direction of the edges that lead to it. */
export function capAt(s: Samples, sample: number, r: number): Cap | null {
  const reach = MOST_CAP * r;
  const a = cornerFrom(s, sample, s.next, reach);
  const b = cornerFrom(s, s.next[sample] as number, s.previous, reach);
  if (a < 0 || b < 0 || a === b) return null;
  const width = Math.hypot((s.x[a] as number) - (s.x[b] as number), (s.y[a] as number) - (s.y[b] as number));
  if (width < r || width > 2 * reach) return null;
  const [p, q] = [edgeFrom(s, a, s.next, r), edgeFrom(s, b, s.previous, r)];
  if (p.length === 0 || q.length === 0 || p.dx * q.dx + p.dy * q.dy < Math.cos(PARALLEL)) return null;
  const [dx, dy] = [-(p.dx + q.dx), -(p.dy + q.dy)];
  const size = Math.hypot(dx, dy);
  return {
    x: ((s.x[a] as number) + (s.x[b] as number)) / 2,
    y: ((s.y[a] as number) + (s.y[b] as number)) / 2,
    dx: dx / size,
    dy: dy / size,
    straight: Math.min(p.length, q.length),
    width,
    corners: [a, b],
    spread: Math.acos(Math.min(1, p.dx * q.dx + p.dy * q.dy)),
  };
}

/** The cut-off ends, none to two, that have a corner near a sample. */
export function capsBeside(s: Samples, sample: number, r: number): Cap[] {
  const corner = [
    cornerFrom(s, s.previous[sample] as number, s.next, r),
    cornerFrom(s, s.next[sample] as number, s.previous, r),
  ];
  return corner
    .flatMap((i) => (i < 0 ? [] : [capAt(s, i, r), capAt(s, s.previous[i] as number, r)]))
    .filter((c) => c !== null);
}
