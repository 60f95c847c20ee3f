/**
 * A letter row by row, as its neighbours meet it: where its ink begins and ends, which of it hangs together, and where its sides stand
 * upright. Lengths in capital heights, rows a hundredth of one apart.
 */
import { DisjointSets } from '../../geometry/disjoint-sets';
import { type InkRows, inkRowsOf } from '../../geometry/ink-rows';
import type { Path } from '../../geometry/path';

/** Height of a row. */
export const STEP = 0.01;
/** The lowest row. */
const LOWEST = -60;
/** How many rows there are. */
export const HEIGHTS = 220;

/** The height of the middle of a row. */
export const heightAtRow = (row: number): number => (row + LOWEST + 0.5) * STEP;
/** The row that begins at a height. */
export const rowFrom = (y: number): number => Math.round(y / STEP) - LOWEST;

/** The row that a height lies in. */
export const rowWith = (y: number): number => Math.floor(y / STEP) - LOWEST;

/** The rows that a strip of some height covers: from, and up to without it. */
export function rowsOver(y: number, height: number): readonly [number, number] {
  const from = rowFrom(y);
  return [from, from + Math.max(1, Math.round(height / STEP))];
}

/** Where ink begins and ends in each row; NaN where a row has none. */
export type LetterSides = {
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** Where the first stroke of the row ends, and where the last one begins. */
  readonly firstEnd: Float64Array;
  readonly lastStart: Float64Array;
};

/** Ink that hangs together, by its stretches: the row of each, where it begins and where it ends. */
export type Clump = {
  readonly stretches: readonly (readonly [row: number, from: number, to: number])[];
  readonly area: number;
};

/** The ink of some closed paths, row by row. */
export function rowsOfLetter(paths: readonly Path[]): InkRows {
  return inkRowsOf(paths, STEP);
}

/** What of a letter's ink hangs together, the greatest first. */
export function clumpsOf({ first, rows }: InkRows): Clump[] {
  const sets = new DisjointSets(0);
  const all: [number, number, number][] = [];
  const names: number[] = [];
  let before: number[] = [];
  rows.forEach((row, k) => {
    const now: number[] = [];
    for (let i = 0; i + 1 < row.length; i += 2) {
      const [from, to] = [row[i] as number, row[i + 1] as number];
      const name = sets.add();
      for (const b of before) {
        const [, f, t] = all[b] as [number, number, number];
        if (f <= to && t >= from) sets.join(names[b] as number, name);
      }
      now.push(all.length);
      all.push([first + k - LOWEST, from, to]);
      names.push(name);
    }
    before = now;
  });
  const clumps = new Map<number, { stretches: [number, number, number][]; area: number }>();
  all.forEach((stretch, i) => {
    const root = sets.find(names[i] as number);
    const clump = clumps.get(root) ?? { stretches: [], area: 0 };
    clump.stretches.push(stretch);
    clump.area += (stretch[2] - stretch[1]) * STEP;
    clumps.set(root, clump);
  });
  return [...clumps.values()].sort((a, b) => b.area - a.area);
}

/** Where the ink of some clumps begins and ends, row by row. */
export function letterSidesOf(clumps: readonly Clump[]): LetterSides {
  const make = () => new Float64Array(HEIGHTS).fill(Number.NaN);
  const sides = { left: make(), right: make(), firstEnd: make(), lastStart: make() };
  for (const { stretches } of clumps)
    for (const [row, from, to] of stretches) {
      if (row < 0 || row >= HEIGHTS) continue;
      if (!(from >= (sides.left[row] as number))) [sides.left[row], sides.firstEnd[row]] = [from, to];
      if (!(to <= (sides.right[row] as number))) [sides.right[row], sides.lastStart[row]] = [to, from];
    }
  return sides;
}

/** How far a side may lean away from the letters' own slope and still count as that of an upright stroke. */
const LEANS = 0.08;

/** Rows in which a side stands as upright as the letters of its face do; `slope` is how far these lean, in x by y. */
export function uprightRows(side: Float64Array, slope: number): boolean[] {
  return Array.from(side, (x, i) => {
    const [below, above] = [side[i - 1] as number, side[i + 1] as number];
    return Math.abs((above - below) / (2 * STEP) - slope) < LEANS && !Number.isNaN(x);
  });
}

/** The least and greatest height at which clumps have ink. */
export function inkHeights(clumps: readonly Clump[]): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const { stretches } of clumps)
    for (const [row] of stretches) {
      low = Math.min(low, heightAtRow(row) - STEP / 2);
      high = Math.max(high, heightAtRow(row) + STEP / 2);
    }
  return [low, high];
}
