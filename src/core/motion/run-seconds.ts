/**
 * How long a machine runs along a path without a stop: as fast as asked, slower in curves so that neither axis has more acceleration across
 * the path than its own, and at corners by how far these may be cut (the radius of the arc that touches both sides at that distance from the corner);
 * looking ahead over the whole path, so that it can slow down in time (a pass from the end and one from the start).
 */
import { floatAt, numberAt } from '../geometry/elements';
import type { Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import { curvatureAt, derivativeAt, type Segment, tangentAt } from '../geometry/segment';
import { segmentLength } from '../geometry/segment-measures';
import { alongAxes, type Motion } from './machine-motion';

/** Curves are looked at in pieces that turn by no more than this, in radians, halved so often at least, and at most. */
const TURN = Math.PI / 60;
const FEWEST_HALVED = 1;
const MOST_HALVED = 9;
/** Turns smaller than this are none, in radians: what is joined smoothly is gone through without slowing. */
const SMOOTH = 1e-3;

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
    const first = tangentAt(s, 0);
    const corner = this.lengths.length === 0 ? 0 : this.cornerSpeed(first.x, first.y);
    const stops = s.kind === 'line' ? [0, 1] : stopsWithin(s);
    const whole = segmentLength(s);
    if (!(whole > 1e-9)) return;
    const spans = lengthsBetween(s, stops, whole);
    spans.forEach((length, k) => {
      const [t, next] = [numberAt(stops, k), numberAt(stops, k + 1)];
      const from = this.curveSpeed(s, t);
      this.limits.push(k === 0 ? Math.min(corner, from, this.leaving) : from);
      const { x, y } = tangentAt(s, (t + next) / 2);
      this.lengths.push(length);
      this.accelerations.push(alongAxes(this.motion.acceleration, x, y));
      this.tops.push(this.curveSpeed(s, (t + next) / 2));
    });
    const last = tangentAt(s, 1);
    [this.dx, this.dy] = [last.x, last.y];
    this.leaving = this.curveSpeed(s, 1);
  }

  private straightTop(x: number, y: number): number {
    return Math.min(this.motion.speed, alongAxes(this.motion.axisSpeed, x, y));
  }

  /** The speed at which the acceleration across the path is that of the axes. */
  private curveSpeed(s: Segment, t: number): number {
    const curvature = Math.abs(curvatureAt(s, t));
    const { x, y } = tangentAt(s, t);
    if (curvature < 1e-9) return this.straightTop(x, y);
    return Math.min(this.straightTop(x, y), Math.sqrt(alongAxes(this.motion.acceleration, y, x) / curvature));
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

/** Where a curve is looked at piece by piece, as parameters from 0 to 1: halved until each piece turns little. */
function stopsWithin(s: Segment): number[] {
  const stops = [0];
  const halve = (from: number, to: number, depth: number): void => {
    const middle = (from + to) / 2;
    const way = tangentAt(s, middle);
    const turn = turned(tangentAt(s, from), way) + turned(way, tangentAt(s, to));
    if (depth > 0 && (turn > TURN || depth > MOST_HALVED - FEWEST_HALVED)) {
      halve(from, middle, depth - 1);
      halve(middle, to, depth - 1);
    } else stops.push(to);
  };
  halve(0, 1, MOST_HALVED);
  return stops;
}

/** The angle between two directions, in radians. */
const turned = (a: Point, b: Point): number => Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y));

/** Lengths between parameters, by Simpson’s rule, brought to the whole. */
function lengthsBetween(s: Segment, stops: readonly number[], whole: number): number[] {
  if (s.kind === 'line' || s.kind === 'arc') return stops.slice(1).map((t, k) => (t - numberAt(stops, k)) * whole);
  const speed = (t: number): number => {
    const { x, y } = derivativeAt(s, t);
    return Math.hypot(x, y);
  };
  const spans = stops.slice(1).map((to, k) => {
    const from = numberAt(stops, k);
    return ((to - from) * (speed(from) + 4 * speed((from + to) / 2) + speed(to))) / 6;
  });
  const sum = spans.reduce((a, b) => a + b, 0);
  return spans.map((length) => (length * whole) / sum);
}

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
