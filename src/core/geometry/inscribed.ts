/** The largest circle inside a closed path: how far open a hole is. */
import { flattenPath, type Path, pathBox } from './path';
import { boxHeight, boxWidth, type Point } from './point';

const FLATTEN_MM = 0.005;
/** The radius is found within this share of the path's size, at best within this many mm. */
const PRECISION = 1e-3;
const FINEST_MM = 1e-3;

type Cell = {
  readonly x: number;
  readonly y: number;
  readonly half: number;
  readonly distance: number;
  readonly most: number;
};

/**
 * Centre and radius in mm, by halving squares and keeping those that may still hold a better centre (Garcia-Castellanos
 * and Lombardo 2007 describe the problem; the bound is the distance at the centre plus half the diagonal).
 */
export function largestCircleIn(path: Path): { readonly centre: Point; readonly radius: number } {
  const points = flattenPath(path, FLATTEN_MM);
  const box = pathBox(path);
  const size = Math.min(boxWidth(box), boxHeight(box));
  const precision = Math.max(FINEST_MM, PRECISION * size);
  const cell = (x: number, y: number, half: number): Cell => {
    const distance = signedDistance(points, x, y);
    return { x, y, half, distance, most: distance + half * Math.SQRT2 };
  };
  let best = cell((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2, 0);
  if (!(size > 0)) return { centre: { x: best.x, y: best.y }, radius: 0 };
  let openCells: Cell[] = [];
  const half = size / 2;
  for (let x = box.minX; x < box.maxX; x += size)
    for (let y = box.minY; y < box.maxY; y += size) openCells.push(cell(x + half, y + half, half));
  while (openCells.length > 0) {
    for (const c of openCells) if (c.distance > best.distance) best = c;
    const least = best.distance + precision;
    openCells = openCells
      .filter((c) => c.most > least)
      .flatMap((c) => {
        const h = c.half / 2;
        return [
          cell(c.x - h, c.y - h, h),
          cell(c.x + h, c.y - h, h),
          cell(c.x - h, c.y + h, h),
          cell(c.x + h, c.y + h, h),
        ];
      });
  }
  return { centre: { x: best.x, y: best.y }, radius: Math.max(0, best.distance) };
}

/** Distance to the outline; positive inside. */
function signedDistance(points: readonly Point[], x: number, y: number): number {
  let inside = false;
  let least = Infinity;
  let p = points[points.length - 1] as Point;
  for (const q of points) {
    if (q.y > y !== p.y > y && x < ((p.x - q.x) * (y - q.y)) / (p.y - q.y) + q.x) inside = !inside;
    const dx = q.x - p.x;
    const dy = q.y - p.y;
    const l = dx * dx + dy * dy;
    const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((x - p.x) * dx + (y - p.y) * dy) / l));
    least = Math.min(least, (p.x + u * dx - x) ** 2 + (p.y + u * dy - y) ** 2);
    p = q;
  }
  return (inside ? 1 : -1) * Math.sqrt(least);
}
