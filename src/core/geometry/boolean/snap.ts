/**
 * Snapping before a boolean: edges that lie on each other at an angle come out of rounding to the grid a hair apart, and
 * would leave a slit between shapes that touch. Vertices within reach of each other become one; a vertex within reach of
 * an edge is put into it. (The idea of snap rounding, Hobby 1999, at the size of a grid step.)
 */
import Flatbush from 'flatbush';
import { floatAt, numberAt } from '../elements';
import { PointGrid } from '../point-grid';
import { GRID_PER_MM, type TaggedPolygon } from './engine';

const REACH_MM = 1.5 / GRID_PER_MM;

type Insertion = { readonly along: number; readonly x: number; readonly y: number };

/** Polygons with shared vertices where they touch. Inserted vertices have tag 0. */
export function snapTogether(polygons: readonly TaggedPolygon[]): TaggedPolygon[] {
  const count = polygons.reduce((sum, p) => sum + p.length / 3, 0);
  if (count === 0) return [...polygons];
  const x = new Float64Array(count);
  const y = new Float64Array(count);
  const next = new Uint32Array(count);
  const firsts: number[] = [];
  let at = 0;
  for (const polygon of polygons) {
    const first = at;
    firsts.push(first);
    for (let i = 0; i < polygon.length; i += 3, at++) {
      x[at] = floatAt(polygon, i);
      y[at] = floatAt(polygon, i + 1);
      next[at] = i + 3 < polygon.length ? at + 1 : first;
    }
  }
  uniteVertices(x, y);
  const insertions = findInsertions(x, y, next);
  return polygons.map((polygon, p) => {
    const first = numberAt(firsts, p);
    const out: number[] = [];
    for (let i = 0; i < polygon.length / 3; i++) {
      const v = first + i;
      out.push(floatAt(x, v), floatAt(y, v), floatAt(polygon, 3 * i + 2));
      for (const add of (insertions.get(v) ?? []).sort((a, b) => a.along - b.along)) out.push(add.x, add.y, 0);
    }
    return Float64Array.from(out);
  });
}

/** Give every vertex the place of the first vertex within reach of it. */
function uniteVertices(x: Float64Array, y: Float64Array): void {
  // Looked for where they were.
  const grid = new PointGrid(x.slice(), y.slice(), REACH_MM);
  let first = 0;
  const take = (j: number) => {
    if (j < first) first = j;
  };
  for (let i = 0; i < x.length; i++) {
    first = i;
    grid.eachNear(i, take);
    if (first < i) {
      x[i] = floatAt(x, first);
      y[i] = floatAt(y, first);
    }
  }
}

function findInsertions(x: Float64Array, y: Float64Array, next: Uint32Array): Map<number, Insertion[]> {
  const index = new Flatbush(x.length);
  for (let i = 0; i < x.length; i++) {
    const j = next[i] as number;
    const [ax, ay, bx, by] = [floatAt(x, i), floatAt(y, i), floatAt(x, j), floatAt(y, j)];
    index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  }
  index.finish();
  const insertions = new Map<number, Insertion[]>();
  for (let v = 0; v < x.length; v++) {
    const px = floatAt(x, v);
    const py = floatAt(y, v);
    for (const e of index.search(px - REACH_MM, py - REACH_MM, px + REACH_MM, py + REACH_MM)) {
      const j = next[e] as number;
      const ax = floatAt(x, e);
      const ay = floatAt(y, e);
      const dx = floatAt(x, j) - ax;
      const dy = floatAt(y, j) - ay;
      const l = dx * dx + dy * dy;
      if (l === 0 || (px === ax && py === ay) || (px === x[j] && py === y[j])) continue;
      const along = ((px - ax) * dx + (py - ay) * dy) / l;
      if (along <= 0 || along >= 1) continue;
      if (Math.hypot(ax + along * dx - px, ay + along * dy - py) > REACH_MM) continue;
      const list = insertions.get(e);
      if (!list) insertions.set(e, [{ along, x: px, y: py }]);
      else if (!list.some((add) => add.x === px && add.y === py)) list.push({ along, x: px, y: py });
    }
  }
  return insertions;
}
