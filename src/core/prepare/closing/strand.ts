/** The ends of single segments. */
import type { Point } from '../../geometry/point';
import { reverseSegment, type Segment, tangentAt } from '../../geometry/segment';

/** End 0 is the start, end 1 the end. Ends are numbered 2·strand + end. */
export const endPoint = (s: Segment, end: number): Point => (end === 0 ? { x: s.x0, y: s.y0 } : { x: s.x1, y: s.y1 });

/** The segment as it runs out at an end: that end is at t = 1. */
export const outwards = (s: Segment, end: number): Segment => (end === 1 ? s : reverseSegment(s));

/** Unit direction in which a segment leaves its end. */
export const leaving = (s: Segment, end: number): Point => tangentAt(outwards(s, end), 1);
