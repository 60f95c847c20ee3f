/** Ink by rows: where a level line meets the inside of an outline, one row after the other. */
import { flattenPath, type Path } from './path';
import type { Point } from './point';

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
  const lowest = within[0] / step;
  const highest = within[1] / step;
  const hits = new Map<number, Hit[]>();
  let first = Infinity;
  let last = -Infinity;
  for (const points of polygons)
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length] as Point;
      const [low, high, way] = a.y <= b.y ? [a, b, 1 as const] : [b, a, -1 as const];
      const from = Math.ceil(Math.max(lowest, low.y / step) - 0.5);
      const to = Math.ceil(Math.min(highest, high.y / step) - 0.5) - 1;
      for (let k = from; k <= to; k++) {
        const u = ((k + 0.5) * step - low.y) / (high.y - low.y);
        const hit = { x: low.x + u * (high.x - low.x), way };
        const row = hits.get(k);
        if (row) row.push(hit);
        else hits.set(k, [hit]);
      }
      if (to >= from) {
        first = Math.min(first, from);
        last = Math.max(last, to);
      }
    });
  if (last < first) return NO_ROWS;
  return { first, rows: Array.from({ length: last - first + 1 }, (_, k) => stretches(hits.get(first + k) ?? [])) };
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
