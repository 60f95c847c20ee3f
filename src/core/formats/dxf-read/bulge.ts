import type { Path } from '../../geometry/path';
import { arcBetween, line, type Segment } from '../../geometry/segment';

type Vertex = { readonly x: number; readonly y: number; readonly bulge: number };

/** An arc that leaves its chord by less than this is a line: its middle would be too far away to be exact. */
const STRAIGHT = 1e-6;

/** Straight and round stretches between vertices; a bulge is the tangent of a quarter of the arc's angle. */
export function bulged(vertices: readonly Vertex[], closed: boolean): Path {
  const segments: Segment[] = [];
  const n = vertices.length;
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [p, q] = [vertices[i] as Vertex, vertices[(i + 1) % n] as Vertex];
    if (p.x === q.x && p.y === q.y) continue;
    const sagitta = (Math.abs(p.bulge) * Math.hypot(q.x - p.x, q.y - p.y)) / 2;
    segments.push(sagitta < STRAIGHT ? line(p.x, p.y, q.x, q.y) : arcBetween(p, q, 4 * Math.atan(p.bulge)));
  }
  return { segments, closed };
}
