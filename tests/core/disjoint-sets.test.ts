/** Sets joined one after the other. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { indexChords } from '../../src/core/geometry/chord-index';
import { DisjointSets } from '../../src/core/geometry/disjoint-sets';

test('what was joined, directly or through others, is one set, and nothing else', () => {
  const pairs = fc.array(fc.tuple(fc.nat(19), fc.nat(19)), { maxLength: 30 });
  fc.assert(
    fc.property(pairs, (joined) => {
      const sets = new DisjointSets(20);
      // By brute force: everything that can be reached over the pairs.
      const reached = Array.from({ length: 20 }, (_, i) => new Set([i]));
      for (const [i, j] of joined) {
        sets.join(i, j);
        const all = new Set([...(reached[i] as Set<number>), ...(reached[j] as Set<number>)]);
        for (const k of all) reached[k] = all;
      }
      for (let i = 0; i < 20; i++)
        for (let j = 0; j < 20; j++) expect(sets.areJoined(i, j)).toBe((reached[i] as Set<number>).has(j));
    }),
  );
});

test('what stands for the second of two stands for both; sets are gathered in order', () => {
  const sets = new DisjointSets(5);
  sets.join(3, 1);
  expect([sets.find(3), sets.find(1)]).toEqual([1, 1]);
  expect(sets.gather(['a', 'b', 'c', 'd', 'e'])).toEqual([['a'], ['b', 'd'], ['c'], ['e']]);
  const more = new DisjointSets();
  expect([more.add(), more.add(), more.areJoined(0, 1)]).toEqual([0, 1, false]);
});

test('chords are found where they lie, whichever way they run; of none nothing is found', () => {
  const index = indexChords(2, (i, put) => (i === 0 ? put(0, 0, 1, 1) : put(9, 9, 8, 8)));
  expect(index.search(8.4, 8.4, 8.6, 8.6)).toEqual([1]);
  expect(index.search(-1, -1, 20, 20).sort()).toEqual([0, 1]);
  expect(indexChords(0, () => {}).search(-1e9, -1e9, 1e9, 1e9)).toEqual([]);
});
