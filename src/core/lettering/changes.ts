/** Where things anchored to letters go when the words are edited: what stands before and after the edit keeps its letters. */

/** Maps an index in the text before an edit to the text after it; null when its letter is gone. */
export function letterMap(before: string, after: string): (index: number) => number | null {
  let head = 0;
  const shorter = Math.min(before.length, after.length);
  while (head < shorter && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < shorter - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  const shift = after.length - before.length;
  return (index) => {
    if (index < head) return index;
    return index >= before.length - tail ? index + shift : null;
  };
}

/** Entries anchored at indices of a text, carried to the edited text; those whose letters are gone are left out. */
export const carried = <T extends { readonly at: number }>(
  entries: readonly T[],
  before: string,
  after: string,
): T[] => {
  const map = letterMap(before, after);
  return entries.flatMap((entry) => {
    const at = map(entry.at);
    return at === null ? [] : [{ ...entry, at }];
  });
};
