/** Text that can be kept, and cut where a reader would cut it. */

/** Signs that neither JSON in a database nor a file of text can hold: nothing at all, and halves of a pair. */
const UNKEEPABLE = /[\0\p{Cs}]/u;

/** Whether a text can be kept as it is. */
export const isKeepable = (text: string): boolean => !UNKEEPABLE.test(text);

/** A text without what can't be kept. */
export const keepable = (text: string): string =>
  isKeepable(text) ? text : text.replace(new RegExp(UNKEEPABLE, 'gu'), '');

/** A text of at most `most` UTF-16 units, cut between what a reader takes for letters: an emoji or an accent is never halved. */
export function cutTo(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { index, segment } of new Intl.Segmenter(undefined, { granularity: 'grapheme' }).segment(
    // No letter is longer than that, and all of a long text would be looked at otherwise.
    text.slice(0, most + 64),
  )) {
    if (index + segment.length > most) break;
    end = index + segment.length;
  }
  return text.slice(0, end);
}
