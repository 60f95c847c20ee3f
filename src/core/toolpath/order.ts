/** The order paths of one operation run in: inside before outside, and near ones after each other. */
import { numberAt } from '../geometry/elements';
import type { MeasuredPath } from '../geometry/nesting';
import { NearestNext } from './nearest-next';

/**
 * Indices of closed paths in running order. What lies in a path comes before it; among equals the nearest start is
 * taken next (greedy, from the origin). `parent` is the index of the smallest path around each, or -1.
 */
export function insideFirst(paths: readonly MeasuredPath[], parent: readonly number[]): number[] {
  const children = new Map<number, number[]>();
  paths.forEach(({ path }, i) => {
    if (path.segments.length === 0) return;
    const around = numberAt(parent, i);
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
    const unvisited = new NearestNext(
      inside.map((id) => ({ x: paths[id]?.path.segments[0]?.x0 ?? 0, y: paths[id]?.path.segments[0]?.y0 ?? 0 })),
      x,
    );
    for (let nth = unvisited.take(x, y); nth !== null; nth = unvisited.take(x, y)) {
      const next = numberAt(inside, nth);
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
