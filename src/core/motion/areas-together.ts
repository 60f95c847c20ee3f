/**
 * Which areas to go over together, row by row, and which by themselves: areas on the same rows share the time to get up to speed and to turn,
 * those far apart make the machine cross what lies between at working speed. Exact for few areas, over all ways to part them (dynamic programming
 * over what is done, with the way between); for more, groups are joined as long as that saves most, then areas moved one by one, from each by itself
 * and from all together, and the better is taken.
 */
import { type InkRows, uniteRows } from '../geometry/ink-rows';
import type { Point } from '../geometry/point';
import { type AreaMotion, rowsRun } from './area-rows';
import { straightSeconds } from './machine-motion';

/** Areas that are gone over in one run, by their numbers, and from which end: from below, or from above. */
type AreaGroup = { readonly areas: readonly number[]; readonly isDown: boolean };

/** The groups in the order they are gone over, and the seconds of all with the way between. */
export type AreaRuns = { readonly groups: readonly AreaGroup[]; readonly seconds: number };

/** Of so many areas every way to part them is tried. */
const EXACT = 8;
const WORTH_S = 1e-9;

type Timed = { readonly areas: readonly number[]; readonly seconds: number; readonly low: Point; readonly high: Point };

/** Groups by what is in them, each timed once. */
class Groups {
  private readonly known = new Map<string, Timed>();

  constructor(
    private readonly rows: readonly InkRows[],
    private readonly motion: AreaMotion,
  ) {}

  of(areas: readonly number[]): Timed {
    const sorted = [...areas].sort((a, b) => a - b);
    const key = sorted.join();
    let timed = this.known.get(key);
    if (!timed) {
      const run = rowsRun(uniteRows(sorted.map((i) => this.rows[i] as InkRows)), this.motion);
      const nowhere = { x: 0, y: 0 };
      timed = { areas: sorted, seconds: run?.seconds ?? 0, low: run?.from ?? nowhere, high: run?.to ?? nowhere };
      this.known.set(key, timed);
    }
    return timed;
  }

  between = (p: Point, q: Point): number => straightSeconds(q.x - p.x, q.y - p.y, this.motion.idle);
}

const beginOf = ({ low, high }: Timed, isDown: boolean): Point => (isDown ? high : low);
const endOf = ({ low, high }: Timed, isDown: boolean): Point => (isDown ? low : high);

/** The best way to go over areas, given by their rows on one grid, beginning at a place. Yields the share done, about. */
export function* together(rows: readonly InkRows[], motion: AreaMotion, from: Point): Generator<number, AreaRuns> {
  if (rows.length === 0) return { groups: [], seconds: 0 };
  const groups = new Groups(rows, motion);
  return yield* rows.length <= EXACT ? exactly(rows.length, groups, from) : nearly(rows.length, groups, from);
}

/** A run over areas: what it takes by itself, and with the way to it. */
export type AreaRun = { readonly areas: readonly number[]; readonly seconds: number };

/** Groups of areas gone over in the order given, each from the end that suits: the seconds of each, and of all with the way between. */
export function asGiven(
  rows: readonly InkRows[],
  order: readonly (readonly number[])[],
  motion: AreaMotion,
  from: Point,
): { readonly runs: readonly AreaRun[]; readonly seconds: number } {
  const groups = new Groups(rows, motion);
  const runs = order.map((areas) => groups.of(areas));
  // By the end at which the last one was left, below or above: the least so far.
  let ends: readonly (readonly [Point, number])[] = [[from, 0]];
  for (const run of runs)
    ends = [false, true].map((isDown) => {
      const begin = beginOf(run, isDown);
      return [
        endOf(run, isDown),
        run.seconds + Math.min(...ends.map(([at, sum]) => sum + groups.between(at, begin))),
      ] as const;
    });
  return { runs, seconds: Math.min(...ends.map(([, sum]) => sum)) };
}

/** Gaps wider than this, in mm, are not asked about. */
const WIDEST_MM = 10_000;

/**
 * The widest gap in mm between two areas side by side, of some mean width in mm, at which it takes no longer to go over both in each row than
 * over one after the other; 0 where it never pays, null where there is no such gap.
 */
export function sharingGap(widthMm: number, motion: AreaMotion): number | null {
  // Each row has a run-up and a turn at either end, so the number of rows says nothing; enough of them for the way between not to count.
  const rows = 400;
  const height = rows * motion.step;
  const one = (x: number): InkRows => ({ first: 0, rows: Array.from({ length: rows }, () => [x, x + widthMm]) });
  const pays = (gapMm: number): boolean => {
    const both = [one(0), one(widthMm + gapMm)];
    const home = { x: 0, y: height / 2 };
    return asGiven(both, [[0, 1]], motion, home).seconds <= asGiven(both, [[0], [1]], motion, home).seconds;
  };
  if (pays(WIDEST_MM)) return null;
  let [low, high] = [0, WIDEST_MM];
  if (!pays(low)) return 0;
  while (high - low > 0.05) {
    const middle = (low + high) / 2;
    if (pays(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** By what is done, what was done last of it and in which direction: the least seconds, and what came before. */
type Reached = { readonly seconds: [number, number]; readonly before: [string | null, string | null] };

function* exactly(n: number, groups: Groups, from: Point): Generator<number, AreaRuns> {
  const all = (1 << n) - 1;
  const areasOf = (mask: number): number[] => Array.from({ length: n }, (_, i) => i).filter((i) => (mask >> i) & 1);
  const timed: (Timed | null)[] = [null];
  for (let mask = 1; mask <= all; mask++) {
    yield mask / all;
    timed.push(groups.of(areasOf(mask)));
  }
  const reached = new Map<string, Reached>();
  const keyOf = (done: number, last: number): string => `${done},${last}`;
  for (let done = 1; done <= all; done++)
    for (let last = done; last > 0; last = (last - 1) & done) {
      const group = timed[last] as Timed;
      const prior = done ^ last;
      const here: Reached = { seconds: [Infinity, Infinity], before: [null, null] };
      for (const down of [0, 1] as const) {
        const begin = beginOf(group, down === 1);
        if (prior === 0) here.seconds[down] = groups.between(from, begin) + group.seconds;
        for (let one = prior; one > 0; one = (one - 1) & prior) {
          const key = keyOf(prior, one);
          const there = reached.get(key) as Reached;
          for (const way of [0, 1] as const) {
            const seconds =
              there.seconds[way] + groups.between(endOf(timed[one] as Timed, way === 1), begin) + group.seconds;
            if (seconds < here.seconds[down]) {
              here.seconds[down] = seconds;
              here.before[down] = `${key},${way}`;
            }
          }
        }
      }
      reached.set(keyOf(done, last), here);
    }
  let [best, seconds] = ['', Infinity];
  for (let last = all; last > 0; last--)
    for (const down of [0, 1] as const) {
      const found = reached.get(keyOf(all, last))?.seconds[down] ?? Infinity;
      if (found < seconds) [best, seconds] = [`${keyOf(all, last)},${down}`, found];
    }
  const order: AreaGroup[] = [];
  for (let key: string | null = best; key; ) {
    const [done, last, down] = key.split(',').map(Number) as [number, number, 0 | 1];
    order.push({ areas: areasOf(last), isDown: down === 1 });
    key = reached.get(keyOf(done, last))?.before[down] ?? null;
  }
  return { groups: order.reverse(), seconds };
}

/** Groups in a short order, each in the direction that suits: the nearest next, then stretches turned round. */
function inOrder(all: readonly Timed[], groups: Groups, from: Point): AreaRuns {
  const left = new Set(all);
  const order: { group: Timed; isDown: boolean }[] = [];
  let at = from;
  while (left.size > 0) {
    let best: { group: Timed; isDown: boolean } | null = null;
    let least = Infinity;
    for (const group of left)
      for (const isDown of [false, true]) {
        const away = groups.between(at, beginOf(group, isDown));
        if (away < least) [least, best] = [away, { group, isDown }];
      }
    if (!best) break;
    order.push(best);
    left.delete(best.group);
    at = endOf(best.group, best.isDown);
  }
  const gap = (k: number): number => {
    const here = order[k];
    if (!here) return 0;
    const before = order[k - 1];
    return groups.between(before ? endOf(before.group, before.isDown) : from, beginOf(here.group, here.isDown));
  };
  for (let isGained = true; isGained; ) {
    isGained = false;
    for (let i = 0; i < order.length; i++)
      for (let j = i; j < order.length; j++) {
        const was = gap(i) + gap(j + 1);
        const turn = () =>
          order.splice(
            i,
            j - i + 1,
            ...order
              .slice(i, j + 1)
              .reverse()
              .map(({ group, isDown }) => ({ group, isDown: !isDown })),
          );
        turn();
        if (gap(i) + gap(j + 1) < was - WORTH_S) isGained = true;
        else turn();
      }
  }
  const seconds = order.reduce((sum, { group }, k) => sum + group.seconds + gap(k), 0);
  return { groups: order.map(({ group, isDown }) => ({ areas: group.areas, isDown })), seconds };
}

function* nearly(n: number, groups: Groups, from: Point): Generator<number, AreaRuns> {
  const numbers = Array.from({ length: n }, (_, i) => i);
  const apart = yield* improved(
    yield* joined(
      numbers.map((i) => groups.of([i])),
      groups,
    ),
    groups,
    from,
  );
  const one = yield* improved([groups.of(numbers)], groups, from);
  return apart.seconds <= one.seconds ? apart : one;
}

/** The pair of groups joined that saves most, as long as one does. */
function* joined(begun: readonly Timed[], groups: Groups): Generator<number, readonly Timed[]> {
  const now = [...begun];
  const saved = (a: Timed, b: Timed): number => {
    const away = Math.min(...[a.low, a.high].flatMap((p) => [b.low, b.high].map((q) => groups.between(p, q))));
    return a.seconds + b.seconds + away - groups.of([...a.areas, ...b.areas]).seconds;
  };
  for (;;) {
    let [best, most]: [readonly [Timed, Timed] | null, number] = [null, WORTH_S];
    for (const [i, a] of now.entries()) {
      yield 1 - now.length / begun.length;
      for (const b of now.slice(i + 1)) {
        const by = saved(a, b);
        if (by > most) [best, most] = [[a, b], by];
      }
    }
    if (!best) return now;
    const [a, b] = best as readonly [Timed, Timed];
    now.splice(now.indexOf(a), 1);
    now.splice(now.indexOf(b), 1, groups.of([...a.areas, ...b.areas]));
  }
}

/** Single areas moved to another group, or out by themselves, and groups joined, as long as that gains anything with the way between. */
function* improved(begun: readonly Timed[], groups: Groups, from: Point): Generator<number, AreaRuns> {
  let now = [...begun];
  let best = inOrder(now, groups, from);
  const tryTo = (next: readonly Timed[]): boolean => {
    const made = inOrder(next, groups, from);
    if (made.seconds >= best.seconds - WORTH_S) return false;
    [now, best] = [[...next], made];
    return true;
  };
  const moved = (area: number): boolean => {
    const home = now.find((g) => g.areas.includes(area)) as Timed;
    const others = now.filter((g) => g !== home);
    const rest = home.areas.filter((i) => i !== area);
    const left = rest.length > 0 ? [groups.of(rest)] : [];
    if (rest.length > 0 && tryTo([...others, ...left, groups.of([area])])) return true;
    return others.some((g) => tryTo([...others.filter((o) => o !== g), ...left, groups.of([...g.areas, area])]));
  };
  const merged = (): boolean =>
    now.some((a, i) =>
      now
        .slice(i + 1)
        .some((b) => tryTo([...now.filter((g) => g !== a && g !== b), groups.of([...a.areas, ...b.areas])])),
    );
  const areas = now.flatMap((g) => g.areas);
  for (let isGained = true; isGained; ) {
    isGained = false;
    for (const [k, area] of areas.entries()) {
      yield k / areas.length;
      if (moved(area)) isGained = true;
    }
    if (merged()) isGained = true;
  }
  return best;
}
