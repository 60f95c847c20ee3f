/** Ways that a pen can have gone where none of its edges is seen: it always had room. */
import type { Point } from '../../geometry/point';
import type { DepthInside } from './depth-inside';
import type { PenPoint } from './pen-edges';
import type { Ray } from './rays';
import { bendBetween, curveBetween, nearestOn } from './ways';

/** Hidden ends are joined over no more than this many radii. */
export const MOST_GAP = 9;
/** They bend by less than this, in radians, and each radius of a gap counts like this much more. */
export const GOES_ON = (42 * Math.PI) / 180;

/** What a gap costs for each radius of the pen, in radians of bend. */
export const PER_RADIUS = (1.5 * Math.PI) / 180;
/** From this turn on they meet in a corner. */
export const SHARP = (30 * Math.PI) / 180;
/** The pen fits on a way when no outline is nearer than this many radii. */
const FITS = 0.85;
/** A stroke that is cut off no farther ahead than this many radii ends there. */
export const CUT_OFF = 1.4;
/** A line runs into a point that was seen when it bends by less than this, in radians. */
const POINT_BEND = (14 * Math.PI) / 180;
/** A line that ends this near to where a stroke is cut off, in radii, ends there, when it turns less than this, in radians. */
const CUT_NEAR = 0.15;
const CUT_TURN = (60 * Math.PI) / 180;
/** An end with nothing ahead meets a line that comes this near, in radii. */
const NEAREST = 2;

/** Whether a pen of radius `r` stays inside the letter along a way. */
export const fitsOn = (way: readonly Point[], room: DepthInside, r: number): boolean =>
  way.every((p) => room(p) > FITS * r);

/** How far it is from an end straight on to the outline, told in steps; three radii at most. */
export function ahead(room: DepthInside, { x, y, dx, dy, r }: Ray): number {
  for (let d = 0; d < 3 * r; ) {
    const free = room({ x: x + d * dx, y: y + d * dy });
    if (free < 0.02 * r) return d;
    d += free;
  }
  return 3 * r;
}

/** From an end that nothing lies ahead of to the nearest place of another line, not back; null where none is near. */
export function toNearest(ray: Ray, lines: readonly (readonly Point[])[], room: DepthInside): Point[] | null {
  const { x, y, dx, dy, r } = ray;
  const onwards = lines.map((l) => l.filter((p) => (p.x - x) * dx + (p.y - y) * dy > 0));
  const end = nearestOn(ray, onwards);
  if (!end || Math.hypot(end.x - x, end.y - y) > NEAREST * r) return null;
  return room({ x: (x + end.x) / 2, y: (y + end.y) / 2 }) > FITS * r ? [end] : null;
}

/** How the end of a line runs on into a point that was seen; null where it does not. */
export function toPoint(
  ray: Ray,
  { x, y, dx, dy, cut }: PenPoint,
  r: number,
  room: DepthInside,
): { there: Ray; cost: number; way: Point[]; corner: boolean } | null {
  const [gx, gy] = [x - ray.x, y - ray.y];
  const gap = Math.hypot(gx, gy);
  if (gap > MOST_GAP * r || (gap === 0 && !cut)) return null;
  const bend = Math.atan2(ray.dx * gy - ray.dy * gx, ray.dx * gx + ray.dy * gy);
  const [ux, uy, cos, sin] = [gx / gap, gy / gap, Math.cos(bend), Math.sin(bend)];
  // Into a point whose direction is not known it goes on in one bend.
  const there: Ray = cut
    ? { x, y, dx, dy, bend: 0, r }
    : { x, y, dx: -(ux * cos - uy * sin), dy: -(uy * cos + ux * sin), bend: -ray.bend, r };
  const { cost, turn } = bendBetween(ray, there);
  const way = curveBetween(ray, there);
  const hasRoom = fitsOn(
    way.filter((p) => Math.hypot(p.x - x, p.y - y) >= r),
    room,
    r,
  );
  if (!hasRoom) return null;
  const costs = cost + (PER_RADIUS * gap) / r;
  if (!cut) return Math.abs(bend) < GOES_ON && cost < POINT_BEND ? { there, cost: costs, way, corner: false } : null;
  // The end of the line itself: close by, and no sharp turn away.
  if (gap < CUT_NEAR * r)
    return Math.abs(turn) < CUT_TURN ? { there, cost: Math.abs(turn) / 4, way: [], corner: false } : null;
  const limit = gap < CUT_OFF * r ? CUT_TURN : GOES_ON;
  return cost < limit ? { there, cost: costs, way, corner: Math.abs(turn) > SHARP } : null;
}
