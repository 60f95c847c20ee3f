/** Repeatable chance, and words made from it. */
import type { Chance } from '../../src/core/geometry/chance';

export { type Chance, chance } from '../../src/core/geometry/chance';

const LETTERS = 'aaabcdeeeefghiiijklmnooopqrrsstttuuvwxyzäéß';

/** A word of 3 to 11 letters, sometimes with a capital, figures or a sign. */
export function randomWord(next: Chance): string {
  const n = 3 + Math.floor(next() * 9);
  let word = '';
  for (let i = 0; i < n; i++) {
    const c = LETTERS[Math.floor(next() * LETTERS.length)] as string;
    word += i === 0 && next() < 0.6 ? c.toUpperCase() : c;
  }
  if (next() < 0.15) word += ` ${Math.floor(next() * 100)}`;
  if (next() < 0.1) word += '&';
  return word;
}
