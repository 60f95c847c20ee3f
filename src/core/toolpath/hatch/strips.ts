/**
 * Rows of a hatch chained into strips: from the end of one row along the edge of the shape to the end of the next, there and
 * back. A strip is drawn in one go; as its links follow the edge itself, none leaves the shape.
 */

import { floatAt, intAt } from '../../geometry/elements';
import { STILL_MM, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import type { Polygons } from './polygons';
import { rowHeight, type Scanlines } from './scanlines';

/** Rows are linked along the edge when that is at most this many spacings long. */
const LINK_SPACINGS = 10;

/** Rows linked along the edge to strips, each drawn in one go. */
export type HatchStrips = {
  /** One polyline a strip where rows are linked, else one a row, still strip after strip. */
  readonly strokes: Strokes;
  /** First stroke of each strip, and the number of strokes at the end. */
  readonly strips: Int32Array;
  /** Stretches of rows. */
  readonly lineCount: number;
};

/** Chains rows; stretches shorter than `least` mm are left out. `linked`: the links are drawn. */
export function stripsOf(rows: Scanlines, polygons: Polygons, least: number, linked: boolean): HatchStrips {
  const chains = new Chains(rows, polygons, least);
  const out = new StrokeBuilder();
  const strips: number[] = [0];
  let [strokes, lines] = [0, 0];
  for (let nth = 0; nth < rows.count; nth++)
    for (let at = intAt(rows.start, nth); at + 1 < intAt(rows.start, nth + 1); at += 2) {
      if (!chains.isFree(at)) continue;
      // Entered so that it can be left towards the next row.
      const side = chains.linkFrom(nth, at, 1, null) < 0 && chains.linkFrom(nth, at, 0, null) >= 0 ? 1 : 0;
      let [row, here, enters] = [nth, at, side as 0 | 1];
      for (;;) {
        chains.take(here);
        lines++;
        const y = rowHeight(rows, row);
        out.add(floatAt(rows.x, here + enters), y);
        out.add(floatAt(rows.x, here + 1 - enters), y);
        const leaves = (1 - enters) as 0 | 1;
        const next = chains.linkFrom(row, here, leaves, linked ? out : null);
        if (next < 0) break;
        if (!linked) {
          out.lift();
          strokes++;
        }
        [row, here, enters] = [row + 1, next, leaves];
      }
      out.lift();
      strokes++;
      strips.push(strokes);
    }
  return { strokes: out.done(), strips: Int32Array.from(strips), lineCount: lines };
}

class Chains {
  private readonly taken: Uint8Array;
  private readonly mostLink: number;

  constructor(
    private readonly rows: Scanlines,
    private readonly polygons: Polygons,
    least: number,
  ) {
    this.taken = new Uint8Array(rows.x.length);
    this.mostLink = LINK_SPACINGS * rows.spacing;
    for (let k = 0; k < rows.count; k++)
      for (let at = intAt(rows.start, k); at + 1 < intAt(rows.start, k + 1); at += 2) {
        const length = floatAt(rows.x, at + 1) - floatAt(rows.x, at);
        if (!(length >= Math.max(least, STILL_MM))) this.taken[at] = 1;
      }
  }

  isFree = (at: number): boolean => this.taken[at] === 0;
  take(at: number): void {
    this.taken[at] = 1;
  }

  /**
   * The stretch of the next row that the edge leads to from an end of a stretch, or -1; the corners of the edge on the way are
   * added to `out`, where given.
   */
  linkFrom(row: number, at: number, side: 0 | 1, out: StrokeBuilder | null): number {
    const { rows } = this;
    if (row + 1 >= rows.count) return -1;
    const { x, y, next, previous } = this.polygons;
    const upper = rowHeight(rows, row + 1);
    const lower = rowHeight(rows, row);
    const first = intAt(rows.edge, at + side);
    let edge = first;
    let [px, py] = [floatAt(rows.x, at + side), lower];
    let remaining = this.mostLink;
    // The inside lies to the left of an edge: upwards is forwards at a right end, backwards at a left one.
    for (;;) {
      const ahead = (side === 1 ? next[edge] : edge) as number;
      const [ax, ay] = [floatAt(x, ahead), floatAt(y, ahead)];
      if (ay < lower) return -1;
      if (ay >= upper) break;
      remaining -= Math.hypot(ax - px, ay - py);
      if (remaining < 0) return -1;
      [px, py] = [ax, ay];
      edge = (side === 1 ? ahead : previous[edge]) as number;
      if (edge === first) return -1;
    }
    const ahead = (side === 1 ? next[edge] : edge) as number;
    const found = this.crossing(row + 1, edge, side, y[ahead] === upper ? floatAt(x, ahead) : null);
    if (found < 0 || this.taken[found - side]) return -1;
    if (remaining < Math.hypot(floatAt(rows.x, found) - px, upper - py)) return -1;
    if (out)
      for (let e = first; e !== edge; ) {
        const corner = (side === 1 ? next[e] : e) as number;
        out.add(floatAt(x, corner), floatAt(y, corner));
        e = (side === 1 ? corner : previous[e]) as number;
      }
    return found - side;
  }

  /** The crossing of an edge, or of its end `at` just there, on a row that is a left (0) or right (1) end; or -1. */
  private crossing(row: number, edge: number, side: 0 | 1, at: number | null): number {
    const { start, x, edge: edges } = this.rows;
    for (let i = intAt(start, row) + side, end = intAt(start, row + 1); i < end; i += 2)
      if (edges[i] === edge || x[i] === at) return i;
    return -1;
  }
}
