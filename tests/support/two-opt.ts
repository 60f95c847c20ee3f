/** 2-opt that takes its time: every pair of places tried until nothing gains, begun again many times from shaken orders. */
import type { Chance } from './random';

/** Way between pieces (start x, y and end x, y of each) in the best order found, each drawn from either end. */
export function longTwoOpt(ends: Float64Array, next: Chance, shakes: number): number {
  const n = ends.length / 4;
  type Piece = readonly [id: number, turned: boolean];
  const start = ([id, turned]: Piece) => 4 * id + (turned ? 2 : 0);
  const end = ([id, turned]: Piece) => 4 * id + (turned ? 0 : 2);
  const gap = (a: Piece | undefined, b: Piece | undefined): number =>
    a && b
      ? Math.hypot(
          (ends[end(a)] as number) - (ends[start(b)] as number),
          (ends[end(a) + 1] as number) - (ends[start(b) + 1] as number),
        )
      : 0;
  const flipped = ([id, turned]: Piece): Piece => [id, !turned];
  const length = (order: readonly Piece[]) => order.reduce((sum, p, i) => sum + gap(order[i - 1], p), 0);
  const settle = (order: Piece[]) => {
    for (let gained = true; gained; ) {
      gained = false;
      for (let i = 0; i < n; i++)
        for (let j = i; j < n; j++) {
          const [a, b] = [order[i] as Piece, order[j] as Piece];
          const before = gap(order[i - 1], a) + gap(b, order[j + 1]);
          const after = gap(order[i - 1], flipped(b)) + gap(flipped(a), order[j + 1]);
          if (after > before - 1e-9) continue;
          const turned = order
            .slice(i, j + 1)
            .reverse()
            .map(flipped);
          order.splice(i, turned.length, ...turned);
          gained = true;
        }
    }
    return order;
  };
  const left = new Set(Array.from({ length: n }, (_, i) => i));
  const first: Piece[] = [];
  while (left.size > 0) {
    let [best, least] = [null as Piece | null, Infinity];
    for (const id of left)
      for (const turned of [false, true]) {
        const d = first.length === 0 ? 0 : gap(first.at(-1), [id, turned]);
        if (d < least) [best, least] = [[id, turned], d];
      }
    if (!best) break;
    left.delete(best[0]);
    first.push(best);
  }
  let best = settle(first);
  for (let s = 0; s < shakes; s++) {
    const cuts = [0, 0, 0].map(() => Math.floor(next() * (n + 1))).sort((a, b) => a - b) as [number, number, number];
    const shaken = [
      ...best.slice(0, cuts[0]),
      ...best.slice(cuts[1], cuts[2]),
      ...best.slice(cuts[0], cuts[1]),
      ...best.slice(cuts[2]),
    ];
    const tried = settle(shaken);
    if (length(tried) < length(best)) best = tried;
  }
  return length(best);
}
