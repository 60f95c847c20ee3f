/** The places at which stops may be begun, of all stops one after the other, with what it costs to get from one to the next. */
import { floatAt, intAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import type { Cost, ToOrder } from './stops';

/** Places of stops by number: a place tells where a stop is then begun, and where it is left. */
export class Places {
  /** Places of stop i: from firstPlace[i] up to firstPlace[i + 1]. */
  readonly firstPlace: Int32Array;
  readonly fromX: Float64Array;
  readonly fromY: Float64Array;
  readonly toX: Float64Array;
  readonly toY: Float64Array;
  /** Which stop each place is of, and whether a stop may be run backwards. */
  readonly owner: Int32Array;
  readonly isOpen: Uint8Array;
  /** What must come before each stop, and after it. */
  readonly before: readonly (readonly number[])[];
  readonly after: readonly (readonly number[])[];

  constructor(
    { stops, first }: ToOrder,
    readonly start: Point,
    private readonly cost: Cost,
  ) {
    this.firstPlace = new Int32Array(stops.length + 1);
    stops.forEach((stop, i) => {
      this.firstPlace[i + 1] = intAt(this.firstPlace, i) + stop.ways.length;
    });
    const count = intAt(this.firstPlace, stops.length);
    [this.fromX, this.fromY] = [new Float64Array(count), new Float64Array(count)];
    [this.toX, this.toY] = [new Float64Array(count), new Float64Array(count)];
    this.owner = new Int32Array(count);
    this.isOpen = Uint8Array.from(stops, (s) => (s.isOpen && s.ways.length === 2 ? 1 : 0));
    stops.forEach(({ ways }, i) => {
      ways.forEach(({ from, to }, k) => {
        const p = intAt(this.firstPlace, i) + k;
        [this.fromX[p], this.fromY[p], this.toX[p], this.toY[p]] = [from.x, from.y, to.x, to.y];
        this.owner[p] = i;
      });
    });
    this.before = first;
    const after: number[][] = stops.map(() => []);
    first.forEach((list, i) => {
      for (const j of list) after[j]?.push(i);
    });
    this.after = after;
  }

  /** What it costs from the place that is left to one that is gone to; -1 before the first, and after the last. */
  gap(left: number, next: number): number {
    if (next < 0) return 0;
    if (left < 0) return this.cost(floatAt(this.fromX, next) - this.start.x, floatAt(this.fromY, next) - this.start.y);
    return this.cost(
      floatAt(this.fromX, next) - floatAt(this.toX, left),
      floatAt(this.fromY, next) - floatAt(this.toY, left),
    );
  }
}
