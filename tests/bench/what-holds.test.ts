/** What is said to hold the letters of a positive before any of them is joined. */
import { expect, test } from 'vitest';
import { whatHolds } from '../../src/bench/stations/hold/what-holds';

const seen = {
  hasBar: true,
  isClosedUp: false,
  isTied: false,
  letters: 6,
  away: [] as string[],
  awayCount: 0,
  overlaps: false,
};

test('a bar that holds them all, or what it leaves', () => {
  expect(whatHolds(seen)).toEqual({ words: 'the bar holds all 6 letters.', isAll: true });
  expect(whatHolds({ ...seen, letters: 2 })?.words).toBe('the bar holds both letters.');
  expect(whatHolds({ ...seen, away: ['the dot of i', 'the dot of j'], awayCount: 2 })).toEqual({
    words: 'the bar holds all but the dot of i and the dot of j.',
    isAll: false,
  });
  expect(whatHolds({ ...seen, letters: 40, away: ['the dot of i', 'the dot of j'], awayCount: 9 })?.words).toBe(
    'the bar holds all but the dot of i, the dot of j and 7 more.',
  );
});

test('letters that hang together as they are', () => {
  expect(whatHolds({ ...seen, hasBar: false })).toEqual({
    words: 'all 6 letters hang together as they are.',
    isAll: true,
  });
});

test('nothing where letters are joined, where most are loose, and where there is nothing to join', () => {
  for (const more of [
    { isClosedUp: true },
    { isTied: true },
    { overlaps: true },
    { letters: 1 },
    { letters: 0 },
    { away: ['R', 'I', 'D', 'G'], awayCount: 4 },
    { hasBar: false, away: ['the dot of i'], awayCount: 1 },
  ])
    expect(whatHolds({ ...seen, ...more })).toBeNull();
});
