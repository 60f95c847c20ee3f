/**
 * Stretches that are drawn twice. Of two lines on one supporting line, or two arcs on one circle, the shorter loses what
 * the longer covers; a curve goes when another runs along the whole of it. What is drawn twice would be burnt twice.
 */
import Flatbush from 'flatbush';
import { growBox } from '../../geometry/point';
import {
  type Arc,
  arcRadius,
  type Line,
  nearestParameter,
  pointAt,
  type Segment,
  segmentBox,
  segmentLength,
  subSegment,
} from '../../geometry/segment';

/** Parameter ranges of a segment that stay. */
type Kept = readonly (readonly [from: number, to: number])[];

export type Undoubled = {
  /** For each segment what is left of it: itself, pieces, or nothing. */
  readonly left: readonly (readonly Segment[])[];
  /** Segments that lost something. */
  readonly doubled: number;
};

/** A segment this many times as long as it lies off another is still along it. */
const SLENDER = 8;

/**
 * `tolerance` is how far apart lines may lie and still count as one, in mm. `outlineOf` says for each segment which closed
 * outline of the file it is part of, or -1. An outline stays whole, also where it shares an edge with another: it goes
 * only when others run along all of it.
 */
export function withoutDoubles(
  segments: readonly Segment[],
  tolerance: number,
  outlineOf: readonly number[],
): Undoubled {
  if (segments.length === 0) return { left: [], doubled: 0 };
  const lengths = segments.map(segmentLength);
  const rank = ranked(lengths, outlineOf);
  const index = new Flatbush(segments.length);
  for (const s of segments) {
    const b = segmentBox(s);
    index.add(b.minX, b.minY, b.maxX, b.maxY);
  }
  index.finish();
  const kept: Kept[] = segments.map(() => [[0, 1]]);
  segments.forEach((s, i) => {
    const length = lengths[i] as number;
    const off = Math.min(tolerance, length / SLENDER);
    const { minX, minY, maxX, maxY } = growBox(segmentBox(s), off);
    const before = index.search(minX, minY, maxX, maxY, (j) => (rank[j] as number) < (rank[i] as number));
    // What one of those has lost itself is on one still before it.
    const covered = before.flatMap((j) => coverOf(s, segments[j] as Segment, off));
    // Pieces too short to see are rounding at the joints.
    const least = Math.min(0.5, (2 * off) / length);
    kept[i] = rest(
      covered.filter(([from, to]) => to - from > least / 2),
      least,
    );
  });
  const whole = (i: number): boolean => kept[i]?.length === 1 && kept[i][0]?.[0] === 0 && kept[i][0][1] === 1;
  const staying = new Set(outlineOf.filter((outline, i) => outline >= 0 && (kept[i] as Kept).length > 0));
  let doubled = 0;
  const left = segments.map((s, i): readonly Segment[] => {
    if (whole(i) || staying.has(outlineOf[i] as number)) return [s];
    doubled++;
    return (kept[i] as Kept).map(([from, to]) => subSegment(s, from, to));
  });
  return { left, doubled };
}

/** Which of two counts first: outlines before loose lines, the longer before the shorter, each outline as a whole. */
function ranked(lengths: readonly number[], outlineOf: readonly number[]): Int32Array {
  const perimeter = new Map<number, number>();
  outlineOf.forEach((outline, i) => {
    if (outline >= 0) perimeter.set(outline, (perimeter.get(outline) ?? 0) + (lengths[i] as number));
  });
  const outlines = [...perimeter].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  const place = new Map(outlines.map(([outline], k) => [outline, k]));
  const placeOf = (i: number): number => place.get(outlineOf[i] as number) ?? outlines.length;
  const rank = new Int32Array(lengths.length);
  const loose = [...lengths.keys()].filter((i) => (outlineOf[i] as number) < 0);
  loose.sort((a, b) => (lengths[b] as number) - (lengths[a] as number) || a - b);
  loose.forEach((i, k) => {
    rank[i] = outlines.length + k;
  });
  // Segments of one outline have one rank, so that none of them covers another.
  for (const i of lengths.keys()) if ((outlineOf[i] as number) >= 0) rank[i] = placeOf(i);
  return rank;
}

/** The ranges of a segment that another one covers. */
function coverOf(s: Segment, by: Segment, tolerance: number): (readonly [number, number])[] {
  if (s.kind === 'line' && by.kind === 'line') return lineCover(s, by, tolerance);
  if (s.kind === 'arc' && by.kind === 'arc') return arcCover(s, by, tolerance);
  return runsAlong(s, by, tolerance) ? [[0, 1]] : [];
}

function lineCover(s: Line, by: Line, tolerance: number): (readonly [number, number])[] {
  const dx = by.x1 - by.x0;
  const dy = by.y1 - by.y0;
  const length = Math.hypot(dx, dy);
  if (length === 0) return [];
  const away = (x: number, y: number) => Math.abs((x - by.x0) * dy - (y - by.y0) * dx) / length;
  if (away(s.x0, s.y0) > tolerance || away(s.x1, s.y1) > tolerance) return [];
  // A short line across a long one may be near it as a whole, but is no part of it.
  const own = Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
  const turn = Math.abs((s.x1 - s.x0) * dy - (s.y1 - s.y0) * dx) / (length * own);
  if (own === 0 || turn > 0.1) return [];
  const along = (x: number, y: number) => ((x - by.x0) * dx + (y - by.y0) * dy) / (length * length);
  return span(along(s.x0, s.y0), along(s.x1, s.y1));
}

/** The range of s within 0 to 1 of another, from where its ends lie along it. */
function span(from: number, to: number): (readonly [number, number])[] {
  if (from === to) return [];
  const at = (u: number) => (u - from) / (to - from);
  const low = Math.max(0, Math.min(at(0), at(1)));
  const high = Math.min(1, Math.max(at(0), at(1)));
  return high > low ? [[low, high]] : [];
}

const TURN = 2 * Math.PI;

function arcCover(s: Arc, by: Arc, tolerance: number): (readonly [number, number])[] {
  const r = arcRadius(by);
  if (Math.hypot(s.cx - by.cx, s.cy - by.cy) + Math.abs(arcRadius(s) - r) > tolerance)
    return runsAlong(s, by, tolerance) ? [[0, 1]] : [];
  const start = Math.atan2(by.y0 - by.cy, by.x0 - by.cx);
  const from = Math.atan2(s.y0 - s.cy, s.x0 - s.cx);
  // Place along `by`, 0 to 1, of the start of s; s may come round to it once more.
  const first = ((((from - start) * Math.sign(by.sweep)) % TURN) + TURN) % TURN;
  const way = (s.sweep * Math.sign(by.sweep)) / Math.abs(by.sweep);
  return [-1, 0, 1].flatMap((round) => {
    const u = (first + round * TURN) / Math.abs(by.sweep);
    return span(u, u + way);
  });
}

const CHECKS = [0, 0.25, 0.5, 0.75, 1];

/** Whether all of a segment lies along another. */
function runsAlong(s: Segment, by: Segment, tolerance: number): boolean {
  return CHECKS.every((t) => {
    const p = pointAt(s, t);
    const q = pointAt(by, nearestParameter(by, p.x, p.y));
    return Math.hypot(p.x - q.x, p.y - q.y) <= tolerance;
  });
}

/** What ranges leave of 0 to 1; pieces shorter than `least` go too. */
function rest(covered: readonly (readonly [number, number])[], least: number): Kept {
  const out: [number, number][] = [];
  let at = 0;
  for (const [from, to] of [...covered].sort((a, b) => a[0] - b[0])) {
    if (from - at > least) out.push([at, from]);
    at = Math.max(at, to);
  }
  if (1 - at > least) out.push([at, 1]);
  return out;
}
