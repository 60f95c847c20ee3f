/** What already holds the letters of a positive together, before any of them is joined to its neighbour. */
import { listed } from '@/core/inspect/names';

type Seen = {
  readonly hasBar: boolean;
  readonly isClosedUp: boolean;
  readonly isTied: boolean;
  /** Letters there are. */
  readonly letters: number;
  /** The first of the pieces that come away, and how many there are. */
  readonly away: readonly string[];
  readonly awayCount: number;
  readonly overlaps: boolean;
};

/** What to say of it, and whether nothing is left to be joined; null where letters are joined, or most of them are loose. */
export function whatHolds(seen: Seen): { readonly words: string; readonly isAll: boolean } | null {
  const { hasBar, isClosedUp, isTied, letters, away, awayCount, overlaps } = seen;
  if (isClosedUp || isTied || overlaps || letters === 0) return null;
  if (awayCount === 0) {
    if (letters < 2) return null;
    const all = letters === 2 ? 'both letters' : `all ${letters} letters`;
    return { words: hasBar ? `the bar holds ${all}.` : `${all} hang together as they are.`, isAll: true };
  }
  if (!hasBar || awayCount > letters / 2) return null;
  // Beyond a few they are counted.
  const names = Array.from({ length: awayCount }, (_, i) => away[i] ?? '');
  return { words: `the bar holds all but ${listed(names)}.`, isAll: false };
}
