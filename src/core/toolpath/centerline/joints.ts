/**
 * Tracks put together to strokes at their meetings: what goes on straight is one stroke across the meeting, two that are
 * left over make a corner, one that is left over ends on the stroke it meets.
 */
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';
import { chained, portKey, type Stroke, type TrackLink } from './chain';
import { depthInside } from './depth-inside';
import { CORNER, cornerOf, type Ray, REACH, rayOf } from './rays';
import type { Port, TrackPoint, Tracks } from './track';
import { bendBetween, crossingOf, curveBetween, firstHit, nearestOn, onwards, withRoom } from './ways';

/** Where strokes meet, and whether it is not sure how they go on there. */
export type StrokeJoint = { readonly x: number; readonly y: number; readonly r: number; readonly unsure: boolean };

/** Strokes that turn by more than this across a meeting do not go on there, in radians. */
const GOES_ON = (40 * Math.PI) / 180;
/** From this bend on it is not sure that two ends belong together, unless they meet in a corner. */
const UNSURE = (60 * Math.PI) / 180;
/** Ends that turn by more than this to reach each other do not face each other. */
const FACES = (130 * Math.PI) / 180;
/** Ends that cross a stroke run into each other within this. */
const ACROSS = (25 * Math.PI) / 180;
/** Over a gap of this many radii, a way may leave the outline. */
const FAR = 1.5;
/** An edge that two ends share makes up for this much of a bend, in radians. */
const EDGE = (25 * Math.PI) / 180;
/** Over a gap of this many radii, ends that turn by less than this are one bend, not a corner. */
const BEND_GAP = 0.5;
const BEND = (75 * Math.PI) / 180;

/** The strokes that tracks make, and the bends at their meetings. */
export function strokesOf(
  { tracks, meetings, through, alongEdge }: Tracks,
  samples: Samples,
): { strokes: Stroke[]; joints: StrokeJoint[] } {
  const room = depthInside(samples);
  const links = new Map<number, TrackLink>();
  const met = new Map<number, readonly Point[]>();
  const joints: StrokeJoint[] = [];
  const leftOver: Port[] = [];
  const rays = new Map<number, Ray>();
  const rayAt = (p: Port): Ray => {
    let known = rays.get(portKey(p));
    if (!known) {
      known = rayOf(tracks[p.track] as TrackPoint[], p.end);
      rays.set(portKey(p), known);
    }
    return known;
  };
  const link = (a: Port, b: Port, sharp: boolean): Point[] => {
    const [ra, rb] = [rayAt(a), rayAt(b)];
    const { turn, cost } = bendBetween(ra, rb);
    const gap = Math.hypot(ra.x - rb.x, ra.y - rb.y);
    const bends = gap > BEND_GAP * Math.min(ra.r, rb.r) && Math.abs(turn) < BEND;
    const crossing = sharp && !bends ? cornerOf(ra, rb) : null;
    const corner =
      crossing && withRoom(room, crossing, { x: (ra.x + rb.x) / 2, y: (ra.y + rb.y) / 2 }, Math.min(ra.r, rb.r));
    const points = corner ? [corner] : gap > 0.35 * Math.min(ra.r, rb.r) ? curveBetween(ra, rb) : [];
    const made: TrackLink = { a, b, points, corner: corner !== null };
    links.set(portKey(a), made);
    links.set(portKey(b), made);
    joints.push({
      x: (ra.x + rb.x) / 2,
      y: (ra.y + rb.y) / 2,
      r: Math.max(ra.r, rb.r),
      unsure: corner === null && cost > UNSURE && gap > BEND_GAP * Math.min(ra.r, rb.r),
    });
    return [ra, ...points, rb];
  };
  for (const [a, b] of through) {
    if (links.has(portKey(a)) || links.has(portKey(b))) continue;
    const { turn, cost } = bendBetween(rayAt(a), rayAt(b));
    link(a, b, Math.abs(turn) > CORNER && cost > CORNER);
  }
  const isInside = (way: readonly Point[]) => way.every((p) => room(p) > 0);
  /** Whether the way from one end to another stays inside the outline. */
  const staysIn = (a: Port, b: Port): boolean => {
    const [ra, rb] = [rayAt(a), rayAt(b)];
    if (Math.hypot(ra.x - rb.x, ra.y - rb.y) < FAR * Math.min(ra.r, rb.r)) return true;
    // A few points tell.
    return isInside(curveBetween(ra, rb).filter((_, i) => i % 4 === 1));
  };
  const pairKey = (a: Port, b: Port): string => [portKey(a), portKey(b)].sort((p, q) => p - q).join();
  const edges = new Set(alongEdge.map(([a, b]) => pairKey(a, b)));
  for (const ports of meetings) {
    const lines: (readonly Point[])[] = [];
    const seen = new Set<TrackLink>();
    for (const p of ports) {
      const known = links.get(portKey(p));
      if (!known || seen.has(known)) continue;
      seen.add(known);
      lines.push(
        [rayAt(known.a), ...known.points, rayAt(known.b)],
        tracks[known.a.track] as TrackPoint[],
        tracks[known.b.track] as TrackPoint[],
      );
    }
    let openPorts = ports.filter((p) => !links.has(portKey(p)) && (tracks[p.track] as TrackPoint[]).length > 0);
    const options = openPorts.flatMap((a, i) =>
      openPorts.slice(i + 1).map((b) => {
        const bend = bendBetween(rayAt(a), rayAt(b));
        return { a, b, cost: edges.has(pairKey(a, b)) ? Math.max(0, bend.cost - EDGE) : bend.cost };
      }),
    );
    options.sort((p, q) => p.cost - q.cost);
    for (const { a, b, cost } of options) {
      if (links.has(portKey(a)) || links.has(portKey(b))) continue;
      const alone = openPorts.length === 2 || lines.length === 0;
      if (cost > FACES || (cost > GOES_ON && !alone)) continue;
      if (openPorts.length === 2 && lines.length > 0 && cost > GOES_ON) continue;
      if (!staysIn(a, b)) continue;
      lines.push(link(a, b, cost > CORNER), tracks[a.track] as TrackPoint[], tracks[b.track] as TrackPoint[]);
      openPorts = openPorts.filter((p) => p !== a && p !== b);
    }
    for (const p of openPorts) {
      const ray = rayAt(p);
      const bodies = ports
        .filter((q) => q.track !== p.track && openPorts.includes(q))
        .map((q) => tracks[q.track] as TrackPoint[]);
      const others = [...lines.filter((l) => l !== tracks[p.track]), ...bodies];
      if (others.length === 0) continue;
      const way = onwards(ray);
      const into = (w: readonly Point[]) => {
        const hit = firstHit(w, others);
        return hit && isInside(hit) ? hit : null;
      };
      const hit = into(way) ?? into(onwards({ ...ray, bend: 0 }));
      const near = hit ?? [nearestOn(ray, others)].filter((q): q is Point => q !== null);
      const end = near[near.length - 1];
      if (end && Math.hypot(end.x - ray.x, end.y - ray.y) < REACH * ray.r) {
        met.set(portKey(p), near);
        leftOver.push(p);
      }
    }
  }
  // Two that end on the same stroke from either side, in line with each other, are one that crosses it.
  const across = leftOver
    .flatMap((a, i) => leftOver.slice(i + 1).map((b) => ({ a, b, ...crossingOf(rayAt(a), rayAt(b)) })))
    .filter(({ a, b, cost }) => a.track !== b.track && cost < ACROSS)
    .sort((p, q) => p.cost - q.cost);
  for (const { a, b } of across) {
    if (links.has(portKey(a)) || links.has(portKey(b)) || !staysIn(a, b)) continue;
    met.delete(portKey(a));
    met.delete(portKey(b));
    link(a, b, false);
  }
  return { strokes: chained(tracks, links, met), joints };
}
