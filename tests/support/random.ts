/** Repeatable chance: a small generator (mulberry32) and words made from it. */

export type Chance = () => number;

export function chance(seed: number): Chance {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

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
