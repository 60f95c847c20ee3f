/** Which pieces of a shape lie nearest to which: the links along which they are joined into one. */
import { flattenPath } from '../geometry/path';
import type { Box, Point } from '../geometry/point';
import type { Outline } from './outline';
import type { Piece } from './pieces';

/** A piece as polygons: its outer outline and its holes. */
export type PieceShape = { readonly piece: Piece; readonly polygons: readonly (readonly Point[])[]; readonly box: Box };

/** `piece` is joined to `to`, both indices in the list of shapes; `from` and `at` are their nearest points. */
export type Link = { readonly piece: number; readonly to: number; readonly from: Point; readonly at: Point };

const FLATTEN_MM = 0.02;

export function pieceShapes(outlines: readonly Outline[], pieces: readonly Piece[]): PieceShape[] {
  return pieces.map((piece) => ({
    piece,
    box: piece.box,
    polygons: outlines
      .filter((o, i) => i === piece.outline || (o.parent === piece.outline && o.depth % 2 === 1))
      .map((o) => flattenPath(o.path, FLATTEN_MM)),
  }));
}

const boxDistance = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, a.minX - b.maxX, b.minX - a.maxX), Math.max(0, a.minY - b.maxY, b.minY - a.maxY));

/**
 * The shortest links that join all shapes to the first (a minimum spanning tree, Prim 1957), in the order they are made:
 * every link leads from a shape not yet joined to one that is.
 */
export function shortestLinks(shapes: readonly PieceShape[]): Link[] {
  const links: Link[] = [];
  const best = shapes.map((): { distance: number; link: Link | null } => ({ distance: Infinity, link: null }));
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
        const found = nearestPoints(shape, added);
        if (found.distance < known.distance) {
          known.distance = found.distance;
          known.link = { piece: i, to: latest, from: found.from, at: found.at };
        }
      }
      if (nearest < 0 || known.distance < (best[nearest] as { distance: number }).distance) nearest = i;
    });
    if (nearest < 0) break;
    links.push((best[nearest] as { link: Link }).link);
    latest = nearest;
  }
  return links;
}

/** The nearest points of two shapes, over all their outlines. */
export function nearestPoints(a: PieceShape, b: PieceShape): { distance: number; from: Point; at: Point } {
  const one = cornersToEdges(a.polygons, b.polygons);
  const other = cornersToEdges(b.polygons, a.polygons);
  return one.distance <= other.distance ? one : { distance: other.distance, from: other.at, at: other.from };
}

function cornersToEdges(a: PieceShape['polygons'], b: PieceShape['polygons']) {
  let least = Infinity;
  let from: Point = { x: 0, y: 0 };
  let at: Point = { x: 0, y: 0 };
  for (const polygon of b)
    polygon.forEach((p, i) => {
      const q = polygon[(i + 1) % polygon.length] as Point;
      const dx = q.x - p.x;
      const dy = q.y - p.y;
      const l = dx * dx + dy * dy;
      for (const corners of a)
        for (const c of corners) {
          const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((c.x - p.x) * dx + (c.y - p.y) * dy) / l));
          const x = p.x + u * dx;
          const y = p.y + u * dy;
          const d = (x - c.x) ** 2 + (y - c.y) ** 2;
          if (d < least) {
            least = d;
            from = c;
            at = { x, y };
          }
        }
    });
  return { distance: Math.sqrt(least), from, at };
}
