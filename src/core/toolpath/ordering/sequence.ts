/** An order of stops with what each move of it costs: how it is begun, changed in places, and what was changed taken back. */
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { PointTree } from '../../geometry/point-tree';
import { Places } from './places';
import type { Cost, Order, Start, ToOrder } from './stops';

/** A change, to be taken back: from where on it was how, or what was turned round. */
type Change =
  | { readonly from: number; readonly stops: number[]; readonly ways: number[] }
  | { readonly turned: readonly [number, number] };

/** A way through stops in which what must come first does. */
export class Sequence {
  readonly count: number;
  readonly places: Places;
  /** The tour: stops in order, where each stands in it, and the place each begins at. */
  readonly order: Int32Array;
  protected readonly position: Int32Array;
  protected readonly place: Int32Array;
  /** What the move to each position costs; none to behind the last. */
  protected readonly edge: Float64Array;
  protected changes: Change[] | null = null;
  /** Stops in stretches that were turned round in place so far. */
  protected reversed = 0;

  constructor(toOrder: ToOrder, start: Start, cost: Cost) {
    this.places = new Places(toOrder, start, cost);
    const n = toOrder.stops.length;
    this.count = n;
    this.order = new Int32Array(n);
    this.position = new Int32Array(n);
    this.place = new Int32Array(n);
    this.edge = new Float64Array(n + 1);
    this.nearestNext();
  }

  /** Always the nearest next of what may be run by then; the first from a place that is given, or the nearest to the start. */
  nearestNext(first: number | null = null): void {
    const tree = new PointTree(this.places.fromX, this.places.fromY, false);
    const needs = Int32Array.from(this.places.before, (list) => list.length);
    const put = (i: number, isIn: boolean): void => {
      for (let p = intAt(this.places.firstPlace, i); p < intAt(this.places.firstPlace, i + 1); p++) tree.put(p, isIn);
    };
    needs.forEach((need, i) => {
      if (need === 0) put(i, true);
    });
    let next = first ?? tree.nearest(this.places.start.x, this.places.start.y);
    for (let k = 0; next >= 0; k++) {
      const i = intAt(this.places.owner, next);
      this.order[k] = i;
      this.position[i] = k;
      this.place[i] = next;
      put(i, false);
      for (const j of this.places.after[i] ?? []) {
        needs[j] = intAt(needs, j) - 1;
        if (needs[j] === 0) put(j, true);
      }
      next = tree.nearest(floatAt(this.places.toX, next), floatAt(this.places.toY, next));
    }
    this.reckon(0, this.count);
  }

  /** Reckon moves from one position to another anew. */
  protected reckon(low: number, high: number): void {
    for (let k = low; k <= high && k < this.count; k++) this.edge[k] = this.gap(this.endAt(k - 1), this.placeAt(k));
  }

  /** Take over an order; what must come first is brought before what it must come before. */
  take({ order, ways }: Order): void {
    const taken = new Uint8Array(this.count);
    let k = 0;
    const visit = (i: number): void => {
      if (taken[i]) return;
      taken[i] = 1;
      for (const j of this.places.before[i] ?? []) visit(j);
      this.order[k] = i;
      this.position[i] = k++;
      this.place[i] = intAt(this.places.firstPlace, i) + (ways[i] ?? 0);
    };
    order.forEach(visit);
    this.reckon(0, this.count);
  }

  /** The tour as it is. */
  given(): Order {
    const ways = Int32Array.from(
      { length: this.count },
      (_, i) => intAt(this.place, i) - intAt(this.places.firstPlace, i),
    );
    return { order: this.order.slice(), ways };
  }

  /** What the whole tour costs. */
  total(): number {
    let sum = 0;
    for (let k = 0; k < this.count; k++) sum += floatAt(this.edge, k);
    return sum;
  }

  protected gap(left: number, next: number): number {
    return this.places.gap(left, next);
  }

  protected stopAt(k: number): number {
    return intAt(this.order, k);
  }
  /** The place run from at a position; one that is left, or gone to, is the same: it tells both ends. */
  protected placeAt(k: number): number {
    return k < 0 || k >= this.count ? -1 : intAt(this.place, intAt(this.order, k));
  }
  protected endAt(k: number): number {
    return k < 0 ? -1 : this.placeAt(k);
  }

  /** The place that a stop is run from backwards. */
  protected turned(i: number): number {
    const p = intAt(this.place, i);
    return this.places.isOpen[i] ? 2 * intAt(this.places.firstPlace, i) + 1 - p : p;
  }

  /** Keep what is changed from now on, so that it can be taken back. */
  keepChanges(): void {
    this.changes = [];
  }

  /** What was changed stays, and what comes need not be taken back. */
  letGo(): void {
    this.changes = null;
  }

  /** Take back all that was changed since it was kept. */
  takeBack(): void {
    const changes = this.changes ?? [];
    this.changes = null;
    for (let c = changes.length - 1; c >= 0; c--) {
      const change = changes[c] as Change;
      if ('turned' in change) {
        this.reverse(...change.turned);
        continue;
      }
      const { from, stops, ways } = change;
      this.put(from, stops, ways);
    }
  }

  protected put(from: number, stops: readonly number[], places: readonly number[]): void {
    if (this.changes) {
      const was = Array.from(this.order.subarray(from, from + stops.length));
      this.changes.push({ from, stops: was, ways: was.map((i) => intAt(this.place, i)) });
    }
    stops.forEach((i, k) => {
      this.order[from + k] = i;
      this.position[i] = from + k;
      this.place[i] = numberAt(places, k);
    });
    this.reckon(from, from + stops.length);
  }

  /** Turn a stretch round in place, where it costs as much backwards. */
  protected reverse(i: number, j: number): void {
    this.reversed += j - i;
    this.changes?.push({ turned: [i, j] });
    this.order.subarray(i, j + 1).reverse();
    this.edge.subarray(i + 1, j + 1).reverse();
    for (let k = i; k <= j; k++) {
      const stop = intAt(this.order, k);
      this.position[stop] = k;
      this.place[stop] = this.turned(stop);
    }
    this.reckon(i, i);
    this.reckon(j + 1, j + 1);
  }
}
