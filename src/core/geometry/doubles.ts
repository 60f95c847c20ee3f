/**
 * Stretches that are drawn twice. Of two lines on one supporting line, or two arcs on one circle, the shorter loses what
 * the longer covers; a curve goes when another runs along the whole of it. What is drawn twice would be burnt twice.
 */
import Flatbush from 'flatbush';
import { intAt, numberAt } from './elements';
import type { Path } from './path';
import { growBox } from './point';
import { type Arc, arcRadius, type Line, pointAt, type Segment, subSegment } from './segment';
import { nearestParameter, segmentBox, segmentLength } from './segment-measures';

/** Parameter ranges of a segment that stay. */
type Kept = readonly (readonly [from: number, to: number])[];

/** What is kept of each segment where lines run along each other, and how many were left out. */
export type Undoubled = {
  /** For each segment what is left of it: itself, pieces, or nothing. */
  readonly kept: readonly (readonly Segment[])[];
  /** Segments that lost something. */
  readonly doubled: number;
};

/** A segment this many times as long as it lies off another is still along it. */
const SLENDER = 8;

/**
 * What is kept of segments where lines run along each other. `tolerance` is how far apart lines may lie and still
 * count as one, in mm. Segments of an outline that is closed in the file, told by `isClosed`, stay as they are; loose
 * ones along them go, and of loose ones the shorter.
 */
export function withoutDoubles(
  segments: readonly Segment[],
  tolerance: number,
  isClosed: readonly boolean[],
): Undoubled {
  const lengths = segments.map(segmentLength);
  const order = [...segments.keys()].sort(
    (a, b) => Number(isClosed[b]) - Number(isClosed[a]) || numberAt(lengths, b) - numberAt(lengths, a) || a - b,
  );
  const rank = new Int32Array(segments.length);
  order.forEach((i, place) => {
    rank[i] = place;
  });
  const search = indexOf(segments);
  let doubled = 0;
  const kept = segments.map((s, i): readonly Segment[] => {
    if (isClosed[i]) return [s];
    const off = offFor(numberAt(lengths, i), tolerance);
    // What one of those has lost itself is on one still before it.
    const before = search(s, off).filter((j) => intAt(rank, j) < intAt(rank, i));
    if (before.length === 0) return [s];
    const kept = uncovered(
      s,
      numberAt(lengths, i),
      before.map((j) => segments[j] as Segment),
      off,
    );
    if (isWhole(kept)) return [s];
    doubled++;
    return kept.map(([from, to]) => subSegment(s, from, to));
  });
  return { kept: kept, doubled };
}

/** Lines without what they go along twice, closer than `tolerance`: each in the pieces that are left of it; closed ones stay. */
export function alongOnce(lines: readonly Path[], tolerance: number): readonly Path[] {
  const segments = lines.flatMap((path) => path.segments);
  const isClosed = lines.flatMap((path) => path.segments.map(() => path.closed));
  const { kept, doubled } = withoutDoubles(segments, tolerance, isClosed);
  if (doubled === 0) return lines;
  let first = 0;
  return lines.flatMap((line): Path[] => {
    const pieces = kept.slice(first, first + line.segments.length).flat();
    first += line.segments.length;
    return line.closed ? [line] : runsOf(pieces).map((run) => ({ segments: run, closed: false }));
  });
}

/** Segments parted where one does not start at the end of the one before. */
function runsOf(segments: readonly Segment[]): Segment[][] {
  const runs: Segment[][] = [];
  for (const s of segments) {
    const run = runs[runs.length - 1];
    const before = run?.[run.length - 1];
    if (run && before?.x1 === s.x0 && before.y1 === s.y0) run.push(s);
    else runs.push([s]);
  }
  return runs;
}

/** Outlines that are drawn more than once, and edges that several have in common. */
export type Repeats = {
  /** Outlines that another one runs along all the way: they are the same, drawn again. */
  readonly again: ReadonlySet<number>;
  /** Edges that an outline which stays has in common with another, at least in part. */
  readonly shared: number;
};

/** Which of several outlines, each one or more closed paths, are the same as one before. */
export function repeatsAmong(outlines: readonly (readonly Path[])[], tolerance: number): Repeats {
  const segments = outlines.flatMap((paths) => paths.flatMap((path) => path.segments));
  const owner = outlines.flatMap((paths, i) => paths.flatMap((path) => path.segments.map(() => i)));
  const lengths = segments.map(segmentLength);
  // An outline with more paths first: the rim of a ring drawn by itself is a part of the ring.
  const order = [...outlines.keys()].sort(
    (a, b) => (outlines[b] as readonly Path[]).length - (outlines[a] as readonly Path[]).length || a - b,
  );
  const place = new Map(order.map((outline, k) => [outline, k]));
  const search = indexOf(segments);
  /** For each outline those that run along every segment of it so far. */
  const along = new Map<number, ReadonlySet<number>>();
  const touched: number[] = [];
  segments.forEach((s, i) => {
    const mine = numberAt(owner, i);
    const off = offFor(numberAt(lengths, i), tolerance);
    const others = new Map<number, Segment[]>();
    for (const j of search(s, off)) {
      const other = numberAt(owner, j);
      if ((place.get(other) as number) >= (place.get(mine) as number)) continue;
      const list = others.get(other);
      if (list) list.push(segments[j] as Segment);
      else others.set(other, [segments[j] as Segment]);
    }
    const whole = new Set<number>();
    let meets = false;
    for (const [other, by] of others) {
      const kept = uncovered(s, numberAt(lengths, i), by, off);
      if (!isWhole(kept)) meets = true;
      if (kept.length === 0) whole.add(other);
    }
    if (meets) touched.push(mine);
    const before = along.get(mine);
    along.set(mine, before ? new Set([...before].filter((other) => whole.has(other))) : whole);
  });
  const again = new Set([...along].filter(([, by]) => by.size > 0).map(([outline]) => outline));
  return { again, shared: touched.filter((outline) => !again.has(outline)).length };
}

/** Where a segment runs along another: the numbers of the two, and for how long, in mm. */
export type DoubledStretch = { readonly of: number; readonly along: number; readonly lengthMm: number };

/** Stretches of segments that run along others, closer than `tolerance` mm; `isAsked` says which pairs are looked at. */
export function doubledStretches(
  segments: readonly Segment[],
  others: readonly Segment[],
  tolerance: number,
  isAsked: (of: number, along: number) => boolean = () => true,
): DoubledStretch[] {
  if (segments.length === 0 || others.length === 0) return [];
  const search = indexOf(others);
  return segments.flatMap((s, of) => {
    const near = search(s, tolerance).filter((along) => isAsked(of, along));
    if (near.length === 0) return [];
    const length = segmentLength(s);
    const off = offFor(length, tolerance);
    return near.flatMap((along) => {
      const kept = uncovered(s, length, [others[along] as Segment], off);
      const lengthMm = length * (1 - kept.reduce((sum, [from, to]) => sum + to - from, 0));
      return lengthMm > 0 ? [{ of, along, lengthMm }] : [];
    });
  });
}

/** Stretches of segments that run along one before them in the list, closer than `tolerance` mm. */
export const doubledWithin = (segments: readonly Segment[], tolerance: number): DoubledStretch[] =>
  doubledStretches(segments, segments, tolerance, (of, along) => along < of);

const offFor = (length: number, tolerance: number): number => Math.min(tolerance, length / SLENDER);

const WHOLE: Kept = [[0, 1]];
const isWhole = (kept: Kept): boolean => kept.length === 1 && kept[0]?.[0] === 0 && kept[0][1] === 1;

/** What others leave of a segment. */
function uncovered(s: Segment, length: number, by: readonly Segment[], off: number): Kept {
  // Pieces too short to see are rounding at the joints.
  const least = Math.min(0.5, (2 * off) / length);
  const covered: (readonly [number, number])[] = [];
  for (const other of by) covered.push(...coverOf(s, other, off));
  if (covered.length === 0) return WHOLE;
  return rangesLeft(
    covered.filter(([from, to]) => to - from > least / 2),
    least,
  );
}

/** Segments whose bounds come near those of another. */
function indexOf(segments: readonly Segment[]): (s: Segment, off: number) => number[] {
  if (segments.length === 0) return () => [];
  const index = new Flatbush(segments.length);
  for (const s of segments) {
    const b = segmentBox(s);
    index.add(b.minX, b.minY, b.maxX, b.maxY);
  }
  index.finish();
  return (s, off) => {
    const { minX, minY, maxX, maxY } = growBox(segmentBox(s), off);
    return index.search(minX, minY, maxX, maxY);
  };
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
  const most = tolerance * length;
  if (Math.abs((s.x0 - by.x0) * dy - (s.y0 - by.y0) * dx) > most) return [];
  if (Math.abs((s.x1 - by.x0) * dy - (s.y1 - by.y0) * dx) > most) return [];
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
function rangesLeft(covered: readonly (readonly [number, number])[], least: number): Kept {
  const out: [number, number][] = [];
  let at = 0;
  for (const [from, to] of [...covered].sort((a, b) => a[0] - b[0])) {
    if (from - at > least) out.push([at, from]);
    at = Math.max(at, to);
  }
  if (1 - at > least) out.push([at, 1]);
  return out;
}
