/** Which pieces of a shape lie nearest to which: the links along which they are joined into one. */
import type Flatbush from 'flatbush';
import { indexChords } from '../geometry/chord-index';
import { type Chords, chordsOf } from '../geometry/ink-rows';
import { flattenPath } from '../geometry/path';
import { type Box, EMPTY_BOX, outsideBox, type Point } from '../geometry/point';
import { once } from '../memo';
import type { Outline } from './outline';
import type { Piece } from './pieces';

/** A piece as polygons: its outer outline and its holes. */
export type PieceShape = {
  readonly piece: Piece;
  readonly polygons: readonly (readonly Point[])[];
  readonly box: Box;
  /** Found when first asked for. */
  readonly edges: () => EdgeIndex;
  /** Its edges as chords; found when first asked for. */
  readonly chords: () => Chords;
  /** Its corners, neighbours together, with their bounds; found when first asked for. */
  readonly corners: () => readonly CornerRun[];
  /** A few of its corners, found when first asked for. */
  readonly someCorners: () => readonly Point[];
};

/** A piece with its outlines as polygons; their edges are put in an index when first asked for. */
export const pieceShape = (piece: Piece, polygons: PieceShape['polygons'], box: Box): PieceShape => ({
  piece,
  polygons,
  box,
  edges: once(() => edgesOf(polygons)),
  chords: once(() => chordsOf(polygons)),
  corners: once(() => polygons.flatMap(cornerRuns)),
  someCorners: once(() => {
    const all = polygons.flat();
    const every = Math.max(1, Math.floor(all.length / ROUGH_CORNERS));
    return all.filter((_, i) => i % every === 0);
  }),
});

/**
 * The shortest way from one piece to another. `piece` is joined to `to`, both indices in the list of shapes; `from`
 * and `at` are their nearest points.
 */
export type PieceLink = { readonly piece: number; readonly to: number; readonly from: Point; readonly at: Point };

const FLATTEN_MM = 0.02;

/** The pieces of a region as polygons, each with its own holes. */
export function pieceShapes(outlines: readonly Outline[], pieces: readonly Piece[]): PieceShape[] {
  return pieces.map((piece) => {
    const own = outlines.filter((o, i) => i === piece.outline || (o.parent === piece.outline && o.depth % 2 === 1));
    const polygons = own.map((o) => flattenPath(o.path, FLATTEN_MM));
    return pieceShape(piece, polygons, piece.box);
  });
}

const boxDistance = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, a.minX - b.maxX, b.minX - a.maxX), Math.max(0, a.minY - b.maxY, b.minY - a.maxY));

/**
 * The shortest links that join all shapes to the first (a minimum spanning tree, Prim 1957), in the order they are made:
 * every link leads from a shape not yet joined to one that is.
 */
export function shortestLinks(shapes: readonly PieceShape[]): PieceLink[] {
  const links: PieceLink[] = [];
  const best = shapes.map((): { distance: number; link: PieceLink | null } => ({ distance: Infinity, link: null }));
  const joined = new Set<number>();
  let latest = 0;
  while (joined.size < shapes.length) {
    joined.add(latest);
    const added = shapes[latest] as PieceShape;
    let nearest = -1;
    shapes.forEach((shape, i) => {
      if (joined.has(i)) return;
      const known = best[i] as (typeof best)[number];
      if (boxDistance(shape.box, added.box) < known.distance) {
        const found = closestPoints(shape, added, known.distance);
        if (found.distance < known.distance) {
          known.distance = found.distance;
          known.link = { piece: i, to: latest, from: found.from, at: found.at };
        }
      }
      if (nearest < 0 || known.distance < (best[nearest] as { distance: number }).distance) nearest = i;
    });
    if (nearest < 0) break;
    links.push((best[nearest] as { link: PieceLink }).link);
    latest = nearest;
  }
  return links;
}

/** The nearest points of two shapes, over all their outlines; where they are no nearer than `most`, they need not be found. */
export function closestPoints(a: PieceShape, b: PieceShape, most = Infinity): Nearest {
  const cap = Math.min(most, roughDistance(a, b));
  const one = cornersToEdges(a, b, cap);
  const other = cornersToEdges(b, a, Math.min(cap, one.distance));
  return one.distance <= other.distance ? one : { distance: other.distance, from: other.at, at: other.from };
}

/** The nearest points of two shapes, `from` on the first and `at` on the second, and their distance in mm. */
export type Nearest = { readonly distance: number; readonly from: Point; readonly at: Point };

/** Corners looked at for a first guess. */
const ROUGH_CORNERS = 40;

/** The distance of a few corners: no less than the true one. */
function roughDistance(a: PieceShape, b: PieceShape): number {
  let least = Infinity;
  const others = b.someCorners();
  for (const p of a.someCorners())
    for (const q of others) {
      const [dx, dy] = [p.x - q.x, p.y - q.y];
      least = Math.min(least, dx * dx + dy * dy);
    }
  return Math.sqrt(least);
}

/** Corners that follow each other, and their bounds. */
type CornerRun = Box & { readonly corners: readonly Point[] };

const CORNERS_IN_RUN = 12;

function cornerRuns(polygon: readonly Point[]): CornerRun[] {
  const runs: CornerRun[] = [];
  for (let from = 0; from < polygon.length; from += CORNERS_IN_RUN) {
    const corners = polygon.slice(from, from + CORNERS_IN_RUN);
    let { minX, minY, maxX, maxY } = EMPTY_BOX;
    for (const { x, y } of corners) {
      minX = Math.min(minX, x);
      minY = Math.min(minY, y);
      maxX = Math.max(maxX, x);
      maxY = Math.max(maxY, y);
    }
    runs.push({ corners, minX, minY, maxX, maxY });
  }
  return runs;
}

type EdgeIndex = { readonly index: Flatbush; readonly edges: readonly (readonly [Point, Point])[] };

function edgesOf(polygons: PieceShape['polygons']): EdgeIndex {
  const edges = polygons.flatMap((polygon) =>
    polygon.map((p, i) => [p, polygon[(i + 1) % polygon.length] as Point] as const),
  );
  const index = indexChords(edges.length, (i, put) => {
    const [p, q] = edges[i] as readonly [Point, Point];
    put(p.x, p.y, q.x, q.y);
  });
  return { index, edges };
}

/** The nearest of the corners of one and the edges of the other, no farther than `most`. */
function cornersToEdges(a: PieceShape, b: PieceShape, most: number): Nearest {
  const { index, edges } = b.edges();
  let least = most * (1 + 1e-9) + 1e-9;
  let best: Nearest = { distance: Infinity, from: { x: 0, y: 0 }, at: { x: 0, y: 0 } };
  for (const { corners, minX, minY, maxX, maxY } of a.corners()) {
    if (boxDistance({ minX, minY, maxX, maxY }, b.box) >= least) continue;
    if (index.search(minX - least, minY - least, maxX + least, maxY + least).length === 0) continue;
    for (const c of corners) {
      if (outsideBox(c, b.box) >= least) continue;
      for (const i of index.search(c.x - least, c.y - least, c.x + least, c.y + least)) {
        const [p, q] = edges[i] as readonly [Point, Point];
        const dx = q.x - p.x;
        const dy = q.y - p.y;
        const l = dx * dx + dy * dy;
        const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((c.x - p.x) * dx + (c.y - p.y) * dy) / l));
        const at = { x: p.x + u * dx, y: p.y + u * dy };
        const distance = Math.hypot(at.x - c.x, at.y - c.y);
        if (distance >= least) continue;
        least = distance;
        best = { distance, from: c, at };
      }
    }
  }
  return best;
}
