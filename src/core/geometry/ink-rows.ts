/** Ink by rows: where a level line meets the inside of an outline, one row after the other. */

import { floatAt, intAt, numberAt } from './elements';
import { flattenPath, type Path } from './path';
import type { Matrix, Point } from './point';

/** Row k lies at height (k + ½) · step. Each row holds its stretches of ink as from, to, from, to …, ascending. */
export type InkRows = { readonly first: number; readonly rows: readonly (readonly number[])[] };

const NO_ROWS: InkRows = { first: 0, rows: [] };

/** The rows of closed paths filled by the non-zero rule. Curves are flattened within a quarter of a step. */
export function inkRowsOf(paths: readonly Path[], step: number): InkRows {
  return rowsOfPolygons(
    paths.map((path) => flattenPath(path, step / 4)),
    step,
  );
}

/** Columns of ink in place of rows: x and y exchanged, from below upwards. */
export const columnsOf = (paths: readonly Path[], step: number): InkRows =>
  rowsOfPolygons(
    paths.map((path) => flattenPath(path, step / 4).map(({ x, y }) => ({ x: y, y: x }))),
    step,
  );

/** Rows of polygons filled by the non-zero rule; `within` leaves out rows below the first and above the second height. */
export function rowsOfPolygons(
  polygons: readonly (readonly Point[])[],
  step: number,
  within: readonly [number, number] = [-Infinity, Infinity],
): InkRows {
  const hits = new RowHits(step, within);
  for (const points of polygons)
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length] as Point;
      hits.add(a.x, a.y, b.x, b.y);
    });
  return hits.rows();
}

/**
 * The chords of polygons, each by its ends: x and y of the one, then of the other. And of each few that follow each other the middle of their
 * bounds and half of its width and height, so that those that lie elsewhere need not be looked at.
 */
export type Chords = { readonly ends: Float64Array; readonly bounds: Float64Array };

/** So many chords share bounds. */
const SHARE_BOUNDS = 16;

/** The chords of polygons. */
export function chordsOf(polygons: readonly (readonly Point[])[]): Chords {
  const count = polygons.reduce((sum, points) => sum + points.length, 0);
  const ends = new Float64Array(4 * count);
  let at = 0;
  for (const points of polygons)
    for (let i = 0; i < points.length; i++) {
      const a = points[i] as Point;
      const b = points[i + 1 < points.length ? i + 1 : 0] as Point;
      ends[at] = a.x;
      ends[at + 1] = a.y;
      ends[at + 2] = b.x;
      ends[at + 3] = b.y;
      at += 4;
    }
  const bounds = new Float64Array(4 * Math.ceil(count / SHARE_BOUNDS));
  for (let from = 0, k = 0; from < ends.length; from += 4 * SHARE_BOUNDS, k += 4) {
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = from; i < Math.min(ends.length, from + 4 * SHARE_BOUNDS); i += 2) {
      const [x, y] = [floatAt(ends, i), floatAt(ends, i + 1)];
      minX = Math.min(minX, x);
      maxX = Math.max(maxX, x);
      minY = Math.min(minY, y);
      maxY = Math.max(maxY, y);
    }
    bounds[k] = (minX + maxX) / 2;
    bounds[k + 1] = (minY + maxY) / 2;
    bounds[k + 2] = (maxX - minX) / 2;
    bounds[k + 3] = (maxY - minY) / 2;
  }
  return { ends, bounds };
}

/** Bounds are rounded: chords may stick out of them by this share of their size. */
const ROUNDED = 1 + 1e-9;

/**
 * Rows of polygons given by their chords, moved by a matrix; rows not `within` two heights are left out, and ink that begins to the
 * right of `upTo` may be. Ink that goes on beyond that may end nowhere.
 */
export function rowsOfChords(
  { ends, bounds }: Chords,
  { a, b, c, d, e, f }: Matrix,
  { step, within, upTo }: { readonly step: number; readonly within: readonly [number, number]; readonly upTo: number },
): InkRows {
  const hits = new RowHits(step, within);
  const [low, high] = within;
  for (let k = 0; k < bounds.length; k += 4) {
    const [x, y] = [floatAt(bounds, k), floatAt(bounds, k + 1)];
    const [w, h] = [floatAt(bounds, k + 2) * ROUNDED, floatAt(bounds, k + 3) * ROUNDED];
    const level = b * x + d * y + f;
    const tall = (Math.abs(b) * w + Math.abs(d) * h) * ROUNDED;
    if (level + tall < low || level - tall > high) continue;
    if (a * x + c * y + e - (Math.abs(a) * w + Math.abs(c) * h) * ROUNDED > upTo) continue;
    const from = k * SHARE_BOUNDS;
    for (let i = from; i < Math.min(ends.length, from + 4 * SHARE_BOUNDS); i += 4) {
      const [x0, y0, x1, y1] = [floatAt(ends, i), floatAt(ends, i + 1), floatAt(ends, i + 2), floatAt(ends, i + 3)];
      const fromY = b * x0 + d * y0 + f;
      const toY = b * x1 + d * y1 + f;
      if ((fromY < low && toY < low) || (fromY > high && toY > high)) continue;
      const fromX = a * x0 + c * y0 + e;
      const toX = a * x1 + c * y1 + e;
      if (fromX > upTo && toX > upTo) continue;
      hits.add(fromX, fromY, toX, toY);
    }
  }
  return hits.rows();
}

/** Where chords meet the rows: packed in the order they come in, put row by row at the end. */
class RowHits {
  private xs = new Float64Array(FIRST_HITS);
  /** The row of each, and which way the chord goes: 1 where it rises, else -1. */
  private rowsOf = new Float64Array(FIRST_HITS);
  private waysOf = new Int8Array(FIRST_HITS);
  private count = 0;
  private first = Infinity;
  private last = -Infinity;
  private readonly lowest: number;
  private readonly highest: number;

  constructor(
    private readonly step: number,
    [low, high]: readonly [number, number],
  ) {
    this.lowest = low / step;
    this.highest = high / step;
  }

  add(ax: number, ay: number, bx: number, by: number): void {
    const { step } = this;
    const isRising = ay <= by;
    const lowX = isRising ? ax : bx;
    const lowY = isRising ? ay : by;
    const highX = isRising ? bx : ax;
    const highY = isRising ? by : ay;
    const from = Math.ceil(Math.max(this.lowest, lowY / step) - 0.5);
    const to = Math.ceil(Math.min(this.highest, highY / step) - 0.5) - 1;
    if (to < from) return;
    this.makeRoom(to - from + 1);
    const way = isRising ? 1 : -1;
    for (let k = from; k <= to; k++) {
      const u = ((k + 0.5) * step - lowY) / (highY - lowY);
      this.xs[this.count] = lowX + u * (highX - lowX);
      this.rowsOf[this.count] = k;
      this.waysOf[this.count++] = way;
    }
    this.first = Math.min(this.first, from);
    this.last = Math.max(this.last, to);
  }

  rows(): InkRows {
    const { first, last, count, xs, rowsOf, waysOf } = this;
    if (last < first) return NO_ROWS;
    const starts = new Int32Array(last - first + 2);
    for (let i = 0; i < count; i++) {
      const after = floatAt(rowsOf, i) - first + 1;
      starts[after] = intAt(starts, after) + 1;
    }
    for (let k = 1; k < starts.length; k++) starts[k] = intAt(starts, k) + intAt(starts, k - 1);
    const [sorted, ways, next] = [new Float64Array(count), new Int32Array(count), starts.slice()];
    for (let i = 0; i < count; i++) {
      const row = floatAt(rowsOf, i) - first;
      const at = intAt(next, row);
      next[row] = at + 1;
      sorted[at] = floatAt(xs, i);
      ways[at] = waysOf[i] as number;
    }
    const rows: number[][] = [];
    for (let k = 0; k + 1 < starts.length; k++)
      rows.push(stretches(sorted, ways, intAt(starts, k), intAt(starts, k + 1)));
    return { first, rows };
  }

  private makeRoom(more: number): void {
    const needed = this.count + more;
    if (needed <= this.xs.length) return;
    const room = Math.max(needed, 2 * this.xs.length);
    const [xs, rowsOf, waysOf] = [new Float64Array(room), new Float64Array(room), new Int8Array(room)];
    xs.set(this.xs);
    rowsOf.set(this.rowsOf);
    waysOf.set(this.waysOf);
    this.xs = xs;
    this.rowsOf = rowsOf;
    this.waysOf = waysOf;
  }
}

/** Room for so many hits at first. */
const FIRST_HITS = 256;

/** Stretches of ink of a row whose hits lie from one index up to another; they are put in order of x, those alike as they came. */
function stretches(xs: Float64Array, ways: Int32Array, from: number, to: number): number[] {
  if (to - from > MANY_IN_ROW) sortMany(xs.subarray(from, to), ways.subarray(from, to));
  else sortFew(xs, ways, from, to);
  const out: number[] = [];
  let winding = 0;
  for (let i = from; i < to; i++) {
    const before = winding;
    winding += intAt(ways, i);
    if (before === 0 || winding === 0) out.push(floatAt(xs, i));
  }
  // Where it ends may have been left out.
  if (winding !== 0) out.push(Infinity);
  return out;
}

/** More hits in a row than so many are sorted by the way for many. */
const MANY_IN_ROW = 48;

function sortMany(xs: Float64Array, ways: Int32Array): void {
  const [x, way] = [xs.slice(), ways.slice()];
  const order = Array.from(x, (_, i) => i).sort((a, b) => floatAt(x, a) - floatAt(x, b));
  order.forEach((from, i) => {
    xs[i] = floatAt(x, from);
    ways[i] = intAt(way, from);
  });
}

function sortFew(xs: Float64Array, ways: Int32Array, from: number, to: number): void {
  for (let i = from + 1; i < to; i++) {
    const x = floatAt(xs, i);
    const way = intAt(ways, i);
    let k = i - 1;
    for (; k >= from && floatAt(xs, k) > x; k--) {
      xs[k + 1] = floatAt(xs, k);
      ways[k + 1] = intAt(ways, k);
    }
    xs[k + 1] = x;
    ways[k + 1] = way;
  }
}

/** Ink moved along its rows. */
export const moveRows = (r: InkRows, by: number): InkRows => ({
  first: r.first,
  rows: r.rows.map((row) => row.map((x) => x + by)),
});

/** The ink of several, one over the other, each moved along its rows by what is said for it. */
export function uniteRows(all: readonly InkRows[], moves: readonly number[] = []): InkRows {
  const drawn = all.flatMap((ink, i) => (ink.rows.length > 0 ? [{ ink, by: moves[i] ?? 0 }] : []));
  const [only] = drawn;
  if (!only) return NO_ROWS;
  if (drawn.length === 1) return only.by === 0 ? only.ink : moveRows(only.ink, only.by);
  const first = Math.min(...drawn.map(({ ink }) => ink.first));
  const end = Math.max(...drawn.map(({ ink }) => ink.first + ink.rows.length));
  const room = drawn.reduce((sum, { ink }) => sum + ink.rows.reduce((most, row) => Math.max(most, row.length), 0), 0);
  const [xs, ways] = [new Float64Array(room), new Int32Array(room)];
  const rows: (readonly number[])[] = [];
  for (let row = first; row < end; row++) {
    let count = 0;
    for (const { ink, by } of drawn) {
      const here = ink.rows[row - ink.first];
      for (let i = 0; here && i < here.length; i++) {
        xs[count] = numberAt(here, i) + by;
        ways[count++] = i % 2 === 0 ? 1 : -1;
      }
    }
    rows.push(stretches(xs, ways, 0, count));
  }
  return { first, rows };
}
