/**
 * The few strokes that missed places need. Where the middle of the tip may stand is known: the letter shrunk by half the tip. A
 * missed point in it is gone over itself; any other is covered from the nearest point of that room's edge. So every place
 * that can be reached is.
 */
import Flatbush from 'flatbush';
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { StrokeBuilder, type Strokes } from '../../geometry/strokes';
import type { MissedPlace } from './cover';
import { type PointTest, type Polygons, pointInPolygons } from './polygons';
import { spread } from './spread';

/** Points on the edge, and in missed places, stand this share of half the tip apart. */
const FINE = 0.25;
/** Stretches of the edge this many points apart are one stroke. */
const BRIDGED = 4;
/** A stroke goes beyond what is missed by this many points, so that its ends are covered too. */
const BEYOND = 1;
/** A point this share of half the tip from a stroke is covered by it. */
const SURE = 0.96;
/** The rim of what the tip covers from the edge of its room, a little beyond for points between those of the edge. */
const RIM = 1.01;
/** Points of one stretch at most: long missed rows are sampled more coarsely. */
const MOST_ACROSS = 400;

/** Places that are looked at in one go. */
const PLACES_A_TURN = 200;

type Spot = readonly [x: number, y: number];

type Edge = {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** 1 for a corner of the edge, 0 for a point between two. */
  readonly corner: Uint8Array;
  /** First point of each ring, and the number of points at the end. */
  readonly start: readonly number[];
  readonly index: Flatbush | null;
};

/**
 * Strokes over missed places; `room` is where the middle of a tip of half width `radius` may stand, in the same frame. Yields the
 * share done.
 */
export function* strokesOverMissed(
  places: readonly MissedPlace[],
  room: Polygons,
  radius: number,
): Generator<number, Strokes> {
  const edge = edgeOf(room, FINE * radius);
  const isInside = pointInPolygons(room);
  const out = new StrokeBuilder();
  const marked = new Uint8Array(edge.x.length);
  const near = ([x, y]: Spot, within: number, filter?: (i: number) => boolean) =>
    edge.index?.neighbors(x, y, 1, within, filter)[0];
  const spines: { readonly spine: readonly Spot[]; readonly spots: readonly Spot[] }[] = [];
  let done = 0;
  for (const place of places) {
    if (++done % PLACES_A_TURN === 0) yield done / places.length;
    const spots = [...spotsOf(place, radius)];
    const inside = spots.filter((spot) => isInside(...spot));
    const spine = spineOf(inside, radius, isInside);
    for (const spot of inside.length < spots.length ? spots : []) {
      if (spine.some(([x, y]) => Math.hypot(x - spot[0], y - spot[1]) < SURE * radius)) continue;
      const at = near(spot, Infinity);
      if (at !== undefined) marked[at] = 1;
    }
    if (spine.length > 0) spines.push({ spine, spots });
  }
  // A way through the middle is not needed where strokes along the edge cover all of the place.
  done = 0;
  for (const { spine, spots } of spines) {
    if (++done % PLACES_A_TURN === 0) yield 1;
    if (spots.some((spot) => near(spot, RIM * radius, (i) => marked[i] === 1) === undefined))
      drawSpine(spine, radius, isInside, out);
  }
  alongEdge(edge, marked, out);
  return out.done();
}

/** Points all over a missed place. */
function* spotsOf({ rows }: MissedPlace, radius: number): Generator<Spot> {
  // Rows are closer than need be: those so far from one that was looked at are enough, the last one among them. A row may be in several
  // stretches, and places that grew together have theirs one after the other.
  const n = rows.length / 3;
  let looked = Number.NEGATIVE_INFINITY;
  for (let r = 0; r < n; r++) {
    const [y, lo, hi] = [numberAt(rows, 3 * r), numberAt(rows, 3 * r + 1), numberAt(rows, 3 * r + 2)];
    if (y !== looked && Math.abs(y - looked) < FINE * radius && r !== n - 1) continue;
    looked = y;
    const parts = Math.min(MOST_ACROSS, Math.max(1, Math.ceil((hi - lo) / (FINE * radius))));
    for (let i = 0; i <= parts; i++) yield [lo + ((hi - lo) * i) / parts, y];
  }
}

/** Points along the edge of the room, at most `apart` mm from each other. */
function edgeOf({ x, y, next }: Polygons, apart: number): Edge {
  const [xs, ys, corner, start]: [number[], number[], number[], number[]] = [[], [], [], []];
  const seen = new Uint8Array(x.length);
  for (let first = 0; first < x.length; first++) {
    if (seen[first]) continue;
    start.push(xs.length);
    for (let i = first; !seen[i]; i = intAt(next, i)) {
      seen[i] = 1;
      const j = intAt(next, i);
      const [dx, dy] = [floatAt(x, j) - floatAt(x, i), floatAt(y, j) - floatAt(y, i)];
      const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / apart));
      for (let k = 0; k < parts; k++) {
        xs.push(floatAt(x, i) + (dx * k) / parts);
        ys.push(floatAt(y, i) + (dy * k) / parts);
        corner.push(k === 0 ? 1 : 0);
      }
    }
  }
  start.push(xs.length);
  const points = { x: Float64Array.from(xs), y: Float64Array.from(ys), corner: Uint8Array.from(corner), start };
  if (xs.length === 0) return { ...points, index: null };
  const index = new Flatbush(xs.length);
  for (let i = 0; i < xs.length; i++) index.add(numberAt(xs, i), numberAt(ys, i));
  index.finish();
  return { ...points, index };
}

/** The points of one ring of an edge, by numbers that go on round beyond its ends. */
class Ring {
  constructor(
    private readonly edge: Edge,
    private readonly marked: Uint8Array,
    private readonly first: number,
    readonly count: number,
  ) {}

  isMarked(i: number): boolean {
    return this.marked[this.at(i)] === 1;
  }

  /** Where a run of marked points begins, nothing being marked for a while before it; -1 where there is no such place. */
  beginning(): number {
    for (let i = 0; i < this.count; i++) if (this.isMarked(i) && this.isQuietBefore(i)) return i;
    return -1;
  }

  isAnyMarked(): boolean {
    for (let i = 0; i < this.count; i++) if (this.isMarked(i)) return true;
    return false;
  }

  /** The last marked point of the run that one belongs to, before `end`; shorter breaks in it are passed over. */
  lastOfRun(i: number, end: number): number {
    let last = i;
    for (let j = i + 1; j < end && j <= last + BRIDGED; j++) if (this.isMarked(j)) last = j;
    return last;
  }

  /** A stroke along the points from one to another: its ends, and the corners between. */
  draw(from: number, to: number, out: StrokeBuilder): void {
    const { x, y, corner } = this.edge;
    for (let i = from; i <= to; i++) {
      const at = this.at(i);
      if (i === from || i === to || corner[at]) out.add(floatAt(x, at), floatAt(y, at));
    }
    out.lift();
  }

  private isQuietBefore(i: number): boolean {
    for (let b = 1; b <= BRIDGED && b < this.count; b++) if (this.isMarked(i - b)) return false;
    return true;
  }

  private at(i: number): number {
    return this.first + (((i % this.count) + this.count) % this.count);
  }
}

/** Marked stretches of the edge as strokes, a little longer at both ends; a ring that is marked all round is closed. */
function alongEdge(edge: Edge, marked: Uint8Array, out: StrokeBuilder): void {
  for (let k = 0; k + 1 < edge.start.length; k++) {
    const first = numberAt(edge.start, k);
    const ring = new Ring(edge, marked, first, numberAt(edge.start, k + 1) - first);
    const begin = ring.beginning();
    if (begin < 0) {
      if (ring.isAnyMarked()) ring.draw(0, ring.count, out);
      continue;
    }
    for (let i = begin; i < begin + ring.count; i++) {
      if (!ring.isMarked(i)) continue;
      const last = ring.lastOfRun(i, begin + ring.count);
      ring.draw(i - BEYOND, last + BEYOND, out);
      i = last;
    }
  }
}

/** A way through the middle of points, in the direction they are spread in. */
function spineOf(points: readonly Spot[], radius: number, isInside: PointTest): Spot[] {
  if (points.length === 0) return [];
  const { axis, along } = spread(points.map(([x, y]) => ({ x, y })));
  const bins = new Map<number, Spot[]>();
  for (const [x, y] of points) {
    const bin = Math.round(along({ x, y }) / (2 * FINE * radius));
    const list = bins.get(bin);
    if (list) list.push([x, y]);
    else bins.set(bin, [[x, y]]);
  }
  const spine = [...bins.keys()]
    .sort((a, b) => a - b)
    .map((bin): Spot => {
      const list = bins.get(bin) as Spot[];
      const [cx, cy] = [0, 1].map((k) => list.reduce((s, p) => s + (p[k] as number), 0) / list.length) as [
        number,
        number,
      ];
      if (isInside(cx, cy)) return [cx, cy];
      const away = (p: Spot) => Math.hypot(p[0] - cx, p[1] - cy);
      return list.reduce((best, p) => (away(p) < away(best) ? p : best));
    });
  // A tip that is set down for a point makes a short stroke.
  const [only] = spine;
  if (spine.length === 1 && only) spine.push([only[0] + DAB * radius * axis.x, only[1] + DAB * radius * axis.y]);
  return spine;
}

/** Length of a stroke that is a point, in halves of the tip. */
const DAB = 0.02;

/** The way as strokes, lifted where it would leave the room. */
function drawSpine(spine: readonly Spot[], radius: number, isInside: PointTest, out: StrokeBuilder): void {
  spine.forEach(([x, y], i) => {
    const before = spine[i - 1];
    if (before) {
      const isNear = Math.hypot(x - before[0], y - before[1]) < 2 * radius;
      if (!isNear || !isInside((x + before[0]) / 2, (y + before[1]) / 2)) out.lift();
    }
    out.add(x, y);
  });
  out.lift();
}
