import { expect, test } from 'vitest';
import { formatSeconds, formatSecondsMore } from '../../src/core/units/duration';

test.each([
  [0, '0.0 s'],
  [0.44, '0.4 s'],
  [9.96, '10 s'],
  [59.6, '1 min 00 s'],
  [160, '2 min 40 s'],
  [3599.7, '1 h 00 min'],
  [3900, '1 h 05 min'],
  [36_000, '10 h 00 min'],
])('%d seconds: %s', (seconds, words) => {
  expect(formatSeconds(seconds)).toBe(words);
});

test('differences have a sign', () => {
  expect([formatSecondsMore(4.2), formatSecondsMore(-65)]).toEqual(['+4.2 s', '−1 min 05 s']);
});
