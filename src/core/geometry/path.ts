/** Paths (runs of joined segments) and regions (closed paths that enclose an area). */
import { type Box, EMPTY_BOX, type Matrix, type Point, uniteBoxes } from './point';
import {
  type Arc,
  arcRadius,
  arcStart,
  isTiny,
  line,
  pointAt,
  reverseSegment,
  type Segment,
  spanOf,
  stepsWithin,
  subSegment,
  transformSegments,
  withEnds,
} from './segment';
import { boxOf, segmentArea, segmentLength } from './segment-measures';

/** Segments end to start; when `closed`, the last ends where the first starts. */
export type Path = { readonly segments: readonly Segment[]; readonly closed: boolean };

/** Closed paths filled by the non-zero rule. A clean region has counter-clockwise outlines and clockwise holes that do not cross. */
export type Region = readonly Path[];

/** Segments end to start as a closed path. */
export const closedPath = (segments: readonly Segment[]): Path => ({ segments, closed: true });

/** Bounds of a path, its curves included. */
export const pathBox = (p: Path): Box => boxOf(p.segments);

/** Bounds of several paths; the empty box for none. */
export const regionBox = (r: Region): Box => r.reduce<Box>((box, p) => uniteBoxes(box, pathBox(p)), EMPTY_BOX);

/** Signed area a closed path goes round: positive counter-clockwise. Exact for lines and Bézier curves. */
export const pathArea = (p: Path): number => p.segments.reduce((sum, s) => sum + segmentArea(s), 0);
/** Area of a clean region in mm²: holes count negative. */
export const regionArea = (r: Region): number => r.reduce((sum, p) => sum + pathArea(p), 0);

/** Arc length of a path. */
export const pathLength = (p: Path): number => p.segments.reduce((sum, s) => sum + segmentLength(s), 0);

/** Whether a closed path is thinner than so much on average, in mm. */
export function isThread(p: Path, mm: number): boolean {
  const area = Math.abs(pathArea(p));
  // Its control points tell no less than its length, which takes longer to find.
  const most = p.segments.reduce((sum, s) => sum + spanOf(s), 0);
  return area <= (most / 2) * mm && area <= (pathLength(p) / 2) * mm;
}

/** Segments of several paths together. */
export const countSegments = (r: readonly Path[]): number => r.reduce((sum, p) => sum + p.segments.length, 0);

/** The path after a matrix; `reversed`, run the other way. */
export const transformPath = (p: Path, m: Matrix, reversed = false): Path => ({
  closed: p.closed,
  segments: transformSegments(p.segments, m, reversed),
});

/** Paths where a matrix takes them; one that mirrors leaves them running the other way. */
export const transformRegion = (r: Region, m: Matrix): Region => r.map((p) => transformPath(p, m));

/** The path run the other way. */
export const reversePath = (p: Path): Path => ({
  closed: p.closed,
  segments: p.segments.map(reverseSegment).reverse(),
});

/** The path closed by a straight line, where it is not. */
export function shut(path: Path): Path {
  const [first, last] = [path.segments[0], path.segments[path.segments.length - 1]];
  if (path.closed || !first || !last) return path;
  if (first.x0 === last.x1 && first.y0 === last.y1) return { ...path, closed: true };
  return { closed: true, segments: [...path.segments, line(last.x1, last.y1, first.x0, first.y0)] };
}

/** Points of an arc from its start on, in so many steps, without its end: those of `pointAt`, its start and radius looked at once. */
function alongArc(out: Point[], s: Arc, steps: number): void {
  const [start, radius] = [arcStart(s), arcRadius(s)];
  out.push({ x: s.x0, y: s.y0 });
  for (let i = 1; i < steps; i++) {
    const angle = start + s.sweep * (i / steps);
    out.push({ x: s.cx + radius * Math.cos(angle), y: s.cy + radius * Math.sin(angle) });
  }
}

/** Points of a path within `tolerance` mm; a closed path does not repeat its first point. */
export function flattenPath(p: Path, tolerance: number): Point[] {
  const out: Point[] = [];
  for (const s of p.segments) {
    const n = stepsWithin(s, tolerance);
    if (n === 1) out.push({ x: s.x0, y: s.y0 });
    else if (s.kind === 'arc') alongArc(out, s, n);
    else for (let i = 0; i < n; i++) out.push(pointAt(s, i / n));
  }
  const last = p.segments[p.segments.length - 1];
  if (!p.closed && last) out.push({ x: last.x1, y: last.y1 });
  return out;
}

/** The widest gap allowed between the end of one segment and the start of the next, in mm. */
export const JOINT_MM = 1e-6;

/** Whether every joint of a path meets, the closing one included when it claims to be closed. */
export function isContinuous(p: Path): boolean {
  return p.segments.every((s, i) => {
    if (i === 0 && !p.closed) return true;
    const before = p.segments[i === 0 ? p.segments.length - 1 : i - 1] as Segment;
    return Math.hypot(before.x1 - s.x0, before.y1 - s.y0) <= JOINT_MM;
  });
}

/** Segments shorter than this are dropped, in mm: twice what is too short to be drawn, so that no turn makes it so. */
export const DROPPED_MM = 2 * JOINT_MM;
/** Gaps of rounding are no wider, in mm. */
const ROUNDING_MM = 1e-5;

/**
 * A path whose segments meet exactly: where one starts no farther than `within` mm from the end of the one before, it is made to
 * start there (see `withEnds`), and so is the end of one that is closed. Wider gaps stay, to be found. Segments shorter than
 * 2e-6 mm go, unless there are no others.
 */
export function joinedExactly(path: Path, within = ROUNDING_MM): Path {
  const { segments, closed } = path;
  if (isJoinedExactly(path)) return path;
  const out: Segment[] = [];
  for (const s of segments) if (!isTiny(s, DROPPED_MM)) out.push(startingAtEnd(out[out.length - 1], s, within));
  const [first, last] = [out[0], out[out.length - 1]];
  if (!first || !last) return path;
  if (closed && !meets(last, first) && gapBetween(last, first) <= within)
    out[out.length - 1] = withEnds(last, { x: last.x0, y: last.y0 }, { x: first.x0, y: first.y0 });
  return { segments: out, closed };
}

/** Whether every segment starts where the one before ends, and none is too short. */
function isJoinedExactly({ segments, closed }: Path): boolean {
  // One loop, since everything that is moved or measured goes through here.
  let before = closed ? segments[segments.length - 1] : undefined;
  for (const s of segments) {
    if (before !== undefined && (before.x1 !== s.x0 || before.y1 !== s.y0)) return false;
    if (isTiny(s, DROPPED_MM)) return false;
    before = s;
  }
  return true;
}

const gapBetween = (before: Segment, s: Segment): number => Math.hypot(before.x1 - s.x0, before.y1 - s.y0);

const meets = (before: Segment | undefined, s: Segment): boolean =>
  before === undefined || (before.x1 === s.x0 && before.y1 === s.y0);

const startingAtEnd = (before: Segment | undefined, s: Segment, within: number): Segment =>
  before && gapBetween(before, s) <= within ? withEnds(s, { x: before.x1, y: before.y1 }, { x: s.x1, y: s.y1 }) : s;

/** Pieces of a segment shorter than this share are not worth having. */
const WHOLE = 1e-6;

/** The segments of a path that comes back to its start, from a place on one of them, at `t` from 0 to 1, all the way round to it. */
export function cutOpen({ segments }: Path, segment: number, t: number): Segment[] {
  const s = segments[segment] as Segment;
  const around = [...segments.slice(segment + 1), ...segments.slice(0, segment)];
  if (t < WHOLE) return [s, ...around];
  if (t > 1 - WHOLE) return [...around, s];
  return [subSegment(s, t, 1), ...around, subSegment(s, 0, t)];
}

/** A place on a path: on which segment, and where on it, from 0 to 1. */
export type OnPath = { readonly segment: number; readonly t: number };

/** The stretches of the segments of a closed path of so many, from one place on to another, round its start if need be. */
export function stretchesBetween(
  count: number,
  from: OnPath,
  to: OnPath,
): { readonly segment: number; readonly from: number; readonly to: number }[] {
  if (from.segment === to.segment && from.t <= to.t) return [{ segment: from.segment, from: from.t, to: to.t }];
  const out = [{ segment: from.segment, from: from.t, to: 1 }];
  for (let i = (from.segment + 1) % count; i !== to.segment; i = (i + 1) % count)
    out.push({ segment: i, from: 0, to: 1 });
  return [...out, { segment: to.segment, from: 0, to: to.t }];
}
