/** Outlines as polygons on typed arrays, turned so that the lines to be drawn across them are level. */
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { flattenPath, type Path } from '../../geometry/path';

/**
 * Polygons one after the other. Vertex i is at (x[i], y[i]) in mm; `next` and `previous` run round its own polygon. The inside
 * lies to the left of every edge from a vertex to its next.
 */
export type Polygons = {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly next: Int32Array;
  readonly previous: Int32Array;
};

/** A turn by an angle, kept as its cosine and sine. */
export type Turn = { readonly cos: number; readonly sin: number };

/** The turn by an angle in degrees, counter-clockwise; by multiples of 90 exactly. */
export const turnBy = (degrees: number): Turn => {
  const quarter = degrees / 90;
  // Exact for upright and level lines, which edges often run along.
  if (Number.isInteger(quarter)) {
    const k = ((quarter % 4) + 4) % 4;
    return { cos: numberAt([1, 0, -1, 0], k), sin: numberAt([0, 1, 0, -1], k) };
  }
  const angle = (degrees * Math.PI) / 180;
  return { cos: Math.cos(angle), sin: Math.sin(angle) };
};

/** Closed paths flattened within `tolerance` mm and turned back by `turn`, so that lines in its direction are level. */
export function polygonsOf(paths: readonly Path[], tolerance: number, { cos, sin }: Turn): Polygons {
  const rings = paths.map((path) => flattenPath(path, tolerance)).filter((points) => points.length >= 3);
  const count = rings.reduce((sum, points) => sum + points.length, 0);
  const out = {
    x: new Float64Array(count),
    y: new Float64Array(count),
    next: new Int32Array(count),
    previous: new Int32Array(count),
  };
  let i = 0;
  for (const points of rings) {
    const first = i;
    const last = first + points.length - 1;
    for (const p of points) {
      out.x[i] = cos * p.x + sin * p.y;
      out.y[i] = cos * p.y - sin * p.x;
      out.next[i] = i === last ? first : i + 1;
      out.previous[i] = i === first ? last : i - 1;
      i++;
    }
  }
  return out;
}

/** Whether a point lies in polygons. */
export type PointTest = (x: number, y: number) => boolean;

/** Edges a band holds on the average, about: points are looked up by the band they lie in. */
const EDGES_A_BAND = 8;

/** Tells of many points whether they lie in polygons, by the even-odd rule. */
export function pointInPolygons({ x, y, next }: Polygons): PointTest {
  const n = x.length;
  let [low, high] = [Infinity, -Infinity];
  for (const at of y) {
    if (at < low) low = at;
    if (at > high) high = at;
  }
  if (!(high > low)) return () => false;
  const bands = Math.max(1, Math.ceil(n / EDGES_A_BAND));
  const perMm = bands / (high - low);
  const bandOf = (at: number) => Math.min(bands - 1, Math.max(0, Math.floor((at - low) * perMm)));
  const edges: number[][] = Array.from({ length: bands }, () => []);
  for (let i = 0; i < n; i++) {
    const [a, b] = [bandOf(floatAt(y, i)), bandOf(floatAt(y, intAt(next, i)))];
    for (let k = Math.min(a, b); k <= Math.max(a, b); k++) edges[k]?.push(i);
  }
  return (px, py) => {
    if (py < low || py > high) return false;
    let inside = false;
    for (const i of edges[bandOf(py)] as number[]) {
      const j = intAt(next, i);
      const [yi, yj] = [floatAt(y, i), floatAt(y, j)];
      if (yi > py === yj > py) continue;
      const at = floatAt(x, i) + ((py - yi) * (floatAt(x, j) - floatAt(x, i))) / (yj - yi);
      if (at > px) inside = !inside;
    }
    return inside;
  };
}
