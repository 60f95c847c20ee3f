/**
 * Curves made into lines and arcs within a tolerance, over the nodes between them where they join smoothly. From each
 * point the longest stretch is taken whose G1 biarc (two arcs that meet smoothly; Bolton 1975, equal handles) stays
 * within the tolerance of it.
 */
import { biarc, measureOf, straying } from './biarc';
import { CurveChain } from './chain';
import { floatAt, numberAt } from './elements';
import { type Path, pathLength } from './path';
import { type Box, boxContains, growBox, type Point } from './point';
import {
  type Arc,
  arcBetween,
  arcRadius,
  type Cubic,
  halvedArcs,
  type Line,
  line,
  pointAt,
  type Quadratic,
  type Segment,
  stepsWithin,
  subSegment,
  tangentAt,
} from './segment';
import { boxOf, extremes, segmentLength } from './segment-measures';

/** Points per stretch at which the distance from curve to biarc is measured: first a few, then many to be sure. */
const FEW = 12;
const MANY = 24;
/** Where on each arc the distance back to the curve is measured. */
const BACK_CHECKS = [0.1, 0.3, 0.5, 0.7, 0.9];
/** Curves that meet closer to straight than this run on as one; in radians. */
const SMOOTH = (1.5 * Math.PI) / 180;
/** How far an arc may reach over the bounds of what it stands for, in mm. */
const OVERSHOOT_MM = 0.002;
/** So many stretches are tried at most for the longest that can be fitted, until it is known to this share; where lengths count, to that. */
const MOST_TRIED = 14;
const NEAR_ENOUGH = 0.01;
const NEAR_ENOUGH_MEASURED = 0.1;
/** One is looked for that strays by this share of what it may; one that strays by so much is taken. */
const AIMED_AT = 0.93;
const FAR_ENOUGH = 0.75;
/** Shares of what a path may be longer or shorter that are given to its first stretch; the one with the fewest pieces is taken. */
const AT_ONCE = [0.45, 0.3, 0.6];
/** What rounding adds to a tolerance, in mm; a path may be longer or shorter by both. */
const LENGTH_MM = 0.001;
/** Measured distances must stay under this share of the tolerance, for what lies between the checks. */
const MARGIN = 0.95;

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
    return this.whole === null ? NEAR_ENOUGH : NEAR_ENOUGH_MEASURED;
  }

  /** Whether lines and arcs may stand for a part of a chain: some make up for others that are too long. */
  admits(shape: readonly Segment[], chain: CurveChain, from: number, to: number): boolean {
    if (this.whole === null) return true;
    const mm = chain.along(to) - chain.along(from);
    const longer = Math.abs(this.longer + totalLength(shape) - mm);
    const share = this.atOnce + (1 - this.atOnce) * Math.min(1, (this.done + mm) / this.whole);
    return longer <= (this.tolerance + LENGTH_MM) * share || longer < Math.abs(this.longer);
  }

  /** Lines and arcs that were taken for a part of a path; how many mm of it is asked where lengths count. */
  take(shape: readonly Segment[], length: () => number): void {
    if (this.whole === null) return;
    const mm = length();
    this.done += mm;
    this.longer += totalLength(shape) - mm;
  }
}

const totalLength = (pieces: readonly Segment[]): number => pieces.reduce((sum, s) => sum + segmentLength(s), 0);

/** Lines and arcs for a stretch, and how far they stray as a share of how far they may; over 1, or none, where they may not stand for it. */
type Fit = { readonly shape: readonly (Arc | Line)[] | null; readonly stray: number };

/** One that is too long or too short stands for a stretch no more than one that strays by so much. */
const TOO_LONG = 1.2;

const NO_FIT: Fit = { shape: null, stray: Infinity };

/** A stretch of a chain that lines and arcs are to stand for: looked at in a few points, and closely once it is to be taken. */
class Stretch {
  private readonly few: Float64Array;
  private many: Float64Array | null = null;
  private readonly p: Point;
  private readonly q: Point;
  private readonly chord: Line;
  private readonly bounds: Box;

  constructor(
    private readonly chain: CurveChain,
    private readonly from: number,
    private readonly to: number,
    private readonly closeness: Closeness,
  ) {
    this.few = chain.points(from, to, FEW);
    this.p = { x: floatAt(this.few, 0), y: floatAt(this.few, 1) };
    this.q = { x: floatAt(this.few, 2 * FEW), y: floatAt(this.few, 2 * FEW + 1) };
    this.chord = line(this.p.x, this.p.y, this.q.x, this.q.y);
    this.bounds = growBox(boxOf([this.chord]), OVERSHOOT_MM);
  }

  /** How far a shape strays from a few points of the stretch, as a share of how far it may. */
  private straying(shape: readonly (Arc | Line)[]): number {
    // The stretch does not turn back in x or y, so its ends are its bounds; what stands for it must keep them.
    if (!boxContains(this.bounds, boxOf(shape))) return Infinity;
    return straying(this.few, shape.map(measureOf), Infinity) / (this.closeness.tolerance * MARGIN);
  }

  /** Whether a shape that keeps to those keeps to the whole stretch, and the stretch to it. */
  isConfirmed(shape: readonly (Arc | Line)[]): boolean {
    const most = this.closeness.tolerance * MARGIN;
    this.many ??= this.chain.points(this.from, this.to, MANY);
    if (straying(this.many, shape.map(measureOf), most) > most) return false;
    for (const piece of shape)
      for (const t of BACK_CHECKS) if (this.distance(pointAt(piece, t), this.many) > most) return false;
    return true;
  }

  /** Distance from a point to the stretch, looked for about where it lies beside points of it. */
  private distance(point: Point, points: Float64Array): number {
    const { from, to, p, q } = this;
    // What grows all along the stretch, which turns back neither in x nor in y.
    const [wx, wy] = [Math.sign(q.x - p.x), Math.sign(q.y - p.y)];
    const at = wx * point.x + wy * point.y;
    let [low, high] = [0, MANY];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (wx * floatAt(points, 2 * middle) + wy * floatAt(points, 2 * middle + 1) <= at) low = middle;
      else high = middle;
    }
    const [x0, y0] = [floatAt(points, 2 * low), floatAt(points, 2 * low + 1)];
    const [dx, dy] = [floatAt(points, 2 * low + 2) - x0, floatAt(points, 2 * low + 3) - y0];
    const square = dx * dx + dy * dy;
    const share = square > 0 ? ((point.x - x0) * dx + (point.y - y0) * dy) / square : 0;
    return this.chain.distanceNear(point, from + ((to - from) * (low + share)) / MANY, from, to);
  }

  private isWithin(shape: readonly (Arc | Line)[]): boolean {
    const isNear = this.straying(shape) <= 1 && this.isConfirmed(shape);
    return isNear && this.closeness.admits(shape, this.chain, this.from, this.to);
  }

  /** A biarc for the stretch. Arcs turning far round are either a loop or a bad guess; a shorter stretch decides. */
  fit(): Fit {
    const { chain, from, to, p, q } = this;
    const arcs = biarc(p, tangentAt(...chain.at(from)), q, tangentAt(...chain.upTo(to)));
    if (!arcs?.every((a) => a.kind === 'line' || Math.abs(a.sweep) < Math.PI * 0.9)) return this.short();
    const stray = this.straying(arcs);
    if (stray > 1) return stray === Infinity ? this.short() : { shape: null, stray };
    return this.closeness.admits(arcs, chain, from, to) ? { shape: arcs, stray } : { shape: null, stray: TOO_LONG };
  }

  /** A line for a stretch that is too short for anything else. */
  private short(): Fit {
    const { p, q, chord, closeness } = this;
    const isShort = Math.hypot(q.x - p.x, q.y - p.y) < closeness.tolerance * 4;
    return isShort && this.isWithin([chord]) ? { shape: [chord], stray: 0 } : NO_FIT;
  }

  /** One line or one arc in the place of arcs that are nearly that, where it does as well. */
  simpler(arcs: readonly (Arc | Line)[]): readonly (Arc | Line)[] {
    const { p, q, chord, closeness } = this;
    if (flat(arcs, closeness.tolerance) && this.isWithin([chord])) return [chord];
    const one = asOneArc(arcs, p, q);
    return one && this.isWithin([one]) ? [one] : arcs;
  }
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

/** Stretches are as long as their straying to the power of this: a biarc strays by the third power of its length. */
const POWER = 1 / 3;
/** A stretch that is not as near as a few points of it are is taken so much shorter. */
const SHORTER = 0.96;

/** Where between two lengths one strays as far as it should, as a share: as if straying grew evenly by its logarithm; not right beside either. */
function between(strayLow: number, strayHigh: number): number {
  if (!(strayHigh < Infinity)) return 0.5;
  const low = Math.max(strayLow, 0.02);
  return Math.min(0.8, Math.max(0.2, Math.log(AIMED_AT / low) / Math.log(strayHigh / low)));
}

type Found = { readonly stretch: Stretch; readonly shape: readonly (Arc | Line)[]; readonly to: number };

/**
 * The longest stretch from a place on that lines and arcs can stand for, and these; null where none is found. `about` is how long it may
 * be, in mm. How far a biarc strays tells how long one that strays just as far as it may would be.
 */
function longestFrom(chain: CurveChain, from: number, about: number, closeness: Closeness): Found | null {
  const begin = chain.aboutAlong(from);
  const rest = chain.aboutAlong(chain.end) - begin;
  let best: Found | null = null;
  let [low, high] = [0, Infinity];
  let [strayLow, strayHigh] = [0, Infinity];
  let mm = Math.min(rest, about);
  for (let tried = 0; tried < MOST_TRIED; tried++) {
    const to = mm >= rest ? chain.end : chain.placeAbout(begin + mm);
    if (!(to > from)) break;
    const stretch = new Stretch(chain, from, to, closeness);
    const { shape, stray } = stretch.fit();
    const likely = mm * Math.min(3, Math.max(0.4, (AIMED_AT / Math.max(stray, 1e-6)) ** POWER));
    const isLast = shape !== null && (mm >= rest || stray > FAR_ENOUGH || high - mm < closeness.nearEnough * mm);
    if (isLast && stretch.isConfirmed(shape)) return { stretch, shape, to };
    if (isLast) {
      high = mm;
      mm *= SHORTER;
      if (best && mm < low) [best, low] = [null, 0];
      continue;
    }
    if (shape) {
      best = { stretch, shape, to };
      [low, strayLow] = [mm, stray];
      mm = Math.min(likely, rest);
    } else {
      [high, strayHigh] = [mm, stray];
      mm = Math.min(likely, mm * SHORTER);
    }
    if (best && high - low < closeness.nearEnough * low) {
      if (best.stretch.isConfirmed(best.shape)) return best;
      high = low;
      mm = low * SHORTER;
      [best, low] = [null, 0];
      continue;
    }
    // Between one that is short enough and one that is too long, by how far they stray.
    if (best && high < Infinity) mm = low + between(strayLow, strayHigh) * (high - low);
    else if (mm >= high) mm = (low + high) / 2;
  }
  return best?.stretch.isConfirmed(best.shape) ? best : null;
}

/** A chain as lines and arcs. */
function chainToArcs(chain: CurveChain, closeness: Closeness): (Arc | Line)[] {
  const out: (Arc | Line)[] = [];
  let about = Infinity;
  let from = 0;
  for (let guard = 0; from < chain.end && guard < 4096; guard++) {
    const found = longestFrom(chain, from, about, closeness);
    let reach = found?.to ?? chain.end;
    let pieces = found ? found.stretch.simpler(found.shape) : [];
    if (!found) {
      // Tighter than the search reaches: chords as fine as the tolerance asks.
      const [s, t] = chain.at(from);
      reach = Math.floor(from) + Math.min(1, t + 1 / stepsWithin(s, closeness.tolerance * MARGIN));
      const p = pointAt(s, t);
      const q = chain.point(reach);
      pieces = [line(p.x, p.y, q.x, q.y)];
    }
    for (const piece of pieces) out.push(piece);
    const [begin, end] = [from, reach];
    closeness.take(pieces, () => chain.along(end) - chain.along(begin));
    about = 1.25 * (chain.aboutAlong(reach) - chain.aboutAlong(from));
    from = reach;
  }
  return out;
}

/** A path as what is kept of it, lines and arcs, and the chains of curves between. */
function runsOf(path: Path): (readonly (Arc | Line)[] | CurveChain)[] {
  const out: (readonly (Arc | Line)[] | CurveChain)[] = [];
  let chain: (Quadratic | Cubic)[] = [];
  const finish = () => {
    if (chain.length > 0) out.push(new CurveChain(chain));
    chain = [];
  };
  for (const s of path.segments) {
    if (s.kind === 'line' || s.kind === 'arc') {
      finish();
      out.push(halvedArcs([s]));
      continue;
    }
    const stops = [0, ...extremes(s).sort((a, b) => a - b), 1];
    for (let i = 1; i < stops.length; i++) {
      const piece = subSegment(s, numberAt(stops, i - 1), numberAt(stops, i)) as Quadratic | Cubic;
      const before = chain[chain.length - 1];
      if (before && !runsOn(before, piece)) finish();
      chain.push(piece);
    }
  }
  finish();
  return out;
}

function fitted(runs: ReturnType<typeof runsOf>, closeness: Closeness): (Arc | Line)[] {
  const out: (Arc | Line)[] = [];
  for (const run of runs) {
    if (run instanceof CurveChain) {
      for (const piece of chainToArcs(run, closeness))
        if (Math.hypot(piece.x1 - piece.x0, piece.y1 - piece.y0) > 1e-9) out.push(piece);
      continue;
    }
    for (const piece of run) out.push(piece);
    closeness.take(run, () => totalLength(run));
  }
  return out;
}

/**
 * A path of lines and arcs only, within `tolerance` mm of the given one, and as long as it within the same and a micrometre. Lines,
 * arcs and corners are kept exactly. A curve may double back, so every turning point in x and y is a node: no check looks past it,
 * and bounds stay exact.
 */
export function pathToArcs(path: Path, tolerance: number): (Arc | Line)[] {
  const whole = pathLength(path);
  const runs = runsOf(path);
  const isAsLong = (made: readonly Segment[]) => Math.abs(totalLength(made) - whole) <= tolerance + LENGTH_MM;
  const free = fitted(runs, new Closeness(tolerance, null));
  if (isAsLong(free)) return free;
  // Many stretches that stray to one side add up: now each is measured against those before it.
  let best: (Arc | Line)[] | null = null;
  for (const atOnce of AT_ONCE) {
    // Fewer pieces than where lengths don’t count are hardly found.
    if (best && best.length <= free.length) break;
    const made = fitted(runs, new Closeness(tolerance, Math.max(whole, tolerance), atOnce));
    if (isAsLong(made) && (!best || made.length < best.length)) best = made;
  }
  if (best) return best;
  // What strays less is less too long or too short, as far as one asks.
  for (let share = SHARES_LEAST; share < SHARES_MOST; share *= 2) {
    const made = fitted(runs, new Closeness(tolerance / share, null));
    if (isAsLong(made)) return made;
  }
  return fitted(runs, new Closeness(tolerance / SHARES_MOST, null));
}

/** Shares of the tolerance that curves stray by at most where no other way makes a path as long as it is. */
const SHARES_LEAST = 8;
const SHARES_MOST = 512;
