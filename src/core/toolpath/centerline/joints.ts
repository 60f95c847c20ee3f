/**
 * Tracks put together to strokes at their meetings: what goes on straight is one stroke across the meeting, two that are
 * left over make a corner, one that is left over ends on the stroke it meets.
 */
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';
import { CORNER, cornerOf, type Ray, REACH, rayOf } from './rays';
import { lengthOf, type Port, type TrackPoint, type Tracks } from './track';

export type StrokePoint = {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly open: number;
  /** The stroke bends sharply here. */
  readonly corner: boolean;
};

export type Stroke = {
  readonly points: readonly StrokePoint[];
  readonly closed: boolean;
  /** What its start and its end are: free, or on another stroke. */
  readonly ends: readonly ['free' | 'met', 'free' | 'met'];
};

/** Where strokes meet, and whether it is not sure how they go on there. */
export type Joint = { readonly x: number; readonly y: number; readonly r: number; readonly unsure: boolean };

/** Strokes that turn by more than this across a meeting do not go on there, in radians. */
const GOES_ON = (40 * Math.PI) / 180;
/** From this bend on it is not sure that two ends belong together, unless they meet in a corner. */
const UNSURE = (60 * Math.PI) / 180;
/** Ends that turn by more than this to reach each other do not face each other. */
const FACES = (130 * Math.PI) / 180;
/** Ends that cross a stroke run into each other within this, and are no farther apart than this many radii. */
const ACROSS = (25 * Math.PI) / 180;
const ACROSS_REACH = 5;
/** An edge that two ends share makes up for this much of a bend, in radians. */
const EDGE = (25 * Math.PI) / 180;
/** Over a gap of this many radii, ends that turn by less than this are one bend, not a corner. */
const BEND_GAP = 0.5;
const BEND = (75 * Math.PI) / 180;
/** A corner lies no farther than this many radii outside the outline; else it is put this far inside. */
const OUTSIDE = 0.1;
const ROOM = 0.4;

const angleBetween = (ax: number, ay: number, bx: number, by: number): number =>
  Math.atan2(ax * by - ay * bx, ax * bx + ay * by);

/** How much two ends bend towards each other, in radians: least where one runs into the other along a line or an arc. */
function bendBetween(a: Ray, b: Ray): { cost: number; turn: number } {
  const [gx, gy] = [b.x - a.x, b.y - a.y];
  const gap = Math.hypot(gx, gy);
  const turn = angleBetween(a.dx, a.dy, -b.dx, -b.dy);
  if (gap < 0.25 * Math.min(a.r, b.r)) return { cost: Math.abs(turn), turn };
  const alpha = angleBetween(a.dx, a.dy, gx, gy);
  const beta = angleBetween(gx, gy, -b.dx, -b.dy);
  // What each end would turn by itself, going on as it bends, is no bend.
  const own = ((a.bend - b.bend) / 2) * gap;
  const [p, q] = [alpha - own / 2, beta - own / 2];
  return { cost: Math.max(Math.abs(p), Math.abs(q)) + Math.abs(alpha - beta) / 4, turn };
}

/** How much two ends bend towards each other when they face each other over no more than a stroke; else not at all. */
function crossingOf(a: Ray, b: Ray): { cost: number } {
  const [gx, gy] = [b.x - a.x, b.y - a.y];
  const gap = Math.hypot(gx, gy);
  const faces = a.dx * gx + a.dy * gy > 0 && b.dx * gx + b.dy * gy < 0;
  return { cost: faces && gap < ACROSS_REACH * Math.max(a.r, b.r) ? bendBetween(a, b).cost : Infinity };
}

/** Points between two ends, on a cubic that leaves and arrives in their directions. */
function between(a: Ray, b: Ray): Point[] {
  const gap = Math.hypot(b.x - a.x, b.y - a.y);
  const turn = Math.abs(angleBetween(a.dx, a.dy, -b.dx, -b.dy));
  const handle = (gap * 2) / (3 * (1 + Math.cos(turn / 2)));
  const steps = Math.max(2, Math.ceil(gap / (0.2 * Math.min(a.r, b.r))));
  const out: Point[] = [];
  for (let i = 1; i < Math.min(steps, 60); i++) {
    const t = i / Math.min(steps, 60);
    const u = 1 - t;
    const [k0, k1, k2, k3] = [u ** 3, 3 * u * u * t, 3 * u * t * t, t ** 3];
    out.push({
      x: k0 * a.x + k1 * (a.x + handle * a.dx) + k2 * (b.x + handle * b.dx) + k3 * b.x,
      y: k0 * a.y + k1 * (a.y + handle * a.dy) + k2 * (b.y + handle * b.dy) + k3 * b.y,
    });
  }
  return out;
}

/** How far a point lies inside the nearest outline; negative outside. */
function roomAt(s: Samples, { x, y }: Point): number {
  let [least, nearest] = [Infinity, 0];
  for (let i = 0; i < s.x.length; i++) {
    const d = ((s.x[i] as number) - x) ** 2 + ((s.y[i] as number) - y) ** 2;
    if (d < least) [least, nearest] = [d, i];
  }
  const side =
    (x - (s.x[nearest] as number)) * (s.nx[nearest] as number) +
    (y - (s.y[nearest] as number)) * (s.ny[nearest] as number);
  return Math.sign(side) * Math.sqrt(least);
}

/** A corner where it is, or, where that would be outside, on the way to it. */
function withRoom(s: Samples, corner: Point, from: Point, r: number): Point {
  if (roomAt(s, corner) > -OUTSIDE * r) return corner;
  let [good, bad] = [0, 1];
  const at = (t: number): Point => ({ x: from.x + t * (corner.x - from.x), y: from.y + t * (corner.y - from.y) });
  for (let k = 0; k < 12; k++) {
    const t = (good + bad) / 2;
    if (roomAt(s, at(t)) > ROOM * r) good = t;
    else bad = t;
  }
  return at(good);
}

/** A way from an end onwards, along its own bend, in short steps. */
function onwards(ray: Ray): Point[] {
  const step = 0.1 * ray.r;
  let [x, y, dx, dy] = [ray.x, ray.y, ray.dx, ray.dy];
  const out: Point[] = [{ x, y }];
  let turned = 0;
  for (let k = 0; k * step < REACH * ray.r; k++) {
    // It goes on bending, but less and less: a bend that was seen says little about what comes far behind it.
    const turn = Math.abs(turned) > 1 ? 0 : ray.bend * step;
    turned += turn;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    [dx, dy] = [dx * cos - dy * sin, dx * sin + dy * cos];
    x += step * dx;
    y += step * dy;
    out.push({ x, y });
  }
  return out;
}

/** Where the way from an end first crosses any of some lines, with the points up to there. */
function firstHit(way: readonly Point[], lines: readonly (readonly Point[])[]): Point[] | null {
  for (let k = 1; k < way.length; k++) {
    const [p, q] = [way[k - 1] as Point, way[k] as Point];
    let best = Infinity;
    for (const points of lines)
      for (let i = 1; i < points.length; i++) {
        const [a, b] = [points[i - 1] as Point, points[i] as Point];
        const det = (q.x - p.x) * (b.y - a.y) - (q.y - p.y) * (b.x - a.x);
        if (det === 0) continue;
        const s = ((a.x - p.x) * (b.y - a.y) - (a.y - p.y) * (b.x - a.x)) / det;
        const t = ((a.x - p.x) * (q.y - p.y) - (a.y - p.y) * (q.x - p.x)) / det;
        if (s >= 0 && s <= 1 && t >= -1e-9 && t <= 1 + 1e-9 && s < best) best = s;
      }
    if (best <= 1) return [...way.slice(1, k), { x: p.x + best * (q.x - p.x), y: p.y + best * (q.y - p.y) }];
  }
  return null;
}

const nearestOn = (p: Point, lines: readonly (readonly Point[])[]): Point | null => {
  let best: Point | null = null;
  let least = Infinity;
  for (const points of lines)
    for (const q of points) {
      const d = Math.hypot(p.x - q.x, p.y - q.y);
      if (d < least) {
        least = d;
        best = q;
      }
    }
  return best;
};

type Link = { readonly a: Port; readonly b: Port; readonly points: readonly Point[]; readonly corner: boolean };

const keyOf = (p: Port): number => 2 * p.track + p.end;

/** The strokes that tracks make, and the bends at their meetings. */
export function strokesOf(
  { tracks, meetings, through, alongEdge }: Tracks,
  samples: Samples,
): { strokes: Stroke[]; joints: Joint[] } {
  const links = new Map<number, Link>();
  const met = new Map<number, readonly Point[]>();
  const joints: Joint[] = [];
  const leftOver: Port[] = [];
  const rays = new Map<number, Ray>();
  const rayAt = (p: Port): Ray => {
    let known = rays.get(keyOf(p));
    if (!known) {
      known = rayOf(tracks[p.track] as TrackPoint[], p.end);
      rays.set(keyOf(p), known);
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
      crossing && withRoom(samples, crossing, { x: (ra.x + rb.x) / 2, y: (ra.y + rb.y) / 2 }, Math.min(ra.r, rb.r));
    const points = corner ? [corner] : gap > 0.35 * Math.min(ra.r, rb.r) ? between(ra, rb) : [];
    const made: Link = { a, b, points, corner: corner !== null };
    links.set(keyOf(a), made);
    links.set(keyOf(b), made);
    joints.push({
      x: (ra.x + rb.x) / 2,
      y: (ra.y + rb.y) / 2,
      r: Math.max(ra.r, rb.r),
      unsure: corner === null && cost > UNSURE && gap > BEND_GAP * Math.min(ra.r, rb.r),
    });
    return [ra, ...points, rb];
  };
  for (const [a, b] of through) {
    if (links.has(keyOf(a)) || links.has(keyOf(b))) continue;
    const { turn, cost } = bendBetween(rayAt(a), rayAt(b));
    link(a, b, Math.abs(turn) > CORNER && cost > CORNER);
  }
  const pairKey = (a: Port, b: Port): string => [keyOf(a), keyOf(b)].sort((p, q) => p - q).join();
  const edges = new Set(alongEdge.map(([a, b]) => pairKey(a, b)));
  for (const ports of meetings) {
    const lines: (readonly Point[])[] = [];
    const seen = new Set<Link>();
    for (const p of ports) {
      const known = links.get(keyOf(p));
      if (!known || seen.has(known)) continue;
      seen.add(known);
      lines.push(
        [rayAt(known.a), ...known.points, rayAt(known.b)],
        tracks[known.a.track] as TrackPoint[],
        tracks[known.b.track] as TrackPoint[],
      );
    }
    let left = ports.filter((p) => !links.has(keyOf(p)) && (tracks[p.track] as TrackPoint[]).length > 0);
    const options = left.flatMap((a, i) =>
      left.slice(i + 1).map((b) => {
        const bend = bendBetween(rayAt(a), rayAt(b));
        return { a, b, cost: edges.has(pairKey(a, b)) ? Math.max(0, bend.cost - EDGE) : bend.cost };
      }),
    );
    options.sort((p, q) => p.cost - q.cost);
    for (const { a, b, cost } of options) {
      if (links.has(keyOf(a)) || links.has(keyOf(b))) continue;
      const alone = left.length === 2 || lines.length === 0;
      if (cost > FACES || (cost > GOES_ON && !alone)) continue;
      if (left.length === 2 && lines.length > 0 && cost > GOES_ON) continue;
      lines.push(link(a, b, cost > CORNER), tracks[a.track] as TrackPoint[], tracks[b.track] as TrackPoint[]);
      left = left.filter((p) => p !== a && p !== b);
    }
    for (const p of left) {
      const ray = rayAt(p);
      const bodies = ports
        .filter((q) => q.track !== p.track && left.includes(q))
        .map((q) => tracks[q.track] as TrackPoint[]);
      const others = [...lines.filter((l) => l !== tracks[p.track]), ...bodies];
      if (others.length === 0) continue;
      const way = onwards(ray);
      const hit = firstHit(way, others) ?? firstHit(onwards({ ...ray, bend: 0 }), others);
      const near = hit ?? [nearestOn(ray, others)].filter((q): q is Point => q !== null);
      const end = near[near.length - 1];
      if (end && Math.hypot(end.x - ray.x, end.y - ray.y) < REACH * ray.r) {
        met.set(keyOf(p), near);
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
    if (links.has(keyOf(a)) || links.has(keyOf(b))) continue;
    met.delete(keyOf(a));
    met.delete(keyOf(b));
    link(a, b, false);
  }
  return { strokes: chained(tracks, links, met), joints };
}

/** Tracks chained over their links. */
function chained(
  tracks: readonly (readonly TrackPoint[])[],
  links: ReadonlyMap<number, Link>,
  met: ReadonlyMap<number, readonly Point[]>,
): Stroke[] {
  const done = new Uint8Array(tracks.length);
  const strokes: Stroke[] = [];
  const otherEnd = (l: Link, p: Port): Port => (keyOf(l.a) === keyOf(p) ? l.b : l.a);
  const walk = (start: Port, isRing: boolean): void => {
    const points: StrokePoint[] = [];
    const put = (p: Point, r: number, open: number, corner: boolean) =>
      points.push({ x: p.x, y: p.y, r, open, corner });
    const first = met.get(keyOf(start));
    const r0 = tracks[start.track]?.[0]?.r ?? 0;
    if (first) for (const p of [...first].reverse()) put(p, r0, 0, false);
    let port = start;
    for (;;) {
      const track = tracks[port.track] as readonly TrackPoint[];
      done[port.track] = 1;
      const list = port.end === 0 ? track : [...track].reverse();
      for (const p of list) put(p, p.r, p.open, false);
      const exit: Port = { track: port.track, end: port.end === 0 ? 1 : 0 };
      const next = links.get(keyOf(exit));
      if (!next) {
        const last = met.get(keyOf(exit));
        const r = list[list.length - 1]?.r ?? 0;
        if (last) for (const p of last) put(p, r, 0, false);
        strokes.push({ points, closed: false, ends: [first ? 'met' : 'free', last ? 'met' : 'free'] });
        return;
      }
      const ahead = keyOf(next.a) === keyOf(exit) ? next.points : [...next.points].reverse();
      const r = list[list.length - 1]?.r ?? 0;
      for (const p of ahead) put(p, r, 0, next.corner);
      port = otherEnd(next, exit);
      if (isRing && keyOf(port) === keyOf(start)) {
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
  return strokes.filter((s) => lengthOf(s.points) > 0);
}
