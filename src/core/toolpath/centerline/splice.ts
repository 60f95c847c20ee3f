/** Lines cut back, and smooth curves over the gaps. */
import type { Path } from '../../geometry/path';
import { cubic, pointAt, type Segment, subSegment, tangentAt } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';

/** The path without `by` of its length at its end; null when nothing would be left. */
export function shortened(path: Path, by: number): Path | null {
  let remainingMm = by;
  const segments = [...path.segments];
  while (segments.length > 0) {
    const s = segments.pop() as Segment;
    const length = segmentLength(s);
    if (length <= remainingMm) {
      remainingMm -= length;
      continue;
    }
    return { segments: [...segments, subSegment(s, 0, 1 - remainingMm / length)], closed: false };
  }
  return null;
}

/** A smooth curve from the end of one line to the start of another, in the directions they have there; none over no gap. */
export function joiningCurve(a: Path, b: Path): Segment[] {
  const last = a.segments[a.segments.length - 1];
  const first = b.segments[0];
  if (!last || !first) return [];
  const [from, to] = [pointAt(last, 1), pointAt(first, 0)];
  const gap = Math.hypot(to.x - from.x, to.y - from.y);
  if (gap === 0) return [];
  const [u, v] = [tangentAt(last, 1), tangentAt(first, 0)];
  const turn = Math.acos(Math.max(-1, Math.min(1, u.x * v.x + u.y * v.y)));
  const handle = (2 * gap) / (3 * (1 + Math.cos(turn / 2)));
  return [
    cubic(
      from.x,
      from.y,
      from.x + handle * u.x,
      from.y + handle * u.y,
      to.x - handle * v.x,
      to.y - handle * v.y,
      to.x,
      to.y,
    ),
  ];
}
