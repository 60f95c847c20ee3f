/** Places along a path by their length from its start. */
import { numberAt } from './elements';
import { joinedExactly, type OnPath, type Path } from './path';
import type { Point } from './point';
import { pointAt, type Segment, subSegment, tangentAt } from './segment';
import { segmentLength } from './segment-measures';

/** A line with its arc length at every segment, so that places along it are found fast. */
export type MeasuredLine = {
  readonly length: number;
  /** Length from the start up to each segment. */
  readonly starts: readonly number[];
  /** The point at a length from the start, in mm; those beyond the ends are the ends. */
  readonly at: (length: number) => Point;
  /** The length from the start to a place on it, in mm. */
  readonly lengthTo: (place: OnPath) => number;
  /** What lies between two lengths within it, as an open path. */
  readonly between: (from: number, to: number) => Path;
};

/** Pieces of a segment shorter than this share of it are none. */
const WHOLE = 1e-9;
/** Halvings that bring a place along a curve below the rounding of coordinates. */
const HALVINGS = 40;

/** The parameter at which a segment is so long, to about 1e-6 of it. */
function parameterAt(s: Segment, length: number, whole: number): number {
  if (s.kind === 'line' || s.kind === 'arc') return length / whole;
  let [low, high] = [0, 1];
  let t = length / whole;
  for (let k = 0; k < HALVINGS && high - low > 1e-9; k++) {
    const here = segmentLength(subSegment(s, 0, t));
    if (Math.abs(here - length) < 1e-7 * whole) return t;
    if (here < length) low = t;
    else high = t;
    // The secant first, halving where that leaves the bracket.
    const next = t + (length - here) / whole;
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return t;
}

/** A path measured: its segments, the length up to each, and its whole length. */
export function measureLine(path: Path): MeasuredLine {
  const lengths = path.segments.map(segmentLength);
  const starts: number[] = [];
  let length = 0;
  for (const l of lengths) {
    starts.push(length);
    length += l;
  }
  const placeAt = (from: number): OnPath => {
    let i = starts.length - 1;
    let low = 0;
    while (low < i) {
      const middle = (low + i + 1) >> 1;
      if (numberAt(starts, middle) <= from) low = middle;
      else i = middle - 1;
    }
    const whole = numberAt(lengths, low);
    const part = Math.min(Math.max(0, from - numberAt(starts, low)), whole);
    return { segment: low, t: whole > 0 ? parameterAt(path.segments[low] as Segment, part, whole) : 0 };
  };
  const at = (from: number): Point => {
    const { segment, t } = placeAt(from);
    return pointAt(path.segments[segment] as Segment, t);
  };
  const lengthTo = ({ segment, t }: OnPath): number =>
    numberAt(starts, segment) + segmentLength(subSegment(path.segments[segment] as Segment, 0, t));
  const between = (from: number, to: number): Path => {
    const [first, last] = [placeAt(from), placeAt(to)];
    const segments = path.segments.slice(first.segment, last.segment + 1).flatMap((s, k): Segment[] => {
      const [t0, t1] = [k === 0 ? first.t : 0, first.segment + k === last.segment ? last.t : 1];
      if (t1 - t0 < WHOLE) return [];
      return [t0 === 0 && t1 > 1 - WHOLE ? s : subSegment(s, t0, t1)];
    });
    return joinedExactly({ segments, closed: false });
  };
  return { length, starts, at, lengthTo, between };
}

/** How far a path turns from one segment into the next, in radians, always positive. */
export function turnInto(before: Segment, after: Segment): number {
  const [p, q] = [tangentAt(before, 1), tangentAt(after, 0)];
  return Math.abs(Math.atan2(p.x * q.y - p.y * q.x, p.x * q.x + p.y * q.y));
}
