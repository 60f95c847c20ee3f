/** The lines a pen left, put together to strokes where no edge shows how they go on. */
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';
import { chained, portKey, type Stroke, type TrackLink } from './chain';
import { type DepthInside, depthInside } from './depth-inside';
import type { SampledEdges } from './edges';
import type { StrokeJoint } from './joints';
import type { PenPoint } from './pen-edges';
import type { PenLine } from './pen-line';
import { penLines } from './pen-lines';
import { ahead, CUT_OFF, fitsOn, GOES_ON, MOST_GAP, PER_RADIUS, SHARP, toNearest, toPoint } from './pen-ways';
import { cornerOf, type Ray, rayOf } from './rays';
import { distanceTo, type Port, polylineLength, type TrackPoint } from './track';
import { bendBetween, crossingOf, curveBetween, firstHit, onwards } from './ways';

/** It is not sure that ends which bend by more than this belong together, in radians. */
const UNSURE = (30 * Math.PI) / 180;
/** Ends nearer to each other than this many radii are one, whatever the bend up to this. */
const TOGETHER = 0.5;
const TURNS = (150 * Math.PI) / 180;
/** Lines cross another when they run into each other within this, in radians. */
const ACROSS = (12 * Math.PI) / 180;
/** Where an edge turns further than this about a point, the line ends there. */
const MOST_CORNER = (120 * Math.PI) / 180;
/** A point that no line runs into is the end of a short stroke when the edge turns this far, and the stroke is this long. */
const LEAST_TIP = (75 * Math.PI) / 180;
const SHORT = 0.3;
/** An end that is cut off no farther than this many radii beside a line is that line's own. */
const CUT_ON = 0.5;
/** Two ends that are left over meet in a corner no more than this many radii ahead of both, with this room half way. */
const CORNER_AHEAD = 1.8;
const CORNER_ROOM = 0.4;
/** What is cut off meets in a corner where it ends, or no more than this many radii before. */
const CORNER_BEFORE = 0.25;
/** The end of a line runs into the line itself no nearer than this many radii behind. */
const BEHIND = 1.5;

/** An end where no edge is seen any more, and how far it is from there straight on to the outline. */
type Hidden = {
  readonly port: Port;
  readonly ray: Ray;
  readonly ahead: number;
  /** Its edge turns there. */
  readonly turning: boolean;
};

const pointAt = ({ ray: { x, y } }: Hidden): PenPoint => ({ x, y, dx: 0, dy: 0, turn: 0, cut: false });

/** Two ends that may be one stroke, and the way between them. */
type Option = {
  readonly a: Hidden;
  readonly b: Hidden;
  readonly cost: number;
  readonly way: readonly Point[];
  readonly corner: boolean;
  readonly unsure: boolean;
};

class Joining {
  private readonly tracks: (readonly TrackPoint[])[];
  private readonly links = new Map<number, TrackLink>();
  private readonly met = new Map<number, readonly Point[]>();
  private readonly hidden: readonly Hidden[];
  readonly joints: StrokeJoint[] = [];

  constructor(
    private readonly lines: readonly PenLine[],
    private readonly points: readonly PenPoint[],
    private readonly r: number,
    private readonly room: DepthInside,
  ) {
    this.tracks = lines.map((l) => l.points);
    this.hidden = lines.flatMap(({ points, closed, ends }, track) => {
      if (closed) {
        this.link({ track, end: 0 }, { track, end: 1 }, [], false);
        return [];
      }
      return ([0, 1] as const).flatMap((end): Hidden[] => {
        const port = { track, end };
        if (ends[end] === 'on') this.met.set(portKey(port), []);
        if (ends[end] !== 'hidden') return [];
        const ray = rayOf(points, end);
        const turning = points[end === 0 ? 0 : points.length - 1]?.corner ?? false;
        return [{ port, ray, ahead: ahead(room, ray), turning }];
      });
    });
  }

  strokes(): Stroke[] {
    this.runAcross();
    this.joinEnds();
    this.turnCorners(true);
    const bodies = this.bodies();
    const open = () => this.hidden.filter((one) => this.isLeft(one.port) && one.ahead >= CUT_OFF * this.r);
    for (const one of open()) this.meet(one, this.wayInto(one, bodies), false);
    this.pointsAlone(bodies);
    this.turnCorners(false);
    for (const one of open()) this.meet(one, toNearest(one.ray, this.others(one, bodies), this.room), true);
    return chained(this.tracks, this.links, this.met);
  }

  private isLeft(port: Port): boolean {
    return !this.links.has(portKey(port)) && !this.met.has(portKey(port));
  }

  private link(a: Port, b: Port, points: readonly Point[], corner: boolean): void {
    const made: TrackLink = { a, b, points, corner };
    this.links.set(portKey(a), made);
    this.links.set(portKey(b), made);
  }

  /** Two lines that end on another from either side, in line with each other, are one that crosses it. */
  private runAcross(): void {
    const ends = this.lines.flatMap(({ points, ends }, track) =>
      ([0, 1] as const).flatMap((end) =>
        ends[end] === 'on' ? [{ port: { track, end }, ray: rayOf(points, end) }] : [],
      ),
    );
    const pairs = ends
      .flatMap((a, i) => ends.slice(i + 1).map((b) => ({ a, b, ...crossingOf(a.ray, b.ray) })))
      .filter(({ a, b, cost }) => a.port.track !== b.port.track && cost < ACROSS)
      .sort((p, q) => p.cost - q.cost);
    for (const { a, b } of pairs) {
      if (this.links.has(portKey(a.port)) || this.links.has(portKey(b.port))) continue;
      this.met.delete(portKey(a.port));
      this.met.delete(portKey(b.port));
      this.link(a.port, b.port, curveBetween(a.ray, b.ray), false);
    }
  }

  /** Hidden ends are joined to each other and to points that were seen, those that go on straightest first. */
  private joinEnds(): void {
    const options = [...this.pairs(), ...this.ontoPoints()].sort((p, q) => p.cost - q.cost);
    for (const { a, b, way, corner, unsure } of options) {
      if (!this.isLeft(a.port) || !this.isLeft(b.port)) continue;
      const crossing = corner ? cornerOf(a.ray, b.ray) : null;
      this.link(a.port, b.port, crossing ? [crossing] : way, crossing !== null);
      this.joints.push({ x: (a.ray.x + b.ray.x) / 2, y: (a.ray.y + b.ray.y) / 2, r: this.r, unsure });
    }
  }

  private pairs(): Option[] {
    const { r, room } = this;
    return this.hidden.flatMap((a, i) =>
      this.hidden.slice(i + 1).flatMap((b): Option[] => {
        const gap = Math.hypot(a.ray.x - b.ray.x, a.ray.y - b.ray.y);
        if (gap > MOST_GAP * r) return [];
        // Where an edge turns about an end, the way on from there is open.
        const around = b.turning ? toPoint(a.ray, pointAt(b), r, room) : null;
        const other = a.turning ? toPoint(b.ray, pointAt(a), r, room) : null;
        const best = around && (!other || around.cost < other.cost) ? around : other;
        if (best) {
          const way = best === around ? best.way : [...best.way].reverse();
          return [{ a, b, cost: best.cost, way, corner: false, unsure: false }];
        }
        const { cost, turn } = bendBetween(a.ray, b.ray);
        if (gap < TOGETHER * r) {
          const bend = Math.abs(turn);
          return bend > TURNS ? [] : [{ a, b, cost: bend / 4, way: [], corner: bend > SHARP, unsure: false }];
        }
        if (cost > GOES_ON || a.ahead < CUT_OFF * r || b.ahead < CUT_OFF * r) return [];
        const way = curveBetween(a.ray, b.ray);
        if (!fitsOn(way, room, r)) return [];
        return [{ a, b, cost: cost + (PER_RADIUS * gap) / r, way, corner: false, unsure: cost > UNSURE }];
      }),
    );
  }

  /** A point can be come to once, and left again where it is a corner. */
  private ontoPoints(): Option[] {
    const { r } = this;
    return this.points.flatMap((point) => {
      const track = this.tracks.length;
      const isCorner = point.turn < MOST_CORNER;
      const p: TrackPoint = { x: point.x, y: point.y, r, open: Math.PI, corner: isCorner };
      this.tracks.push([p, p]);
      return this.hidden.flatMap((a) => {
        const made = toPoint(a.ray, point, r, this.room);
        if (!made) return [];
        const ends = isCorner ? ([0, 1] as const) : ([0] as const);
        return ends.map((end): Option => {
          const b: Hidden = { port: { track, end }, ray: made.there, ahead: 3 * r, turning: true };
          return { a, b, cost: made.cost, way: made.way, corner: made.corner, unsure: false };
        });
      });
    });
  }

  /** All lines, and what joins them. */
  private bodies(): (readonly Point[])[] {
    const bodies: (readonly Point[])[] = this.lines.map((l) => l.points);
    for (const l of new Set(this.links.values())) bodies.push([this.endOf(l.a), ...l.points, this.endOf(l.b)]);
    // What is cut off goes on to there.
    for (const { port, ray, ahead } of this.hidden)
      if (this.isLeft(port) && ahead < CUT_OFF * this.r)
        bodies.push([ray, { x: ray.x + ahead * ray.dx, y: ray.y + ahead * ray.dy }]);
    return bodies;
  }

  private endOf({ track, end }: Port): TrackPoint {
    const points = this.tracks[track] as readonly TrackPoint[];
    return points[end === 0 ? 0 : points.length - 1] as TrackPoint;
  }

  /** What an end may run into: its own line too, but not where it comes from. */
  private others({ port, ray }: Hidden, bodies: readonly (readonly Point[])[]): (readonly Point[])[] {
    const own = this.tracks[port.track] as readonly TrackPoint[];
    const behind = own.filter((p) => Math.hypot(p.x - ray.x, p.y - ray.y) > BEHIND * this.r);
    return [...bodies.filter((b) => b !== own), behind];
  }

  /** The way from an end on into another line: as it bends, or straight. */
  private wayInto(one: Hidden, bodies: readonly (readonly Point[])[]): readonly Point[] | null {
    const others = this.others(one, bodies);
    for (const ray of [one.ray, { ...one.ray, bend: 0 }]) {
      const way = firstHit(onwards(ray), others);
      if (way && fitsOn(way, this.room, this.r)) return way;
    }
    return null;
  }

  private meet({ port }: Hidden, way: readonly Point[] | null, unsure: boolean): void {
    const end = way?.[way.length - 1];
    if (!way || !end) return;
    this.met.set(portKey(port), way);
    this.joints.push({ x: end.x, y: end.y, r: this.r, unsure });
  }

  /** Points that no line runs into are ends of short strokes, where they stick out of another. */
  private pointsAlone(bodies: readonly (readonly Point[])[]): void {
    this.points.forEach((p, k) => {
      const port: Port = { track: this.lines.length + k, end: 0 };
      if (this.links.has(portKey(port))) return;
      const isOwn = p.cut && this.lines.some((l) => distanceTo(p, l.points) < CUT_ON * this.r);
      const ray: Ray = { ...p, bend: 0, r: this.r };
      const way = p.turn > LEAST_TIP && !isOwn ? firstHit(onwards(ray), bodies.slice(0, this.lines.length)) : null;
      const end = way?.[way.length - 1];
      const isLong = end !== undefined && Math.hypot(end.x - p.x, end.y - p.y) > SHORT * this.r;
      if (way && isLong && fitsOn(way, this.room, this.r)) this.met.set(portKey(port), way);
      else this.tracks[port.track] = [];
    });
  }

  /** Two ends that are left over make a corner where they cross close ahead; at first only where one of them is cut off. */
  private turnCorners(cutOff: boolean): void {
    for (const [i, a] of this.hidden.entries())
      for (const b of this.hidden.slice(i + 1)) {
        if (!this.isLeft(a.port) || !this.isLeft(b.port)) continue;
        if (cutOff && a.ahead > CUT_OFF * this.r && b.ahead > CUT_OFF * this.r) continue;
        const corner = cornerOf(a.ray, b.ray);
        if (!corner) continue;
        // Half way to the corner there is still room for much of the pen, wherever the corner itself lies.
        const isWithin = [a, b].every(({ ray, ahead }) => {
          const [x, y] = [corner.x - ray.x, corner.y - ray.y];
          const isAtEnd = x * ray.dx + y * ray.dy > ahead - CORNER_BEFORE * this.r;
          return (
            Math.hypot(x, y) < CORNER_AHEAD * this.r &&
            (ahead > CUT_OFF * this.r || isAtEnd) &&
            this.room({ x: (corner.x + ray.x) / 2, y: (corner.y + ray.y) / 2 }) > CORNER_ROOM * this.r
          );
        });
        if (isWithin) this.link(a.port, b.port, [corner], true);
      }
  }
}

/** The strokes of a pen of half-width `r`, and where they meet; none that stick out by less than `detail` of it. */
export function penStrokes(
  edges: SampledEdges,
  r: number,
  detail: number,
): { strokes: Stroke[]; joints: StrokeJoint[] } {
  const room = depthInside(edges.samples);
  const { lines, points } = penLines(edges, r, room);
  const joining = new Joining(lines, points, r, room);
  const isStub = ({ points, ends }: Stroke) =>
    ends.includes('free') && ends.includes('met') && polylineLength(points) < detail * r;
  return { strokes: joining.strokes().filter((s) => !isStub(s)), joints: joining.joints };
}

/** An outline this close to half a pen from a stroke was left by it, in radii; the corners of its end lie farther off. */
const LEFT_BY = 0.1;
const END_CORNER = 1.5;

/** So many points of the outline are enough to tell. */
const LOOKED_AT = 800;

/** What share of the outline lies half a pen from the strokes, as a pen that drew them would leave it. */
export function explained(samples: Samples, strokes: readonly Stroke[], r: number): number {
  const lines = strokes.map(({ points, closed }) => (closed ? [...points, points[0] as Point] : points));
  const tips = strokes.flatMap(({ points, closed, ends }) =>
    closed ? [] : [0, 1].flatMap((e) => (ends[e] === 'free' ? [points[e === 0 ? 0 : points.length - 1] as Point] : [])),
  );
  let [good, all] = [0, 0];
  const n = samples.x.length;
  for (let i = 0; i < n; i += Math.max(1, Math.floor(n / LOOKED_AT))) {
    all++;
    const p = { x: samples.x[i] as number, y: samples.y[i] as number };
    const least = Math.min(...lines.map((points) => distanceTo(p, points)));
    const isEnd = () => least > r && tips.some((t) => Math.hypot(t.x - p.x, t.y - p.y) < END_CORNER * r);
    if (Math.abs(least - r) < LEFT_BY * r || isEnd()) good++;
  }
  return good / all;
}
