/** Where things anchored to letters go when the words are edited. */

/** Texts whose changed stretches are longer than this, multiplied, are matched by their unchanged ends only. */
const MOST_MATCHED = 1_000_000;

/**
 * Maps an index in the text before an edit to the text after it; null when its letter is gone. What stands before and
 * after the change keeps its letters; within it those of the longest common subsequence do.
 */
export function letterMap(before: string, after: string): (index: number) => number | null {
  let head = 0;
  const shorter = Math.min(before.length, after.length);
  while (head < shorter && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < shorter - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  const shift = after.length - before.length;
  const matched = commonLetters(before.slice(head, before.length - tail), after.slice(head, after.length - tail));
  return (index) => {
    if (index < head) return index;
    if (index >= before.length - tail) return index + shift;
    const at = matched.get(index - head);
    return at === undefined ? null : at + head;
  };
}

/** Indices of the letters of a longest common subsequence (Wagner and Fischer 1974), from the one text to the other. */
function commonLetters(a: string, b: string): ReadonlyMap<number, number> {
  const matched = new Map<number, number>();
  if (a.length === 0 || b.length === 0 || a.length * b.length > MOST_MATCHED) return matched;
  const wide = b.length + 1;
  const longest = new Uint32Array((a.length + 1) * wide);
  const longestFrom = (i: number, j: number): number => longest[i * wide + j] ?? 0;
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      longest[i * wide + j] =
        a[i] === b[j] ? longestFrom(i + 1, j + 1) + 1 : Math.max(longestFrom(i + 1, j), longestFrom(i, j + 1));
  let i = 0;
  let j = 0;
  while (i < a.length && j < b.length) {
    if (a[i] === b[j]) matched.set(i++, j++);
    else if (longestFrom(i + 1, j) >= longestFrom(i, j + 1)) i++;
    else j++;
  }
  return matched;
}

/** Entries anchored at indices of a text, where a map takes them; those whose letters are gone are left out. */
export const carried = <T extends { readonly at: number }>(
  entries: readonly T[],
  map: (at: number) => number | null,
): T[] =>
  entries.flatMap((entry) => {
    const at = map(entry.at);
    return at === null ? [] : [{ ...entry, at }];
  });
