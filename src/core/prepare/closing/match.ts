/**
 * Which loose ends belong together. Every pair of ends within reach has a cost: its gap, more where the lines do not run
 * into each other. A pair is sure when each is by far the best the other has; everything else is asked.
 */
import Flatbush from 'flatbush';
import { distance, type Point } from '../../geometry/point';

/** An end of a chain of lines that meets no other. */
export type LooseEnd = {
  readonly id: number;
  readonly at: Point;
  /** Unit direction in which the line runs out. */
  readonly way: Point;
  /** Which chain it belongs to, and how long that is in mm. */
  readonly chain: number;
  readonly chainMm: number;
};

/** Two ends that could be meant to meet: their ids, the gap in mm and what joining them costs. */
export type Pair = { readonly a: number; readonly b: number; readonly gap: number; readonly cost: number };

/** Which ends belong together: those that are certain, and those to be asked about. */
export type Matching = {
  readonly certain: readonly Pair[];
  /** Pairs that could be meant, cheapest first; each end is in at least one. */
  readonly asked: readonly Pair[];
};

/** The second best must cost this many times the best, or the best is asked. */
const CLEARLY = 2.5;
/** Costs smaller than this are all the same, in mm. */
const LEAST_COST = 0.01;
/** An end must be nearer than this share of its own chain's length to the chain's other end to be closed with it. */
const OF_CHAIN = 0.5;

const angleBetween = (ux: number, uy: number, vx: number, vy: number): number =>
  Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));

function costOf(p: LooseEnd, q: LooseEnd): Pair {
  const gap = distance(p.at, q.at);
  let misfit = 0;
  if (gap > LEAST_COST) {
    const x = (q.at.x - p.at.x) / gap;
    const y = (q.at.y - p.at.y) / gap;
    const straight = Math.max(angleBetween(p.way.x, p.way.y, x, y), angleBetween(q.way.x, q.way.y, -x, -y));
    misfit = Math.min(straight, cornerMisfit(p, q, gap));
  }
  return { a: p.id, b: q.id, gap, cost: Math.max(LEAST_COST, gap) * (1 + misfit) };
}

/** How badly two ends make a corner: 0 when they run on, or back, to a point about a gap away. */
function cornerMisfit(p: LooseEnd, q: LooseEnd, gap: number): number {
  const cross = p.way.x * q.way.y - p.way.y * q.way.x;
  if (Math.abs(cross) < 0.1) return Math.PI;
  const dx = q.at.x - p.at.x;
  const dy = q.at.y - p.at.y;
  const t = (dx * q.way.y - dy * q.way.x) / cross;
  const u = (dx * p.way.y - dy * p.way.x) / cross;
  const far = Math.max(Math.abs(t), Math.abs(u)) / gap;
  return far <= 1.6 ? 0 : Math.min(Math.PI, far - 1.6);
}

/** Matches ends that are at most `reach` mm apart. A pair is certain when each is by far the cheapest the other has. */
export function matchEnds(ends: readonly LooseEnd[], reach: number): Matching {
  if (ends.length < 2) return { certain: [], asked: [] };
  const index = new Flatbush(ends.length);
  for (const { at } of ends) index.add(at.x, at.y, at.x, at.y);
  index.finish();
  const pairs = new Map<number, Pair[]>();
  const all: Pair[] = [];
  ends.forEach((p, i) => {
    // Beyond the reach, too: what is nearly as near leaves a pair in doubt.
    const far = CLEARLY * reach;
    for (const j of index.search(p.at.x - far, p.at.y - far, p.at.x + far, p.at.y + far)) {
      if (j <= i) continue;
      const q = ends[j] as LooseEnd;
      const pair = costOf(p, q);
      if (pair.gap > far || (p.chain === q.chain && pair.gap > OF_CHAIN * p.chainMm)) continue;
      all.push(pair);
      for (const end of [p.id, q.id]) {
        const list = pairs.get(end);
        if (list) list.push(pair);
        else pairs.set(end, [pair]);
      }
    }
  });
  for (const list of pairs.values()) list.sort((a, b) => a.cost - b.cost);
  const second = (end: number): number => pairs.get(end)?.[1]?.cost ?? Infinity;
  const certain = all.filter((pair) => {
    if (pair.gap > reach) return false;
    if (pairs.get(pair.a)?.[0] !== pair || pairs.get(pair.b)?.[0] !== pair) return false;
    return Math.min(second(pair.a), second(pair.b)) >= CLEARLY * pair.cost;
  });
  const settled = new Set(certain.flatMap((pair) => [pair.a, pair.b]));
  const asked = all
    .filter((pair) => pair.gap <= reach && !settled.has(pair.a) && !settled.has(pair.b))
    .sort((a, b) => a.cost - b.cost);
  return { certain: certain, asked };
}
