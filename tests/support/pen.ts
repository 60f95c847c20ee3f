/** Lines drawn with a pen of known width, welded: the outlines, made by another library's offsetting, and the truth inside. */
import { EndType, FillRule, inflatePathsD, JoinType, unionD } from 'clipper2-ts';
import { closedPath, flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';

export type Tip = 'round' | 'flat';

/** The welded outlines of lines under a pen `width` wide: clean, counter-clockwise outside. */
export function penned(lines: readonly Path[], width: number, tip: Tip): Path[] {
  const ends = tip === 'round' ? EndType.Round : EndType.Butt;
  const open = lines.flatMap((path) => {
    const points = flattenPath(path, width / 400);
    if (path.closed && points[0]) points.push(points[0]);
    return atReversals(
      points.filter(
        (p, i) => i === 0 || Math.hypot(p.x - (points[i - 1] as Point).x, p.y - (points[i - 1] as Point).y) > 1e-9,
      ),
    );
  });
  const drawn = open.flatMap((points): { x: number; y: number }[][] => {
    const [first, last] = [points[0] as Point, points[points.length - 1] as Point];
    const ring = points.length > 3 && Math.hypot(first.x - last.x, first.y - last.y) < 1e-6;
    return ring
      ? inflatePathsD([points.slice(0, -1)], width / 2, JoinType.Round, EndType.Joined, 2, 6, width / 2000)
      : inflatePathsD([points], width / 2, JoinType.Round, ends, 2, 6, width / 2000);
  });
  return unionD(drawn, [], FillRule.NonZero, 6)
    .filter((ring) => ring.length > 2)
    .map((ring) =>
      closedPath(
        ring.map((p, i) => {
          const q = ring[(i + 1) % ring.length] as Point;
          return line(p.x, p.y, q.x, q.y);
        }),
      ),
    );
}

/** A line cut where it runs back on itself: there the pen ends as it does anywhere. */
function atReversals(points: readonly Point[]): Point[][] {
  const out: Point[][] = [];
  let run: Point[] = [];
  points.forEach((p, i) => {
    run.push(p);
    const [before, after] = [points[i - 1], points[i + 1]];
    if (!before || !after) return;
    const [ux, uy, vx, vy] = [p.x - before.x, p.y - before.y, after.x - p.x, after.y - p.y];
    if (ux * vx + uy * vy > Math.cos(REVERSAL) * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return;
    out.push(run);
    run = [p];
  });
  out.push(run);
  return out.filter((r) => r.length > 1);
}
const REVERSAL = (172 * Math.PI) / 180;
