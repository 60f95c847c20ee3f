/** Curves that run on as one, with what is asked at many places of them made ready once. */
import { floatAt } from './elements';
import type { Point } from './point';
import { gaussLegendre } from './quadrature';
import { type Cubic, pointAt, type Quadratic, type Segment, subSegment } from './segment';
import { segmentLength, speedOf } from './segment-measures';

type Speed = (t: number) => number;
/** One quadrature that comes to the length of a curve within this share does so for parts of it. */
const EVEN = 1e-7;

/** Curves that run on smoothly, none turning back in x or y. A place on it is `u`: segment ⌊u⌋ at the rest. */
export class CurveChain {
  /** Where each segment begins along the chain, in mm; the last is its whole length. */
  private readonly begins: Float64Array;
  /** Each segment as powers of t, of x and of y: the third, the second, the first, and where it begins. */
  private readonly powers: Float64Array;
  /** How fast each is run, and whether that is so even that one quadrature tells its length. */
  private readonly speeds: readonly Speed[];
  private readonly isEven: readonly boolean[];

  constructor(readonly segments: readonly (Quadratic | Cubic)[]) {
    this.begins = new Float64Array(segments.length + 1);
    this.powers = new Float64Array(8 * segments.length);
    segments.forEach((s, i) => {
      this.begins[i + 1] = floatAt(this.begins, i) + segmentLength(s);
      const of = (p0: number, a: number, b: number, p1: number) =>
        s.kind === 'cubic'
          ? [p1 - p0 + 3 * (a - b), 3 * (p0 - 2 * a + b), 3 * (a - p0), p0]
          : [0, p0 - 2 * a + p1, 2 * (a - p0), p0];
      const [bx, by] = s.kind === 'cubic' ? [s.bx, s.by] : [0, 0];
      this.powers.set([...of(s.x0, s.ax, bx, s.x1), ...of(s.y0, s.ay, by, s.y1)], 8 * i);
    });
    this.speeds = segments.map(speedOf);
    this.isEven = this.speeds.map((speed, i) => {
      const mm = floatAt(this.begins, i + 1) - floatAt(this.begins, i);
      return Math.abs(gaussLegendre(speed, 0, 1) - mm) <= EVEN * mm;
    });
  }

  get end(): number {
    return this.segments.length;
  }

  /** The segment at a place, and where on it; the end of one belongs to the next, but for the last. */
  at(u: number): readonly [segment: Quadratic | Cubic, t: number] {
    const i = Math.min(Math.floor(u), this.segments.length - 1);
    return [this.segments[i] as Quadratic | Cubic, u - i];
  }

  /** The same, where the end of one belongs to itself. */
  upTo(u: number): readonly [segment: Quadratic | Cubic, t: number] {
    return Number.isInteger(u) ? [this.segments[u - 1] as Quadratic | Cubic, 1] : this.at(u);
  }

  point(u: number): Point {
    const [s, t] = this.at(u);
    return pointAt(s, t);
  }

  /** Distance from a point to the place between two that is nearest to it, found from one beside it by two steps of Newton’s method; no less than the true one. */
  distanceNear({ x, y }: Point, u: number, low: number, high: number): number {
    const { powers } = this;
    let at = Math.min(high, Math.max(low, u));
    for (let step = 0; ; step++) {
      const i = Math.min(Math.floor(at), this.segments.length - 1);
      const t = at - i;
      const p = 8 * i;
      const [a, b, c] = [floatAt(powers, p), floatAt(powers, p + 1), floatAt(powers, p + 2)];
      const [d, e, f] = [floatAt(powers, p + 4), floatAt(powers, p + 5), floatAt(powers, p + 6)];
      const ox = x - (((a * t + b) * t + c) * t + floatAt(powers, p + 3));
      const oy = y - (((d * t + e) * t + f) * t + floatAt(powers, p + 7));
      if (step === 2) return Math.sqrt(ox * ox + oy * oy);
      const vx = (3 * a * t + 2 * b) * t + c;
      const vy = (3 * d * t + 2 * e) * t + f;
      const square = vx * vx + vy * vy;
      if (square > 0) at = Math.min(high, Math.max(low, at + (ox * vx + oy * vy) / square));
    }
  }

  /** How far along a place lies, in mm. */
  along(u: number): number {
    const i = Math.min(Math.floor(u), this.segments.length - 1);
    const t = u - i;
    const begin = floatAt(this.begins, i);
    if (t === 0) return begin;
    if (t === 1) return floatAt(this.begins, i + 1);
    const s = this.segments[i] as Segment;
    return begin + (this.isEven[i] ? gaussLegendre(this.speeds[i] as Speed, 0, t) : segmentLength(subSegment(s, 0, t)));
  }

  /** A place about so far along, in mm: as if each segment were run at one speed. */
  placeAbout(mm: number): number {
    let i = 0;
    while (i + 1 < this.segments.length && floatAt(this.begins, i + 1) <= mm) i++;
    const begin = floatAt(this.begins, i);
    const own = floatAt(this.begins, i + 1) - begin;
    return i + (own > 0 ? Math.min(1, Math.max(0, (mm - begin) / own)) : 1);
  }

  /** The inverse of that. */
  aboutAlong(u: number): number {
    const i = Math.min(Math.floor(u), this.segments.length - 1);
    const begin = floatAt(this.begins, i);
    return begin + (u - i) * (floatAt(this.begins, i + 1) - begin);
  }

  /** Points between two places, at equal steps, with both ends, which are those of the segments to the last digit; x, y pairs. */
  points(from: number, to: number, steps: number): Float64Array {
    const { powers } = this;
    const last = this.segments.length - 1;
    const out = new Float64Array(2 * (steps + 1));
    for (let k = 1; k < steps; k++) {
      const u = from + ((to - from) * k) / steps;
      const i = Math.min(Math.floor(u), last);
      const t = u - i;
      const p = 8 * i;
      out[2 * k] =
        ((floatAt(powers, p) * t + floatAt(powers, p + 1)) * t + floatAt(powers, p + 2)) * t + floatAt(powers, p + 3);
      out[2 * k + 1] =
        ((floatAt(powers, p + 4) * t + floatAt(powers, p + 5)) * t + floatAt(powers, p + 6)) * t +
        floatAt(powers, p + 7);
    }
    const begin = this.point(from);
    const end = pointAt(...this.upTo(to));
    [out[0], out[1], out[2 * steps], out[2 * steps + 1]] = [begin.x, begin.y, end.x, end.y];
    return out;
  }
}
