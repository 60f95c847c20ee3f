/**
 * The islands of one letter bridged together: both halves of a B and both bowls of an 8 alike, and white left between the bridges, so
 * that they do not run into one block.
 */
import { applyMatrix, invert, type Matrix, type Point } from '../../geometry/point';
import { likeThere, placesIn } from './alike';
import type { CandidateSet } from './choose';
import { conflict, whiteBetween } from './conflict';
import type { VoidEdges } from './edges';
import type { Island } from './islands';
import type { Candidate, Site } from './search';

/** An island of a letter with the sets of bridges that it may have, the cheapest first. */
export type IslandOfLetter = {
  readonly island: Island;
  readonly site: Site;
  /** The letter's frame. */
  readonly matrix: Matrix;
  /** Bridges wanted. */
  readonly count: number;
  readonly options: readonly CandidateSet[];
};

/** A letter of more islands is bridged island by island. */
export const MOST_TOGETHER = 4;
/** So many of an island's best sets are tried on those like it too. */
const CARRIED = 3;

/** A bridge less than wanted costs this much for each that there would be. */
const FEWER = 0.8;
/** Two bridges with nothing between them, rather than the width of a stroke or of a bridge and a half. */
const CROWDED = 1.2;
const ROOM_WIDTHS = 1.5;
/** Islands alike that are bridged otherwise. */
const UNLIKE = 0.8;
/** A bridge that starts this many half extents of its island elsewhere is altogether otherwise. */
const ELSEWHERE = 2;
/** Islands are alike where neither differs more in width, in height, or in the share of its bounds it fills. */
const ALIKE_SIZE = 1.7;
const ALIKE_FILL = 1.35;

/** An island as it lies in its letter: the middle and half the extent of its bounds, and the share of those it fills. */
type Lying = { readonly middle: Point; readonly half: Point; readonly fill: number };

/** A bridge in its island: where it starts in half extents about the middle, and which way it runs. */
type InIsland = { readonly at: Point; readonly way: Point };

/** Alike is at the same place, or mirrored about a level line between them, or about an upright one and that. */
const MIRRORS: readonly Point[] = [
  { x: 1, y: 1 },
  { x: 1, y: -1 },
  { x: -1, y: -1 },
];

/**
 * The best set for each island, taken together; null when no choice holds them all. `holds` tells whether all islands hang
 * when they have those sets; `beside` is what each bridge needs of the edge next to it, in shares of its width.
 */
export function choiceTogether(
  edges: VoidEdges,
  given: readonly IslandOfLetter[],
  { beside, holds }: { readonly beside: number; readonly holds: (sets: readonly (readonly Candidate[])[]) => boolean },
): readonly CandidateSet[] | null {
  const lying = given.map((island) => lyingOf(edges, island));
  const islands = given.map((island, i) => ({ ...island, options: withCarried(edges, given, lying, i) }));
  const inIsland = islands.map((island, i) => island.options.map((set) => inIslandOf(island, lying[i] as Lying, set)));
  const alone = islands.map((island) => island.options.map((set) => aloneCost(island, set)));
  const pairs = new Map<string, number>();
  const pairCost = (i: number, a: number, j: number, b: number): number => {
    const key = `${i}/${a}/${j}/${b}`;
    let cost = pairs.get(key);
    if (cost === undefined) {
      const [one, other] = [islands[i], islands[j]] as [IslandOfLetter, IslandOfLetter];
      const [setA, setB] = [one.options[a], other.options[b]] as [CandidateSet, CandidateSet];
      cost = crowdedCost(edges, setA, setB, {
        usual: Math.min(one.site.standard.usual, other.site.standard.usual),
        beside,
      });
      if (cost < Infinity && areAlike(lying[i] as Lying, lying[j] as Lying))
        cost += UNLIKE * unlikeness(inIsland[i]?.[a] as InIsland[], inIsland[j]?.[b] as InIsland[]);
      pairs.set(key, cost);
    }
    return cost;
  };
  let best: { cost: number; chosen: number[] } | null = null;
  const chosen: number[] = [];
  const extend = (sum: number) => {
    if (best && sum >= best.cost) return;
    const i = chosen.length;
    if (i === islands.length) {
      const sets = chosen.map((a, k) => islands[k]?.options[a]?.candidates ?? []);
      if (holds(sets)) best = { cost: sum, chosen: [...chosen] };
      return;
    }
    for (let a = 0; a < (alone[i] as number[]).length; a++) {
      let cost = sum + (alone[i]?.[a] as number);
      for (let j = 0; j < i; j++) cost += pairCost(j, chosen[j] as number, i, a);
      chosen.push(a);
      extend(cost);
      chosen.pop();
    }
  };
  extend(0);
  const found = best as { cost: number; chosen: number[] } | null;
  return found === null ? null : found.chosen.map((a, i) => islands[i]?.options[a] as CandidateSet);
}

/** By the bridge: what a set costs, its own crowding and what it lacks. */
function aloneCost({ count, site }: IslandOfLetter, { candidates, cost }: CandidateSet): number {
  let crowded = 0;
  candidates.forEach((a, i) => {
    for (const b of candidates.slice(0, i)) crowded += crowding(a, b, site.standard.usual);
  });
  return cost / candidates.length + crowded + FEWER * (count - candidates.length);
}

/** Infinite where bridges of two islands get in each other's way. */
function crowdedCost(
  edges: VoidEdges,
  a: CandidateSet,
  b: CandidateSet,
  { usual, beside }: { readonly usual: number; readonly beside: number },
): number {
  let cost = 0;
  for (const one of a.candidates)
    for (const other of b.candidates) {
      if (conflict(edges, one.span, other.span, beside)) return Infinity;
      cost += crowding(one, other, usual);
    }
  return cost;
}

function crowding({ span: a }: Candidate, { span: b }: Candidate, usual: number): number {
  const room = Math.max(usual, ROOM_WIDTHS * Math.max(a.width, b.width));
  return CROWDED * Math.min(1, Math.max(0, 1 - whiteBetween(a, b) / room));
}

function lyingOf(edges: VoidEdges, { island: { outline, areaMm2 }, matrix }: IslandOfLetter): Lying {
  const back = invert(matrix);
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  const last = edges.firstChord[outline + 1] ?? edges.ax.length;
  for (let i = edges.firstChord[outline] ?? last; i < last; i++) {
    const { x, y } = applyMatrix(back, { x: edges.ax[i] as number, y: edges.ay[i] as number });
    minX = Math.min(minX, x);
    maxX = Math.max(maxX, x);
    minY = Math.min(minY, y);
    maxY = Math.max(maxY, y);
  }
  const half = { x: Math.max(1e-9, (maxX - minX) / 2), y: Math.max(1e-9, (maxY - minY) / 2) };
  const areaInLetter = areaMm2 * Math.abs(back.a * back.d - back.b * back.c);
  return { middle: { x: (minX + maxX) / 2, y: (minY + maxY) / 2 }, half, fill: areaInLetter / (4 * half.x * half.y) };
}

const inIslandOf = ({ matrix }: IslandOfLetter, { middle, half }: Lying, { candidates }: CandidateSet): InIsland[] =>
  placesIn(candidates, matrix).map(({ at, way }) => ({
    at: { x: (at.x - middle.x) / half.x, y: (at.y - middle.y) / half.y },
    way,
  }));

/** An island's own sets, and the best of those of islands like it at the same places, straight and mirrored. */
function withCarried(
  edges: VoidEdges,
  islands: readonly IslandOfLetter[],
  lying: readonly Lying[],
  of: number,
): CandidateSet[] {
  const own = islands[of] as IslandOfLetter;
  const here = lying[of] as Lying;
  const carried = islands.flatMap((other, i) => {
    const there = lying[i] as Lying;
    if (i === of || !areAlike(here, there)) return [];
    return other.options.slice(0, CARRIED).flatMap((set) =>
      MIRRORS.flatMap((mirror): CandidateSet[] => {
        const candidates = inIslandOf(other, there, set).flatMap(
          (place) => placedAt(edges, own, here, mirroredBy(mirror, place)) ?? [],
        );
        if (candidates.length < set.candidates.length) return [];
        return [{ candidates, cost: candidates.reduce((sum, c) => sum + c.cost, 0) }];
      }),
    );
  });
  return [...own.options, ...carried];
}

const mirroredBy = (mirror: Point, { at, way }: InIsland): InIsland => ({
  at: { x: mirror.x * at.x, y: mirror.y * at.y },
  way: { x: mirror.x * way.x, y: mirror.y * way.y },
});

/** The bridge that starts nearest to a place in an island and runs that way. */
const placedAt = (
  edges: VoidEdges,
  { site, matrix }: IslandOfLetter,
  { middle, half }: Lying,
  { at, way }: InIsland,
): Candidate | null =>
  likeThere(
    edges,
    site,
    { at: { x: middle.x + at.x * half.x, y: middle.y + at.y * half.y }, way, width: site.width },
    matrix,
  );

const within = (a: number, b: number, times: number): boolean => Math.max(a, b) <= times * Math.min(a, b);

const areAlike = (a: Lying, b: Lying): boolean =>
  within(a.half.x, b.half.x, ALIKE_SIZE) &&
  within(a.half.y, b.half.y, ALIKE_SIZE) &&
  within(a.fill, b.fill, ALIKE_FILL);

/** 0 where two islands are bridged alike, 1 where altogether otherwise. */
function unlikeness(a: readonly InIsland[], b: readonly InIsland[]): number {
  if (a.length !== b.length) return 1;
  return Math.min(
    ...MIRRORS.map((mirror) => {
      const mirrored = b.map((place) => mirroredBy(mirror, place));
      const sum = a.reduce((total, one) => total + Math.min(...mirrored.map((other) => offBy(one, other))), 0);
      return sum / a.length;
    }),
  );
}

const offBy = (a: InIsland, b: InIsland): number =>
  Math.min(
    1,
    Math.hypot(a.at.x - b.at.x, a.at.y - b.at.y) / ELSEWHERE +
      Math.hypot(a.way.x - b.way.x, a.way.y - b.way.y) / Math.SQRT2,
  );
