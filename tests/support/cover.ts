/**
 * Centerlines judged where no truth is known: how much of a letter a pen as wide as its strokes covers that follows the lines,
 * and whether there are spurs and kinks. Shares no code with the tracing but flattening.
 */

import { uniteLabelled } from '../../src/core/geometry/boolean/union';
import { turnInto } from '../../src/core/geometry/measure';
import { nestPaths } from '../../src/core/geometry/nesting';
import { flattenPath, type Path, pathLength, regionBox, transformRegion } from '../../src/core/geometry/path';
import { type Point, scaling } from '../../src/core/geometry/point';
import type { Segment } from '../../src/core/geometry/segment';
import { segmentLength } from '../../src/core/geometry/segment-measures';
import { PLAIN_SHAPING, type Typeface } from '../../src/core/lettering/face';
import type { Centerline } from '../../src/core/toolpath/centerline/centerline';

import { scriptEngine } from './faces';

export type Cover = {
  /** Area of the letter, and of what the pen covers of it, in cells. */
  readonly cells: number;
  readonly covered: number;
  /** Lines shorter than half the stroke that they are part of. */
  readonly spurs: number;
  /**
   * Nodes at which a line goes on with a bend of 10° to 38°, in degrees; more is a corner. A bend between two straight
   * stretches that are longer than the stroke is wide is the letter's own.
   */
  readonly kinks: readonly number[];
  readonly segments: number;
};

/** A character of a typeface as it is drawn, capitals `capital` high: regions that hang together. */
export function letterOf(face: Typeface, character: string, capital: number): Path[][] {
  const outlines = face
    .shape(character, 'ltr', PLAIN_SHAPING)
    .flatMap(({ glyph }) => transformRegion(face.outline(glyph), scaling(capital / face.capHeight)));
  const clean = uniteLabelled(scriptEngine, [outlines], capital / 4000).map((o) => o.path);
  const { parent, depth } = nestPaths(clean);
  return clean.flatMap((path, i) =>
    (depth[i] as number) % 2 === 0 ? [[path, ...clean.filter((_, k) => parent[k] === i)]] : [],
  );
}

/** What all regions of a character come to. */
export const addedUp = (covers: readonly Cover[]): Cover => ({
  cells: covers.reduce((n, c) => n + c.cells, 0),
  covered: covers.reduce((n, c) => n + c.covered, 0),
  spurs: covers.reduce((n, c) => n + c.spurs, 0),
  kinks: covers.flatMap((c) => c.kinks),
  segments: covers.reduce((n, c) => n + c.segments, 0),
});

/** Cells from the foot to the head of a capital, and points along a line for each cell. */
const CELLS = 90;
const KINK_DEG = 10;
const CORNER_DEG = 38;
/** The pen is no wider than this against the usual half width around. */
const WIDEST = 1.15;
const AROUND = 12;

type Edge = { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };

const edgesOf = (paths: readonly Path[], tolerance: number): Edge[] =>
  paths.flatMap((path) => {
    const points = flattenPath(path, tolerance);
    return points.map((p, i) => {
      const q = points[(i + 1) % points.length] as Point;
      return { x0: p.x, y0: p.y, x1: q.x, y1: q.y };
    });
  });

function isInside(x: number, y: number, edges: readonly Edge[]): boolean {
  let winding = 0;
  for (const e of edges) {
    if (e.y0 > y === e.y1 > y) continue;
    if (e.x0 + ((y - e.y0) / (e.y1 - e.y0)) * (e.x1 - e.x0) > x) winding += e.y1 > e.y0 ? 1 : -1;
  }
  return winding !== 0;
}

/** How far it is from a point in a direction to the next edge. */
function across(x: number, y: number, dx: number, dy: number, edges: readonly Edge[]): number {
  let least = Infinity;
  for (const e of edges) {
    const [ax, ay, bx, by] = [e.x0 - x, e.y0 - y, e.x1 - x, e.y1 - y];
    const [ca, cb] = [dx * ay - dy * ax, dx * by - dy * bx];
    if (ca > 0 === cb > 0) continue;
    const t = ca / (ca - cb);
    const d = dx * (ax + t * (bx - ax)) + dy * (ay + t * (by - ay));
    if (d > 0 && d < least) least = d;
  }
  return least;
}

/** Discs of a pen that follows a line: half as wide as the stroke is across the line there. */
function discsAlong(path: Path, edges: readonly Edge[], step: number): { x: number; y: number; r: number }[] {
  const points = flattenPath(path, step / 10);
  if (path.closed && points[0]) points.push(points[0]);
  const discs = points.slice(1).flatMap((q, i) => {
    const p = points[i] as Point;
    const length = Math.hypot(q.x - p.x, q.y - p.y);
    if (length === 0) return [];
    const [ux, uy] = [(q.x - p.x) / length, (q.y - p.y) / length];
    const n = Math.max(1, Math.ceil(length / step));
    return Array.from({ length: n }, (_, k) => {
      const [x, y] = [p.x + ((k + 0.5) / n) * (q.x - p.x), p.y + ((k + 0.5) / n) * (q.y - p.y)];
      return { x, y, r: (across(x, y, -uy, ux, edges) + across(x, y, uy, -ux, edges)) / 2 };
    });
  });
  return discs.map((d, i) => {
    const around = discs
      .slice(Math.max(0, i - AROUND), i + AROUND + 1)
      .map((o) => o.r)
      .sort((a, b) => a - b);
    return { ...d, r: Math.min(d.r, WIDEST * (around[around.length >> 1] as number)) };
  });
}

/** How a region whose capitals are `capital` high is covered by its centerline. */
export function coverOf(region: readonly Path[], { paths: lines, dots, width }: Centerline, capital: number): Cover {
  const cell = capital / CELLS;
  const edges = edgesOf(region, cell / 20);
  const discs = [...lines.flatMap((p) => discsAlong(p, edges, cell)), ...dots];
  const box = regionBox(region);
  const [nx, ny] = [Math.ceil((box.maxX - box.minX) / cell), Math.ceil((box.maxY - box.minY) / cell)];
  const drawn = new Uint8Array(nx * ny);
  const column = (x: number) => (x - box.minX) / cell - 0.5;
  const row = (y: number) => (y - box.minY) / cell - 0.5;
  for (const { x, y, r } of discs)
    for (let j = Math.max(0, Math.ceil(row(y - r))); j <= Math.min(ny - 1, row(y + r)); j++)
      for (let i = Math.max(0, Math.ceil(column(x - r))); i <= Math.min(nx - 1, column(x + r)); i++) {
        const [cx, cy] = [box.minX + (i + 0.5) * cell, box.minY + (j + 0.5) * cell];
        if ((cx - x) ** 2 + (cy - y) ** 2 <= r * r) drawn[j * nx + i] = 1;
      }
  let [cells, covered] = [0, 0];
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      if (!isInside(box.minX + (i + 0.5) * cell, box.minY + (j + 0.5) * cell, edges)) continue;
      cells++;
      covered += drawn[j * nx + i] as number;
    }
  const isStraight = (s: Segment) => s.kind === 'line' && segmentLength(s) > width;
  const turns = lines.flatMap(({ segments, closed }) =>
    segments.flatMap((s, i) => {
      const before = segments[(i + segments.length - 1) % segments.length] as Segment;
      if ((i === 0 && !closed) || (isStraight(before) && isStraight(s))) return [];
      return [(turnInto(before, s) * 180) / Math.PI];
    }),
  );
  return {
    cells,
    covered,
    spurs: lines.filter((p) => !p.closed && pathLength(p) < width / 2).length,
    kinks: turns.filter((t) => t > KINK_DEG && t < CORNER_DEG),
    segments: lines.reduce((n, p) => n + p.segments.length, 0),
  };
}
