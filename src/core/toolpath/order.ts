/** The order paths of one operation run in: inside before outside, and near ones after each other. */
import type { MeasuredPath } from '../geometry/nesting';

/** Places in the order of x, linked both ways, so that the nearest left one is found by looking outwards. */
class Waiting {
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private readonly before: Int32Array;
  private readonly after: Int32Array;
  private readonly ids: readonly number[];
  /** Where the last one taken stood: looking begins on both sides of it. */
  private left = -1;
  private right = -1;

  /** Looking begins at `fromX`. */
  constructor(ids: readonly number[], paths: readonly MeasuredPath[], fromX: number) {
    const places = ids.map((id) => {
      const start = paths[id]?.path.segments[0];
      return { id, x: start?.x0 ?? 0, y: start?.y0 ?? 0 };
    });
    places.sort((a, b) => a.x - b.x || a.id - b.id);
    const n = places.length;
    this.ids = places.map((place) => place.id);
    this.x = new Float64Array(n);
    this.y = new Float64Array(n);
    this.before = new Int32Array(n);
    this.after = new Int32Array(n);
    places.forEach((place, k) => {
      this.x[k] = place.x;
      this.y[k] = place.y;
      this.before[k] = k - 1;
      this.after[k] = k + 1 < n ? k + 1 : -1;
    });
    this.right = this.x.findIndex((x) => x >= fromX);
    this.left = this.right < 0 ? this.ids.length - 1 : this.right - 1;
  }

  /** Take the one nearest to a point out; null when none is left. Its x is that of the last one taken, or `fromX`. */
  take(x: number, y: number): number | null {
    let best = -1;
    let least = Infinity;
    let left = this.left;
    let right = this.right;
    while (left >= 0 || right >= 0) {
      const toLeft = this.distance(left, x, y);
      const toRight = this.distance(right, x, y);
      if (toLeft < least) {
        least = toLeft;
        best = left;
      }
      if (toRight < least) {
        least = toRight;
        best = right;
      }
      left = left < 0 ? -1 : this.onwards(this.before[left] as number, x, least);
      right = right < 0 ? -1 : this.onwards(this.after[right] as number, x, least);
    }
    if (best < 0) return null;
    this.left = this.before[best] as number;
    this.right = this.after[best] as number;
    if (this.left >= 0) this.after[this.left] = this.right;
    if (this.right >= 0) this.before[this.right] = this.left;
    return this.ids[best] as number;
  }

  /** Squared distance of a place, infinite where there is none. */
  private distance(k: number, x: number, y: number): number {
    return k < 0 ? Infinity : ((this.x[k] as number) - x) ** 2 + ((this.y[k] as number) - y) ** 2;
  }

  /** The place itself while one there may be nearer than what was found, else -1. */
  private onwards(k: number, x: number, least: number): number {
    return k >= 0 && ((this.x[k] as number) - x) ** 2 < least ? k : -1;
  }
}

/**
 * Indices of closed paths in running order. What lies in a path comes before it; among equals the nearest start is
 * taken next (greedy, from the origin). `parent` is the index of the smallest path around each, or -1.
 */
export function insideFirst(paths: readonly MeasuredPath[], parent: readonly number[]): number[] {
  const children = new Map<number, number[]>();
  paths.forEach(({ path }, i) => {
    if (path.segments.length === 0) return;
    const around = parent[i] as number;
    const siblings = children.get(around);
    if (siblings) siblings.push(i);
    else children.set(around, [i]);
  });
  const order: number[] = [];
  let x = 0;
  let y = 0;
  const visit = (around: number) => {
    const inside = children.get(around);
    if (!inside) return;
    const waiting = new Waiting(inside, paths, x);
    for (let next = waiting.take(x, y); next !== null; next = waiting.take(x, y)) {
      visit(next);
      order.push(next);
      const start = paths[next]?.path.segments[0];
      x = start?.x0 ?? x;
      y = start?.y0 ?? y;
    }
  };
  visit(-1);
  return order;
}
