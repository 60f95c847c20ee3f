/** Places waiting to be visited, the nearest next. */
import { floatAt, intAt } from '../geometry/elements';
import type { Point } from '../geometry/point';

/** Places in the order of x, linked both ways, so that the nearest left one is found by looking outwards. */
export class NearestNext {
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private readonly before: Int32Array;
  private readonly after: Int32Array;
  private readonly ids: Int32Array;
  private readonly ranks: Int32Array;
  private readonly gone: Uint8Array;
  /** Where the last one taken stood: looking begins on both sides of it. */
  private nextLeft = -1;
  private nextRight = -1;

  /** Looking begins at `fromX`. */
  constructor(places: readonly Point[], fromX: number) {
    const n = places.length;
    const order = Int32Array.from({ length: n }, (_, i) => i);
    order.sort((a, b) => (places[a] as Point).x - (places[b] as Point).x || a - b);
    this.ids = order;
    this.ranks = new Int32Array(n);
    this.x = new Float64Array(n);
    this.y = new Float64Array(n);
    this.before = new Int32Array(n);
    this.after = new Int32Array(n);
    this.gone = new Uint8Array(n);
    order.forEach((id, k) => {
      const place = places[id] as Point;
      this.ranks[id] = k;
      this.x[k] = place.x;
      this.y[k] = place.y;
      this.before[k] = k - 1;
      this.after[k] = k + 1 < n ? k + 1 : -1;
    });
    this.nextRight = this.x.findIndex((x) => x >= fromX);
    this.nextLeft = this.nextRight < 0 ? n - 1 : this.nextRight - 1;
  }

  /** Take the one nearest to a point out, by its index; null when none is left. Its x is that of the last one taken, or `fromX`. */
  take(x: number, y: number): number | null {
    let best = -1;
    let least = Infinity;
    let leftward = this.nextLeft;
    let rightward = this.nextRight;
    while (leftward >= 0 || rightward >= 0) {
      const toLeft = this.distance(leftward, x, y);
      const toRight = this.distance(rightward, x, y);
      if (toLeft < least) {
        least = toLeft;
        best = leftward;
      }
      if (toRight < least) {
        least = toRight;
        best = rightward;
      }
      leftward = leftward < 0 ? -1 : this.onwards(intAt(this.before, leftward), x, least);
      rightward = rightward < 0 ? -1 : this.onwards(intAt(this.after, rightward), x, least);
    }
    if (best < 0) return null;
    this.unlink(best);
    this.nextLeft = intAt(this.before, best);
    this.nextRight = intAt(this.after, best);
    return intAt(this.ids, best);
  }

  /** Begin looking at another x than that of the last one taken. */
  goTo(x: number): void {
    while (this.nextRight >= 0 && floatAt(this.x, this.nextRight) < x) {
      this.nextLeft = this.nextRight;
      this.nextRight = intAt(this.after, this.nextRight);
    }
    while (this.nextLeft >= 0 && floatAt(this.x, this.nextLeft) >= x) {
      this.nextRight = this.nextLeft;
      this.nextLeft = intAt(this.before, this.nextLeft);
    }
  }

  /** Take one out by its index, visited or not. */
  drop(id: number): void {
    const k = intAt(this.ranks, id);
    if (this.gone[k]) return;
    this.unlink(k);
    if (this.nextLeft === k) this.nextLeft = intAt(this.before, k);
    if (this.nextRight === k) this.nextRight = intAt(this.after, k);
  }

  private unlink(k: number): void {
    this.gone[k] = 1;
    const [before, after] = [intAt(this.before, k), intAt(this.after, k)];
    if (before >= 0) this.after[before] = after;
    if (after >= 0) this.before[after] = before;
  }

  /** Squared distance of a place, infinite where there is none. */
  private distance(k: number, x: number, y: number): number {
    return k < 0 ? Infinity : (floatAt(this.x, k) - x) ** 2 + (floatAt(this.y, k) - y) ** 2;
  }

  /** The place itself while one there may be nearer than what was found, else -1. */
  private onwards(k: number, x: number, least: number): number {
    return k >= 0 && (floatAt(this.x, k) - x) ** 2 < least ? k : -1;
  }
}
