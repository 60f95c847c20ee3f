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

/** `tolerance` is how far apart lines may lie and still count as one, in mm. */
export function withoutDoubles(segments: readonly Segment[], tolerance: number): Undoubled {
  const lengths = segments.map(segmentLength);
  const order = segments.map((_, i) => i).sort((a, b) => (lengths[b] as number) - (lengths[a] as number) || a - b);
  const rank = new Int32Array(segments.length);
  order.forEach((i, place) => {
    rank[i] = place;
  });
  const index = new Flatbush(Math.max(1, segments.length));
  for (const s of segments) {
    const b = segmentBox(s);
    index.add(b.minX, b.minY, b.maxX, b.maxY);
  }
  if (segments.length === 0) return { left: [], doubled: 0 };
  index.finish();
  const kept: Kept[] = segments.map(() => [[0, 1]]);
  let doubled = 0;
  for (const i of order) {
    const s = segments[i] as Segment;
    const { minX, minY, maxX, maxY } = growBox(segmentBox(s), tolerance);
    const longer = index.search(minX, minY, maxX, maxY, (j) => (rank[j] as number) < (rank[i] as number));
    // What a longer one has lost itself is on a still longer one.
    const covered = longer.flatMap((j) => coverOf(s, segments[j] as Segment, tolerance));
    // Pieces too short to see are rounding at the joints.
    const least = Math.min(0.5, (2 * tolerance) / (lengths[i] as number));
    const stays = rest(
      covered.filter(([from, to]) => to - from > least / 2),
      least,
    );
    if (stays.length === 1 && stays[0]?.[0] === 0 && stays[0][1] === 1) continue;
    kept[i] = stays;
    doubled++;
  }
  const left = segments.map((s, i) =>
    (kept[i] as Kept).map(([from, to]) => (from === 0 && to === 1 ? s : subSegment(s, from, to))),
  );
  return { left, doubled };
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
