/** The best order of few stops, by dynamic programming over what is done and where one then is (Held and Karp 1962). */
import { floatAt, intAt } from '../../geometry/elements';
import { Places } from './places';
import type { Cost, Order, Start, ToOrder } from './stops';

/** Of so many stops, with so many ways to run them in all, the best order is found at once. */
const MOST_STOPS = 8;
const MOST_WAYS = 100;

/** Whether there are few enough stops for the best order to be found. */
export const isFew = ({ stops }: ToOrder): boolean =>
  stops.length <= MOST_STOPS && stops.reduce((sum, s) => sum + s.ways.length, 0) <= MOST_WAYS;

/** The order that costs least, from a place. */
export function exactOrder(toOrder: ToOrder, start: Start, cost: Cost): Order {
  const n = toOrder.stops.length;
  const places = new Places(toOrder, start, cost);
  const m = intAt(places.firstPlace, n);
  const all = (1 << n) - 1;
  const needs = toOrder.first.map((list) => list.reduce((mask, j) => mask | (1 << j), 0));
  const gaps = new Float64Array(m * m);
  for (let a = 0; a < m; a++) for (let b = 0; b < m; b++) gaps[a * m + b] = places.gap(a, b);
  // By what is done, the one that was done last among it, and the place it was begun at.
  const costs = new Float64Array((all + 1) * m).fill(Infinity);
  const came = new Int32Array((all + 1) * m).fill(-1);
  for (let done = 0; done < all; done++)
    for (let b = 0; b < m; b++) {
      const i = intAt(places.owner, b);
      if ((done >> i) & 1 || ((needs[i] ?? 0) & ~done) !== 0) continue;
      let [least, left] = done === 0 ? [places.gap(-1, b), -1] : [Infinity, -1];
      for (let a = 0; done > 0 && a < m; a++) {
        const sum = floatAt(costs, done * m + a) + floatAt(gaps, a * m + b);
        if (sum < least) [least, left] = [sum, a];
      }
      const at = (done | (1 << i)) * m + b;
      costs[at] = least;
      came[at] = left;
    }
  let last = 0;
  for (let b = 1; b < m; b++) if (floatAt(costs, all * m + b) < floatAt(costs, all * m + last)) last = b;
  const order: number[] = [];
  const ways = new Int32Array(n);
  for (let [done, b] = [all, last]; done > 0; ) {
    const i = intAt(places.owner, b);
    order.push(i);
    ways[i] = b - intAt(places.firstPlace, i);
    const before = intAt(came, done * m + b);
    done &= ~(1 << i);
    if (before < 0) break;
    b = before;
  }
  return { order: Int32Array.from(order.reverse()), ways };
}
