/** Biarcs: two arcs that meet smoothly, with given ends and directions there (Bolton 1975, equal handles); and how far points lie from such. */
import { floatAt } from './elements';
import type { Point } from './point';
import { type Arc, arcBetween, type Line, line } from './segment';

/** The arc leaving `from` along the unit tangent `t` that ends at `to`. */
function arcAlong(from: Point, t: Point, to: Point): Arc | Line {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const along = t.x * dx + t.y * dy;
  const across = t.x * dy - t.y * dx;
  return arcBetween(from, to, 2 * Math.atan2(across, along));
}

/** Arcs from p to q that leave and arrive along unit tangents; null where none do. */
export function biarc(p: Point, tp: Point, q: Point, tq: Point): (Arc | Line)[] | null {
  const vx = q.x - p.x;
  const vy = q.y - p.y;
  const vv = vx * vx + vy * vy;
  if (vv < 1e-18) return null;
  const sx = tp.x + tq.x;
  const sy = tp.y + tq.y;
  const vs = vx * sx + vy * sy;
  const denominator = 2 * (1 - (tp.x * tq.x + tp.y * tq.y));
  let handle: number;
  if (denominator < 1e-12) {
    const vt = vx * tq.x + vy * tq.y;
    if (vt <= 0) return null;
    handle = vv / (4 * vt);
  } else handle = (-vs + Math.sqrt(vs * vs + denominator * vv)) / denominator;
  if (!(handle > 0) || !Number.isFinite(handle)) return null;
  const joint = {
    x: (p.x + handle * tp.x + q.x - handle * tq.x) / 2,
    y: (p.y + handle * tp.y + q.y - handle * tq.y) / 2,
  };
  const first = arcAlong(p, tp, joint);
  const back = arcAlong(q, { x: -tq.x, y: -tq.y }, joint);
  const second = back.kind === 'arc' ? arcBetween(joint, q, -back.sweep) : line(joint.x, joint.y, q.x, q.y);
  return [first, second];
}

/** What a distance to an arc or a line is reckoned from, so that it is made once for many points. */
export type Reckoned = {
  readonly isLine: boolean;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  /** Of a line its direction by the square of its length; of an arc its centre, its radius and the way it turns. */
  readonly dx: number;
  readonly dy: number;
  readonly square: number;
  readonly cx: number;
  readonly cy: number;
  readonly radius: number;
  readonly way: number;
  readonly isLarge: boolean;
};

/** What distances to a piece are reckoned from. */
export function measureOf(s: Arc | Line): Reckoned {
  const isLine = s.kind === 'line';
  const [dx, dy] = [s.x1 - s.x0, s.y1 - s.y0];
  const [cx, cy, sweep] = isLine ? [0, 0, 0] : [s.cx, s.cy, s.sweep];
  return {
    isLine,
    x0: s.x0,
    y0: s.y0,
    x1: s.x1,
    y1: s.y1,
    dx,
    dy,
    square: dx * dx + dy * dy,
    cx,
    cy,
    radius: length(s.x0 - cx, s.y0 - cy),
    way: Math.sign(sweep),
    isLarge: Math.abs(sweep) > Math.PI,
  };
}

/** Distance from a point to an arc or a line, in mm. Written out: most of the time goes here. */
function distanceTo(m: Reckoned, x: number, y: number): number {
  if (m.isLine) return distanceToChord(x, y, m.x0, m.y0, m.dx, m.dy, m.square);
  const px = x - m.cx;
  const py = y - m.cy;
  const afterStart = m.way * ((m.x0 - m.cx) * py - (m.y0 - m.cy) * px) >= 0;
  const beforeEnd = m.way * (px * (m.y1 - m.cy) - py * (m.x1 - m.cx)) >= 0;
  if (m.isLarge ? afterStart || beforeEnd : afterStart && beforeEnd) return Math.abs(length(px, py) - m.radius);
  return Math.min(length(x - m.x0, y - m.y0), length(x - m.x1, y - m.y1));
}

function distanceToChord(x: number, y: number, x0: number, y0: number, dx: number, dy: number, square: number): number {
  const px = x - x0;
  const py = y - y0;
  const u = square === 0 ? 0 : Math.min(1, Math.max(0, (px * dx + py * dy) / square));
  return length(px - u * dx, py - u * dy);
}

const length = (x: number, y: number): number => Math.sqrt(x * x + y * y);

/** How far points, as x, y pairs, lie from a shape at most; no more than `most` is told apart. */
export function straying(points: Float64Array, shape: readonly Reckoned[], most: number): number {
  let far = 0;
  for (let i = 0; i < points.length && far <= most; i += 2) {
    let least = Infinity;
    for (const piece of shape) least = Math.min(least, distanceTo(piece, floatAt(points, i), floatAt(points, i + 1)));
    far = Math.max(far, least);
  }
  return far;
}
