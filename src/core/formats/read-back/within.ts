/**
 * Whether a path of a file stays within a tolerance of the one it stands for, where its curves have become lines and arcs: their
 * Fréchet distance, as both are gone along from start to end (Alt and Godau 1995, by the reachable part of the free space).
 */
import type { Path } from '../../geometry/path';
import type { Segment } from '../../geometry/segment';
import { arcMiddle, cubicAt, type Straying, type Xy } from './follows';
import type { ReadPath, ReadPiece } from './read-back';

/** Chords of what is compared stray by this share of the tolerance. */
const CHORD_SHARE = 0.1;

/** Where a path of a file first strays from one by more than `tolerance` mm; null where it does not. */
export function strayingWithin(path: Path, read: ReadPath, tolerance: number): Straying | null {
  const fine = CHORD_SHARE * tolerance;
  return strayingBetween(chordsOfRead(read, fine), chordsOfPath(path, fine), tolerance + 2 * fine);
}

/** A range of places along a chord, 0 to 1; none where it ends before it starts. */
type Range = { readonly from: number; readonly to: number };

const NONE: Range = { from: 1, to: 0 };
const WHOLE: Range = { from: 0, to: 1 };
const isNone = ({ from, to }: Range): boolean => from > to;
/** A range this near the end of a chord reaches it. */
const AT_END = 1 - 1e-9;

/** The places of a chord that are within a distance of a point; both by their numbers in lists of x, y pairs. */
function near(
  chords: readonly number[],
  chord: number,
  points: readonly number[],
  point: number,
  within: number,
): Range {
  // Gone through for every chord of every curve.
  const ax = chords[2 * chord] as number;
  const ay = chords[2 * chord + 1] as number;
  const dx = (chords[2 * chord + 2] as number) - ax;
  const dy = (chords[2 * chord + 3] as number) - ay;
  const px = (points[2 * point] as number) - ax;
  const py = (points[2 * point + 1] as number) - ay;
  const square = dx * dx + dy * dy;
  const reach = within * within;
  if (square === 0) return px * px + py * py <= reach ? WHOLE : NONE;
  const across = px * dy - py * dx;
  const off = (across * across) / square;
  if (!(off <= reach)) return NONE;
  const middle = (px * dx + py * dy) / square;
  const half = Math.sqrt((reach - off) / square);
  const from = middle - half;
  const to = middle + half;
  if (from <= 0 && to >= 1) return WHOLE;
  return from <= 1 && to >= 0 ? { from: Math.max(0, from), to: Math.min(1, to) } : NONE;
}

/** Polylines as x, y pairs: where the first strays from the second. */
function strayingBetween(p: readonly number[], q: readonly number[], within: number): Straying | null {
  const [rows, columns] = [p.length / 2 - 1, q.length / 2 - 1];
  const start = near(q, 0, p, 0, within);
  if (columns < 1 || rows < 1 || start.from > 0 || isNone(start)) return strayAt(p, 0, q, 0);
  // What can be reached of the chords of q while at a point of p, from chord `first` on.
  let first = 0;
  let reached: Range[] = [start];
  for (let j = 1; j < columns && (reached[j - 1] as Range).to >= AT_END; j++) reached.push(near(q, j, p, 0, within));
  let left = near(p, 0, q, 0, within);
  for (let i = 0; i < rows; i++) {
    const isLast = i === rows - 1;
    const next: Range[] = [];
    let nextFirst = -1;
    let side = i === 0 || !isNone(left) ? left : NONE;
    let j = isNone(side) ? first : 0;
    let farthest = j;
    for (; j < columns && (j < first + reached.length || !isNone(side)); j++) {
      const bottom = reached[j - first] ?? NONE;
      let [right, top] = [NONE, NONE];
      if (!isNone(bottom) || !isNone(side)) {
        farthest = j;
        right = near(p, i, q, j + 1, within);
        if (isNone(bottom)) right = { from: Math.max(right.from, side.from), to: right.to };
        top = near(q, j, p, i + 1, within);
        if (isNone(side)) top = { from: Math.max(top.from, bottom.from), to: top.to };
        if (isLast && j === columns - 1 && (reaches(right) || reaches(top))) return null;
      }
      if (nextFirst < 0 && !isNone(top)) nextFirst = j;
      if (nextFirst >= 0) next.push(top);
      side = right;
    }
    // The column before the first: only as long as p stays near the start of q.
    left = reaches(left) && !isLast ? near(p, i + 1, q, 0, within) : NONE;
    if (left.from > 0) left = NONE;
    if (nextFirst < 0 && isNone(left)) return strayAt(p, i + 1, q, farthest);
    [first, reached] = nextFirst < 0 ? [0, []] : [nextFirst, next];
  }
  return strayAt(p, rows, q, columns);
}

const reaches = (range: Range): boolean => !isNone(range) && range.to >= AT_END;

/** A point of p, and how far it is from q near one of its points. */
function strayAt(p: readonly number[], i: number, q: readonly number[], j: number): Straying {
  const [x, y] = [p[2 * i] as number, p[2 * i + 1] as number];
  return { x, y, mm: Math.hypot(x - (q[2 * j] as number), y - (q[2 * j + 1] as number)) };
}

/** How many chords a curve takes whose second difference is this long, or an arc of a radius and sweep. */
const chordsOfCurve = (bend: number, fine: number): number => Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / fine)));
const chordsOfArc = (radius: number, sweep: number, fine: number): number =>
  Math.max(1, Math.ceil(Math.abs(sweep) / (2 * Math.acos(Math.max(-1, 1 - fine / Math.max(radius, fine))))));

function chordsOfPath({ segments }: Path, fine: number): number[] {
  const out = [] as number[];
  const first = segments[0] as Segment;
  out.push(first.x0, first.y0);
  for (const s of segments) {
    if (s.kind === 'cubic')
      addCubic(
        out,
        { x: s.x0, y: s.y0 },
        { kind: 'cubic', ax: s.ax, ay: s.ay, bx: s.bx, by: s.by, x: s.x1, y: s.y1 },
        fine,
      );
    else if (s.kind === 'quadratic') addQuadratic(out, s, fine);
    else if (s.kind === 'arc') addArc(out, s.x0, s.y0, s, fine);
    out.push(s.x1, s.y1);
  }
  return out;
}

function chordsOfRead(read: ReadPath, fine: number): number[] {
  const out = [] as number[];
  out.push(read.x, read.y);
  let at: Xy = read;
  for (const piece of read.pieces) {
    if (piece.kind === 'arc') {
      const middle = arcMiddle(at, piece);
      const centre = circleThrough(at, middle, piece);
      if (centre) addArc(out, at.x, at.y, { ...centre, sweep: piece.sweep }, fine);
    } else if (piece.kind === 'cubic') addCubic(out, at, piece, fine);
    out.push(piece.x, piece.y);
    at = piece;
  }
  if (read.closed) out.push(read.x, read.y);
  return out;
}

function circleThrough(p: Xy, q: Xy, r: Xy): { cx: number; cy: number } | null {
  const [bx, by, cx, cy] = [q.x - p.x, q.y - p.y, r.x - p.x, r.y - p.y];
  const d = 2 * (bx * cy - by * cx);
  if (d === 0) return null;
  const [b, c] = [bx * bx + by * by, cx * cx + cy * cy];
  return { cx: p.x + (cy * b - by * c) / d, cy: p.y + (bx * c - cx * b) / d };
}

/** Points between the ends of an arc that starts at a place. */
function addArc(
  out: number[],
  x0: number,
  y0: number,
  { cx, cy, sweep }: { readonly cx: number; readonly cy: number; readonly sweep: number },
  fine: number,
): void {
  const n = chordsOfArc(Math.hypot(x0 - cx, y0 - cy), sweep, fine);
  for (let i = 1; i < n; i++) {
    const cos = Math.cos((sweep * i) / n);
    const sin = Math.sin((sweep * i) / n);
    out.push(cx + cos * (x0 - cx) - sin * (y0 - cy), cy + sin * (x0 - cx) + cos * (y0 - cy));
  }
}

function addCubic(out: number[], from: Xy, c: Extract<ReadPiece, { kind: 'cubic' }>, fine: number): void {
  const bend = Math.max(
    Math.hypot(from.x - 2 * c.ax + c.bx, from.y - 2 * c.ay + c.by),
    Math.hypot(c.ax - 2 * c.bx + c.x, c.ay - 2 * c.by + c.y),
  );
  const n = chordsOfCurve(bend, fine);
  for (let i = 1; i < n; i++) {
    const p = cubicAt(from, c, i / n);
    out.push(p.x, p.y);
  }
}

function addQuadratic(out: number[], s: Extract<Segment, { kind: 'quadratic' }>, fine: number): void {
  const n = chordsOfCurve(Math.hypot(s.x0 - 2 * s.ax + s.x1, s.y0 - 2 * s.ay + s.y1), fine);
  for (let i = 1; i < n; i++) {
    const t = i / n;
    const u = 1 - t;
    out.push(u * u * s.x0 + 2 * u * t * s.ax + t * t * s.x1, u * u * s.y0 + 2 * u * t * s.ay + t * t * s.y1);
  }
}
