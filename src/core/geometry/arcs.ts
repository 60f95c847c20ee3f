/**
 * Curves made into lines and arcs within a tolerance, over the nodes between them where they join smoothly. From each
 * point the longest stretch is taken whose G1 biarc (two arcs that meet smoothly; Bolton 1975, equal handles) stays
 * within the tolerance of it.
 */
import { numberAt } from './elements';
import type { Path } from './path';
import { boxContains, growBox, type Point } from './point';
import {
  type Arc,
  arcBetween,
  arcRadius,
  type Line,
  line,
  pointAt,
  type Segment,
  stepsWithin,
  subSegment,
  tangentAt,
} from './segment';
import { boxOf, extremes, nearestParameter } from './segment-measures';

/** Points per stretch at which the distance from curve to biarc is measured: first a few, then many to be sure. */
const CHECKS = [8, 61];
/** Where on each arc the distance back to the curve is measured. */
const BACK_CHECKS = [0.2, 0.5, 0.8];
/** Curves that meet closer to straight than this run on as one; in radians. */
const SMOOTH = (1.5 * Math.PI) / 180;
/** How far an arc may reach over the bounds of what it stands for, in mm. */
const OVERSHOOT_MM = 0.002;
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

/** Distance from a point to an arc or line, or infinity when the foot lies off it. */
function distanceTo(s: Arc | Line, p: Point): number {
  if (s.kind === 'line') {
    const dx = s.x1 - s.x0;
    const dy = s.y1 - s.y0;
    const l = dx * dx + dy * dy;
    const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - s.x0) * dx + (p.y - s.y0) * dy) / l));
    return Math.hypot(s.x0 + u * dx - p.x, s.y0 + u * dy - p.y);
  }
  const from = Math.atan2(s.y0 - s.cy, s.x0 - s.cx);
  let angle = Math.atan2(p.y - s.cy, p.x - s.cx) - from;
  const turn = 2 * Math.PI;
  if (s.sweep > 0) angle = ((angle % turn) + turn) % turn;
  else angle = -(((-angle % turn) + turn) % turn);
  if (Math.abs(angle) <= Math.abs(s.sweep)) return Math.abs(Math.hypot(p.x - s.cx, p.y - s.cy) - arcRadius(s));
  return Math.min(Math.hypot(p.x - s.x0, p.y - s.y0), Math.hypot(p.x - s.x1, p.y - s.y1));
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

function fit(chain: readonly Segment[], from: number, to: number, tolerance: number): (Arc | Line)[] | null {
  const p = chainPoint(chain, from);
  const [last, lastT] = Number.isInteger(to) ? [chain[to - 1] as Segment, 1] : chainAt(chain, to);
  const q = pointAt(last, lastT);
  const chord = line(p.x, p.y, q.x, q.y);
  // The stretch does not turn back in x or y, so its ends are its bounds; what stands for it must keep them.
  const bounds = growBox(boxOf([chord]), OVERSHOOT_MM);
  const within = (shape: readonly (Arc | Line)[]): boolean => {
    if (!boxContains(bounds, boxOf(shape))) return false;
    for (const checks of CHECKS)
      for (let i = 1; i < checks; i++) {
        const at = chainPoint(chain, from + ((to - from) * i) / checks);
        if (Math.min(...shape.map((piece) => distanceTo(piece, at))) > tolerance * MARGIN) return false;
      }
    return shape.every((piece) =>
      BACK_CHECKS.every((t) => distanceToChain(chain, pointAt(piece, t), from, to) <= tolerance * MARGIN),
    );
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
function chainToArcs(chain: readonly Segment[], tolerance: number): (Arc | Line)[] {
  const out: (Arc | Line)[] = [];
  const end = chain.length;
  let from = 0;
  for (let guard = 0; from < end && guard < 4096; guard++) {
    let best = fit(chain, from, end, tolerance);
    let reach = end;
    if (!best) {
      let low = from;
      let high = end;
      for (let k = 0; k < 12; k++) {
        const mid = (low + high) / 2;
        const found = fit(chain, from, mid, tolerance);
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
      reach = Math.floor(from) + Math.min(1, t + 1 / stepsWithin(s, tolerance * MARGIN));
      const p = pointAt(s, t);
      const q = chainPoint(chain, reach);
      best = [line(p.x, p.y, q.x, q.y)];
    }
    for (const piece of best) out.push(piece);
    from = reach;
  }
  return out;
}

/**
 * A path of lines and arcs only, within `tolerance` mm of the given one. Lines, arcs and corners are kept exactly. A
 * curve may double back, so every turning point in x and y is a node: no check looks past it, and bounds stay exact.
 */
export function pathToArcs(path: Path, tolerance: number): (Arc | Line)[] {
  const out: (Arc | Line)[] = [];
  let chain: Segment[] = [];
  const finish = () => {
    for (const piece of chainToArcs(chain, tolerance))
      if (Math.hypot(piece.x1 - piece.x0, piece.y1 - piece.y0) > 1e-9) out.push(piece);
    chain = [];
  };
  for (const s of path.segments) {
    if (s.kind === 'line' || s.kind === 'arc') {
      finish();
      out.push(s);
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
