/**
 * Independent measures of a heap of overlapping outlines: area of the non-zero fill by exact strips between vertices,
 * and the number of crossings of its edges. Shares no code with the booleans but the point on a curve.
 */
import Flatbush from 'flatbush';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';

type Edge = { x0: number; y0: number; x1: number; y1: number; way: 1 | -1 };

function edgesOf(paths: readonly Path[], tolerance: number): Edge[] {
  return paths.flatMap((path) => {
    const points = flattenPath(path, tolerance);
    return points.flatMap((a, i): Edge[] => {
      const b = points[(i + 1) % points.length] as { x: number; y: number };
      if (a.y === b.y) return [];
      return a.y < b.y
        ? [{ x0: a.x, y0: a.y, x1: b.x, y1: b.y, way: 1 }]
        : [{ x0: b.x, y0: b.y, x1: a.x, y1: a.y, way: -1 }];
    });
  });
}

/** Where edges properly cross: the height, and whether they share no end. */
function crossingsOf(edges: readonly Edge[]): number[] {
  if (edges.length === 0) return [];
  const index = new Flatbush(edges.length);
  for (const e of edges) index.add(Math.min(e.x0, e.x1), e.y0, Math.max(e.x0, e.x1), e.y1);
  index.finish();
  const heights: number[] = [];
  edges.forEach((a, i) => {
    for (const j of index.search(Math.min(a.x0, a.x1), a.y0, Math.max(a.x0, a.x1), a.y1)) {
      if (j <= i) continue;
      const b = edges[j] as Edge;
      const side = (e: Edge, x: number, y: number) => (e.x1 - e.x0) * (y - e.y0) - (x - e.x0) * (e.y1 - e.y0);
      const before = side(b, a.x0, a.y0);
      const after = side(b, a.x1, a.y1);
      if (before * after > 0 || side(a, b.x0, b.y0) * side(a, b.x1, b.y1) > 0) continue;
      const shared =
        (a.x0 === b.x0 && a.y0 === b.y0) ||
        (a.x1 === b.x1 && a.y1 === b.y1) ||
        (a.x0 === b.x1 && a.y0 === b.y1) ||
        (a.x1 === b.x0 && a.y1 === b.y0);
      if (!shared) heights.push(before === after ? a.y0 : a.y0 + ((a.y1 - a.y0) * before) / (before - after));
    }
  });
  return heights;
}

/** How often edges of the heap properly cross each other. */
export const countCrossings = (paths: readonly Path[], tolerance = 0.005): number =>
  crossingsOf(edgesOf(paths, tolerance)).length;

/**
 * Area in mm² of the union of closed paths by the non-zero rule. Between neighbouring heights of vertices and crossings
 * the covered width is linear, so one row in the middle of each strip is exact for the flattened outlines.
 */
export function nonZeroArea(paths: readonly Path[], tolerance = 0.0002): number {
  const edges = edgesOf(paths, tolerance).sort((a, b) => a.y0 - b.y0);
  const heights = [...new Set([...edges.flatMap((e) => [e.y0, e.y1]), ...crossingsOf(edges)])].sort((a, b) => a - b);
  let area = 0;
  let next = 0;
  let active: Edge[] = [];
  for (let i = 0; i + 1 < heights.length; i++) {
    const low = heights[i] as number;
    const high = heights[i + 1] as number;
    while (next < edges.length && (edges[next] as Edge).y0 <= low) active.push(edges[next++] as Edge);
    active = active.filter((e) => e.y1 > low);
    const y = (low + high) / 2;
    const hits = active
      .map((e) => ({ x: e.x0 + ((e.x1 - e.x0) * (y - e.y0)) / (e.y1 - e.y0), way: e.way }))
      .sort((a, b) => a.x - b.x);
    let winding = 0;
    let from = 0;
    for (const hit of hits) {
      if (winding !== 0) area += (hit.x - from) * (high - low);
      winding += hit.way;
      from = hit.x;
    }
  }
  return area;
}

/** Winding number of a point about a polygon (Sunday 2001). */
export function windingNumber(polygon: readonly Point[], x: number, y: number): number {
  let winding = 0;
  polygon.forEach((b, i) => {
    const a = polygon[(i + polygon.length - 1) % polygon.length] as Point;
    const side = (b.x - a.x) * (y - a.y) - (x - a.x) * (b.y - a.y);
    if (a.y <= y && b.y > y && side > 0) winding++;
    if (a.y > y && b.y <= y && side < 0) winding--;
  });
  return winding;
}
