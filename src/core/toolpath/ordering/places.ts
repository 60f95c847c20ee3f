/** The places at which stops may be begun, of all stops one after the other, with what it costs to get from one to the next. */
import { floatAt, intAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import type { Cost, Start, ToOrder } from './stops';

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
  /** Where the first is gone to from, and whether that costs nothing. */
  readonly start: Point;
  private readonly isFree: boolean;
  /** Whether any stretch of an order costs as much backwards: nothing must come first, and what is run backwards ends where it began. */
  readonly isSymmetric: boolean;
  /** Bounds of all places of each stop, where it is begun and where it is left. */
  private readonly minX: Float64Array;
  private readonly minY: Float64Array;
  private readonly maxX: Float64Array;
  private readonly maxY: Float64Array;
  /** What must come before each stop, and after it. */
  readonly before: readonly (readonly number[])[];
  readonly after: readonly (readonly number[])[];

  constructor(
    { stops, first }: ToOrder,
    { at, isFree }: Start,
    private readonly cost: Cost,
  ) {
    this.start = at;
    this.isFree = isFree;
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
    const places = stops.map(({ ways }) => ways.flatMap(({ from, to }) => [from, to]));
    const bounds = (of: (all: readonly Point[]) => number) => Float64Array.from(places, of);
    this.minX = bounds((all) => all.reduce((least, { x }) => Math.min(least, x), Infinity));
    this.minY = bounds((all) => all.reduce((least, { y }) => Math.min(least, y), Infinity));
    this.maxX = bounds((all) => all.reduce((most, { x }) => Math.max(most, x), -Infinity));
    this.maxY = bounds((all) => all.reduce((most, { y }) => Math.max(most, y), -Infinity));
    this.isSymmetric =
      first.every((list) => list.length === 0) &&
      stops.every(
        ({ ways }, i) => this.isOpen[i] === 1 || ways.every(({ from, to }) => from.x === to.x && from.y === to.y),
      );
    this.before = first;
    const after: number[][] = stops.map(() => []);
    first.forEach((list, i) => {
      for (const j of list) after[j]?.push(i);
    });
    this.after = after;
  }

  /** No less than this is what it costs to go through a stop from the place that is left to one that is gone to, wherever it is begun. */
  atLeast(i: number, left: number, next: number): number {
    const there =
      left < 0
        ? this.isFree
          ? 0
          : this.toReach(i, this.start.x, this.start.y)
        : this.toReach(i, floatAt(this.toX, left), floatAt(this.toY, left));
    return next < 0 ? there : there + this.toReach(i, floatAt(this.fromX, next), floatAt(this.fromY, next));
  }

  private toReach(i: number, x: number, y: number): number {
    const dx = Math.max(floatAt(this.minX, i) - x, 0, x - floatAt(this.maxX, i));
    const dy = Math.max(floatAt(this.minY, i) - y, 0, y - floatAt(this.maxY, i));
    return dx > 0 || dy > 0 ? this.cost(dx, dy) : 0;
  }

  /** What it costs from the place that is left to one that is gone to; -1 before the first, and after the last. */
  gap(left: number, next: number): number {
    if (next < 0) return 0;
    if (left < 0)
      return this.isFree
        ? 0
        : this.cost(floatAt(this.fromX, next) - this.start.x, floatAt(this.fromY, next) - this.start.y);
    return this.cost(
      floatAt(this.fromX, next) - floatAt(this.toX, left),
      floatAt(this.fromY, next) - floatAt(this.toY, left),
    );
  }
}
