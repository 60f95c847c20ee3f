/** Ends of lines, and places on lines near to a point. */
import type { OnPath, Path } from './path';
import type { Point } from './point';
import { pointAt, type Segment } from './segment';
import { nearestParameter } from './segment-measures';

/** Where an open line begins. */
export const lineStart = ({ segments }: Path): Point => pointAt(segments[0] as Segment, 0);

/** Where an open line ends. */
export const lineEnd = ({ segments }: Path): Point => pointAt(segments[segments.length - 1] as Segment, 1);

/** The place on a line that is nearest to a point, and where that is; null where it is not nearer than `within`. */
export function nearestOnLine({ segments }: Path, { x, y }: Point, within: number): (OnPath & { at: Point }) | null {
  let best: (OnPath & { at: Point }) | null = null;
  let least = within;
  segments.forEach((s, segment) => {
    if (leastDistance(s, { x, y }) >= least) return;
    const t = nearestParameter(s, x, y);
    const at = pointAt(s, t);
    const d = Math.hypot(at.x - x, at.y - y);
    if (d < least) [best, least] = [{ segment, t, at }, d];
  });
  return best;
}

/** No point of a segment is nearer to another than this: the distance to the bounds of the points it is told by; 0 for arcs, which leave those. */
function leastDistance(s: Segment, { x, y }: Point): number {
  if (s.kind === 'arc') return 0;
  let [minX, maxX, minY, maxY] = [
    Math.min(s.x0, s.x1),
    Math.max(s.x0, s.x1),
    Math.min(s.y0, s.y1),
    Math.max(s.y0, s.y1),
  ];
  if (s.kind !== 'line') {
    minX = Math.min(minX, s.ax);
    maxX = Math.max(maxX, s.ax);
    minY = Math.min(minY, s.ay);
    maxY = Math.max(maxY, s.ay);
  }
  if (s.kind === 'cubic') {
    minX = Math.min(minX, s.bx);
    maxX = Math.max(maxX, s.bx);
    minY = Math.min(minY, s.by);
    maxY = Math.max(maxY, s.by);
  }
  return Math.hypot(Math.max(0, minX - x, x - maxX), Math.max(0, minY - y, y - maxY));
}

/** The point of some lines that is nearest to another; null where none is nearer than `within`. */
export function nearestOnLines(lines: readonly Path[], p: Point, within: number): Point | null {
  let best: Point | null = null;
  let least = within;
  for (const line of lines) {
    const place = nearestOnLine(line, p, least);
    if (place) [best, least] = [place.at, Math.hypot(place.at.x - p.x, place.at.y - p.y)];
  }
  return best;
}

/** Whether an end of a line lies on another of some lines. */
export const isOnAnother = (lines: readonly Path[], of: Path, end: Point, within: number): boolean =>
  lines.some((path) => path !== of && nearestOnLine(path, end, within) !== null);
