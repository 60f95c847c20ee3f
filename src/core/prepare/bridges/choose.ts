import { numberAt } from '../../geometry/elements';
import { conflict } from './conflict';
import { costTogether, type Standard } from './cost';
import type { VoidEdges } from './edges';
import { type Candidate, candidateAt, candidatesFor, type Site } from './search';

/** Candidates that go together, and what they cost. */
export type CandidateSet = { readonly candidates: readonly Candidate[]; readonly cost: number };

/** Places considered for several bridges, and those whose opposite is tried too. */
const POOL = 14;
const OPPOSITES = 6;
/** A second bridge that nobody asked for must not cost this much more than the first. */
const SECOND_MORE = 1.6;

/** Widths tried, of the one asked for, until there is a place. */
const NARROWER = [1, 0.85, 0.7, 0.58, 0.48, 0.4, 0.33, 0.27, 0.22];

/** The widths a bridge may have in a tight place, widest first. */
export function widthsFrom(width: number, least: number): number[] {
  const all = NARROWER.map((share) => share * width).filter((w) => w > least + 1e-9 || w === width);
  return width > least ? [...all, least] : [width];
}

/** Good places on an island and those just opposite the best of them. */
export function poolFor(edges: VoidEdges, site: Site, several: boolean): Candidate[] {
  const pool = candidatesFor(edges, site, several);
  if (!several) return pool;
  const opposite = pool.slice(0, OPPOSITES).flatMap((c) => {
    const found = oppositeOf(edges, site, c);
    return found ? [found] : [];
  });
  return [...pool.slice(0, POOL), ...opposite];
}

/** The bridge in one line with another, on the far side of the island. */
function oppositeOf(edges: VoidEdges, site: Site, { span, angle }: Candidate): Candidate | null {
  const back = { x: -span.way.x, y: -span.way.y };
  const chord = edges.nearest(span.from.middle, [site.island])?.chord ?? -1;
  const hit = edges.ray(span.from.middle, back, 4 * site.standard.reach, chord);
  if (!hit || edges.outline[hit.chord] !== site.island) return null;
  const at = numberAt(edges.start, hit.chord) + hit.along * edges.chordLength(hit.chord);
  return candidateAt(edges, site, { at, angle: angle + Math.PI });
}

/** Whether a span may be taken at all. */
export type Allowed = (span: Candidate['span']) => boolean;

/**
 * The cheapest set of `count` from the pool (fewer when no more fit); `first` says which may be the one that the island
 * hangs on. `isAsked`: whether somebody asked for that many.
 */
export function cheapest(
  edges: VoidEdges,
  pool: readonly Candidate[],
  {
    count,
    standard,
    first,
    isAsked,
    beside,
  }: {
    readonly count: number;
    readonly standard: Standard;
    readonly first: Allowed;
    readonly isAsked: boolean;
    readonly beside: number;
  },
): CandidateSet | null {
  let best: CandidateSet | null = null;
  const cheapestSingle = pool.find((c) => first(c.span));
  if (!cheapestSingle) return null;
  const single: CandidateSet = { candidates: [cheapestSingle], cost: cheapestSingle.cost };
  if (count === 1) return single;
  const meets = new Map<number, boolean>();
  const apart = (i: number, j: number): boolean => {
    const key = i * pool.length + j;
    let known = meets.get(key);
    if (known === undefined) {
      known = !conflict(edges, (pool[i] as Candidate).span, (pool[j] as Candidate).span, beside);
      meets.set(key, known);
    }
    return known;
  };
  const chosen: number[] = [];
  const extend = (from: number, sum: number) => {
    if (chosen.length === count) {
      const set = chosen.map((i) => pool[i] as Candidate);
      if (!set.some((c) => first(c.span))) return;
      const cost =
        sum +
        costTogether(
          set.map((c) => c.span),
          standard,
        );
      if (!best || cost < best.cost - 1e-12) best = { candidates: set, cost };
      return;
    }
    for (let i = from; i < pool.length; i++) {
      const c = pool[i] as Candidate;
      if (best && sum + c.cost >= best.cost) continue;
      if (!chosen.every((j) => apart(j, i))) continue;
      chosen.push(i);
      extend(i + 1, sum + c.cost);
      chosen.pop();
    }
  };
  extend(0, 0);
  const found = best as CandidateSet | null;
  if (!found) return cheapest(edges, pool, { count: count - 1, standard, first, isAsked, beside });
  if (!isAsked && found.candidates.some((c) => c.cost > single.cost + SECOND_MORE)) return single;
  return found;
}
