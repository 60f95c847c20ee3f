/** Text that can be kept, and cut where a reader would cut it. */

/** Signs that neither JSON in a database nor a file of text can hold: nothing at all, and halves of a pair. */
const UNKEEPABLE = /[\0\p{Cs}]/u;

/** Whether a text can be kept as it is. */
export const isKeepable = (text: string): boolean => !UNKEEPABLE.test(text);

/** A text without what can't be kept. */
export const keepable = (text: string): string =>
  isKeepable(text) ? text : text.replace(new RegExp(UNKEEPABLE, 'gu'), '');

/** No letter is longer than that, in UTF-16 units. */
const LONGEST_LETTER = 64;
/** So far back a sign is looked for that begins a letter whatever stands before it. */
const LOOKED_BACK = 4096;

/** A text of at most `most` UTF-16 units, cut between what a reader takes for letters: an emoji or an accent is never halved. */
export function cutTo(text: string, most: number): string {
  if (text.length <= most) return text;
  // Telling letters apart takes long: only the end is looked at, from a plain sign on, if there is one.
  let from = Math.max(0, most - LONGEST_LETTER);
  const earliest = Math.max(0, from - LOOKED_BACK);
  while (from > earliest && !/[!-~]/.test(text[from] as string)) from--;
  if (from === earliest) from = 0;
  let end = from;
  const letters = new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  for (const { index, segment } of letters.segment(text.slice(from, most + LONGEST_LETTER))) {
    if (from + index + segment.length > most) break;
    end = from + index + segment.length;
  }
  return text.slice(0, end);
}
