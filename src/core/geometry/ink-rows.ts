/** Ink by rows: where a level line meets the inside of an outline, one row after the other. */

import { floatAt } from './elements';
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

/** The chords of polygons, each by its ends: x and y of the one, then of the other. */
export function chordsOf(polygons: readonly (readonly Point[])[]): Float64Array {
  const chords = new Float64Array(4 * polygons.reduce((sum, points) => sum + points.length, 0));
  let at = 0;
  for (const points of polygons)
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length] as Point;
      chords.set([a.x, a.y, b.x, b.y], at);
      at += 4;
    });
  return chords;
}

/**
 * Rows of polygons given by their chords, moved by a matrix; rows not `within` two heights are left out, and ink that begins to the
 * right of `upTo` may be.
 */
export function rowsOfChords(
  chords: Float64Array,
  { a, b, c, d, e, f }: Matrix,
  { step, within, upTo }: { readonly step: number; readonly within: readonly [number, number]; readonly upTo: number },
): InkRows {
  const hits = new RowHits(step, within);
  for (let i = 0; i < chords.length; i += 4) {
    const [x0, y0, x1, y1] = [
      floatAt(chords, i),
      floatAt(chords, i + 1),
      floatAt(chords, i + 2),
      floatAt(chords, i + 3),
    ];
    const fromY = b * x0 + d * y0 + f;
    const toY = b * x1 + d * y1 + f;
    if ((fromY < within[0] && toY < within[0]) || (fromY > within[1] && toY > within[1])) continue;
    const fromX = a * x0 + c * y0 + e;
    const toX = a * x1 + c * y1 + e;
    if (fromX > upTo && toX > upTo) continue;
    hits.add(fromX, fromY, toX, toY);
  }
  return hits.rows();
}

/** Where chords meet the rows, gathered row by row. */
class RowHits {
  private readonly hits = new Map<number, Hit[]>();
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
    const { step, hits } = this;
    const isRising = ay <= by;
    const [lowX, lowY, highX, highY] = isRising ? [ax, ay, bx, by] : [bx, by, ax, ay];
    const from = Math.ceil(Math.max(this.lowest, lowY / step) - 0.5);
    const to = Math.ceil(Math.min(this.highest, highY / step) - 0.5) - 1;
    for (let k = from; k <= to; k++) {
      const u = ((k + 0.5) * step - lowY) / (highY - lowY);
      const hit: Hit = { x: lowX + u * (highX - lowX), way: isRising ? 1 : -1 };
      const row = hits.get(k);
      if (row) row.push(hit);
      else hits.set(k, [hit]);
    }
    if (to >= from) {
      this.first = Math.min(this.first, from);
      this.last = Math.max(this.last, to);
    }
  }

  rows(): InkRows {
    const { first, last, hits } = this;
    if (last < first) return NO_ROWS;
    return { first, rows: Array.from({ length: last - first + 1 }, (_, k) => stretches(hits.get(first + k) ?? [])) };
  }
}

type Hit = { readonly x: number; readonly way: 1 | -1 };

function stretches(hits: Hit[]): number[] {
  const out: number[] = [];
  let winding = 0;
  for (const { x, way } of hits.sort((a, b) => a.x - b.x)) {
    const before = winding;
    winding += way;
    if (before === 0 || winding === 0) out.push(x);
  }
  return out;
}

/** Ink moved along its rows. */
export const moveRows = (r: InkRows, by: number): InkRows => ({
  first: r.first,
  rows: r.rows.map((row) => row.map((x) => x + by)),
});

/** The ink of several, one over the other. */
export function uniteRows(all: readonly InkRows[]): InkRows {
  const drawn = all.filter((r) => r.rows.length > 0);
  if (drawn.length <= 1) return drawn[0] ?? NO_ROWS;
  const first = Math.min(...drawn.map((r) => r.first));
  const end = Math.max(...drawn.map((r) => r.first + r.rows.length));
  return {
    first,
    rows: Array.from({ length: end - first }, (_, k) =>
      stretches(
        drawn.flatMap((r) =>
          (r.rows[first + k - r.first] ?? []).map((x, i): Hit => ({ x, way: i % 2 === 0 ? 1 : -1 })),
        ),
      ),
    ),
  };
}
