/**
 * Curves made into lines and arcs within a tolerance, over the nodes between them where they join smoothly. From each
 * point the longest stretch is taken whose G1 biarc (two arcs that meet smoothly; Bolton 1975, equal handles) stays
 * within the tolerance of it.
 */
import { floatAt, numberAt } from './elements';
import { type Path, pathLength } from './path';
import { boxContains, growBox, type Point } from './point';
import {
  type Arc,
  arcBetween,
  arcRadius,
  halvedArcs,
  type Line,
  line,
  pointAt,
  type Segment,
  stepsWithin,
  subSegment,
  tangentAt,
} from './segment';
import { boxOf, extremes, nearestParameter, segmentLength } from './segment-measures';

/** Points per stretch at which the distance from curve to biarc is measured: first a few, then many to be sure. */
const CHECKS = [8, 61];
/** Where on each arc the distance back to the curve is measured. */
const BACK_CHECKS = [0.2, 0.5, 0.8];
/** Curves that meet closer to straight than this run on as one; in radians. */
const SMOOTH = (1.5 * Math.PI) / 180;
/** How far an arc may reach over the bounds of what it stands for, in mm. */
const OVERSHOOT_MM = 0.002;
/** The longest stretch that can be fitted is looked for by halving, so often at most, until it is known to this share. */
const HALVINGS = 12;
const NEAR_ENOUGH = 0.1;
/** Shares of what a path may be longer or shorter that are given to its first stretch; the one with the fewest pieces is taken. */
const AT_ONCE = [0.3, 0.45, 0.6];
/** What rounding adds to a tolerance, in mm; a path may be longer or shorter by both. */
const LENGTH_MM = 0.001;
/** Measured distances must stay under this share of the tolerance, for what lies between the checks. */
const MARGIN = 0.9;

/** The arc leaving `from` along the unit tangent `t` that ends at `to`. */
function arcAlong(from: Point, t: Point, to: Point): Arc | Line {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const along = t.x * dx + t.y * dy;
  const across = t.x * dy - t.y * dx;
  return arcBetween(from, to, 2 * Math.atan2(across, along));
}

function biarc(p: Point, tp: Point, q: Point, tq: Point): (Arc | Line)[] | null {
  const vx = q.x - p.x;
  const vy = q.y - p.y;
  const vv = vx * vx + vy * vy;
  if (vv < 1e-18) return null;
  const sx = tp.x + tq.x;
  const sy = tp.y + tq.y;
  const vs = vx * sx + vy * sy;
  const denominator = 2 * (1 - (tp.x * tq.x + tp.y * tq.y));
  let handle: number;
  if (denominator < 1e-12) {
    const vt = vx * tq.x + vy * tq.y;
    if (vt <= 0) return null;
    handle = vv / (4 * vt);
  } else handle = (-vs + Math.sqrt(vs * vs + denominator * vv)) / denominator;
  if (!(handle > 0) || !Number.isFinite(handle)) return null;
  const joint = {
    x: (p.x + handle * tp.x + q.x - handle * tq.x) / 2,
    y: (p.y + handle * tp.y + q.y - handle * tq.y) / 2,
  };
  const first = arcAlong(p, tp, joint);
  const back = arcAlong(q, { x: -tq.x, y: -tq.y }, joint);
  const second = back.kind === 'arc' ? arcBetween(joint, q, -back.sweep) : line(joint.x, joint.y, q.x, q.y);
  return [first, second];
}

/** Distance from a point to an arc or a line, in mm. Written out: most of the time goes here. */
function distanceTo(s: Arc | Line, x: number, y: number): number {
  if (s.kind === 'line') {
    const [dx, dy] = [s.x1 - s.x0, s.y1 - s.y0];
    const [px, py] = [x - s.x0, y - s.y0];
    const square = dx * dx + dy * dy;
    const u = square === 0 ? 0 : Math.min(1, Math.max(0, (px * dx + py * dy) / square));
    return length(px - u * dx, py - u * dy);
  }
  const [px, py] = [x - s.cx, y - s.cy];
  const [ax, ay] = [s.x0 - s.cx, s.y0 - s.cy];
  const way = Math.sign(s.sweep);
  const afterStart = way * (ax * py - ay * px) >= 0;
  const beforeEnd = way * (px * (s.y1 - s.cy) - py * (s.x1 - s.cx)) >= 0;
  const isBeside = Math.abs(s.sweep) > Math.PI ? afterStart || beforeEnd : afterStart && beforeEnd;
  if (isBeside) return Math.abs(length(px, py) - length(ax, ay));
  return Math.min(length(x - s.x0, y - s.y0), length(x - s.x1, y - s.y1));
}

const length = (x: number, y: number): number => Math.sqrt(x * x + y * y);

/** Whether points, as x, y pairs, lie within a distance of a shape. */
function arePointsNear(points: Float64Array, shape: readonly (Arc | Line)[], within: number): boolean {
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [floatAt(points, i), floatAt(points, i + 1)];
    let isNear = false;
    for (const piece of shape) if (distanceTo(piece, x, y) <= within) isNear = true;
    if (!isNear) return false;
  }
  return true;
}

/** Points of a chain between two places, at equal steps, without its ends; x, y pairs. */
function pointsBetween(chain: readonly Segment[], from: number, to: number, steps: number): Float64Array {
  const out = new Float64Array(2 * (steps - 1));
  for (let i = 1; i < steps; i++) {
    const { x, y } = chainPoint(chain, from + ((to - from) * i) / steps);
    out[2 * i - 2] = x;
    out[2 * i - 1] = y;
  }
  return out;
}

/** The point at `u`: segment ⌊u⌋ of the chain at the rest; the end of a segment belongs to the next, but for the last. */
function chainAt(chain: readonly Segment[], u: number): readonly [segment: Segment, t: number] {
  const i = Math.min(Math.floor(u), chain.length - 1);
  return [chain[i] as Segment, u - i];
}

function chainPoint(chain: readonly Segment[], u: number): Point {
  const [s, t] = chainAt(chain, u);
  return pointAt(s, t);
}

/** Distance from a point to the chain between two places. */
function distanceToChain(chain: readonly Segment[], p: Point, from: number, to: number): number {
  let least = Infinity;
  for (let i = Math.floor(from); i < Math.min(chain.length, Math.ceil(to)); i++) {
    const s = chain[i] as Segment;
    const foot = pointAt(s, nearestParameter(s, p.x, p.y, Math.max(0, from - i), Math.min(1, to - i)));
    least = Math.min(least, Math.hypot(foot.x - p.x, foot.y - p.y));
  }
  return least;
}

/** How closely lines and arcs follow a path: how far they stray, and how much longer they are so far. Lengths in mm. */
class Closeness {
  private done = 0;
  /** What is made so far is longer than the path by this; shorter below 0. */
  private longer = 0;

  /**
   * `whole` is the length of the path, null where it is not looked at. `atOnce` is how much of what it may be longer or shorter is
   * given to the first stretch; more and more as it goes on.
   */
  constructor(
    readonly tolerance: number,
    private readonly whole: number | null,
    private readonly atOnce = 1,
  ) {}

  /** To which share the longest stretch is looked for: where lengths count, a longer one is not always better. */
  get nearEnough(): number {
    return this.whole === null ? 0 : NEAR_ENOUGH;
  }

  /** Whether lines and arcs may stand for a part of a chain: some make up for others that are too long. */
  admits(shape: readonly Segment[], chain: readonly Segment[], from: number, to: number): boolean {
    if (this.whole === null) return true;
    const mm = lengthBetween(chain, from, to);
    const longer = Math.abs(this.longer + totalLength(shape) - mm);
    const share = this.atOnce + (1 - this.atOnce) * Math.min(1, (this.done + mm) / this.whole);
    return longer <= (this.tolerance + LENGTH_MM) * share || longer < Math.abs(this.longer);
  }

  /** Lines and arcs that were taken for a part of a chain. */
  take(shape: readonly Segment[], chain: readonly Segment[], from: number, to: number): void {
    if (this.whole === null) return;
    const mm = lengthBetween(chain, from, to);
    this.done += mm;
    this.longer += totalLength(shape) - mm;
  }
}

const totalLength = (pieces: readonly Segment[]): number => pieces.reduce((sum, s) => sum + segmentLength(s), 0);

/** Length of a chain between two places, in mm. */
function lengthBetween(chain: readonly Segment[], from: number, to: number): number {
  let mm = 0;
  for (let i = Math.floor(from); i < Math.min(chain.length, Math.ceil(to)); i++)
    mm += segmentLength(subSegment(chain[i] as Segment, Math.max(0, from - i), Math.min(1, to - i)));
  return mm;
}

function fit(chain: readonly Segment[], from: number, to: number, closeness: Closeness): (Arc | Line)[] | null {
  const { tolerance } = closeness;
  const p = chainPoint(chain, from);
  const [last, lastT] = Number.isInteger(to) ? [chain[to - 1] as Segment, 1] : chainAt(chain, to);
  const q = pointAt(last, lastT);
  const chord = line(p.x, p.y, q.x, q.y);
  // The stretch does not turn back in x or y, so its ends are its bounds; what stands for it must keep them.
  const bounds = growBox(boxOf([chord]), OVERSHOOT_MM);
  const points: Float64Array[] = [];
  const within = (shape: readonly (Arc | Line)[]): boolean => {
    if (!boxContains(bounds, boxOf(shape))) return false;
    for (const [k, steps] of CHECKS.entries()) {
      points[k] ??= pointsBetween(chain, from, to, steps);
      if (!arePointsNear(points[k] as Float64Array, shape, tolerance * MARGIN)) return false;
    }
    const isNear = shape.every((piece) =>
      BACK_CHECKS.every((t) => distanceToChain(chain, pointAt(piece, t), from, to) <= tolerance * MARGIN),
    );
    return isNear && closeness.admits(shape, chain, from, to);
  };
  const arcs = biarc(p, tangentAt(...chainAt(chain, from)), q, tangentAt(last, lastT));
  // Arcs turning far round are either a loop or a bad guess; a shorter stretch decides.
  const tame = arcs?.every((a) => a.kind === 'line' || Math.abs(a.sweep) < Math.PI * 0.9);
  if (arcs && tame && within(arcs)) {
    if (flat(arcs, tolerance) && within([chord])) return [chord];
    const one = asOneArc(arcs, p, q);
    return one && within([one]) ? [one] : arcs;
  }
  return within([chord]) && Math.hypot(q.x - p.x, q.y - p.y) < tolerance * 4 ? [chord] : null;
}

/** A biarc whose arcs are nearly the same as one arc, or null where its ends would turn by more than a trifle. */
function asOneArc([a, b]: readonly (Arc | Line)[], p: Point, q: Point): Arc | null {
  if (a?.kind !== 'arc' || b?.kind !== 'arc' || a.sweep * b.sweep <= 0) return null;
  const one = arcBetween(p, q, a.sweep + b.sweep);
  if (one.kind !== 'arc') return null;
  const start = tangentAt(a, 0);
  const turned = tangentAt(one, 0);
  return Math.abs(start.x * turned.y - start.y * turned.x) < SMOOTH ? one : null;
}

/** Whether arcs bulge so little that a straight line does. */
const flat = (arcs: readonly (Arc | Line)[], tolerance: number): boolean =>
  arcs.every((a) => a.kind === 'line' || arcRadius(a) * (1 - Math.cos(a.sweep / 2)) < tolerance * 0.25);

/** Whether a curve may be fitted together with the one before: they meet smoothly and neither coordinate turns back. */
function runsOn(before: Segment, next: Segment): boolean {
  const a = tangentAt(before, 1);
  const b = tangentAt(next, 0);
  if (Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y)) > SMOOTH) return false;
  return (before.x1 - before.x0) * (next.x1 - next.x0) >= 0 && (before.y1 - before.y0) * (next.y1 - next.y0) >= 0;
}

/** A chain of smoothly joined curves, none turning back in x or y, as lines and arcs. */
function chainToArcs(chain: readonly Segment[], closeness: Closeness): (Arc | Line)[] {
  const out: (Arc | Line)[] = [];
  const end = chain.length;
  let from = 0;
  for (let guard = 0; from < end && guard < 4096; guard++) {
    let best = fit(chain, from, end, closeness);
    let reach = end;
    if (!best) {
      let low = from;
      let high = end;
      for (let k = 0; k < HALVINGS && !(best && high - low < closeness.nearEnough * (low - from)); k++) {
        const mid = (low + high) / 2;
        const found = fit(chain, from, mid, closeness);
        if (found) {
          best = found;
          reach = mid;
          low = mid;
        } else high = mid;
      }
    }
    if (!best) {
      // Tighter than the search reaches: chords as fine as the tolerance asks.
      const [s, t] = chainAt(chain, from);
      reach = Math.floor(from) + Math.min(1, t + 1 / stepsWithin(s, closeness.tolerance * MARGIN));
      const p = pointAt(s, t);
      const q = chainPoint(chain, reach);
      best = [line(p.x, p.y, q.x, q.y)];
    }
    for (const piece of best) out.push(piece);
    closeness.take(best, chain, from, reach);
    from = reach;
  }
  return out;
}

function fitted(path: Path, closeness: Closeness): (Arc | Line)[] {
  const out: (Arc | Line)[] = [];
  let chain: Segment[] = [];
  const finish = () => {
    for (const piece of chainToArcs(chain, closeness))
      if (Math.hypot(piece.x1 - piece.x0, piece.y1 - piece.y0) > 1e-9) out.push(piece);
    chain = [];
  };
  for (const s of path.segments) {
    if (s.kind === 'line' || s.kind === 'arc') {
      finish();
      out.push(...halvedArcs([s]));
      closeness.take([s], [s], 0, 1);
      continue;
    }
    const stops = [0, ...extremes(s).sort((a, b) => a - b), 1];
    for (let i = 1; i < stops.length; i++) {
      const piece = subSegment(s, numberAt(stops, i - 1), numberAt(stops, i));
      const before = chain[chain.length - 1];
      if (before && !runsOn(before, piece)) finish();
      chain.push(piece);
    }
  }
  finish();
  return out;
}

/**
 * A path of lines and arcs only, within `tolerance` mm of the given one, and as long as it within the same and a micrometre. Lines,
 * arcs and corners are kept exactly. A curve may double back, so every turning point in x and y is a node: no check looks past it,
 * and bounds stay exact.
 */
export function pathToArcs(path: Path, tolerance: number): (Arc | Line)[] {
  const whole = pathLength(path);
  const isAsLong = (made: readonly Segment[]) => Math.abs(totalLength(made) - whole) <= tolerance + LENGTH_MM;
  const free = fitted(path, new Closeness(tolerance, null));
  if (isAsLong(free)) return free;
  // Many stretches that stray to one side add up: now each is measured against those before it.
  const measured = AT_ONCE.map((atOnce) => fitted(path, new Closeness(tolerance, Math.max(whole, tolerance), atOnce)));
  return (
    measured.filter(isAsLong).sort((a, b) => a.length - b.length)[0] ?? fitted(path, new Closeness(tolerance / 8, null))
  );
}
