/** What is said of a job that could not be saved: why, and where it is; nothing is said to be kept that is not. */
import { expect, test } from 'vitest';
import { notSavedWords } from '../../src/bench/not-saved-words';

test('an outage says whether the browser keeps the work, once that is known', () => {
  const away = { kind: 'away', sentence: 'The server is away.' } as const;
  expect(notSavedWords(away, null)).toBe('The server is away.');
  expect(notSavedWords(away, true)).toBe(
    'The server is away. Your work is kept in this browser, and saved when it is back.',
  );
  expect(notSavedWords(away, false)).toMatch(/away\. Leave this window open: this browser can’t keep/);
});

test('what is refused too', () => {
  const refused = { kind: 'refused', sentence: 'Too large.' } as const;
  expect(notSavedWords(refused, true)).toBe('Too large. Until it can be saved it is kept in this browser.');
  expect(notSavedWords(refused, false)).toMatch(/^Too large\. Leave this window open/);
});

test('nothing is said where it is saved, or something is asked', () => {
  expect(notSavedWords({ kind: 'saved', at: '' }, true)).toBeNull();
  expect(notSavedWords({ kind: 'gone' }, true)).toBeNull();
});
