/**
 * Tracks put together to strokes at their meetings: what goes on straight is one stroke across the meeting, two that are
 * left over make a corner, one that is left over ends on the stroke it meets.
 */
import type { Samples } from '../../geometry/medial';
import { distance, type Point } from '../../geometry/point';
import { chained, portKey, type Stroke, type TrackLink } from './chain';
import { type DepthInside, depthInside } from './depth-inside';
import { CORNER, cornerOf, type Ray, REACH, rayOf } from './rays';
import type { Port, TrackPoint, Tracks } from './track';
import { bendBetween, crossingOf, curveBetween, firstHit, nearestOn, onwards, withRoom } from './ways';

/** Where strokes meet, and whether it is not sure how they go on there. */
export type StrokeJoint = { readonly x: number; readonly y: number; readonly r: number; readonly unsure: boolean };

/** Strokes that turn by more than this across a meeting do not go on there, in radians. */
const GOES_ON = (40 * Math.PI) / 180;
/** From this bend on it is not sure that two ends belong together, unless they meet in a corner. */
const UNSURE = (60 * Math.PI) / 180;
/** Straight ends, which bend by no more than this over a radius, meet in a corner from this on. In radians. */
const STRAIGHT_BEND = 0.02;
const STRAIGHT_CORNER = (12 * Math.PI) / 180;
/** Ends that turn by more than this to reach each other do not face each other. */
const FACES = (130 * Math.PI) / 180;
/** Ends that cross a stroke run into each other within this. */
const ACROSS = (25 * Math.PI) / 180;
/** An end is taken on into the thickest stroke of its meeting for this many radii of that. */
const INTO = 2;
/** Over a gap of this many radii, a way may leave the outline. */
const FAR = 1.5;
/** An edge that two ends share makes up for this much of a bend, in radians. */
const EDGE = (25 * Math.PI) / 180;
/** Over a gap of this many radii, ends that turn by less than this are one bend, not a corner. */
const BEND_GAP = 0.5;
const BEND = (75 * Math.PI) / 180;
/** Over a smaller gap, in radii, ends are joined as they are. */
const SEEN_GAP = 0.35;

/** Whether every point of a way lies inside the outline. */
const isInside = (room: DepthInside, way: readonly Point[]): boolean => way.every((p) => room(p) > 0);

const pairKey = (a: Port, b: Port): string => [portKey(a), portKey(b)].sort((p, q) => p - q).join();

/** A place ahead of two ends that run side by side, as those of an acute corner do whose tip is cut off; null where they do not. */
function apexOf(a: Ray, b: Ray, middle: Point): Point | null {
  if (a.dx * b.dx + a.dy * b.dy < ACUTE) return null;
  const size = Math.hypot(a.dx + b.dx, a.dy + b.dy);
  const ahead = REACH * Math.max(a.r, b.r);
  return { x: middle.x + ((a.dx + b.dx) / size) * ahead, y: middle.y + ((a.dy + b.dy) / size) * ahead };
}
const ACUTE = Math.cos((50 * Math.PI) / 180);

/** Tracks on their way to strokes: which ends are linked, which end on another stroke, and where that is not sure. */
class Joining {
  readonly links = new Map<number, TrackLink>();
  /** Ends that run on to another stroke, with the points on the way. */
  readonly met = new Map<number, readonly Point[]>();
  readonly joints: StrokeJoint[] = [];
  private readonly room: DepthInside;
  private readonly rays = new Map<number, Ray>();
  private readonly edges: ReadonlySet<string>;

  constructor(
    private readonly tracks: Tracks['tracks'],
    alongEdge: Tracks['alongEdge'],
    samples: Samples,
  ) {
    this.room = depthInside(samples);
    this.edges = new Set(alongEdge.map(([a, b]) => pairKey(a, b)));
  }

  /** Links ends of which it is known that they are one stroke. */
  linkThrough(pairs: Tracks['through']): void {
    for (const [a, b] of pairs) {
      if (this.isLinked(a) || this.isLinked(b)) continue;
      const { turn, cost } = bendBetween(this.rayAt(a), this.rayAt(b));
      this.link(a, b, Math.abs(turn) > CORNER && cost > CORNER);
    }
  }

  /**
   * At one meeting: ends that go on straight are linked, the straightest first, then two that are left over as a corner. Any
   * other ends on a stroke there, if one is near; those are given back.
   */
  meet(ports: readonly Port[]): Port[] {
    const strokes = this.strokesThrough(ports);
    const free = this.linkStraightest(ports, strokes);
    return free.filter((p) => {
      const bodies = free.filter((q) => q.track !== p.track).map((q) => this.trackOf(q));
      const others = [...strokes.filter((s) => s !== this.trackOf(p)), ...bodies];
      // A hairline comes to the edge of a thick stroke long before it comes to its middle.
      const thickest = Math.max(...ports.map((q) => this.rayAt(q).r));
      const way = this.wayOnto(this.rayAt(p), others, Math.max(REACH * this.rayAt(p).r, INTO * thickest));
      if (way) this.met.set(portKey(p), way);
      return way !== null;
    });
  }

  /** Two that end on the same stroke from either side, in line with each other, are one that crosses it. */
  linkAcross(ending: readonly Port[]): void {
    const pairs = ending
      .flatMap((a, i) => ending.slice(i + 1).map((b) => ({ a, b, ...crossingOf(this.rayAt(a), this.rayAt(b)) })))
      .filter(({ a, b, cost }) => a.track !== b.track && cost < ACROSS)
      .sort((p, q) => p.cost - q.cost);
    for (const { a, b } of pairs) {
      if (this.isLinked(a) || this.isLinked(b) || !this.staysInside(a, b)) continue;
      this.met.delete(portKey(a));
      this.met.delete(portKey(b));
      this.link(a, b, false);
    }
  }

  private isLinked(p: Port): boolean {
    return this.links.has(portKey(p));
  }

  private trackOf(p: Port): readonly TrackPoint[] {
    return this.tracks[p.track] as TrackPoint[];
  }

  private rayAt(p: Port): Ray {
    const known = this.rays.get(portKey(p));
    if (known) return known;
    const ray = rayOf(this.trackOf(p), p.end);
    this.rays.set(portKey(p), ray);
    return ray;
  }

  private isStraight(p: Port): boolean {
    const { bend, r } = this.rayAt(p);
    return Math.abs(bend) * r < STRAIGHT_BEND;
  }

  /** Makes two ends one stroke, with a corner where it is to be `sharp`; the points from one to the other. */
  private link(a: Port, b: Port, sharp: boolean): Point[] {
    const [ra, rb] = [this.rayAt(a), this.rayAt(b)];
    const { turn, cost } = bendBetween(ra, rb);
    const gap = distance(ra, rb);
    const r = Math.min(ra.r, rb.r);
    const middle = { x: (ra.x + rb.x) / 2, y: (ra.y + rb.y) / 2 };
    const isBend = gap > BEND_GAP * r && Math.abs(turn) < BEND && ![a, b].every((p) => this.isStraight(p));
    const crossing = sharp && !isBend ? (cornerOf(ra, rb) ?? apexOf(ra, rb, middle)) : null;
    const corner = crossing && withRoom(this.room, crossing, middle, r);
    const points = corner ? [corner] : gap > SEEN_GAP * r ? curveBetween(ra, rb) : [];
    const made: TrackLink = { a, b, points, corner: corner !== null };
    this.links.set(portKey(a), made);
    this.links.set(portKey(b), made);
    const unsure = corner === null && cost > UNSURE && gap > BEND_GAP * r;
    this.joints.push({ ...middle, r: Math.max(ra.r, rb.r), unsure });
    return [ra, ...points, rb];
  }

  /** Whether the way from one end to another stays inside the outline. */
  private staysInside(a: Port, b: Port): boolean {
    const [ra, rb] = [this.rayAt(a), this.rayAt(b)];
    if (distance(ra, rb) < FAR * Math.min(ra.r, rb.r)) return true;
    // A few points tell.
    return isInside(
      this.room,
      curveBetween(ra, rb).filter((_, i) => i % 4 === 1),
    );
  }

  /** The strokes that go through a meeting already: their bends, and the tracks on both sides. */
  private strokesThrough(ports: readonly Port[]): (readonly Point[])[] {
    const through = new Set(ports.flatMap((p) => this.links.get(portKey(p)) ?? []));
    return [...through].flatMap(({ a, b, points }) => [
      [this.rayAt(a), ...points, this.rayAt(b)],
      this.trackOf(a),
      this.trackOf(b),
    ]);
  }

  /** Links free ends of a meeting, the straightest first, and adds what that makes to `strokes`; gives the ends still free. */
  private linkStraightest(ports: readonly Port[], strokes: (readonly Point[])[]): Port[] {
    let free = ports.filter((p) => !this.isLinked(p) && this.trackOf(p).length > 0);
    const pairs = free.flatMap((a, i) =>
      free.slice(i + 1).map((b) => {
        const { cost } = bendBetween(this.rayAt(a), this.rayAt(b));
        return { a, b, cost: this.edges.has(pairKey(a, b)) ? Math.max(0, cost - EDGE) : cost };
      }),
    );
    pairs.sort((p, q) => p.cost - q.cost);
    for (const { a, b, cost } of pairs) {
      if (this.isLinked(a) || this.isLinked(b)) continue;
      // Ends that turn sharply are one stroke only where there is nothing else that they could belong to.
      const most = strokes.length === 0 ? FACES : GOES_ON;
      if (cost > most || !this.staysInside(a, b)) continue;
      const isSharp = cost > CORNER || (cost > STRAIGHT_CORNER && [a, b].every((p) => this.isStraight(p)));
      strokes.push(this.link(a, b, isSharp), this.trackOf(a), this.trackOf(b));
      free = free.filter((p) => p !== a && p !== b);
    }
    return free;
  }

  /** The way from an end onto the nearest of other strokes, as it bends or straight on; null where none is near. */
  private wayOnto(ray: Ray, others: readonly (readonly Point[])[], reach: number): readonly Point[] | null {
    if (others.length === 0) return null;
    const into = (way: readonly Point[]) => {
      const hit = firstHit(way, others);
      return hit && isInside(this.room, hit) ? hit : null;
    };
    const hit = into(onwards(ray, reach)) ?? into(onwards({ ...ray, bend: 0 }, reach));
    const way = hit ?? [nearestOn(ray, others)].filter((q) => q !== null);
    const end = way[way.length - 1];
    return end && distance(end, ray) < reach ? way : null;
  }
}

/** The strokes that tracks make, and the bends at their meetings. `samples` are those of the outlines the tracks lie in. */
export function strokesOf(
  { tracks, meetings, through, alongEdge }: Tracks,
  samples: Samples,
): { strokes: Stroke[]; joints: StrokeJoint[] } {
  const joining = new Joining(tracks, alongEdge, samples);
  joining.linkThrough(through);
  joining.linkAcross(meetings.flatMap((ports) => joining.meet(ports)));
  return { strokes: chained(tracks, joining.links, joining.met), joints: joining.joints };
}
