/** A second opinion on which areas to go over together: simulated annealing over all ways to part and order them, with moves and sums of its own. */
import { type InkRows, uniteRows } from '../../src/core/geometry/ink-rows';
import type { Point } from '../../src/core/geometry/point';
import { type AreaMotion, rowsRun } from '../../src/core/motion/area-rows';
import { straightSeconds } from '../../src/core/motion/machine-motion';
import { chance } from '../support/random';

type Go = { readonly areas: readonly number[]; readonly isDown: boolean };

/** The least seconds that annealing finds in so many turns, begun from each area by itself. */
export function annealedAreas(
  rows: readonly InkRows[],
  m: AreaMotion,
  from: Point,
  { turns, seed = 1 }: { readonly turns: number; readonly seed?: number },
): number {
  const next = chance(seed);
  const known = new Map<string, NonNullable<ReturnType<typeof rowsRun>>>();
  const run = (areas: readonly number[]) => {
    const key = [...areas].sort((a, b) => a - b).join();
    let made = known.get(key);
    if (!made) {
      made = rowsRun(uniteRows(areas.map((i) => rows[i] as InkRows)), m) as NonNullable<ReturnType<typeof rowsRun>>;
      known.set(key, made);
    }
    return made;
  };
  const total = (goes: readonly Go[]): number => {
    let [at, sum] = [from, 0];
    for (const { areas, isDown } of goes) {
      const r = run(areas);
      const [begin, end] = isDown ? [r.to, r.from] : [r.from, r.to];
      sum += straightSeconds(begin.x - at.x, begin.y - at.y, m.idle) + r.seconds;
      at = end;
    }
    return sum;
  };
  const pick = (n: number): number => Math.floor(next() * n);
  const changed = (goes: readonly Go[]): Go[] => {
    const out = goes.map((g) => ({ ...g }));
    const r = next();
    const i = pick(out.length);
    const own = out[i] as Go;
    if (r < 0.5) {
      // One area to another go, or to one of its own.
      const area = own.areas[pick(own.areas.length)] as number;
      const rest = own.areas.filter((a) => a !== area);
      const j = pick(out.length + 1);
      if (j === i) return out;
      if (j < out.length) out[j] = { ...(out[j] as Go), areas: [...(out[j] as Go).areas, area] };
      else if (rest.length > 0) out.splice(pick(out.length + 1), 0, { areas: [area], isDown: next() < 0.5 });
      else return out;
      const at = out.findIndex(
        (g) => g.areas.includes(area) && g.areas.length === own.areas.length && g.areas === own.areas,
      );
      if (rest.length > 0) out[at] = { ...own, areas: rest };
      else out.splice(at, 1);
    } else if (r < 0.6 && out.length > 1) {
      // Two goes made one.
      const [other] = out.splice(i === 0 ? 1 : pick(i), 1);
      const at = out.findIndex((g) => g.areas === own.areas);
      out[at] = { ...own, areas: [...own.areas, ...(other?.areas ?? [])] };
    } else if (r < 0.75) out[i] = { ...own, isDown: !own.isDown };
    else {
      // A stretch of goes turned round.
      const j = pick(out.length);
      const [low, high] = [Math.min(i, j), Math.max(i, j)];
      const turned = out.slice(low, high + 1).reverse();
      out.splice(low, turned.length, ...turned.map((g) => ({ ...g, isDown: !g.isDown })));
    }
    return out;
  };
  let now: Go[] = rows.map((_, i) => ({ areas: [i], isDown: false }));
  let cost = total(now);
  let best = cost;
  const [hot, cold] = [0.5, 0.002];
  for (let turn = 0; turn < turns; turn++) {
    const heat = hot * (cold / hot) ** (turn / turns);
    const made = changed(now);
    const then = total(made);
    if (then <= cost || next() < Math.exp((cost - then) / heat)) [now, cost] = [made, then];
    best = Math.min(best, cost);
  }
  return best;
}
