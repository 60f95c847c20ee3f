/**
 * How long a machine runs along a path without a stop: as fast as asked, slower in curves so that neither axis has more acceleration across
 * the path than its own, and at corners by how far these may be cut (the radius of the arc that touches both sides at that distance from the corner);
 * looking ahead over the whole path, so that it can slow down in time (a pass from the end and one from the start).
 */
import { floatAt, numberAt } from '../geometry/elements';
import type { Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import {
  type Cubic,
  derivativeAt,
  type Quadratic,
  type Segment,
  secondDerivativeAt,
  tangentAt,
} from '../geometry/segment';
import { alongAxes, type Motion } from './machine-motion';

/** Curves are looked at in pieces that turn by no more than this, in radians, halved so often at least, and at most. */
const TURN = Math.PI / 60;
const FEWEST_HALVED = 1;
const MOST_HALVED = 9;
/** Turns smaller than this are none, in radians: what is joined smoothly is gone through without slowing. */
const SMOOTH = 1e-3;
/** Segments shorter than this, in mm, are not run. */
const SHORTEST_MM = 1e-9;

/** Pieces of a path with the limits in each and between them, one after the other. */
class Pieces {
  readonly lengths: number[] = [];
  /** Acceleration along the path, and highest speed, in each. */
  readonly accelerations: number[] = [];
  readonly tops: number[] = [];
  /** Highest speed where each begins; where the last ends. */
  readonly limits: number[] = [];
  /** Direction, and highest speed, where the path has come to. */
  private dx = 0;
  private dy = 0;
  private leaving = Number.POSITIVE_INFINITY;

  constructor(private readonly motion: Motion) {}

  /** Go on along a segment. */
  add(s: Segment): void {
    const spans = spansOf(s);
    const [first, last] = [spans[0], spans[spans.length - 1]];
    if (!first || !last) return;
    const corner = this.lengths.length === 0 ? 0 : this.cornerSpeed(first.from.x, first.from.y);
    for (const span of spans) {
      const { from, middle, length } = span;
      const speed = this.curveSpeed(from);
      this.limits.push(span === first ? Math.min(corner, speed, this.leaving) : speed);
      this.lengths.push(length);
      this.accelerations.push(alongAxes(this.motion.acceleration, middle.x, middle.y));
      this.tops.push(this.curveSpeed(middle));
    }
    [this.dx, this.dy] = [last.to.x, last.to.y];
    this.leaving = this.curveSpeed(last.to);
  }

  /** The speed at which the acceleration across the path is that of the axes. */
  private curveSpeed({ x, y, curvature }: Place): number {
    const top = Math.min(this.motion.speed, alongAxes(this.motion.axisSpeed, x, y));
    if (curvature < 1e-9) return top;
    return Math.min(top, Math.sqrt(alongAxes(this.motion.acceleration, y, x) / curvature));
  }

  /** The speed through the corner between where the path has come to and a direction. */
  private cornerSpeed(x: number, y: number): number {
    const { acceleration, cornerMm } = this.motion;
    const turn = turned({ x: this.dx, y: this.dy }, { x, y });
    if (turn < SMOOTH) return Number.POSITIVE_INFINITY;
    const half = Math.cos(turn / 2);
    const [cx, cy] = [x - this.dx, y - this.dy];
    const across = Math.hypot(cx, cy);
    return Math.sqrt((alongAxes(acceleration, cx / across, cy / across) * cornerMm * half) / (1 - half));
  }
}

/** A place of a segment: its direction, how fast the point goes with its parameter, in mm, and the curvature, in 1/mm, without sign. */
type Place = {
  readonly t: number;
  readonly x: number;
  readonly y: number;
  readonly going: number;
  readonly curvature: number;
};

/** A piece that turns little: where it begins, its middle, where it ends, and its length in mm. */
type Span = { readonly from: Place; readonly middle: Place; readonly to: Place; readonly length: number };

/** Slower than this, in mm, a point hardly goes with its parameter: its direction is asked around it. */
const STANDING_MM = 1e-9;

function placeAt(s: Quadratic | Cubic, t: number): Place {
  const d = derivativeAt(s, t);
  const going = Math.sqrt(d.x * d.x + d.y * d.y);
  if (going < STANDING_MM) return { t, ...tangentAt(s, t), going, curvature: 0 };
  const e = secondDerivativeAt(s, t);
  const curvature = Math.abs(d.x * e.y - d.y * e.x) / (going * going * going);
  return { t, x: d.x / going, y: d.y / going, going, curvature };
}

function placeOfArc({ x0, y0, cx, cy, sweep }: Extract<Segment, { kind: 'arc' }>, t: number): Place {
  const [cos, sin] = [Math.cos(sweep * t), Math.sin(sweep * t)];
  const [dx, dy] = [x0 - cx, y0 - cy];
  const radius = Math.sqrt(dx * dx + dy * dy);
  const by = sweep < 0 ? -1 / radius : 1 / radius;
  const [x, y] = [-by * (sin * dx + cos * dy), by * (cos * dx - sin * dy)];
  return { t, x, y, going: radius * Math.abs(sweep), curvature: 1 / radius };
}

/** How far directions are apart: the chord of the angle between them, which is that angle where it is small. */
function apart(a: Place, b: Place): number {
  const [dx, dy] = [a.x - b.x, a.y - b.y];
  return Math.sqrt(dx * dx + dy * dy);
}

/** A segment piece by piece: halved until each turns little; none where it is shorter than can be run. Lengths by Simpson’s rule. */
function spansOf(s: Segment): Span[] {
  if (s.kind === 'line') {
    const [dx, dy] = [s.x1 - s.x0, s.y1 - s.y0];
    const length = Math.sqrt(dx * dx + dy * dy);
    if (!(length > SHORTEST_MM)) return [];
    const all = { t: 0, x: dx / length, y: dy / length, going: length, curvature: 0 };
    return [{ from: all, middle: all, to: all, length }];
  }
  const at = s.kind === 'arc' ? (t: number) => placeOfArc(s, t) : (t: number) => placeAt(s, t);
  const spans: Span[] = [];
  const take = (from: Place, middle: Place, to: Place): void => {
    const length = ((to.t - from.t) * (from.going + 4 * middle.going + to.going)) / 6;
    if (length > 0) spans.push({ from, middle, to, length });
  };
  const halve = (from: Place, to: Place, depth: number): void => {
    const middle = at((from.t + to.t) / 2);
    if (depth > 0 && (apart(from, middle) + apart(middle, to) > TURN || depth > MOST_HALVED - FEWEST_HALVED)) {
      halve(from, middle, depth - 1);
      halve(middle, to, depth - 1);
    } else take(from, middle, to);
  };
  halve(at(0), at(1), MOST_HALVED);
  return spans.reduce((sum, { length }) => sum + length, 0) > SHORTEST_MM ? spans : [];
}

/** The angle between two directions, in radians. */
const turned = (a: Point, b: Point): number => Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y));

/** Seconds from rest to rest along segments that join. */
export function runSeconds(segments: readonly Segment[], motion: Motion): number {
  const pieces = new Pieces(motion);
  for (const s of segments) pieces.add(s);
  const { lengths, accelerations, tops, limits } = pieces;
  const n = lengths.length;
  if (n === 0) return 0;
  // From the end: squares of the speeds from which one can still slow down in time.
  const squares = new Float64Array(n + 1);
  for (let i = n - 1; i >= 0; i--) {
    const most = i === 0 ? 0 : numberAt(limits, i);
    squares[i] = Math.min(most * most, floatAt(squares, i + 1) + 2 * numberAt(accelerations, i) * numberAt(lengths, i));
  }
  let seconds = 0;
  for (let i = 0; i < n; i++) {
    const [length, a, top] = [numberAt(lengths, i), numberAt(accelerations, i), numberAt(tops, i)];
    squares[i + 1] = Math.min(floatAt(squares, i + 1), floatAt(squares, i) + 2 * a * length);
    seconds += pieceSeconds(Math.sqrt(floatAt(squares, i)), Math.sqrt(floatAt(squares, i + 1)), { length, a, top });
  }
  return seconds;
}

/**
 * Seconds over a length from one speed to another: up to the top or as far as there is room, and down again. In a curve the top is that of its
 * middle, which is its mean where it is gone through as fast as it may be.
 */
function pieceSeconds(
  entering: number,
  leaving: number,
  { length, a, top }: { readonly length: number; readonly a: number; readonly top: number },
): number {
  const [from, to] = [Math.min(entering, top), Math.min(leaving, top)];
  const peak = Math.sqrt((from * from + to * to) / 2 + a * length);
  if (peak <= top) return (2 * peak - from - to) / a;
  const even = length - (2 * top * top - from * from - to * to) / (2 * a);
  return (2 * top - from - to) / a + even / top;
}

/** Seconds from rest to rest along a path. */
export const pathSeconds = ({ segments }: Path, motion: Motion): number => runSeconds(segments, motion);
