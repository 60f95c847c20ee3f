/** Orders by another rule than the least way: row by row, or so that the heat spreads. */
import type { Point } from '../../geometry/point';
import { PointTree } from '../../geometry/point-tree';
import type { Cost, Order, Stop, ToOrder } from './stops';

const middleOf = ({ ways }: Stop): Point => ({
  x: ways.reduce((sum, w) => sum + w.from.x + w.to.x, 0) / (2 * ways.length),
  y: ways.reduce((sum, w) => sum + w.from.y + w.to.y, 0) / (2 * ways.length),
});

/** Half the height of most stops: what lies no farther below the first of a row is in it. */
function rowHeight(stops: readonly Stop[]): number {
  const heights = stops.map(({ ways }) => {
    const ys = ways.flatMap((w) => [w.from.y, w.to.y]);
    return Math.max(...ys) - Math.min(...ys);
  });
  return (heights.sort((a, b) => a - b)[heights.length >> 1] ?? 0) / 2;
}

/** Stops in an order, each with what must come first before it. */
function withFirst({ stops, first }: ToOrder, wanted: readonly number[]): number[] {
  const done = new Uint8Array(stops.length);
  const order: number[] = [];
  const visit = (i: number): void => {
    if (done[i]) return;
    done[i] = 1;
    for (const j of first[i] ?? []) visit(j);
    order.push(i);
  };
  wanted.forEach(visit);
  return order;
}

/** Each stop run in the way that is nearest to where the one before ended. */
function nearestWays({ stops }: ToOrder, order: readonly number[], from: Point, cost: Cost): Order {
  const ways = new Int32Array(stops.length);
  let at = from;
  for (const i of order) {
    const all = stops[i]?.ways ?? [];
    const far = (k: number): number => cost((all[k]?.from.x ?? 0) - at.x, (all[k]?.from.y ?? 0) - at.y);
    let best = 0;
    for (let k = 1; k < all.length; k++) if (far(k) < far(best)) best = k;
    ways[i] = best;
    at = all[best]?.to ?? at;
  }
  return { order: Int32Array.from(order), ways };
}

/** Row by row from the top, every other one backwards; what must come first is done before. */
export function byRows(toOrder: ToOrder, from: Point, cost: Cost): Order {
  const { stops } = toOrder;
  const middles = stops.map(middleOf);
  const height = Math.max(rowHeight(stops), 1e-6);
  const y = (i: number): number => middles[i]?.y ?? 0;
  const x = (i: number): number => middles[i]?.x ?? 0;
  const rows: number[][] = [];
  for (const i of stops.map((_, k) => k).sort((a, b) => y(b) - y(a) || a - b)) {
    const row = rows[rows.length - 1];
    if (row && y(row[0] as number) - y(i) <= height) row.push(i);
    else rows.push([i]);
  }
  const wanted = rows.flatMap((row, k) => row.sort((a, b) => (k % 2 === 0 ? x(a) - x(b) : x(b) - x(a)) || a - b));
  return nearestWays(toOrder, withFirst(toOrder, wanted), from, cost);
}

/** What lies nearer than this, against how far the nearest mostly is, lies side by side. */
const BESIDE = 2;

/** Always the nearest of what does not lie beside what was run last, so that the heat spreads; where all does, the farthest. */
export function spreadOut(toOrder: ToOrder, from: Point, cost: Cost): Order {
  const { stops, first } = toOrder;
  const middles = stops.map(middleOf);
  const beside = BESIDE * usualGap(middles);
  const needs = first.map((list) => list.length);
  const after: number[][] = stops.map(() => []);
  first.forEach((list, i) => {
    for (const j of list) after[j]?.push(i);
  });
  const free = new Set(stops.map((_, i) => i).filter((i) => needs[i] === 0));
  const order: number[] = [];
  let last: Point | null = null;
  while (free.size > 0) {
    const here: Point = last ?? from;
    let [best, least, farthest, most] = [-1, Infinity, -1, -1];
    for (const i of free) {
      const { x, y } = middles[i] as Point;
      const away = Math.hypot(x - here.x, y - here.y);
      if (away > most) [farthest, most] = [i, away];
      if ((last === null || away > beside) && away < least) [best, least] = [i, away];
    }
    const next = best < 0 ? farthest : best;
    free.delete(next);
    order.push(next);
    last = middles[next] as Point;
    for (const i of after[next] ?? []) {
      needs[i] = (needs[i] ?? 1) - 1;
      if (needs[i] === 0) free.add(i);
    }
  }
  return nearestWays(toOrder, order, from, cost);
}

/** How far the nearest other mostly is; 0 for one alone. */
function usualGap(middles: readonly Point[]): number {
  const tree = new PointTree(
    Float64Array.from(middles, (p) => p.x),
    Float64Array.from(middles, (p) => p.y),
    true,
  );
  const gaps = middles.map(({ x, y }, i) => {
    tree.put(i, false);
    const other = middles[tree.nearest(x, y)];
    tree.put(i, true);
    return other ? Math.hypot(other.x - x, other.y - y) : 0;
  });
  return gaps.sort((a, b) => a - b)[gaps.length >> 1] ?? 0;
}
