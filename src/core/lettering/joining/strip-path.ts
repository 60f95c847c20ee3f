/** Strips that letters and their parts are joined by. */
import { closedPath, type Path, reversePath } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { line } from '../../geometry/segment';

/** A closed path through corners that run counter-clockwise; `isClockwise` turns it, so that it unites with letters that run so. */
export function stripPath(corners: readonly Point[], isClockwise: boolean): Path {
  const path = closedPath(
    corners.map((p, i) => {
      const q = corners[(i + 1) % corners.length] as Point;
      return line(p.x, p.y, q.x, q.y);
    }),
  );
  return isClockwise ? reversePath(path) : path;
}

/** The corners of an upright rectangle. */
export const rectangle = (x0: number, y0: number, x1: number, y1: number): Point[] => [
  { x: x0, y: y0 },
  { x: x1, y: y0 },
  { x: x1, y: y1 },
  { x: x0, y: y1 },
];

/** The corners of a bar from one point to another, so wide, and lengthened by `into` at both ends. */
export function barCorners(from: Point, to: Point, width: number, into: number): Point[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const [ux, uy] = length > 1e-9 ? [(to.x - from.x) / length, (to.y - from.y) / length] : [0, 1];
  const [hx, hy] = [(-uy * width) / 2, (ux * width) / 2];
  const [a, b] = [
    { x: from.x - ux * into, y: from.y - uy * into },
    { x: to.x + ux * into, y: to.y + uy * into },
  ];
  return [
    { x: a.x - hx, y: a.y - hy },
    { x: b.x - hx, y: b.y - hy },
    { x: b.x + hx, y: b.y + hy },
    { x: a.x + hx, y: a.y + hy },
  ];
}
