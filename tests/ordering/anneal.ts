/** A second opinion on orders: simulated annealing in so many turns, with moves and sums of its own. */
import { type Cost, type Order, type ToOrder, tourCost } from '../../src/core/toolpath/ordering/stops';
import { chance } from '../support/random';

/** The least that annealing finds in so many turns, begun from an order; the same on every machine. */
export function annealed(
  job: ToOrder,
  begun: Order,
  { cost, turns, seed = 1 }: { cost: Cost; turns: number; seed?: number },
): number {
  const next = chance(seed);
  const n = job.stops.length;
  const order = [...begun.order];
  const ways = [...begun.ways];
  const position: number[] = [];
  order.forEach((i, k) => {
    position[i] = k;
  });
  const later: number[][] = job.stops.map(() => []);
  job.first.forEach((list, i) => {
    for (const j of list) later[j]?.push(i);
  });
  const wayOf = (k: number) => job.stops[order[k] as number]?.ways[ways[order[k] as number] as number];
  const gap = (k: number): number => {
    if (k >= n) return 0;
    const left = k > 0 ? (wayOf(k - 1)?.to ?? { x: 0, y: 0 }) : { x: 0, y: 0 };
    const here = wayOf(k)?.from ?? { x: 0, y: 0 };
    return cost(here.x - left.x, here.y - left.y);
  };
  const middles = job.stops.map(({ ways: all }) => ({
    x: all.reduce((s, w) => s + w.from.x, 0) / all.length,
    y: all.reduce((s, w) => s + w.from.y, 0) / all.length,
  }));
  const near = middles.map((m, i) =>
    middles
      .map((q, j) => [Math.hypot(q.x - m.x, q.y - m.y), j] as const)
      .filter(([, j]) => j !== i)
      .sort((a, b) => a[0] - b[0])
      .slice(0, 14)
      .map(([, j]) => j),
  );
  let now = tourCost(job, begun, { x: 0, y: 0 }, cost);
  let best = now;
  const [hot, cold] = [0.05, 2e-4];
  let heat = hot;
  const accepts = (by: number): boolean => by <= 0 || next() < Math.exp(-by / heat);
  for (let turn = 0; turn < turns; turn++) {
    if (turn % 256 === 0) heat = hot * (cold / hot) ** (turn / turns);
    const r = next();
    if (r < 0.35) {
      // Another way to run one.
      const k = Math.floor(next() * n);
      const i = order[k] as number;
      const count = job.stops[i]?.ways.length ?? 1;
      const was = gap(k) + gap(k + 1);
      const old = ways[i] as number;
      ways[i] = Math.floor(next() * count);
      const by = gap(k) + gap(k + 1) - was;
      if (accepts(by)) now += by;
      else ways[i] = old;
    } else {
      // A stretch put beside a near one, or a stretch turned round with what must come first brought before.
      const p = Math.floor(next() * n);
      const i = order[p] as number;
      const list = near[i] as number[];
      const other = position[list[Math.floor(next() * list.length)] as number] as number;
      let [low, high, made]: [number, number, number[]] = [0, 0, []];
      if (r < 0.75) {
        const length = next() < 0.6 ? 1 : 1 + Math.floor(next() * 6);
        if (p + length > n || (other >= p && other < p + length)) continue;
        const to = next() < 0.5 ? other : other - 1;
        if (to >= p - 1 && to < p + length) continue;
        [low, high] = [Math.min(p, to + 1), Math.max(p + length - 1, to)];
        const stretch = order.slice(p, p + length);
        const rest = [...order.slice(low, p), ...order.slice(p + length, high + 1)];
        made = to < p ? [...stretch, ...rest] : [...rest, ...stretch];
      } else {
        [low, high] = [Math.min(p, other), Math.max(p, other)];
        if (high - low > 60) continue;
        const within = new Set(order.slice(low, high + 1));
        const did = new Set<number>();
        const out = (j: number): void => {
          if (did.has(j)) return;
          for (const prior of job.first[j] ?? []) if (within.has(prior)) out(prior);
          did.add(j);
          made.push(j);
        };
        for (let k = high; k >= low; k--) out(order[k] as number);
      }
      const place = new Map(made.map((j, k) => [j, low + k]));
      const isValid = made.every(
        (j) =>
          (job.first[j] ?? []).every(
            (prior) => (place.get(prior) ?? (position[prior] as number)) < (place.get(j) as number),
          ) && (later[j] ?? []).every((l) => (place.get(l) ?? (position[l] as number)) > (place.get(j) as number)),
      );
      if (!isValid) continue;
      const before = order.slice(low, high + 1);
      const oldWays = before.map((j) => ways[j] as number);
      let was = 0;
      for (let k = low; k <= high + 1; k++) was += gap(k);
      made.forEach((j, k) => {
        order[low + k] = j;
      });
      if (r >= 0.75)
        for (const j of made)
          if (job.stops[j]?.isOpen) ways[j] = 1 - (ways[j] as number);
          else if (made.length === 2) {
            /* as it is */
          }
      let is = 0;
      for (let k = low; k <= high + 1; k++) is += gap(k);
      if (accepts(is - was)) {
        now += is - was;
        made.forEach((j, k) => {
          position[j] = low + k;
        });
      } else
        before.forEach((j, k) => {
          order[low + k] = j;
          ways[j] = oldWays[k] as number;
        });
    }
    if (now < best) best = now;
  }
  return best;
}
