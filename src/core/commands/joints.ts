/** How neighbours of a lettering are joined, where the user says otherwise than what reads best. */
import type { Job } from '../document/schema';
import { LIMITS } from '../limits';
import type { CloseUp, PairAnswer } from '../schema/lettering';
import { changed, memberOf } from './changed';

/** A pair of neighbours: all like it, or the one whose right letter stands at a place of the text. */
export type PairAt = Pick<PairAnswer, 'left' | 'right' | 'at'>;

const isFor =
  ({ left, right, at }: PairAt) =>
  (answer: PairAnswer): boolean =>
    answer.left === left && answer.right === right && answer.at === at;

/** Whether both letters of a pair are short enough to be named in a document. */
const isNameable = ({ left, right }: PairAt): boolean => Math.max(left.length, right.length) <= LIMITS.pairCharacters;

/** Whether something can be said of a pair: its letters can be named, and there is room for one more. */
export const canJoinPair = ({ pairs }: Pick<CloseUp, 'pairs'>, pair: PairAt): boolean =>
  isNameable(pair) && (pairs.length < LIMITS.pairAnswers || pairs.some(isFor(pair)));

/**
 * Join a pair of neighbours as said; null: by what reads best again. What is said of all like it is said of each of them: what was said
 * of single ones before goes. Nothing changes where `canJoinPair` says no.
 */
export const joinPair = (
  job: Job,
  partId: string,
  memberId: string,
  pair: PairAt,
  how: PairAnswer['how'] | null,
): Job =>
  changed(job, (draft) => {
    const words = memberOf(draft, partId, memberId);
    if (words?.kind !== 'lettering' || !words.closeUp || !isNameable(pair)) return;
    const isOf = isFor(pair);
    const others = words.closeUp.pairs.filter(
      (answer) => !isOf(answer) && !(pair.at === null && answer.left === pair.left && answer.right === pair.right),
    );
    if (how === null) words.closeUp.pairs = others;
    else if (others.length < LIMITS.pairAnswers) words.closeUp.pairs = [...others, { ...pair, how }];
  });

/** What is said of pairs, carried to edited words: what is said of a single pair whose letter is gone is left out. */
export function carriedPairs(pairs: CloseUp['pairs'], map: (at: number) => number | null): CloseUp['pairs'] {
  return pairs.flatMap((answer) => {
    if (answer.at === null) return [answer];
    const at = map(answer.at);
    return at === null ? [] : [{ ...answer, at }];
  });
}
