/**
 * Level lines clipped to polygons: the rows of a hatch, by a scanline over typed arrays. A row that runs along an edge, or
 * just touches one, takes it in: rows are closed sets, so the lines are those that clipping each with the shape would give.
 */
import { floatAt, intAt } from '../../geometry/elements';
import type { Polygons } from './polygons';

/**
 * Row k lies at height `phase + k · spacing` for k from `first` on. Its crossings are those from start[k − first] to
 * start[k − first + 1], in pairs, left and right end of one stretch of the inside. `edge` is the vertex whose edge is crossed.
 */
export type Scanlines = {
  readonly first: number;
  readonly count: number;
  readonly spacing: number;
  readonly phase: number;
  readonly start: Int32Array;
  readonly x: Float64Array;
  readonly edge: Int32Array;
};

const NO_ROWS = (spacing: number, phase: number): Scanlines => ({
  first: 0,
  count: 0,
  spacing,
  phase,
  start: new Int32Array(1),
  x: new Float64Array(0),
  edge: new Int32Array(0),
});

/** The height of a row, counted from the first one. */
export const rowHeight = (rows: Scanlines, nth: number): number => rows.phase + (rows.first + nth) * rows.spacing;

/** How many rows polygons take, before any is made. */
export function countRows(polygons: Polygons, spacing: number): number {
  let [low, high] = [Infinity, -Infinity];
  for (const y of polygons.y) {
    if (y < low) low = y;
    if (y > high) high = y;
  }
  return high >= low ? Math.floor((high - low) / spacing) + 1 : 0;
}

/**
 * The rows of polygons (a clean region: even-odd and non-zero are the same), `spacing` mm apart, one of them at `phase`;
 * `within` takes only some, by the number of the first and how many there are at most.
 */
export function scanlinesOf(
  polygons: Polygons,
  spacing: number,
  phase: number,
  within: { readonly first: number; readonly count: number } | null = null,
): Scanlines {
  const { x, y, next } = polygons;
  const n = x.length;
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < n; i++) {
    const at = floatAt(y, i);
    if (at < low) low = at;
    if (at > high) high = at;
  }
  const first = within?.first ?? Math.ceil((low - phase) / spacing);
  const count = within?.count ?? Math.floor((high - phase) / spacing) - first + 1;
  if (!(count > 0)) return NO_ROWS(spacing, phase);
  // The first row at or above a height, counted from the first; rounding is put right by looking.
  const rowFrom = (height: number): number => {
    let k = Math.min(count, Math.max(0, Math.ceil((height - phase) / spacing) - first));
    while (k > 0 && phase + (first + k - 1) * spacing >= height) k--;
    while (k < count && phase + (first + k) * spacing < height) k++;
    return k;
  };
  // Rows through a vertex are put together from just above and just below it.
  const exact = new Uint8Array(count);
  let anyExact = false;
  const from = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    const k = rowFrom(floatAt(y, i));
    from[i] = k;
    if (k < count && phase + (first + k) * spacing === y[i]) {
      exact[k] = 1;
      anyExact = true;
    }
  }
  // Edges are taken from their lower end (counted in) to their upper end (not counted): rows as seen from just above.
  const start = new Int32Array(count + 1);
  for (let i = 0; i < n; i++) {
    const [a, b] = [intAt(from, i), intAt(from, intAt(next, i))];
    for (let k = Math.min(a, b), end = Math.max(a, b); k < end; k++) start[k + 1] = intAt(start, k + 1) + 1;
  }
  for (let k = 0; k < count; k++) start[k + 1] = intAt(start, k + 1) + intAt(start, k);
  const total = intAt(start, count);
  const xs = new Float64Array(total);
  const edges = new Int32Array(total);
  const filledTo = start.slice(0, count);
  for (let i = 0; i < n; i++) {
    const j = intAt(next, i);
    const [a, b] = [intAt(from, i), intAt(from, j)];
    if (a === b) continue;
    const [x0, y0] = [floatAt(x, i), floatAt(y, i)];
    const slope = (floatAt(x, j) - x0) / (floatAt(y, j) - y0);
    for (let k = Math.min(a, b), end = Math.max(a, b); k < end; k++) {
      const at = intAt(filledTo, k);
      filledTo[k] = at + 1;
      xs[at] = x0 + (phase + (first + k) * spacing - y0) * slope;
      edges[at] = i;
    }
  }
  for (let k = 0; k < count; k++) sortRow(xs, edges, intAt(start, k), intAt(start, k + 1));
  const open: Scanlines = { first, count, spacing, phase, start, x: xs, edge: edges };
  return anyExact ? closedRows(open, polygons, exact) : open;
}

/** Rows with more crossings than this are sorted as a whole: by then they may come in any order. */
const MANY = 256;

/** Sorts crossings from a to b by x: few, and mostly in order. */
function sortRow(xs: Float64Array, edges: Int32Array, a: number, b: number): void {
  if (b - a > MANY) {
    const order = Array.from({ length: b - a }, (_, i) => ({ x: floatAt(xs, a + i), edge: intAt(edges, a + i) }));
    order.sort((p, q) => p.x - q.x);
    order.forEach((crossing, i) => {
      xs[a + i] = crossing.x;
      edges[a + i] = crossing.edge;
    });
    return;
  }
  for (let i = a + 1; i < b; i++) {
    const v = floatAt(xs, i);
    const e = intAt(edges, i);
    let j = i - 1;
    while (j >= a && floatAt(xs, j) > v) {
      xs[j + 1] = floatAt(xs, j);
      edges[j + 1] = intAt(edges, j);
      j--;
    }
    xs[j + 1] = v;
    edges[j + 1] = e;
  }
}

/** Rows through vertices anew: what is inside just above or just below them. */
function closedRows(open: Scanlines, polygons: Polygons, exact: Uint8Array): Scanlines {
  const below = rowsBelow(open, polygons, exact);
  const xs: number[] = [];
  const edges: number[] = [];
  const start = new Int32Array(open.count + 1);
  for (let k = 0; k < open.count; k++) {
    const [a, b] = [intAt(open.start, k), intAt(open.start, k + 1)];
    const under = below.get(k);
    if (!under)
      for (let i = a; i < b; i++) {
        xs.push(floatAt(open.x, i));
        edges.push(intAt(open.edge, i));
      }
    else uniteRow(open, { a, b, other: under, xs, edges });
    start[k + 1] = xs.length;
  }
  return { ...open, start, x: Float64Array.from(xs), edge: Int32Array.from(edges) };
}

type Crossing = { readonly x: number; readonly edge: number };

/** The crossings of rows through vertices as seen from just below: edges without their lower end, with their upper one. */
function rowsBelow(open: Scanlines, { x, y, next }: Polygons, exact: Uint8Array): Map<number, Crossing[]> {
  const out = new Map<number, Crossing[]>();
  for (let k = 0; k < open.count; k++) if (exact[k]) out.set(k, []);
  for (let i = 0; i < x.length; i++) {
    const j = intAt(next, i);
    const [y0, y1] = [floatAt(y, i), floatAt(y, j)];
    if (y0 === y1) continue;
    const [lo, hi] = [Math.min(y0, y1), Math.max(y0, y1)];
    const from = Math.max(0, Math.floor((lo - open.phase) / open.spacing) - open.first - 1);
    const to = Math.min(open.count - 1, Math.ceil((hi - open.phase) / open.spacing) - open.first + 1);
    for (let k = from; k <= to; k++) {
      const row = exact[k] ? out.get(k) : undefined;
      const height = rowHeight(open, k);
      if (!row || height <= lo || height > hi) continue;
      const at =
        height === y1 ? floatAt(x, j) : floatAt(x, i) + ((height - y0) * (floatAt(x, j) - floatAt(x, i))) / (y1 - y0);
      row.push({ x: at, edge: i });
    }
  }
  for (const row of out.values()) row.sort((a, b) => a.x - b.x);
  return out;
}

/** The stretches from a to b united with those of another row at the same height. */
function uniteRow(
  open: Scanlines,
  {
    a,
    b,
    other,
    xs,
    edges,
  }: {
    readonly a: number;
    readonly b: number;
    readonly other: readonly Crossing[];
    readonly xs: number[];
    readonly edges: number[];
  },
): void {
  const stretches: [Crossing, Crossing][] = [];
  const at = (i: number): Crossing => ({ x: floatAt(open.x, i), edge: intAt(open.edge, i) });
  for (let i = a; i + 1 < b; i += 2) stretches.push([at(i), at(i + 1)]);
  for (let i = 0; i + 1 < other.length; i += 2) stretches.push([other[i] as Crossing, other[i + 1] as Crossing]);
  stretches.sort((p, q) => p[0].x - q[0].x || p[1].x - q[1].x);
  let now: [Crossing, Crossing] | null = null;
  const end = () => {
    if (!now) return;
    xs.push(now[0].x, now[1].x);
    edges.push(now[0].edge, now[1].edge);
  };
  for (const s of stretches) {
    if (now && s[0].x <= now[1].x) {
      if (s[1].x > now[1].x) now = [now[0], s[1]];
      continue;
    }
    end();
    now = s;
  }
  end();
}
