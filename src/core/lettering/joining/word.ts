/**
 * The joints of a word. Its pairs meet only in its rhythm and in the height of its strips: for each of a few common slides and heights
 * every pair takes what costs it least, and the least sum is the word. So like pairs are treated alike.
 */
import type { Neighbours, Way } from './neighbours';

/** What the joints of a word cost beside those of its pairs. */
const COSTS = {
  /** A pair that is closed up by more or less than the others; a word that is closed up at all. */
  rhythm: 0.4,
  tight: 0.12,
  /** A strip at another height than the others. */
  odd: 0.06,
};
/** Strips this near in height are at the same one. */
const SAME_HEIGHT = 0.05;
/** A word is not tightened farther than this past where its letters first touch. */
const PAST_TOUCH = 0.05;
/** Slides tried for the word. */
const SLIDES = 7;
/** White of a pair that counts at least, where the letters of a word stand close. */
const LEAST_WHITE = 0.02;

/** The way each pair of a word is joined in; null for one that has none. `small` is the height of small letters, `width` of strips. */
export function joinWord(pairs: readonly Neighbours[], small: number, width: number): (Way | null)[] {
  const inner = pairs.filter((p) => !p.isSpace);
  const white = Math.max(LEAST_WHITE, median(inner.map((p) => p.white)));
  // What does not face each other says nothing of how far the word may be tightened.
  const most = median(
    inner.flatMap(({ touch, first }) => {
      const slide = Math.min(touch ?? Infinity, first + PAST_TOUCH);
      return Number.isFinite(slide) ? [Math.max(0, slide)] : [];
    }),
  );
  let best: { readonly cost: number; readonly ways: (Way | null)[] } = { cost: Infinity, ways: pairs.map(() => null) };
  for (let k = 0; k < (most > 0 ? SLIDES : 1); k++)
    for (const height of [0, small - width, 1 - width]) {
      const slide = (most * k) / (SLIDES - 1);
      let cost = (COSTS.tight * inner.length * slide * small) / white;
      const ways = pairs.map((pair) => {
        const found = cheapestOf(pair, { slide, height, white });
        cost += found?.cost ?? 0;
        return found?.way ?? null;
      });
      if (cost < best.cost) best = { cost, ways };
    }
  return best.ways;
}

function cheapestOf(
  pair: Neighbours,
  { slide, height, white }: { readonly slide: number; readonly height: number; readonly white: number },
): { readonly way: Way; readonly cost: number } | null {
  let best: { readonly way: Way; readonly cost: number } | null = null;
  for (const way of pair.ways) {
    const rhythm = pair.isSpace ? 0 : (COSTS.rhythm * Math.abs(way.slide - slide) * pair.height) / white;
    const isOdd = way.strip !== null && (way.level === null || Math.abs(way.level - height) > SAME_HEIGHT);
    const cost = way.cost + rhythm + (isOdd ? COSTS.odd : 0);
    if (!best || cost < best.cost) best = { way, cost };
  }
  return best;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  if (sorted.length === 0) return 0;
  const middle = sorted.length >> 1;
  const upper = sorted[middle] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] as number) + upper) / 2;
}
