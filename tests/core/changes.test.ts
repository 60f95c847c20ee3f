/** Which letter is which after words were edited. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { carried, letterMap } from '../../src/core/lettering/changes';

/** Where each letter of the one text is in the other. */
const mapped = (before: string, after: string) => [...before].map((_, i) => letterMap(before, after)(i));

/** Length of a longest common subsequence, by trying. */
function longest(a: string, b: string): number {
  const known = new Map<string, number>();
  const go = (i: number, j: number): number => {
    if (i === a.length || j === b.length) return 0;
    const key = `${i},${j}`;
    let best = known.get(key);
    if (best === undefined) {
      best = a[i] === b[j] ? 1 + go(i + 1, j + 1) : Math.max(go(i + 1, j), go(i, j + 1));
      known.set(key, best);
    }
    return best;
  };
  return go(0, 0);
}

describe('unchanged ends', () => {
  test.each<[string, string, (number | null)[]]>([
    ['abc', 'abc', [0, 1, 2]],
    ['abc', 'xabc', [1, 2, 3]],
    ['abc', 'abcx', [0, 1, 2]],
    ['abc', 'axbc', [0, 2, 3]],
    ['abc', 'ac', [0, null, 1]],
    ['abc', 'bc', [null, 0, 1]],
    ['abc', 'ab', [0, 1, null]],
    ['abc', '', [null, null, null]],
    ['', 'abc', []],
    ['abc', 'xyz', [null, null, null]],
    ['aXc', 'aYc', [0, null, 2]],
    // Twice the same: what stands before the change keeps its place first.
    ['aa', 'aaa', [0, 1]],
    ['aaa', 'aa', [0, 1, null]],
    ['abab', 'ab', [0, 1, null, null]],
    ['a', 'aba', [0]],
  ])('“%s” to “%s”', (before, after, where) => {
    expect(mapped(before, after)).toEqual(where);
  });
});

test('within a change at both ends at once, letters of a longest common subsequence stay', () => {
  expect(mapped('board', 'xboxrdy')).toEqual([1, 2, null, 4, 5]);
  expect(mapped('12345', 'x1y3z5w')).toEqual([1, null, 3, null, 5]);
  expect(mapped('xay', 'paq')).toEqual([null, 1, null]);
});

test('letters go to letters that are the same, in order, as many as can', () => {
  const text = fc.stringMatching(/^[abc]{0,9}$/);
  fc.assert(
    fc.property(text, text, (before, after) => {
      const where = mapped(before, after);
      const kept = where.flatMap((at, i) => (at === null ? [] : [{ at, i }]));
      for (const { at, i } of kept) expect(after[at]).toBe(before[i]);
      expect(kept.map((k) => k.at)).toEqual([...new Set(kept.map((k) => k.at))].sort((a, b) => a - b));
      expect(kept.length).toBe(longest(before, after));
    }),
    { numRuns: 500 },
  );
});

test('texts too long to be matched throughout are matched by their ends', () => {
  const [a, b] = ['p'.repeat(1_001), 'q'.repeat(1_000)];
  const where = letterMap(`<${a}m${a}>`, `<${b}m${b}>`);
  expect([where(0), where(1 + 1_001), where(2 * 1_001 + 2)]).toEqual([0, null, 2 * 1_000 + 2]);
  // A thousand letters against a thousand are still matched.
  const short = letterMap(`<${'p'.repeat(999)}m>`, `<m${'q'.repeat(999)}>`);
  expect([short(0), short(1_000), short(1_001)]).toEqual([0, 1, 1_001]);
});

test('what is anchored to letters goes along, the rest of it untouched', () => {
  const entries = [
    { at: 0, dx: 1 },
    { at: 2, dx: 2 },
  ];
  expect(carried(entries, letterMap('abc', 'xabc'))).toEqual([
    { at: 1, dx: 1 },
    { at: 3, dx: 2 },
  ]);
  expect(carried(entries, letterMap('abc', 'bc'))).toEqual([{ at: 1, dx: 2 }]);
  expect(entries[0]?.at).toBe(0);
});
