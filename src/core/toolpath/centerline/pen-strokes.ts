/** The lines a pen left, put together where no edge shows how they go on. */
import type { Samples } from '../../geometry/medial';
import type { Point } from '../../geometry/point';
import { chained, keyOf, type Link, type Stroke } from './chain';
import type { Edges } from './edges';
import type { Joint } from './joints';
import { distanceTo, nearOutline, type PenPoint, penLines } from './pen-lines';
import { cornerOf, type Ray, rayOf } from './rays';
import { lengthOf, type Port, type TrackPoint } from './track';
import { bendBetween, between, firstHit, onwards } from './ways';

/** Hidden ends are joined over no more than this many radii. */
const MOST_GAP = 9;
/** They bend by less than this, in radians, and each radius of a gap counts like this much more. */
const GOES_ON = (42 * Math.PI) / 180;
const PER_RADIUS = (1.5 * Math.PI) / 180;
const UNSURE = (30 * Math.PI) / 180;
/** Ends nearer to each other than this many radii are one, whatever the bend up to this. */
const TOGETHER = 0.5;
const TURNS = (150 * Math.PI) / 180;
const SHARP = (30 * Math.PI) / 180;
/** The pen fits on the way between them when no outline is nearer than this many radii. */
const FITS = 0.85;
/** A stroke that is cut off no farther ahead than this many radii ends there. */
const CUT_OFF = 1.4;

/** The end of a line runs into the line itself no nearer than this many radii behind. */
const BEHIND = 1.5;

/** A line runs into a point that was seen when it bends by less than this, in radians. */
const POINT_BEND = (14 * Math.PI) / 180;
/** A line that ends this near to where a stroke is cut off, in radii, ends there, when it turns less than this, in radians. */
const CUT_NEAR = 0.15;
const CUT_TURN = (60 * Math.PI) / 180;
/** Where an edge turns further than this about a point, the line ends there. */
const MOST_CORNER = (120 * Math.PI) / 180;
/** A point that no line runs into is the end of a short stroke when the edge turns this far, and the stroke is this long. */
const LEAST_TIP = (75 * Math.PI) / 180;
const SHORT = 0.3;
const CUT_ON = 0.5;
/** Two ends that are left over meet in a corner no more than this many radii ahead of both. */
const CORNER_AHEAD = 1.8;
const CORNER_ROOM = 0.4;

type Hidden = { readonly port: Port; readonly ray: Ray; readonly ahead: number };

/** The strokes of a pen of half-width `r`, and where they meet; none that stick out by less than `detail` of it. */
export function penStrokes(edges: Edges, r: number, detail: number): { strokes: Stroke[]; joints: Joint[] } {
  const near = nearOutline(edges.samples, 3 * r);
  const { lines, points } = penLines(edges, r, near);
  const fits = (way: readonly Point[]) => way.every((p) => near(p.x, p.y) > FITS * r);
  const tracks: (readonly TrackPoint[])[] = lines.map((l) => l.points);
  const links = new Map<number, Link>();
  const met = new Map<number, readonly Point[]>();
  const joints: Joint[] = [];
  const hidden: Hidden[] = [];
  lines.forEach(({ points, closed, ends }, track) => {
    if (closed) {
      const [a, b]: Port[] = [
        { track, end: 0 },
        { track, end: 1 },
      ];
      put(links, a as Port, b as Port, [], false);
      return;
    }
    for (const end of [0, 1] as const) {
      const port = { track, end };
      if (ends[end] === 'on') met.set(keyOf(port), []);
      if (ends[end] !== 'hidden') continue;
      const ray = rayOf(points, end);
      hidden.push({ port, ray, ahead: ahead(near, ray) });
    }
  });
  const isLeft = ({ port }: Hidden) => !links.has(keyOf(port)) && !met.has(keyOf(port));
  const options = hidden.flatMap((a, i) =>
    hidden.slice(i + 1).flatMap((b) => {
      const gap = Math.hypot(a.ray.x - b.ray.x, a.ray.y - b.ray.y);
      if (gap > MOST_GAP * r) return [];
      const { cost, turn } = bendBetween(a.ray, b.ray);
      if (gap < TOGETHER * r) {
        if (Math.abs(turn) > TURNS) return [];
        return [{ a, b, cost: Math.abs(turn) / 4, way: [] as Point[], corner: Math.abs(turn) > SHARP, unsure: false }];
      }
      if (cost > GOES_ON || a.ahead < CUT_OFF * r || b.ahead < CUT_OFF * r) return [];
      const way = between(a.ray, b.ray);
      if (!fits(way)) return [];
      return [{ a, b, cost: cost + (PER_RADIUS * gap) / r, way, corner: false, unsure: cost > UNSURE }];
    }),
  );
  // A point can be come to once, and left again where it is a corner.
  for (const point of points) {
    const track = tracks.length;
    const isCorner = point.turn < MOST_CORNER;
    const p: TrackPoint = { x: point.x, y: point.y, r, open: Math.PI, corner: isCorner };
    tracks.push([p, p]);
    for (const a of hidden) {
      const made = toPoint(a.ray, point, r, near);
      if (!made) continue;
      for (const end of isCorner ? ([0, 1] as const) : ([0] as const)) {
        const b: Hidden = { port: { track, end }, ray: made.there, ahead: 3 * r };
        options.push({ a, b, cost: made.cost, way: made.way, corner: made.corner, unsure: false });
      }
    }
  }
  options.sort((p, q) => p.cost - q.cost);
  for (const { a, b, way, corner, unsure } of options) {
    if (!isLeft(a) || !isLeft(b)) continue;
    // Both ends of a point are not for the same line.
    const crossing = corner ? cornerOf(a.ray, b.ray) : null;
    put(links, a.port, b.port, crossing ? [crossing] : way, crossing !== null);
    joints.push({ x: (a.ray.x + b.ray.x) / 2, y: (a.ray.y + b.ray.y) / 2, r, unsure });
  }
  const bodies: (readonly Point[])[] = [...tracks];
  for (const l of new Set(links.values())) {
    const [a, b] = [l.a, l.b].map((p) => endOf(tracks, p));
    bodies.push([a as Point, ...l.points, b as Point]);
  }
  for (const one of hidden) {
    if (!isLeft(one) || one.ahead < CUT_OFF * r) continue;
    const own = tracks[one.port.track] as readonly TrackPoint[];
    // Its own line too, but not where it comes from.
    const behind = own.filter((p) => Math.hypot(p.x - one.ray.x, p.y - one.ray.y) > BEHIND * r);
    const others = [...bodies.filter((b) => b !== own), behind];
    for (const ray of [one.ray, { ...one.ray, bend: 0 }]) {
      const hit = firstHit(onwards(ray), others);
      if (!hit || !fits(hit)) continue;
      met.set(keyOf(one.port), hit);
      const end = hit[hit.length - 1] as Point;
      joints.push({ x: end.x, y: end.y, r, unsure: false });
      break;
    }
  }
  for (const [k, p] of points.entries()) {
    const port: Port = { track: lines.length + k, end: 0 };
    if (links.has(keyOf(port))) continue;
    const ray: Ray = { ...p, bend: 0, r };
    // One that lies on a line, or close beside it, is no stroke of its own.
    const isOwn = lines.every((l) => distanceTo(p, l.points) > (p.cut ? CUT_ON : 0) * r);
    const hit = p.turn > LEAST_TIP && isOwn ? firstHit(onwards(ray), bodies.slice(0, lines.length)) : null;
    const end = hit?.[hit.length - 1];
    if (hit && end && fits(hit) && Math.hypot(end.x - p.x, end.y - p.y) > SHORT * r) met.set(keyOf(port), hit);
    else tracks[port.track] = [];
  }
  for (const [i, a] of hidden.entries())
    for (const b of hidden.slice(i + 1)) {
      if (!isLeft(a) || !isLeft(b)) continue;
      const corner = cornerOf(a.ray, b.ray);
      if (!corner) continue;
      // Half way to the corner there is still room for most of the pen, wherever the corner itself lies.
      const isWithin = [a, b].every(({ ray }) => {
        const d = Math.hypot(corner.x - ray.x, corner.y - ray.y);
        return d < CORNER_AHEAD * r && near((corner.x + ray.x) / 2, (corner.y + ray.y) / 2) > CORNER_ROOM * r;
      });
      if (isWithin) put(links, a.port, b.port, [corner], true);
    }
  const isStub = ({ points, ends }: Stroke) => ends.includes('free') && ends.includes('met') && lengthOf(points) < detail * r;
  return { strokes: chained(tracks, links, met).filter((s) => !isStub(s)), joints };
}

/** How the end of a line runs on into a point that was seen; null where it does not. */
function toPoint(
  ray: Ray,
  { x, y, dx, dy, cut }: PenPoint,
  r: number,
  near: (x: number, y: number) => number,
): { there: Ray; cost: number; way: Point[]; corner: boolean } | null {
  const [gx, gy] = [x - ray.x, y - ray.y];
  const gap = Math.hypot(gx, gy);
  if (gap > MOST_GAP * r || (gap === 0 && !cut)) return null;
  const bend = Math.atan2(ray.dx * gy - ray.dy * gx, ray.dx * gx + ray.dy * gy);
  const [ux, uy, cos, sin] = [gx / gap, gy / gap, Math.cos(bend), Math.sin(bend)];
  const there: Ray = cut
    ? { x, y, dx, dy, bend: 0, r }
    : { x, y, dx: -(ux * cos - uy * sin), dy: -(uy * cos + ux * sin), bend: -ray.bend, r };
  const { cost, turn } = bendBetween(ray, there);
  const way = between(ray, there);
  const fits = way.every((p) => near(p.x, p.y) > FITS * r || Math.hypot(p.x - x, p.y - y) < r);
  if (!fits) return null;
  const costs = cost + (PER_RADIUS * gap) / r;
  if (!cut) return Math.abs(bend) < GOES_ON && cost < POINT_BEND ? { there, cost: costs, way, corner: false } : null;
  // The end of the line itself: close by, and no sharp turn away.
  if (gap < CUT_NEAR * r) return Math.abs(turn) < CUT_TURN ? { there, cost: Math.abs(turn) / 4, way: [], corner: false } : null;
  const limit = gap < CUT_OFF * r ? CUT_TURN : GOES_ON;
  return cost < limit ? { there, cost: costs, way, corner: Math.abs(turn) > SHARP } : null;
}

const endOf = (tracks: readonly (readonly TrackPoint[])[], { track, end }: Port): TrackPoint => {
  const points = tracks[track] as readonly TrackPoint[];
  return points[end === 0 ? 0 : points.length - 1] as TrackPoint;
};

function put(links: Map<number, Link>, a: Port, b: Port, points: readonly Point[], corner: boolean): void {
  const made: Link = { a, b, points, corner };
  links.set(keyOf(a), made);
  links.set(keyOf(b), made);
}

/** How far it is from an end straight on to the outline, told in steps. */
function ahead(near: (x: number, y: number) => number, { x, y, dx, dy, r }: Ray): number {
  for (let d = 0; d < 3 * r; ) {
    const room = near(x + d * dx, y + d * dy);
    if (room < 0.02 * r) return d;
    d += room;
  }
  return 3 * r;
}

/** What share of the outline lies half a pen from the strokes, as a pen that drew them would leave it. */
export function explained(samples: Samples, strokes: readonly Stroke[], r: number): number {
  const tips = strokes.flatMap(({ points, closed, ends }) =>
    closed ? [] : [0, 1].flatMap((e) => (ends[e] === 'free' ? [points[e === 0 ? 0 : points.length - 1] as Point] : [])),
  );
  let good = 0;
  const n = samples.x.length;
  for (let i = 0; i < n; i++) {
    const p = { x: samples.x[i] as number, y: samples.y[i] as number };
    const least = Math.min(
      ...strokes.map(({ points, closed }) => distanceTo(p, closed ? [...points, points[0] as Point] : points)),
    );
    const near = Math.abs(least - r) < 0.1 * r;
    if (near || (least > r && tips.some((t) => Math.hypot(t.x - p.x, t.y - p.y) < 1.5 * r))) good++;
  }
  return good / n;
}
