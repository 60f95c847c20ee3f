/**
 * Jogs taken out of strokes: where what is known of the middle passes from both edges to one, or from one track to the next, a
 * stroke may step aside by a little. No pen does: where it runs on in the same direction past such a step, the points about
 * it are left out, and the fitted curve runs through.
 */
import { numberAt } from '../../geometry/elements';
import { distance } from '../../geometry/point';
import type { StrokePoint } from './chain';

/** A step aside is no longer than this, in halves of the stroke. */
const STEP = 0.7;
/** It turns this far from the way before and after, which are told over this many halves and turn no further, in radians. */
const ASIDE = (24 * Math.PI) / 180;
const TELLING = 1;
const GOES_ON = (40 * Math.PI) / 180;
/** Points this near to it are left out, in halves. */
const ROOM = 0.6;
/** A stretch longer than this is no jog, in halves. */
const MOST = 2;

/** The points of a stroke by their numbers, which go on round where it is closed, with the way and distance from each to the next. */
class Points {
  readonly count: number;
  private readonly steps: readonly number[];
  private readonly ways: readonly number[];

  constructor(
    private readonly points: readonly StrokePoint[],
    private readonly closed: boolean,
    private readonly half: number,
  ) {
    this.count = points.length;
    const hasNext = (i: number) => closed || i + 1 < this.count;
    this.steps = points.map((p, i) => (hasNext(i) ? distance(p, this.at(i + 1)) : 0));
    this.ways = points.map((p, i) => (hasNext(i) ? angleOf(p, this.at(i + 1)) : 0));
  }

  at(i: number): StrokePoint {
    return this.points[this.numberOf(i)] as StrokePoint;
  }

  /** Where among the points a number is, however often it has gone round. */
  numberOf(i: number): number {
    return ((i % this.count) + this.count) % this.count;
  }

  isWithin(i: number): boolean {
    return this.closed || (i >= 0 && i < this.count);
  }

  /** Whether the stroke bends enough at a point for a jog to begin there. */
  bends(i: number): boolean {
    if (!this.isWithin(i - 1) || this.at(i).corner) return false;
    const [before, here] = [numberAt(this.ways, this.numberOf(i - 1)), numberAt(this.ways, i)];
    return Math.abs(turn(before, here)) > ASIDE / 4;
  }

  /** The direction from a stretch behind a point (-1), or to one ahead of it (1); null where the stroke ends or turns a corner. */
  direction(i: number, way: 1 | -1): number | null {
    let length = 0;
    let k = i;
    while (length < TELLING * this.half) {
      if (!this.isWithin(k + way) || Math.abs(k + way - i) > this.count / 2 || this.at(k).corner) return null;
      length += this.step(k, way);
      k += way;
    }
    return way === 1 ? angleOf(this.at(i), this.at(k)) : angleOf(this.at(k), this.at(i));
  }

  /** How long it is from a point to its neighbour ahead (1) or behind (-1). */
  step(i: number, way: 1 | -1): number {
    return numberAt(this.steps, this.numberOf(way === 1 ? i : i - 1));
  }

  /** The points at which steps aside end that begin at a point, each spread over a few points at most. */
  *jogsFrom(i: number): Generator<number> {
    const before = this.bends(i) ? this.direction(i, -1) : null;
    if (before === null) return;
    for (let k = i + 1; this.isWithin(k) && k <= i + 4; k++) {
      const [p, q] = [this.at(i), this.at(k)];
      const length = distance(p, q);
      if (length > STEP * this.half || p.corner || q.corner || length === 0) return;
      const here = angleOf(p, q);
      if (Math.abs(turn(before, here)) < ASIDE) continue;
      const after = this.direction(k, 1);
      if (after === null) return;
      if (Math.abs(turn(here, after)) >= ASIDE && Math.abs(turn(before, after)) <= GOES_ON) yield k;
    }
  }

  /** The points from one on, ahead (1) or behind (-1), that lie near it. */
  *near(from: number, way: 1 | -1): Generator<number> {
    let length = 0;
    for (let i = from; this.isWithin(i) && length < ROOM * this.half && Math.abs(i - from) < this.count / 4; i += way) {
      yield this.numberOf(i);
      length += this.step(i, way);
    }
  }
}

/** Points of a stroke `half` of whose width is as usual, without the jogs. */
export function withoutJogs(points: readonly StrokePoint[], closed: boolean, half: number): readonly StrokePoint[] {
  const n = points.length;
  if (n < 8) return points;
  const stroke = new Points(points, closed, half);
  const out = new Uint8Array(n);
  for (let i = 0; i < (closed ? n : n - 1); i++)
    for (const k of stroke.jogsFrom(i)) {
      for (const at of stroke.near(i, -1)) out[at] = 1;
      for (const at of stroke.near(k, 1)) out[at] = 1;
      for (let j = i; j <= k; j++) out[j % n] = 1;
    }
  keepLong(out, (i) => stroke.at(i), closed, MOST * half);
  const kept = points.filter((p, i) => !out[i] || p.corner || (!closed && (i === 0 || i === n - 1)));
  return kept.length > 3 ? kept : points;
}

/** Points in stretches that are longer than `most` stay. */
function keepLong(out: Uint8Array, at: (i: number) => StrokePoint, closed: boolean, most: number): void {
  const n = out.length;
  let start = 0;
  if (closed) while (start < n && out[start]) start++;
  if (start === n) out.fill(0);
  for (let k = 0; k < n; k++) {
    const first = start + k;
    if (!out[first % n]) continue;
    let [last, length] = [first, 0];
    while (last + 1 < start + n && out[(last + 1) % n]) {
      length += distance(at(last), at(last + 1));
      last++;
    }
    if (length > most) for (let j = first; j <= last; j++) out[j % n] = 0;
    k = last - start;
  }
}

const angleOf = (p: StrokePoint, q: StrokePoint): number => Math.atan2(q.y - p.y, q.x - p.x);

const turn = (a: number, b: number): number => b - a - 2 * Math.PI * Math.round((b - a) / (2 * Math.PI));
