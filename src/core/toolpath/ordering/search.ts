/**
 * The order that wastes least between stops: the nearest next, starts by dynamic programming, then stretches turned round, moved and changed
 * for each other as long as that gains anything (2-opt, Or-opt), for small jobs from several beginnings, and then by kicks: two stretches changed for each other at random, put right about them, and taken back where nothing was gained (iterated local search, Lourenço, Martin and
 * Stützle 2003). Bounded in moves, not in time, so that the same job is always run alike.
 */
import Flatbush from 'flatbush';
import { type Chance, chance } from '../../geometry/chance';
import { floatAt, intAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { exactOrder, isFew } from './exact';
import type { Cost, Order, ToOrder } from './stops';
import { type NearStops, Tour } from './tour';

/** Near stops that each is tried beside. */
const NEAR = 14;
/** Places of a stop that its near ones are looked for from: of many stops fewer. */
const LOOKED_FROM = 4;
const FEW = 1500;
/** Of so many stops in all are orders begun otherwise tried, and so many orders at most; for files by the square of the stops. */
const BEGUN = { nearest: 0, once: 0, quick: 200, short: 200, long: 1000 };
const BEGUN_SQUARED = 30_000;
const MOST_BEGUN = 24;
/** So many kicks are made for each stop, so many at least and at most, and so many to so many stops in all; for files over their square. */
const KICKS_EACH = 12;
const FEWEST_KICKS = 600;
const MOST_KICKS = 2000;
const KICKED = 90_000;
const KICKED_SQUARED = 28_000_000;
const SHORT_KICKS = 150;
/** Stretches that are changed for each other at random are this long at most. */
const KICK = 24;
/** Of those that what must come first stands against others are tried, so many. */
const TRIES = 10;
/** A change that costs more than this share of the whole is not looked at closely. */
const WORTH_A_LOOK = 1.004;
const WORTH = 1e-9;
/** Losses that are taken at first are about so large, against what lies between two stops on the mean. */
const HEAT = 0.1;
/** In a longer search so many times as large. */
const HOTTER = 6;
/** Kicks, and stops that are improved, between two looks at what else there is to do. */
const TURN = 50;
const AT_ONCE = 200;

/** How an order is searched for. */
export type Search = {
  readonly from: Point;
  /** Whether it costs nothing to get from there to the first. */
  readonly isFree?: boolean;
  readonly cost: Cost;
  /** `nearest`: not improved. `once`: from one beginning. `quick`: from few beginnings, and without kicks. `short`: with few kicks. `full`: that of files. `long`: as long as one asks for by hand. */
  readonly how: 'nearest' | 'once' | 'quick' | 'short' | 'full' | 'long';
  /** An order to begin with, where there is one. */
  readonly begun?: Order;
};

/** Of each stop those nearest to it. */
function nearOf({ count, places: { firstPlace, fromX, fromY } }: Tour, cost: Cost): NearStops[] {
  const most = count > FEW ? 2 : LOOKED_FROM;
  const owners: number[] = [];
  const sampled: number[] = [];
  for (let i = 0; i < count; i++) {
    const [from, to] = [intAt(firstPlace, i), intAt(firstPlace, i + 1)];
    const step = Math.max(1, Math.ceil((to - from) / most));
    for (let p = from; p < to; p += step) {
      owners.push(i);
      sampled.push(p);
    }
  }
  const index = new Flatbush(sampled.length);
  for (const p of sampled) index.add(floatAt(fromX, p), floatAt(fromY, p));
  index.finish();
  const near: Map<number, number>[] = Array.from({ length: count }, () => new Map());
  sampled.forEach((p, k) => {
    const own = owners[k] as number;
    const [x, y] = [floatAt(fromX, p), floatAt(fromY, p)];
    const known = near[own] as Map<number, number>;
    for (const q of index.neighbors(x, y, NEAR, Infinity, (q) => owners[q] !== own)) {
      const other = owners[q] as number;
      const at = sampled[q] as number;
      const far = Math.hypot(floatAt(fromX, at) - x, floatAt(fromY, at) - y);
      known.set(other, Math.min(far, known.get(other) ?? Infinity));
    }
  });
  return near.map((known) => {
    const nearest = [...known].sort((a, b) => a[1] - b[1] || a[0] - b[0]).slice(0, NEAR);
    return {
      stops: Int32Array.from(nearest, ([i]) => i),
      costs: Float64Array.from(nearest, ([, far]) => cost(far, 0)),
    };
  });
}

/** The search for one order: the best found so far, and ways to find a better one. */
class Searching {
  private readonly near: readonly NearStops[];
  private readonly random = chance(1);
  /** Stops that nothing must come before. */
  private readonly free: readonly number[];
  private best: number;
  order: Order;

  constructor(
    private readonly tour: Tour,
    { first }: ToOrder,
    cost: Cost,
  ) {
    this.near = nearOf(tour, cost);
    this.free = first.flatMap((list, i) => (list.length === 0 ? [i] : []));
    this.order = tour.given();
    this.best = tour.total();
  }

  private keep(): void {
    const total = this.tour.total();
    if (total < this.best - WORTH) [this.best, this.order] = [total, this.tour.given()];
  }

  /** Improve the tour as it is until nothing is gained. */
  *improve(): Generator<void, void> {
    const { tour } = this;
    tour.beginBest();
    tour.wakeAll();
    while (!tour.isSettled) {
      tour.settle(this.near, AT_ONCE);
      yield;
    }
    tour.beginBest();
    this.keep();
  }

  /** Begin anew: always the nearest next, from a place by chance. */
  *beginAnew(): Generator<void, void> {
    const { firstPlace } = this.tour.places;
    const i = this.free[Math.floor(this.random() * this.free.length)] as number;
    const [low, high] = [intAt(firstPlace, i), intAt(firstPlace, i + 1)];
    this.tour.nearestNext(low + Math.floor(this.random() * (high - low)));
    yield* this.improve();
  }

  /** Go on from the best order. */
  takeBest(): void {
    this.tour.take(this.order);
  }

  /** Kicks from the tour as it is. Small losses are taken for a while, fewer and fewer of them, as in annealing. */
  *kicks(count: number, heat: number): Generator<number, void> {
    const { tour, random } = this;
    let total = tour.total();
    const each = (heat * total) / tour.count;
    for (let k = 0; k < count; k++) {
      if (k % TURN === TURN - 1) yield k / count;
      const loss = -Math.log(1 - random()) * each * (1 - k / count);
      total -= kick(tour, this.near, { total, random, loss });
      if (total < this.best - WORTH) this.keep();
    }
  }
}

/** Search for an order; yields the share done, and the order found so far, which is always a valid one. */
export function* searchOrder(
  toOrder: ToOrder,
  { from, isFree = false, cost, how, begun }: Search,
): Generator<{ readonly share: number; readonly order: Order }, Order> {
  if (isFew(toOrder)) return exactOrder(toOrder, { at: from, isFree }, cost);
  const tour = new Tour(toOrder, { at: from, isFree }, cost);
  const n = tour.count;
  if (n < 2) return tour.given();
  if (begun) tour.take(begun);
  if (how === 'nearest') return tour.given();
  const search = new Searching(tour, toOrder, cost);
  for (const _ of search.improve()) yield { share: 0, order: search.order };
  if (n < 4) return search.order;
  const others = how === 'full' ? BEGUN_SQUARED / n ** 2 : BEGUN[how] / n;
  const beginnings = Math.min(MOST_BEGUN, n >> 1, Math.floor(others));
  for (let k = 0; k < beginnings; k++) for (const _ of search.beginAnew()) yield { share: 0, order: search.order };
  if (how === 'once' || how === 'quick') return search.order;
  search.takeBest();
  const most = how === 'short' ? SHORT_KICKS : MOST_KICKS;
  const bounded = how === 'full' ? KICKED_SQUARED / n ** 2 : KICKED / n;
  const kicks = Math.min(most, Math.max(FEWEST_KICKS, KICKS_EACH * n), Math.ceil(bounded));
  const rounds = how === 'long' ? LIMITS.longSearch : 1;
  for (let round = 0; round < rounds; round++) {
    // By turns from another beginning, and from the best with more losses taken.
    const isAnew = round % 2 === 1;
    if (isAnew) for (const _ of search.beginAnew()) yield { share: round / rounds, order: search.order };
    else search.takeBest();
    for (const share of search.kicks(kicks, round > 0 && !isAnew ? HOTTER * HEAT : HEAT))
      yield { share: (round + share) / rounds, order: search.order };
  }
  return search.order;
}

/** Two stretches changed for each other at random and put right; taken back where nothing is gained. What was gained. */
function kick(
  tour: Tour,
  near: readonly NearStops[],
  { total, random, loss }: { total: number; random: Chance; loss: number },
): number {
  const n = tour.count;
  const far = Math.max(1, Math.min(KICK, n / 3));
  tour.keepChanges();
  let [i, m, j, gained] = [0, 0, 0, Number.NEGATIVE_INFINITY];
  // What must come first stands against many of them.
  for (let tries = 0; tries < TRIES && gained === Number.NEGATIVE_INFINITY; tries++) {
    i = Math.floor(random() * (n - 1));
    m = i + 1 + Math.floor(random() * far);
    j = Math.min(n - 1, m + Math.floor(random() * far));
    gained = tour.swap(i, m, j, true);
  }
  if (gained === Number.NEGATIVE_INFINITY) {
    tour.takeBack();
    return 0;
  }
  gained += tour.settle(near);
  if (total - gained < WORTH_A_LOOK * total) {
    const begun = tour.beginBest(Math.max(0, i - 3), Math.min(n - 1, j + 3));
    if (begun > 0) {
      gained += begun;
      for (let k = Math.max(0, i - 3); k <= Math.min(n - 1, j + 3); k++) tour.wake(k);
      gained += tour.settle(near);
    }
  }
  if (gained > -loss && Math.abs(gained) > WORTH) {
    tour.letGo();
    return gained;
  }
  tour.takeBack();
  return 0;
}
