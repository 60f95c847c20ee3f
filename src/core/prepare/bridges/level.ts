/** Heights that the bridges of a line of letters share. */
import { numberAt } from '../../geometry/elements';
import { applyMatrix, invert, type Matrix, type Point } from '../../geometry/point';
import type { VoidEdges } from './edges';
import { type Candidate, candidateAt, type Site } from './search';

/** An island of the line: the sites it may be bridged at, and the cost of its own best places. */
export type Levelled = {
  readonly site: Site;
  readonly matrix: Matrix;
  readonly count: number;
  readonly ownCost: number;
  readonly ownHeights: readonly number[];
};

/** Heights tried for a line. */
const HEIGHTS = 24;
/** A line has up to two heights: letters with two islands need both. */
const LEVELS = 2;
/** An island goes along with a shared height that costs it no more than this. */
const GOES_ALONG = 1;
/** What an island that does not go along adds to the cost of a height. */
const LEFT_OUT = 1.4;

/** For each island the bridges at the height it shares with others; null where it goes along with none. */
export function levelled(edges: VoidEdges, islands: readonly Levelled[]): (readonly Candidate[] | null)[] {
  const chosen: (readonly Candidate[] | null)[] = islands.map(() => null);
  const heights = spreadOver(islands.flatMap((i) => i.ownHeights));
  for (let round = 0; round < LEVELS; round++) {
    let best: { total: number; found: Map<number, readonly Candidate[]> } | null = null;
    for (const y of heights) {
      const found = new Map<number, readonly Candidate[]>();
      let total = 0;
      islands.forEach((island, i) => {
        if (chosen[i]) return;
        const at = candidatesAt(edges, island, y);
        const mean = at.reduce((sum, c) => sum + c.cost, 0) / Math.max(1, at.length) - island.ownCost;
        if (at.length > 0 && mean <= GOES_ALONG) {
          found.set(i, at);
          total += mean;
        } else total += LEFT_OUT;
      });
      if (found.size > 1 && (!best || total < best.total)) best = { total, found };
    }
    if (!best) break;
    for (const [i, at] of best.found) chosen[i] = at;
  }
  return chosen;
}

function spreadOver(heights: readonly number[]): number[] {
  const sorted = [...new Set(heights)].sort((a, b) => a - b);
  if (sorted.length <= HEIGHTS) return sorted;
  return Array.from({ length: HEIGHTS }, (_, k) =>
    numberAt(sorted, Math.round((k * (sorted.length - 1)) / (HEIGHTS - 1))),
  );
}

/** The height of a bridge in the letter's own coordinates. */
export const heightOf = (c: Candidate, matrix: Matrix): number => applyMatrix(invert(matrix), middleOf(c)).y;

const middleOf = ({ span }: Candidate): Point => ({
  x: (span.from.middle.x + span.to.middle.x) / 2,
  y: (span.from.middle.y + span.to.middle.y) / 2,
});

/** Level bridges whose middle line is at a height: the cheaper one, or both ends when two are wanted. */
function candidatesAt(edges: VoidEdges, { site, matrix, count }: Levelled, y: number): Candidate[] {
  const back = invert(matrix);
  const first = numberAt(edges.firstChord, site.island);
  const last = numberAt(edges.firstChord, site.island + 1);
  const along = Math.atan2(site.standard.along.y, site.standard.along.x);
  const found: Candidate[] = [];
  for (let i = first; i < last; i++) {
    const ya = applyMatrix(back, { x: edges.x0(i), y: edges.y0(i) }).y;
    const yb = applyMatrix(back, { x: edges.x1(i), y: edges.y1(i) }).y;
    if (ya > y === yb > y) continue;
    const at = numberAt(edges.start, i) + ((y - ya) / (yb - ya)) * edges.chordLength(i);
    for (const angle of [along, along + Math.PI]) {
      const c = candidateAt(edges, site, { at, angle });
      if (c) found.push(c);
    }
  }
  found.sort((a, b) => a.cost - b.cost);
  const one = found[0];
  if (count < 2 || !one) return found.slice(0, 1);
  const other = found.find((c) => c.span.way.x * one.span.way.x + c.span.way.y * one.span.way.y < 0);
  return other ? [one, other] : [one];
}
