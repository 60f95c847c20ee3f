/** Strokes: tracks chained over the links between their ends. */
import type { Point } from '../../geometry/point';
import { type Port, polylineLength, type TrackPoint, wayInto } from './track';

/** A point of a stroke, with half the width there. */
export type StrokePoint = {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly open: number;
  /** The stroke bends sharply here. */
  readonly corner: boolean;
};

/** Tracks chained to one stroke of the pen. */
export type Stroke = {
  readonly points: readonly StrokePoint[];
  readonly closed: boolean;
  /** What its start and its end are: free, or on another stroke. */
  readonly ends: readonly ['free' | 'met', 'free' | 'met'];
};

/** Two ends that are one stroke, and the points between. */
export type TrackLink = {
  readonly a: Port;
  readonly b: Port;
  readonly points: readonly Point[];
  readonly corner: boolean;
};

/** A number for an end of a track. */
export const portKey = (p: Port): number => 2 * p.track + p.end;

/** A track that turns in a corner at its ends, without what lies beyond the corner; two points at least stay. */
function upToCorners(track: readonly TrackPoint[], atStart: TrackLink | undefined, atEnd: TrackLink | undefined) {
  const list = [...track];
  const cut = (corner: Point | undefined) => {
    const last = list[list.length - 1];
    if (!corner || !last) return;
    const way = wayInto(list, 1);
    const isBeyond = (p: Point) => (p.x - corner.x) * way.x + (p.y - corner.y) * way.y > 0;
    while (list.length > 2 && isBeyond(list[list.length - 1] as Point)) list.pop();
  };
  if (atEnd?.corner) cut(atEnd.points[0]);
  if (!atStart?.corner) return list;
  list.reverse();
  cut(atStart.points[0]);
  return list.reverse();
}

/** Tracks chained over their links. */
export function chained(
  tracks: readonly (readonly TrackPoint[])[],
  links: ReadonlyMap<number, TrackLink>,
  met: ReadonlyMap<number, readonly Point[]>,
): Stroke[] {
  const done = new Uint8Array(tracks.length);
  const strokes: Stroke[] = [];
  const otherEnd = (l: TrackLink, p: Port): Port => (portKey(l.a) === portKey(p) ? l.b : l.a);
  const walk = (start: Port, isRing: boolean): void => {
    const points: StrokePoint[] = [];
    const put = (p: Point, r: number, open: number, corner: boolean) =>
      points.push({ x: p.x, y: p.y, r, open, corner });
    const first = met.get(portKey(start));
    const r0 = tracks[start.track]?.[0]?.r ?? 0;
    if (first) for (const p of [...first].reverse()) put(p, r0, 0, false);
    let port = start;
    for (;;) {
      const track = tracks[port.track] as readonly TrackPoint[];
      done[port.track] = 1;
      const exit: Port = { track: port.track, end: port.end === 0 ? 1 : 0 };
      const next = links.get(portKey(exit));
      const list = upToCorners(track, links.get(2 * port.track), links.get(2 * port.track + 1));
      if (port.end === 1) list.reverse();
      for (const p of list) put(p, p.r, p.open, p.corner ?? false);
      if (!next) {
        const last = met.get(portKey(exit));
        const r = list[list.length - 1]?.r ?? 0;
        if (last) for (const p of last) put(p, r, 0, false);
        strokes.push({ points, closed: false, ends: [first ? 'met' : 'free', last ? 'met' : 'free'] });
        return;
      }
      const ahead = portKey(next.a) === portKey(exit) ? next.points : [...next.points].reverse();
      const r = list[list.length - 1]?.r ?? 0;
      for (const p of ahead) put(p, r, 0, next.corner);
      port = otherEnd(next, exit);
      if (isRing && portKey(port) === portKey(start)) {
        strokes.push({ points, closed: true, ends: ['met', 'met'] });
        return;
      }
      if (done[port.track]) {
        strokes.push({ points, closed: false, ends: ['free', 'free'] });
        return;
      }
    }
  };
  tracks.forEach((track, i) => {
    if (done[i] || track.length === 0) return;
    for (const end of [0, 1] as const) if (!done[i] && !links.has(2 * i + end)) walk({ track: i, end }, false);
  });
  tracks.forEach((track, i) => {
    if (!done[i] && track.length > 0) walk({ track: i, end: 0 }, true);
  });
  return strokes.filter((s) => polylineLength(s.points) > 0);
}
