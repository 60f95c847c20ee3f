/** What the outline of a letter tells about the middle of its strokes. */
import { floatAt, numberAt } from '../../geometry/elements';
import type { Samples } from '../../geometry/medial';
import type { AxisPoint } from './skeleton';
import type { TrackPoint } from './track';

/** A contact is held where the outline turns inwards by this much within this many radii either way. */
const HELD_TURN = (35 * Math.PI) / 180;
const HELD_WITHIN = 0.3;
/** Edges of one stroke turn by no more than this from one contact to the next, or there is a corner. */
export const CORNER_TURN = (25 * Math.PI) / 180;
/** Samples around a tip at most. */
const MOST_AROUND = 400;
/** Samples between two contacts of neighbouring discs at most. */
const MOST_BETWEEN = 200;

/** How far the outline turns at each sample, in radians, positive to the left. */
function turnsOf(s: Samples): Float64Array {
  const turns = new Float64Array(s.x.length);
  for (let i = 0; i < turns.length; i++) {
    const [p, q] = [s.previous[i] as number, s.next[i] as number];
    const [ux, uy] = [(s.x[i] as number) - (s.x[p] as number), (s.y[i] as number) - (s.y[p] as number)];
    const [vx, vy] = [(s.x[q] as number) - (s.x[i] as number), (s.y[q] as number) - (s.y[i] as number)];
    turns[i] = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  }
  return turns;
}

/** Outlines as samples, asked what a disc that touches them tells of the stroke. */
export class SampledEdges {
  private readonly turns: Float64Array;

  constructor(readonly samples: Samples) {
    this.turns = turnsOf(samples);
  }

  /** Whether the outline turns inwards at a sample as sharply as at a corner. */
  isInnerCorner(sample: number): boolean {
    return floatAt(this.turns, sample) < -HELD_TURN;
  }

  /** Whether a contact stays at an inner corner, for a disc of radius `r`. */
  isFixed(sample: number, r: number): boolean {
    const { next, previous, along, path, lengths } = this.samples;
    const length = numberAt(lengths, path[sample] as number);
    const from = along[sample] as number;
    let sum = floatAt(this.turns, sample);
    let least = sum;
    for (const step of [next, previous]) {
      let part = 0;
      for (let i = step[sample] as number; i !== sample; i = step[i] as number) {
        const d = Math.abs((along[i] as number) - from);
        if (Math.min(d, length - d) > HELD_WITHIN * r) break;
        part += floatAt(this.turns, i);
        least = Math.min(least, sum + part);
      }
      sum += part;
    }
    return Math.min(least, sum) < -HELD_TURN;
  }

  /** The middle of a stroke `r` wide on either side that has a sample on its edge. */
  inside(sample: number, r: number): TrackPoint {
    const { x, y, nx, ny } = this.samples;
    return {
      x: (x[sample] as number) + r * (nx[sample] as number),
      y: (y[sample] as number) + r * (ny[sample] as number),
      r,
      open: 0,
    };
  }

  openAt({ x, y, leftContact: left, rightContact: right }: AxisPoint): number {
    const s = this.samples;
    const [ax, ay] = [(s.x[left] as number) - x, (s.y[left] as number) - y];
    const [bx, by] = [(s.x[right] as number) - x, (s.y[right] as number) - y];
    return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }

  /** The way inside the outline along one sample after another, where there is no corner between; else null. */
  around(from: number, to: number, r: number, step: ArrayLike<number>): TrackPoint[] | null {
    const out: TrackPoint[] = [];
    for (let i = from; i !== to; i = step[i] as number) {
      if (Math.abs(floatAt(this.turns, i)) > CORNER_TURN || out.length > MOST_AROUND) return null;
      out.push(this.inside(i, r));
    }
    return out;
  }

  /** How far the outline turns outwards after one sample up to another, by the shorter way; 0 where they are far apart. */
  cornerBetween(i: number, j: number): number {
    const { next, previous } = this.samples;
    let [forth, back, sum, other] = [i, i, 0, 0];
    for (let k = 0; i !== j && k < MOST_BETWEEN; k++) {
      forth = next[forth] as number;
      sum += floatAt(this.turns, forth);
      if (forth === j) return sum;
      back = previous[back] as number;
      other += floatAt(this.turns, back);
      if (back === j) return other;
    }
    return 0;
  }

  normalsApart(i: number, j: number): number {
    const { nx, ny } = this.samples;
    const dot = (nx[i] as number) * (nx[j] as number) + (ny[i] as number) * (ny[j] as number);
    return Math.acos(Math.max(-1, Math.min(1, dot)));
  }
}
