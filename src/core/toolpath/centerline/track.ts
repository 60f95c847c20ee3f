/** Tracks: lines down the middle of a stroke, only where the middle is known; and their ends. */
import { distance } from '../../geometry/point';

/** A point of a track, with half the width of the stroke there. */
export type TrackPoint = {
  readonly x: number;
  readonly y: number;
  /** Half the width of the stroke. */
  readonly r: number;
  /** Angle between the two contacts seen from here, in radians; π where the edges are parallel. 0 where not known. */
  readonly open: number;
  /** The stroke bends sharply here. */
  readonly corner?: boolean;
};

/** The end of a track: its first point (0) or its last (1). */
export type Port = { readonly track: number; readonly end: 0 | 1 };

/** The known stretches of middle lines, and how they are joined. */
export type Tracks = {
  readonly tracks: readonly (readonly TrackPoint[])[];
  /** Ends that come together; one that is in none is free. */
  readonly meetings: readonly (readonly Port[])[];
  /** Pairs of ends that are known to be one stroke. */
  readonly through: readonly (readonly [Port, Port])[];
  /** Pairs of ends that share an edge which runs on past their joint. */
  readonly alongEdge: readonly (readonly [Port, Port])[];
};

/** Length of a polyline. */
export const polylineLength = (points: readonly { x: number; y: number }[]): number => {
  let length = 0;
  for (let i = 1; i < points.length; i++) length += distance(points[i - 1] as TrackPoint, points[i] as TrackPoint);
  return length;
};

/** How far a point is from a line through points. */
export function distanceTo(p: { x: number; y: number }, points: readonly { x: number; y: number }[]): number {
  let least = Infinity;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1] as TrackPoint, points[i] as TrackPoint];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const size = dx * dx + dy * dy;
    const t = size > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / size)) : 0;
    const [ex, ey] = [a.x + t * dx - p.x, a.y + t * dy - p.y];
    least = Math.min(least, ex * ex + ey * ey);
  }
  return Math.sqrt(least);
}

/** The direction in which a track runs into its end, over the last radius. */
export function wayInto(points: readonly TrackPoint[], end: 0 | 1): { x: number; y: number } {
  const n = points.length;
  const at = (k: number) => points[end === 1 ? n - 1 - k : k] as TrackPoint;
  const tip = at(0);
  let k = 1;
  while (k < n - 1 && distance(at(k), tip) < tip.r) k++;
  const from = at(Math.min(k, n - 1));
  const length = distance(tip, from) || 1;
  return { x: (tip.x - from.x) / length, y: (tip.y - from.y) / length };
}
