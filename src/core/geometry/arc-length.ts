/**
 * A path, or the curve parallel to it, by the length run along it. Lengths of lines and arcs are exact; those of curves are
 * integrated by Gauss–Legendre quadrature over a table of short stretches, and found again by Newton's method within one.
 * The speed along the parallel at distance d to the left of a curve of curvature κ is that along the curve times 1 − κd.
 */
import { numberAt } from './elements';
import { parallel } from './offset/parallel';
import { joinedExactly, type Path } from './path';
import type { Point } from './point';
import { gaussLegendre } from './quadrature';
import {
  arcAbout,
  arcRadius,
  curvatureAt,
  derivativeAt,
  line,
  pointAt,
  type Segment,
  subSegment,
  tangentAt,
} from './segment';
import { nearestParameter } from './segment-measures';

/** Where one is on a path and which way it runs there, in radians counter-clockwise from the x axis. */
export type Pose = { readonly x: number; readonly y: number; readonly angle: number };

/** A place on a path: which segment, and its parameter; `beyond`: how far past the end of an open path, before it negative. */
export type PathPlace = { readonly segment: number; readonly t: number; readonly beyond: number };

/** Stretches in the table of a curve. */
const STRETCHES = 16;
/** Joints that turn by less are smooth, in radians. */
const SMOOTH = 1e-4;
/** A length within a stretch is found to this share of it. */
const FOUND = 1e-12;

/** A stretch of the curve: a segment of the path moved to the side, or the turn about a corner. */
type Stretch = {
  /** Length run before it, and its own. */
  readonly from: number;
  readonly length: number;
  /** Length of the segment that is left out at its start, since it lies behind a corner. */
  readonly skipped: number;
  readonly curve: SideCurve | Turn;
  /** The segment it is, or that a turn comes after. */
  readonly segment: number;
};

/** A segment moved to the left. */
class SideCurve {
  readonly length: number;
  private readonly table: readonly number[];

  constructor(
    private readonly segment: Segment,
    private readonly left: number,
  ) {
    this.table = this.tabled();
    this.length = numberAt(this.table, this.table.length - 1);
  }

  private tabled(): number[] {
    const { segment, left } = this;
    if (segment.kind === 'line') return [0, Math.hypot(segment.x1 - segment.x0, segment.y1 - segment.y0)];
    if (segment.kind === 'arc')
      return [0, Math.max(0, arcRadius(segment) - Math.sign(segment.sweep) * left) * Math.abs(segment.sweep)];
    const table = [0];
    for (let i = 0; i < STRETCHES; i++)
      table.push(numberAt(table, i) + this.integral(i / STRETCHES, (i + 1) / STRETCHES));
    return table;
  }

  private speed(t: number): number {
    const d = derivativeAt(this.segment, t);
    const along = this.left === 0 ? 1 : Math.max(0, 1 - curvatureAt(this.segment, t) * this.left);
    return Math.hypot(d.x, d.y) * along;
  }

  private integral(from: number, to: number): number {
    return gaussLegendre((t) => this.speed(t), from, to);
  }

  /** The parameter at a length from the start. */
  parameterAt(run: number): number {
    if (this.length === 0) return 0;
    if (this.table.length === 2) return run / this.length;
    let i = 0;
    while (i < STRETCHES - 1 && numberAt(this.table, i + 1) < run) i++;
    const before = numberAt(this.table, i);
    const own = numberAt(this.table, i + 1) - before;
    let [lo, hi] = [i / STRETCHES, (i + 1) / STRETCHES];
    const start = lo;
    let t = own === 0 ? lo : lo + ((run - before) / own) * (hi - lo);
    for (let k = 0; k < 60; k++) {
      const off = before + this.integral(start, t) - run;
      if (Math.abs(off) <= FOUND * this.length) break;
      if (off > 0) hi = t;
      else lo = t;
      const speed = this.speed(t);
      const next = speed > 0 ? t - off / speed : lo;
      t = next > lo && next < hi ? next : (lo + hi) / 2;
    }
    return t;
  }

  /** The length from the start to a parameter. */
  lengthTo(t: number): number {
    if (this.table.length === 2) return t * this.length;
    const i = Math.min(STRETCHES - 1, Math.floor(t * STRETCHES));
    return numberAt(this.table, i) + this.integral(i / STRETCHES, t);
  }

  poseAt(run: number): Pose {
    const t = this.parameterAt(Math.min(this.length, Math.max(0, run)));
    return posed(pointAt(this.segment, t), tangentAt(this.segment, t), this.left);
  }

  /** What lies between two lengths, as segments. */
  between(from: number, to: number): Segment[] {
    const within = (run: number) => Math.min(1, Math.max(0, this.parameterAt(Math.min(this.length, Math.max(0, run)))));
    return parallel(subSegment(this.segment, within(from), within(to)), -this.left);
  }
}

/** The turn about a corner, at a distance from it. */
class Turn {
  readonly length: number;

  constructor(
    private readonly corner: Point,
    private readonly start: number,
    private readonly sweep: number,
    private readonly left: number,
  ) {
    this.length = Math.abs(sweep * left);
  }

  poseAt(run: number): Pose {
    const angle = this.start + (this.sweep * run) / this.length;
    return { ...posed(this.corner, { x: Math.cos(angle), y: Math.sin(angle) }, this.left), angle };
  }

  between(from: number, to: number): Segment[] {
    const { x, y } = this.poseAt(from);
    const radius = Math.abs(this.left);
    const about = Math.atan2(y - this.corner.y, x - this.corner.x);
    return [arcAbout(this.corner.x, this.corner.y, radius, about, (this.sweep * (to - from)) / this.length)];
  }
}

const posed = (p: Point, along: Point, left: number): Pose => ({
  x: p.x - left * along.y,
  y: p.y + left * along.x,
  angle: Math.atan2(along.y, along.x),
});

/** A path, or the curve at `left` mm to the left of it, by the length run along it from its start. */
export class ArcLength {
  readonly length: number;
  private readonly stretches: readonly Stretch[];

  constructor(
    readonly path: Path,
    readonly left = 0,
  ) {
    this.stretches = stretchesOf(path, left);
    const last = this.stretches[this.stretches.length - 1];
    this.length = last ? last.from + last.length : 0;
  }

  /** Where one is after a length: on a closed path once more around, past the ends of an open one straight on. */
  at(run: number): Pose {
    if (this.path.closed && this.length > 0) return this.within(run - Math.floor(run / this.length) * this.length);
    const inside = Math.min(this.length, Math.max(0, run));
    const { x, y, angle } = this.within(inside);
    const beyond = run - inside;
    return { x: x + beyond * Math.cos(angle), y: y + beyond * Math.sin(angle), angle };
  }

  private within(run: number): Pose {
    const stretch = this.stretchAt(run);
    if (!stretch) return { x: 0, y: 0, angle: 0 };
    return stretch.curve.poseAt(run - stretch.from + stretch.skipped);
  }

  private stretchAt(run: number): Stretch | undefined {
    let lo = 0;
    let hi = this.stretches.length - 1;
    while (lo < hi) {
      const mid = (lo + hi + 1) >> 1;
      if ((this.stretches[mid] as Stretch).from <= run) lo = mid;
      else hi = mid - 1;
    }
    // One without length is at the same place as that before it.
    while (lo > 0 && this.stretches[lo]?.length === 0) lo--;
    return this.stretches[lo];
  }

  /** What lies between two lengths, as an open path; straight on past the ends of an open one. */
  between(from: number, to: number): Path {
    const segments: Segment[] = [];
    const straight = (a: number, b: number) => {
      if (b <= a) return;
      const [p, q] = [this.at(a), this.at(b)];
      segments.push(line(p.x, p.y, q.x, q.y));
    };
    const inner = (a: number, b: number) => {
      for (const s of this.stretches) {
        const [start, end] = [Math.max(a, s.from), Math.min(b, s.from + s.length)];
        if (end > start) segments.push(...s.curve.between(start - s.from + s.skipped, end - s.from + s.skipped));
      }
    };
    if (!this.path.closed) {
      straight(from, Math.min(to, 0));
      inner(Math.max(0, from), Math.min(this.length, to));
      straight(Math.max(from, this.length), to);
    } else if (this.length > 0)
      for (let round = Math.floor(from / this.length); round * this.length < to; round++)
        inner(Math.max(0, from - round * this.length), Math.min(this.length, to - round * this.length));
    return joinedExactly({ segments, closed: false });
  }

  /** The place on the path itself that is reached after a length. */
  placeAt(run: number): PathPlace {
    const around = this.path.closed && this.length > 0 ? run - Math.floor(run / this.length) * this.length : run;
    const inside = Math.min(this.length, Math.max(0, around));
    const stretch = this.stretchAt(inside);
    if (!stretch) return { segment: 0, t: 0, beyond: 0 };
    const { curve, segment, from, skipped } = stretch;
    const t = curve instanceof Turn ? 1 : curve.parameterAt(inside - from + skipped);
    return { segment, t, beyond: around - inside };
  }

  /** The length run to the place of the path that is nearest to a point. */
  nearest({ x, y }: Point): number {
    let best = { run: 0, far: Infinity };
    this.path.segments.forEach((s, segment) => {
      const t = nearestParameter(s, x, y);
      const p = pointAt(s, t);
      const far = Math.hypot(p.x - x, p.y - y);
      if (far < best.far) best = { run: this.lengthTo({ segment, t, beyond: 0 }), far };
    });
    return best.run;
  }

  /** The length run to a place of the path. */
  lengthTo({ segment, t, beyond }: PathPlace): number {
    for (const { curve, segment: own, from, skipped, length } of this.stretches)
      if (own === segment && curve instanceof SideCurve)
        return from + Math.min(length, Math.max(0, curve.lengthTo(t) - skipped)) + beyond;
    return beyond;
  }
}

function stretchesOf(path: Path, left: number): Stretch[] {
  const { segments, closed } = path;
  const curves = segments.map((s) => new SideCurve(s, left));
  /** The turn at the end of a segment, to the next; 0 where it goes on smoothly. */
  const turns = segments.map((s, i): number => {
    const next = segments[i + 1] ?? (closed ? segments[0] : undefined);
    if (!next || left === 0) return 0;
    const [a, b] = [tangentAt(s, 1), tangentAt(next, 0)];
    const turn = Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);
    return Math.abs(turn) < SMOOTH ? 0 : turn;
  });
  // Towards the inside of a corner both sides end where they meet: exact between straight lines.
  const cut = (turn: number): number => (turn * left > 0 ? Math.abs(left) * Math.tan(Math.abs(turn) / 2) : 0);
  const out: Stretch[] = [];
  let from = 0;
  curves.forEach((curve, i) => {
    const turn = numberAt(turns, i);
    const before = numberAt(turns, (i + turns.length - 1) % turns.length);
    const skipped = Math.min(curve.length, cut(closed || i > 0 ? before : 0));
    const length = Math.max(0, curve.length - skipped - cut(turn));
    out.push({ from, length, skipped, curve, segment: i });
    from += length;
    if (turn * left < 0) {
      const { x1: x, y1: y } = segments[i] as Segment;
      const along = tangentAt(segments[i] as Segment, 1);
      const about = new Turn({ x, y }, Math.atan2(along.y, along.x), turn, left);
      out.push({ from, length: about.length, skipped: 0, curve: about, segment: i });
      from += about.length;
    }
  });
  return out;
}
