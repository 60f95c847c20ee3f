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
    const t = nearestParameter(s, x, y);
    const at = pointAt(s, t);
    const d = Math.hypot(at.x - x, at.y - y);
    if (d < least) [best, least] = [{ segment, t, at }, d];
  });
  return best;
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
