/** How much room there is about a place: how far the outline of a region is from it. */
import Flatbush from 'flatbush';
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';

/** How far a place lies inside the nearest outline; negative outside. In the unit of the region. */
export type DepthInside = (place: Point) => number;

/** So many of the nearest samples are looked at. */
const SAMPLES = 3;

/** The room in a region of which there are samples; they are put in order of place when it is first asked. */
export function depthInside(s: Samples): DepthInside {
  let index: Flatbush | null = null;
  return ({ x, y }) => {
    if (!index) {
      index = new Flatbush(s.x.length);
      for (let i = 0; i < s.x.length; i++) index.add(s.x[i] as number, s.y[i] as number);
      index.finish();
    }
    let [least, inwards] = [Infinity, 1];
    // Where two stretches of outline are close, the nearest sample need not be on the nearest of them.
    for (const i of index.neighbors(x, y, SAMPLES)) {
      const before = chordAt(s, s.previous[i] as number, i);
      const after = chordAt(s, i, s.next[i] as number);
      for (const chord of [before, after]) {
        const { ax, ay, dx, dy } = chord;
        const size = dx * dx + dy * dy;
        const t = size > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size)) : 0;
        const [ex, ey] = [x - ax - t * dx, y - ay - t * dy];
        const d = Math.hypot(ex, ey);
        // The other end of a chord is told by its own sample.
        const isBeside = t > 0 && t < 1;
        if (d >= least || (!isBeside && t !== (chord === before ? 1 : 0))) continue;
        // Beside a stretch its own side tells, about a sample the mean of both (Baerentzen and Aanaes 2005).
        const side = isBeside ? dx * ey - dy * ex : before.ux * ey - before.uy * ex + (after.ux * ey - after.uy * ex);
        [least, inwards] = [d, side < 0 ? -1 : 1];
      }
    }
    return inwards * least;
  };
}

/** The chord from one sample to another: where it begins, where it leads, and that at a length of 1. */
function chordAt(s: Samples, a: number, b: number) {
  const [ax, ay] = [s.x[a] as number, s.y[a] as number];
  const [dx, dy] = [(s.x[b] as number) - ax, (s.y[b] as number) - ay];
  const size = Math.hypot(dx, dy) || 1;
  return { ax, ay, dx, dy, ux: dx / size, uy: dy / size };
}
