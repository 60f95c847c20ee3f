/** A tour through stops, with what changing it in one place gains: the moves that a search is made of. */
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { Sequence } from './sequence';
import type { Cost, Start, ToOrder } from './stops';

/** What is gained must be more than this. */
const WORTH = 1e-9;
/** Stretches longer than this are neither turned round nor changed for each other: the time would not be bounded. */
const LONGEST = 1000;
/** Where stretches cost as much backwards longer ones are turned round, with so many stops in all of them. */
const MOST_REVERSED = 60_000_000;

/** Of so many places of a stop not all are asked. */
const MANY_PLACES = 8;

/** The stops nearest to one, from the nearest on, and what the move to each costs at least. */
export type NearStops = { readonly stops: Int32Array; readonly costs: Float64Array };

/** A tour that is improved. */
export class Tour extends Sequence {
  private readonly held: Int32Array;
  /** What the best place that was looked for last costs. */
  private least = Infinity;
  private readonly waiting: number[] = [];
  private readonly isWaiting: Uint8Array;

  constructor(toOrder: ToOrder, start: Start, cost: Cost) {
    super(toOrder, start, cost);
    this.held = new Int32Array(this.count);
    this.isWaiting = new Uint8Array(this.count);
  }

  /** Look at the stop at a position again. */
  wake(k: number): void {
    if (k < 0 || k >= this.count) return;
    const i = this.stopAt(k);
    if (this.isWaiting[i]) return;
    this.isWaiting[i] = 1;
    this.waiting.push(i);
  }

  /** Look at every stop again. */
  wakeAll(): void {
    for (let k = 0; k < this.count; k++) this.wake(k);
  }

  /** Whether no stop waits to be improved. */
  get isSettled(): boolean {
    return this.waiting.length === 0;
  }

  /** Improve stops that were woken until nothing is gained any more, or so many were looked at; what was gained in all. */
  settle(near: readonly NearStops[], most = Number.POSITIVE_INFINITY): number {
    let gained = 0;
    let head = 0;
    for (; head < this.waiting.length && head < most; head++) {
      const i = numberAt(this.waiting, head);
      this.isWaiting[i] = 0;
      for (let more = this.improve(i, near); more > 0; more = this.improve(i, near)) gained += more;
    }
    this.waiting.splice(0, head);
    return gained;
  }

  /** The first change about a stop that gains anything, made; what it gained, 0 for none. */
  private improve(i: number, near: readonly NearStops[]): number {
    const at = intAt(this.position, i);
    const begun = this.begin(at);
    if (begun > 0) {
      for (const touched of [at - 1, at, at + 1]) this.wake(touched);
      return begun;
    }
    const [before, behind] = [floatAt(this.edge, at), floatAt(this.edge, at + 1)];
    const { stops, costs } = near[i] as NearStops;
    for (let k = 0; k < stops.length; k++) {
      // A move to it that costs no less than the one it would take the place of gains nothing here: it may from the other side.
      const cost = floatAt(costs, k);
      if (cost >= before && cost >= behind) return 0;
      const other = intAt(stops, k);
      const q = intAt(this.position, other);
      const [low, high] = [Math.min(at, q), Math.max(at, q)];
      const moved =
        this.insert(i, q) ||
        this.insert(i, q - 1) ||
        (cost < behind ? this.insert(other, at) || this.turn(low + 1, high) : 0) ||
        (cost < before ? this.insert(other, at - 1) || this.turn(low, high - 1) : 0);
      if (moved > 0) return moved;
      // From the lower to the higher in one move, or back.
      const [isOn, isBack] = at < q ? [cost < behind, cost < before] : [cost < before, cost < behind];
      for (let length = 2; length <= 3; length++) {
        const swapped =
          (isOn ? this.swap(low + 1, high, high + length - 1) || this.swap(low - length + 1, low + 1, high - 1) : 0) ||
          (isBack ? this.swap(low, high - length + 1, high) || this.swap(low, low + length, high) : 0);
        if (swapped > 0) return swapped;
      }
    }
    return 0;
  }

  /**
   * The place of a stop that costs least between two others, and less than `under`, which is what `least` is else. Of many places, which go
   * round an outline, every other one is asked first, and then those beside the best of these.
   */
  private bestPlace(i: number, left: number, next: number, under = Infinity): number {
    const [first, end] = [intAt(this.places.firstPlace, i), intAt(this.places.firstPlace, i + 1)];
    const step = end - first < MANY_PLACES ? 1 : 2;
    let best = -1;
    this.least = under;
    for (let p = first; p < end; p += step) if (this.isBetter(p, left, next)) best = p;
    if (step === 1 || best < 0) return best;
    for (const p of [best > first ? best - 1 : end - 1, best + 1 < end ? best + 1 : first])
      if (this.isBetter(p, left, next)) best = p;
    return best;
  }

  /** Whether a place costs less than `least` between two others, which is what it costs then. */
  private isBetter(p: number, left: number, next: number): boolean {
    const there = this.places.gap(left, p);
    if (there >= this.least) return false;
    const cost = there + this.places.gap(p, next);
    if (cost >= this.least) return false;
    this.least = cost;
    return true;
  }

  /** Put a stop right behind position k, begun where that is best (Or 1976). */
  private insert(i: number, k: number): number {
    const p = intAt(this.position, i);
    if (k === p || k === p - 1 || Math.abs(k - p) > 4 * LONGEST) return 0;
    const left = this.endAt(k);
    const next = this.placeAt(k + 1);
    // Without it the tour costs less by what leads to it and away from it, and where it goes to what was there.
    const out = floatAt(this.edge, p) + floatAt(this.edge, p + 1) + floatAt(this.edge, k + 1);
    if (!(out - this.places.atLeast(i, left, next) >= WORTH)) return 0;
    const saved = out - this.gap(this.endAt(p - 1), this.placeAt(p + 1));
    // Cheaper to know than the best place: nothing gains more than all that is saved.
    if (!(saved >= WORTH)) return 0;
    const best = this.bestPlace(i, left, next, saved - WORTH);
    if (best < 0) return 0;
    const gain = saved - this.least;
    const [low, high] = [Math.min(p, k + 1), Math.max(p, k)];
    if (k > p) {
      for (const j of this.places.after[i] ?? [])
        if (intAt(this.position, j) > p && intAt(this.position, j) <= k) return 0;
    } else
      for (const j of this.places.before[i] ?? [])
        if (intAt(this.position, j) > k && intAt(this.position, j) < p) return 0;
    const stops: number[] = [];
    const places: number[] = [];
    const push = (j: number, place: number): void => {
      stops.push(j);
      places.push(place);
    };
    if (k < p) push(i, best);
    for (let m = low; m <= high; m++) {
      const j = this.stopAt(m);
      if (j !== i) push(j, intAt(this.place, j));
    }
    if (k > p) push(i, best);
    this.put(low, stops, places);
    for (const touched of [low - 1, low, low + 1, high - 1, high, high + 1]) this.wake(touched);
    return gain;
  }

  /**
   * Turn the stretch from i to j round (2-opt, Croes 1958). A stop that would come before what must come first is held back until the last
   * of that is out; the whole is priced anew.
   */
  private turn(i: number, j: number): number {
    const { isSymmetric } = this.places;
    if (j <= i || i < 0 || j >= this.count || (j - i > LONGEST && (!isSymmetric || this.reversed > MOST_REVERSED)))
      return 0;
    const left = this.endAt(i - 1);
    const next = this.placeAt(j + 1);
    const head = this.turned(this.stopAt(j));
    const tail = this.turned(this.stopAt(i));
    const removed = floatAt(this.edge, i) + floatAt(this.edge, j + 1) - WORTH;
    const first = this.gap(left, head);
    if (!(first <= removed) || !(first + this.gap(tail, next) <= removed)) return 0;
    if (isSymmetric) {
      this.reverse(i, j);
      return removed + WORTH - first - this.gap(tail, next) + this.joined([i, j + 1]);
    }
    const stops: number[] = [];
    const places: number[] = [];
    const isWithin = (k: number): boolean => k >= i && k <= j;
    const out = (stop: number): void => {
      stops.push(stop);
      places.push(this.turned(stop));
      for (const later of this.places.after[stop] ?? []) {
        if (intAt(this.held, later) > 0) {
          this.held[later] = intAt(this.held, later) - 1;
          if (this.held[later] === 0 && isWithin(intAt(this.position, later))) out(later);
        }
      }
    };
    for (let k = j; k >= i; k--) {
      const stop = this.stopAt(k);
      let needs = 0;
      for (const prior of this.places.before[stop] ?? []) if (isWithin(intAt(this.position, prior))) needs++;
      if (needs > 0) this.held[stop] = needs;
      else out(stop);
    }
    let [was, now, at] = [0, 0, left];
    for (let k = i; k <= j + 1; k++) was += floatAt(this.edge, k);
    for (const place of places) {
      now += this.gap(at, place);
      at = place;
    }
    now += this.gap(at, next);
    if (!(now <= was - WORTH)) return 0;
    return this.change(i, { stops, places }, was - now, [i, j + 1]);
  }

  /** Change the stretches from i up to m, and from m to j, for each other; whatever it costs where it is forced, which yields -Infinity where it may not be. */
  swap(i: number, m: number, j: number, isForced = false): number {
    const refused = isForced ? Number.NEGATIVE_INFINITY : 0;
    if (i < 0 || j >= this.count || m <= i || m > j || j - i > 4 * LONGEST) return refused;
    const left = this.endAt(i - 1);
    const next = this.placeAt(j + 1);
    const a = this.placeAt(i);
    const aEnd = this.placeAt(m - 1);
    const b = this.placeAt(m);
    const bEnd = this.placeAt(j);
    const removed = floatAt(this.edge, i) + floatAt(this.edge, m) + floatAt(this.edge, j + 1);
    // Looked at no longer than something may be gained; written so that what is no number is no gain.
    const worth = isForced ? Infinity : removed - WORTH;
    let added = this.gap(bEnd, a);
    if (!(added <= worth)) return 0;
    added += this.gap(left, b);
    if (!(added <= worth)) return 0;
    added += this.gap(aEnd, next);
    if (!(added <= worth)) return 0;
    const gain = removed - added;
    // Looked at from the shorter of the two.
    if (m - i <= j - m) {
      for (let k = i; k < m; k++)
        for (const later of this.places.after[this.stopAt(k)] ?? []) {
          const at = intAt(this.position, later);
          if (at >= m && at <= j) return refused;
        }
    } else {
      for (let k = m; k <= j; k++)
        for (const prior of this.places.before[this.stopAt(k)] ?? []) {
          const at = intAt(this.position, prior);
          if (at >= i && at < m) return refused;
        }
    }
    const x = i + j - m;
    if (this.places.isSymmetric) {
      // All turned round, then each of the two by itself.
      this.reverse(i, j);
      this.reverse(i, x);
      this.reverse(x + 1, j);
      return gain + this.joined([i, x + 1, j + 1]);
    }
    const stops = [...this.order.subarray(m, j + 1), ...this.order.subarray(i, m)];
    const places = stops.map((s) => intAt(this.place, s));
    return this.change(i, { stops, places }, gain, [i, x + 1, j + 1]);
  }

  /** Put stops in from a position on, and begin those at the joints where that is best then. What it gains in all. */
  private change(
    from: number,
    { stops, places }: { readonly stops: readonly number[]; readonly places: readonly number[] },
    gain: number,
    joints: readonly number[],
  ): number {
    this.put(from, stops, places);
    return gain + this.joined(joints);
  }

  /** Begin stops at joints that were made where that is best then, and look at them again; what that gained. */
  private joined(joints: readonly number[]): number {
    let sum = 0;
    for (const joint of joints) {
      sum += this.begin(joint) + this.begin(joint - 1);
      for (const touched of [joint - 2, joint - 1, joint, joint + 1]) this.wake(touched);
    }
    return sum;
  }

  /** Begin the stop at a position at the best of its places; what that gained. */
  private begin(k: number): number {
    if (k < 0 || k >= this.count) return 0;
    const i = this.stopAt(k);
    if (intAt(this.places.firstPlace, i + 1) - intAt(this.places.firstPlace, i) < 2) return 0;
    const left = this.endAt(k - 1);
    const next = this.placeAt(k + 1);
    const best = this.bestPlace(i, left, next);
    const gain = floatAt(this.edge, k) + floatAt(this.edge, k + 1) - this.least;
    if (!(gain >= WORTH)) return 0;
    this.put(k, [i], [best]);
    return gain;
  }

  /** The best places to begin at, of the stops from one position to another, with their order and all others as they are: the shortest way through all of them (dynamic programming). What it gained. */
  beginBest(low = 0, high = this.count - 1): number {
    if (high < low) return 0;
    const next = this.placeAt(high + 1);
    let was = 0;
    for (let k = low; k <= high + 1; k++) was += floatAt(this.edge, k);
    let costs: number[] = [];
    const back: Int32Array[] = [];
    for (let k = low; k <= high; k++) {
      const i = this.stopAt(k);
      const [from, to] = [intAt(this.places.firstPlace, i), intAt(this.places.firstPlace, i + 1)];
      const here: number[] = [];
      const came = new Int32Array(to - from);
      const prior = k === low ? -1 : intAt(this.places.firstPlace, this.stopAt(k - 1));
      for (let p = from; p < to; p++) {
        let least = k === low ? this.gap(this.endAt(k - 1), p) : Infinity;
        for (let q = 0; k > low && q < costs.length; q++) {
          const cost = numberAt(costs, q) + this.gap(prior + q, p);
          if (cost < least) [least, came[p - from]] = [cost, q];
        }
        here.push(k === high && next >= 0 ? least + this.gap(p, next) : least);
      }
      costs = here;
      back.push(came);
    }
    let best = costs.reduce((b, cost, p) => (cost < numberAt(costs, b) ? p : b), 0);
    const gain = was - numberAt(costs, best);
    if (!(gain >= WORTH)) return 0;
    const places: number[] = [];
    for (let k = high; k >= low; k--) {
      places.push(intAt(this.places.firstPlace, this.stopAt(k)) + best);
      best = intAt(back[k - low] as Int32Array, best);
    }
    this.put(low, Array.from(this.order.subarray(low, high + 1)), places.reverse());
    return gain;
  }
}
