/** How much room there is about a place: how far the outline of a region is from it. */
import Flatbush from 'flatbush';
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';

/** How far a place lies inside the nearest outline; negative outside. In the unit of the region. */
export type DepthInside = (place: Point) => number;

/** The room in a region of which there are samples; they are put in order of place when it is first asked. */
export function depthInside(s: Samples): DepthInside {
  let index: Flatbush | null = null;
  return ({ x, y }) => {
    if (!index) {
      index = new Flatbush(s.x.length);
      for (let i = 0; i < s.x.length; i++) index.add(s.x[i] as number, s.y[i] as number);
      index.finish();
    }
    const [i = 0] = index.neighbors(x, y, 1);
    let [least, inwards] = [Infinity, 1];
    for (const [a, b] of [
      [s.previous[i] as number, i],
      [i, s.next[i] as number],
    ] as const) {
      const [ax, ay] = [s.x[a] as number, s.y[a] as number];
      const [dx, dy] = [(s.x[b] as number) - ax, (s.y[b] as number) - ay];
      const size = dx * dx + dy * dy;
      const t = size > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size)) : 0;
      const [ex, ey] = [x - ax - t * dx, y - ay - t * dy];
      const d = Math.hypot(ex, ey);
      if (d >= least) continue;
      // Beside a stretch its own side tells, about a corner the mean of both.
      const side = t > 0 && t < 1 ? dx * ey - dy * ex : ex * (s.nx[i] as number) + ey * (s.ny[i] as number);
      [least, inwards] = [d, side < 0 ? -1 : 1];
    }
    return inwards * least;
  };
}
