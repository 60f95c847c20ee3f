/** Points of which some are in and others out, the nearest that is in found quickly: a k-d tree (Bentley 1975) that knows how many are in below each node. */
import { floatAt, intAt } from './elements';

/** Points of a leaf. */
const LEAF = 8;

/** Points by their coordinates, all of them in or all out to begin with. */
export class PointTree {
  private readonly ids: Int32Array;
  /** Where each point stands in the order of the tree. */
  private readonly place: Int32Array;
  private readonly isIn: Uint8Array;
  /** How many are in below each node; nodes are numbered as in a heap. */
  private readonly alive: Int32Array;
  private readonly split: Float64Array;
  private readonly size: number;
  private best = -1;
  private least = Infinity;

  constructor(
    private readonly x: Float64Array,
    private readonly y: Float64Array,
    areIn: boolean,
  ) {
    const n = x.length;
    this.size = n;
    this.ids = Int32Array.from({ length: n }, (_, i) => i);
    this.place = new Int32Array(n);
    this.isIn = new Uint8Array(n);
    let nodes = 1;
    while (nodes * LEAF < n) nodes *= 2;
    this.alive = new Int32Array(2 * nodes);
    this.split = new Float64Array(2 * nodes);
    if (n > 0) this.build(1, 0, n, 0);
    this.ids.forEach((id, k) => {
      this.place[id] = k;
    });
    if (areIn) for (let i = 0; i < n; i++) this.put(i, true);
  }

  /** Take a point in or out. */
  put(id: number, isIn: boolean): void {
    if (this.isIn[id] === (isIn ? 1 : 0)) return;
    this.isIn[id] = isIn ? 1 : 0;
    const by = isIn ? 1 : -1;
    const at = intAt(this.place, id);
    let [node, from, to] = [1, 0, this.size];
    for (;;) {
      this.alive[node] = intAt(this.alive, node) + by;
      if (to - from <= LEAF || 2 * node >= this.alive.length) return;
      const middle = (from + to) >> 1;
      if (at < middle) [node, to] = [2 * node, middle];
      else [node, from] = [2 * node + 1, middle];
    }
  }

  /** The nearest that is in, by its index; -1 where none is. */
  nearest(x: number, y: number): number {
    this.best = -1;
    this.least = Infinity;
    if (this.size > 0) this.look({ node: 1, from: 0, to: this.size, axis: 0 }, x, y);
    return this.best;
  }

  private look(
    { node, from, to, axis }: { node: number; from: number; to: number; axis: 0 | 1 },
    x: number,
    y: number,
  ): void {
    if (this.alive[node] === 0) return;
    if (to - from <= LEAF || 2 * node >= this.alive.length) {
      for (let k = from; k < to; k++) {
        const id = intAt(this.ids, k);
        if (!this.isIn[id]) continue;
        const far = (floatAt(this.x, id) - x) ** 2 + (floatAt(this.y, id) - y) ** 2;
        // Of those as near the first, so that the same points give the same answer.
        if (far < this.least || (far === this.least && id < this.best)) [this.least, this.best] = [far, id];
      }
      return;
    }
    const middle = (from + to) >> 1;
    const off = (axis === 0 ? x : y) - floatAt(this.split, node);
    const other: 0 | 1 = axis === 0 ? 1 : 0;
    const low = { node: 2 * node, from, to: middle, axis: other };
    const high = { node: 2 * node + 1, from: middle, to, axis: other };
    this.look(off < 0 ? low : high, x, y);
    if (off * off <= this.least) this.look(off < 0 ? high : low, x, y);
  }

  private build(node: number, from: number, to: number, axis: 0 | 1): void {
    if (to - from <= LEAF || 2 * node >= this.alive.length) return;
    const by = axis === 0 ? this.x : this.y;
    this.ids.subarray(from, to).sort((a, b) => floatAt(by, a) - floatAt(by, b) || a - b);
    const middle = (from + to) >> 1;
    this.split[node] = floatAt(by, intAt(this.ids, middle));
    const other: 0 | 1 = axis === 0 ? 1 : 0;
    this.build(2 * node, from, middle, other);
    this.build(2 * node + 1, middle, to, other);
  }
}
