/** What the user says of joints: of one pair or of all like it, kept with the letters it is about. */
import { describe, expect, test } from 'vitest';
import { canJoinPair, joinPair } from '../../src/core/commands/joints';
import { setWords } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import type { PairAnswer } from '../../src/core/schema/lettering';
import { jobWith, lettering, partOf } from '../support/jobs';

const words = (pairs: readonly PairAnswer[], text = 'lilil'): Job =>
  jobWith([partOf([lettering(text, 'Poppins', { closeUp: { overlap: 1, joints: 'best', pairs } })])]);
const pairsOf = (job: Job): readonly PairAnswer[] => {
  const member = job.parts[0]?.members[0];
  return (member?.kind === 'lettering' && member.closeUp?.pairs) || [];
};
const idsOf = (job: Job) => [job.parts[0]?.id as string, job.parts[0]?.members[0]?.id as string] as const;
const join = (job: Job, at: number | null, how: PairAnswer['how'] | null) =>
  joinPair(job, ...idsOf(job), { left: 'l', right: 'i', at }, how);

describe('joints as the user says', () => {
  test('all pairs like it, then one of them, then all again', () => {
    const all = join(words([]), null, 'tie');
    expect(pairsOf(all)).toEqual([{ left: 'l', right: 'i', at: null, how: 'tie' }]);
    const one = join(all, 3, 'foot');
    expect(pairsOf(one).map(({ at, how }) => [at, how])).toEqual([
      [null, 'tie'],
      [3, 'foot'],
    ]);
    expect(pairsOf(join(one, 3, 'touch')).map(({ at, how }) => [at, how])).toEqual([
      [null, 'tie'],
      [3, 'touch'],
    ]);
    expect(pairsOf(join(one, 3, null))).toEqual(pairsOf(all));
    expect(pairsOf(join(one, null, 'apart')).map(({ at, how }) => [at, how])).toEqual([[null, 'apart']]);
    expect(pairsOf(join(one, null, null))).toEqual([]);
  });

  test('other pairs are left as they are', () => {
    const other: PairAnswer = { left: 'i', right: 'l', at: null, how: 'foot' };
    expect(pairsOf(join(words([other]), null, 'tie'))).toContainEqual(other);
    expect(pairsOf(join(words([other]), null, null))).toEqual([other]);
  });

  test('what is said of a single pair goes with its letter, and with that it ends', () => {
    const job = words([
      { left: 'l', right: 'i', at: 3, how: 'tie' },
      { left: 'l', right: 'i', at: null, how: 'foot' },
    ]);
    const edited = setWords(job, ...idsOf(job), 'A lilil');
    expect(pairsOf(edited).map(({ at }) => at)).toEqual([5, null]);
    expect(pairsOf(setWords(job, ...idsOf(job), 'lil')).map(({ at }) => at)).toEqual([null]);
  });

  test('no more than there may be: what was said stays, and can be said otherwise', () => {
    const full = words(
      Array.from({ length: LIMITS.pairAnswers }, (_, at): PairAnswer => ({ left: 'l', right: 'i', at, how: 'foot' })),
    );
    const other = { left: 'i', right: 'l', at: null };
    expect(canJoinPair({ pairs: [...pairsOf(full)] }, other)).toBe(false);
    expect(pairsOf(joinPair(full, ...idsOf(full), other, 'tie'))).toEqual(pairsOf(full));
    expect(canJoinPair({ pairs: [...pairsOf(full)] }, { left: 'l', right: 'i', at: 3 })).toBe(true);
    const now = pairsOf(join(full, 3, 'tie'));
    expect(now).toHaveLength(LIMITS.pairAnswers);
    expect(now.find(({ at }) => at === 3)?.how).toBe('tie');
    expect(pairsOf(join(full, null, 'tie'))).toEqual([{ left: 'l', right: 'i', at: null, how: 'tie' }]);
  });

  test('letters that are too long to be named are joined as reads best', () => {
    const pair = { left: `a${'\u0301'.repeat(LIMITS.pairCharacters)}`, right: 'i', at: null };
    const job = words([]);
    expect(canJoinPair({ pairs: [] }, pair)).toBe(false);
    expect(joinPair(job, ...idsOf(job), pair, 'tie')).toEqual(job);
  });

  test('words that are not closed up, and what is not there, stay as they are', () => {
    const apart = jobWith([partOf([lettering('lil', 'Poppins')])]);
    expect(join(apart, null, 'tie')).toEqual(apart);
    expect(joinPair(apart, 'none', 'none', { left: 'l', right: 'i', at: null }, 'tie')).toEqual(apart);
  });
});
