/** Places along a closed outline at which a cut may begin or be left out, with what makes one better than another. */
import { turnInto } from '../geometry/measure';
import { nearestOnLine } from '../geometry/near-lines';
import { type OnPath, type Path, pathBox } from '../geometry/path';
import { boxHeight, type Point } from '../geometry/point';
import { curvatureAt, pointAt, type Segment, subSegment, tangentAt } from '../geometry/segment';
import { segmentLength } from '../geometry/segment-measures';

/** A place on an outline; `along` is the length from the outline’s start to it, in mm, on curves nearly. */
export type OutlinePlace = OnPath & {
  readonly at: Point;
  readonly tangent: Point;
  readonly along: number;
  /**
   * Each from 0 to 1: how far it is from corners, up to what is far enough; the same up to the middle of a long edge; how low it lies on
   * the outline; how straight the outline is there.
   */
  readonly fromCorner: number;
  readonly middle: number;
  readonly low: number;
  readonly straight: number;
};

/** Places looked at along an outline: one for so many mm, and no more or less than these. */
const STEP_MM = 1;
const LEAST_PLACES = 24;
const MOST_PLACES = 240;
/** No place need be farther from corners than this share of the whole way round. */
const LONG_EDGE = 0.25;
/** A node that turns by more is a corner, in radians. */
const CORNER = (10 * Math.PI) / 180;

/** A closed outline with the lengths of its segments, in mm: measured once for all that is asked about it. */
export type MeasuredOutline = { readonly path: Path; readonly lengths: readonly number[] };

/** An outline measured. */
export const measuredOutline = (path: Path): MeasuredOutline => ({ path, lengths: path.segments.map(segmentLength) });

/**
 * The length round an outline, in mm, and places on it, in its direction. `far` is how far from a corner is as good as any farther, `bent` the radius
 * of a curve that is not straight at all, both in mm.
 */
export function placesAlong(
  { path: outline, lengths }: MeasuredOutline,
  far: number,
  bent = far,
): { readonly whole: number; readonly places: OutlinePlace[] } {
  const { segments } = outline;
  const whole = lengths.reduce((sum, l) => sum + l, 0);
  const count = Math.min(MOST_PLACES, Math.max(LEAST_PLACES, Math.ceil(whole / STEP_MM)));
  const fromCorner = distanceFrom(cornersOf(segments, lengths, far), whole);
  const edge = LONG_EDGE * whole;
  const box = pathBox(outline);
  const high = Math.max(boxHeight(box), 1e-9);
  let from = 0;
  const places: OutlinePlace[] = [];
  segments.forEach((s, segment) => {
    const length = lengths[segment] as number;
    const n = Math.max(1, Math.round((count * length) / whole));
    for (let k = 0; k < n; k++) {
      // Even steps along a curve are even enough to choose among them.
      const t = (k + 0.5) / n;
      const at = pointAt(s, t);
      const along = from + t * length;
      const corner = fromCorner(along);
      places.push({
        segment,
        t,
        at,
        tangent: tangentAt(s, t),
        along,
        fromCorner: Math.min(1, corner / far),
        middle: Math.min(1, corner / edge),
        low: (box.maxY - at.y) / high,
        straight: 1 - Math.min(1, Math.abs(curvatureAt(s, t)) * bent),
      });
    }
    from += length;
  });
  return { whole, places };
}

/** The place of an outline that is nearest to a point, of which nothing is said of corners; null where the outline is empty. */
export function placeNear(outline: Path, near: Point): OutlinePlace | null {
  const found = nearestOnLine(outline, near, Number.POSITIVE_INFINITY);
  if (!found) return null;
  const { segment, t, at } = found;
  const tangent = tangentAt(outline.segments[segment] as Segment, t);
  const before = outline.segments.slice(0, segment).reduce((sum, s) => sum + segmentLength(s), 0);
  const along = before + segmentLength(subSegment(outline.segments[segment] as Segment, 0, t));
  return { segment, t, at, tangent, along, fromCorner: 1, middle: 1, low: 1, straight: 1 };
}

/** Where along an outline its corners are. One that is rounded, as where a cut runs beside it, is one all the same. */
function cornersOf(segments: readonly Segment[], lengths: readonly number[], far: number): number[] {
  const corners: number[] = [];
  let along = 0;
  segments.forEach((s, i) => {
    const length = lengths[i] as number;
    if (turnInto(segments[(i + segments.length - 1) % segments.length] as Segment, s) > CORNER) corners.push(along);
    if (length < far && turned(s) > CORNER) corners.push(along, along + length / 2, along + length);
    along += length;
  });
  return corners;
}

/** How far round a closed line of some length a place is from the nearest of some others; its whole length where there are none. */
const distanceFrom =
  (corners: readonly number[], whole: number) =>
  (along: number): number =>
    corners.reduce((least, c) => Math.min(least, roundDistance(along, c, whole)), whole);

/** How far apart two places on a closed line of some length are, the shorter way round. */
export function roundDistance(a: number, b: number, whole: number): number {
  const d = Math.abs(a - b) % whole;
  return Math.min(d, whole - d);
}

/** How far the direction at the end of a segment is from that at its start, in radians. */
function turned(s: Segment): number {
  const [p, q] = [tangentAt(s, 0), tangentAt(s, 1)];
  return Math.abs(Math.atan2(p.x * q.y - p.y * q.x, p.x * q.x + p.y * q.y));
}
