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

/** What a set of bridges is chosen under. */
export type SetRule = {
  readonly count: number;
  readonly standard: Standard;
  /** Which may be the one that the island hangs on. */
  readonly first: Allowed;
  /** Whether somebody asked for that many. */
  readonly isAsked: boolean;
  /** What each bridge needs of the edge next to it, in shares of its width. */
  readonly beside: number;
};

/** The cheapest set of `count` from the pool, which is sorted by cost; fewer when no more fit, null when none does. */
export function cheapest(edges: VoidEdges, pool: readonly Candidate[], rule: SetRule): CandidateSet | null {
  const { count, first, isAsked } = rule;
  const cheapestSingle = pool.find((c) => first(c.span));
  if (!cheapestSingle) return null;
  const single: CandidateSet = { candidates: [cheapestSingle], cost: cheapestSingle.cost };
  if (count === 1) return single;
  const [found] = cheapestSets(edges, pool, rule, 1);
  if (!found) return cheapest(edges, pool, { ...rule, count: count - 1 });
  if (!isAsked && found.candidates.some((c) => c.cost > single.cost + SECOND_MORE)) return single;
  return found;
}

/** The cheapest sets of exactly `count` bridges that keep clear of each other, up to so many, the cheapest first. */
export function cheapestSets(
  edges: VoidEdges,
  pool: readonly Candidate[],
  { count, standard, first, beside }: SetRule,
  most: number,
): CandidateSet[] {
  const best: CandidateSet[] = [];
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
  const dearest = (): number => (best.length < most ? Infinity : (best[most - 1] as CandidateSet).cost);
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
      if (cost >= dearest() - 1e-12) return;
      best.splice(best.filter((b) => b.cost <= cost).length, 0, { candidates: set, cost });
      best.length = Math.min(best.length, most);
      return;
    }
    for (let i = from; i < pool.length; i++) {
      const c = pool[i] as Candidate;
      if (sum + c.cost >= dearest()) continue;
      if (!chosen.every((j) => apart(j, i))) continue;
      chosen.push(i);
      extend(i + 1, sum + c.cost);
      chosen.pop();
    }
  };
  extend(0, 0);
  return best;
}
