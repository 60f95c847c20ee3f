/**
 * Sharp corners drawn in one node: where a line turns by several nodes close together, as about the apex of a letter that is blunt or
 * rounded outside, what comes before and after is carried on to where it crosses.
 */
import { turnInto } from '../../geometry/measure';
import type { Path } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { line, type Segment, tangentAt, withEnds } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';

/** A node that turns by less is smooth; several together that turn by more than the second are a sharp corner. In radians. */
const SMOOTH = (9 * Math.PI) / 180;
const SHARP = (60 * Math.PI) / 180;
/** Pieces shorter than this belong to the corner, whatever they turn by, or where they turn; the crossing is as near. In strokes. */
const TINY = 0.15;
const NEAR = 0.4;
/** Lines that are nearly parallel cross anywhere. In radians, from turning back. */
const BACK = (15 * Math.PI) / 180;

/** An open or closed line whose sharp corners are one node each; `width` is the usual width of its stroke, `isInked` whether a corner may be there. */
export function withSharpCorners(path: Path, width: number, isInked: (corner: Point) => boolean): Path {
  const { segments } = path;
  const out: Segment[] = [];
  let isChanged = false;
  for (let i = 0; i < segments.length; i++) {
    const before = out[out.length - 1];
    const to = before ? cornerUpTo(segments, i, width) : i;
    const made = before && to > i ? cornerOf(before, segments[to] as Segment, width, isInked) : null;
    if (!made) {
      out.push(segments[i] as Segment);
      continue;
    }
    out.splice(-1, 1, ...made);
    isChanged = true;
    i = to;
  }
  return isChanged ? { ...path, segments: out } : path;
}

/** The segment after the last node of the corner that begins where a segment does; the same where there is no more than one node. */
function cornerUpTo(segments: readonly Segment[], from: number, width: number): number {
  let to = from;
  const turnAt = (i: number) => turnInto(segments[i - 1] as Segment, segments[i] as Segment);
  if (turnAt(from) < SMOOTH) return from;
  for (; to + 1 < segments.length; to++) {
    const length = segmentLength(segments[to] as Segment);
    if (length >= NEAR * width || (length >= TINY * width && turnAt(to + 1) < SMOOTH)) break;
  }
  return to;
}

/** Two segments carried on, or shortened, to where they cross, with what lies between left out; null where that is no corner. */
function cornerOf(
  before: Segment,
  after: Segment,
  width: number,
  isInked: (corner: Point) => boolean,
): readonly Segment[] | null {
  const turn = turnInto(before, after);
  if (turn < SHARP || turn > Math.PI - BACK) return null;
  const [d, e] = [tangentAt(before, 1), tangentAt(after, 0)];
  const [p, q] = [
    { x: before.x1, y: before.y1 },
    { x: after.x0, y: after.y0 },
  ];
  const cross = d.x * e.y - d.y * e.x;
  const s = ((q.x - p.x) * e.y - (q.y - p.y) * e.x) / cross;
  const t = ((q.x - p.x) * d.y - (q.y - p.y) * d.x) / cross;
  const corner = { x: p.x + s * d.x, y: p.y + s * d.y };
  if (distance(corner, p) > NEAR * width || distance(corner, q) > NEAR * width || !isInked(corner)) return null;
  const first = carriedTo(before, corner, s);
  const last = carriedTo(after, corner, -t, true);
  return first && last && [...first, ...last];
}

/** A segment whose end, or start, is at a corner `onwards` of it; curves are carried on straight, and not shortened. */
function carriedTo(s: Segment, corner: Point, onwards: number, isStart = false): readonly Segment[] | null {
  if (s.kind === 'line') {
    if (-onwards >= segmentLength(s)) return null;
    return [isStart ? withEnds(s, corner, { x: s.x1, y: s.y1 }) : withEnds(s, { x: s.x0, y: s.y0 }, corner)];
  }
  if (onwards < 0) return null;
  if (isStart) return [line(corner.x, corner.y, s.x0, s.y0), s];
  return [s, line(s.x1, s.y1, corner.x, corner.y)];
}
