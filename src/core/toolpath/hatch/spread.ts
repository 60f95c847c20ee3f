/** The direction points are spread in: their first principal axis. */
import type { Point } from '../../geometry/point';

/** The axis as a unit vector, and how far along it, from the middle of all points, a point lies. */
export function spread(points: readonly Point[]): { readonly axis: Point; readonly along: (p: Point) => number } {
  const n = Math.max(1, points.length);
  const [mx, my] = [points.reduce((s, p) => s + p.x, 0) / n, points.reduce((s, p) => s + p.y, 0) / n];
  let [xx, xy, yy] = [0, 0, 0];
  for (const { x, y } of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const axis = { x: Math.cos(angle), y: Math.sin(angle) };
  return { axis, along: ({ x, y }) => (x - mx) * axis.x + (y - my) * axis.y };
}
