/** Ways from the ends of tracks onwards: to each other, to a corner, to what they run into. */
import type { Point } from '../../geometry/point';
import type { DepthInside } from './depth-inside';
import { type Ray, REACH } from './rays';

/** Ends that cross a stroke are no farther apart than this many radii. */
const ACROSS_REACH = 5;
/** A corner lies no farther than this many radii outside the outline; else it is put this far inside. */
const OUTSIDE = 0.1;
const INSIDE = 0.4;

const angleBetween = (ax: number, ay: number, bx: number, by: number): number =>
  Math.atan2(ax * by - ay * bx, ax * bx + ay * by);

/** How much two ends bend towards each other, in radians: least where one runs into the other along a line or an arc. */
export function bendBetween(a: Ray, b: Ray): { cost: number; turn: number } {
  const [gx, gy] = [b.x - a.x, b.y - a.y];
  const gap = Math.hypot(gx, gy);
  const turn = angleBetween(a.dx, a.dy, -b.dx, -b.dy);
  if (gap < 0.25 * Math.min(a.r, b.r)) return { cost: Math.abs(turn), turn };
  const alpha = angleBetween(a.dx, a.dy, gx, gy);
  const beta = angleBetween(gx, gy, -b.dx, -b.dy);
  // What each end would turn by itself, going on as it bends, is no bend.
  const own = ((a.bend - b.bend) / 2) * gap;
  const [p, q] = [alpha - own / 2, beta - own / 2];
  return { cost: Math.max(Math.abs(p), Math.abs(q)) + Math.abs(alpha - beta) / 4, turn };
}

/** How much two ends bend towards each other when they face each other over no more than a stroke; else not at all. */
export function crossingOf(a: Ray, b: Ray): { cost: number } {
  const [gx, gy] = [b.x - a.x, b.y - a.y];
  const gap = Math.hypot(gx, gy);
  const faces = a.dx * gx + a.dy * gy > 0 && b.dx * gx + b.dy * gy < 0;
  return { cost: faces && gap < ACROSS_REACH * Math.max(a.r, b.r) ? bendBetween(a, b).cost : Infinity };
}

/** Points between two ends, on a cubic that leaves and arrives in their directions. */
export function curveBetween(a: Ray, b: Ray): Point[] {
  const gap = Math.hypot(b.x - a.x, b.y - a.y);
  const turn = Math.abs(angleBetween(a.dx, a.dy, -b.dx, -b.dy));
  const handle = (gap * 2) / (3 * (1 + Math.cos(turn / 2)));
  const steps = Math.max(2, Math.ceil(gap / (0.2 * Math.min(a.r, b.r))));
  const out: Point[] = [];
  for (let i = 1; i < Math.min(steps, 60); i++) {
    const t = i / Math.min(steps, 60);
    const u = 1 - t;
    const [k0, k1, k2, k3] = [u ** 3, 3 * u * u * t, 3 * u * t * t, t ** 3];
    out.push({
      x: k0 * a.x + k1 * (a.x + handle * a.dx) + k2 * (b.x + handle * b.dx) + k3 * b.x,
      y: k0 * a.y + k1 * (a.y + handle * a.dy) + k2 * (b.y + handle * b.dy) + k3 * b.y,
    });
  }
  return out;
}

/** A corner where it is, or, where that would be outside, on the way to it. */
export function withRoom(room: DepthInside, corner: Point, from: Point, r: number): Point {
  if (room(corner) > -OUTSIDE * r) return corner;
  let [good, bad] = [0, 1];
  const at = (t: number): Point => ({ x: from.x + t * (corner.x - from.x), y: from.y + t * (corner.y - from.y) });
  for (let k = 0; k < 12; k++) {
    const t = (good + bad) / 2;
    if (room(at(t)) > INSIDE * r) good = t;
    else bad = t;
  }
  return at(good);
}

/** A way from an end onwards for a length, along its own bend, in short steps. */
export function onwards(ray: Ray, reach = REACH * ray.r): Point[] {
  const step = 0.1 * ray.r;
  let [x, y, dx, dy] = [ray.x, ray.y, ray.dx, ray.dy];
  const out: Point[] = [{ x, y }];
  let turned = 0;
  for (let k = 0; k * step < reach; k++) {
    // It goes on bending, but less and less: a bend that was seen says little about what comes far behind it.
    const turn = Math.abs(turned) > 1 ? 0 : ray.bend * step;
    turned += turn;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    [dx, dy] = [dx * cos - dy * sin, dx * sin + dy * cos];
    x += step * dx;
    y += step * dy;
    out.push({ x, y });
  }
  return out;
}

/** Where the way from an end first crosses any of some lines, with the points up to there. */
export function firstHit(way: readonly Point[], lines: readonly (readonly Point[])[]): Point[] | null {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of way) {
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  const about: (readonly [Point, Point])[] = [];
  for (const points of lines)
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1] as Point, points[i] as Point];
      const isBeside = (a.x < minX && b.x < minX) || (a.x > maxX && b.x > maxX);
      if (!isBeside && !((a.y < minY && b.y < minY) || (a.y > maxY && b.y > maxY))) about.push([a, b]);
    }
  if (about.length === 0) return null;
  for (let k = 1; k < way.length; k++) {
    const [p, q] = [way[k - 1] as Point, way[k] as Point];
    let best = Infinity;
    for (const [a, b] of about) {
      const det = (q.x - p.x) * (b.y - a.y) - (q.y - p.y) * (b.x - a.x);
      if (det === 0) continue;
      const s = ((a.x - p.x) * (b.y - a.y) - (a.y - p.y) * (b.x - a.x)) / det;
      const t = ((a.x - p.x) * (q.y - p.y) - (a.y - p.y) * (q.x - p.x)) / det;
      if (s >= 0 && s <= 1 && t >= -1e-9 && t <= 1 + 1e-9 && s < best) best = s;
    }
    if (best <= 1) return [...way.slice(1, k), { x: p.x + best * (q.x - p.x), y: p.y + best * (q.y - p.y) }];
  }
  return null;
}

/** The nearest point of polylines; null for none. */
export const nearestOn = (p: Point, lines: readonly (readonly Point[])[]): Point | null => {
  let best: Point | null = null;
  let least = Infinity;
  for (const points of lines)
    for (const q of points) {
      const d = Math.hypot(p.x - q.x, p.y - q.y);
      if (d < least) {
        least = d;
        best = q;
      }
    }
  return best;
};
