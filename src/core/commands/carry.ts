/** What of a part is anchored to letters, kept with them through new words. */
import type { Part } from '../document/schema';
import { carryLetters } from '../kinds/steps';

/** The key of the same letter as it is then; null when it is gone. */
export type KeyOf = (letter: string) => string | null;

/** Whatever of a part stands on letters goes with them, and with those that go. */
export function carryPlaces(part: Part, keyOf: KeyOf): void {
  for (const step of part.steps) carryLetters(step, { keyOf });
  const carried = <P extends { readonly letter: string }>(places: readonly P[]): P[] =>
    places.flatMap((place) => {
      const letter = keyOf(place.letter);
      return letter === null ? [] : [{ ...place, letter }];
    });
  if (part.starts.length > 0) part.starts = carried(part.starts);
  if (part.tabs.length > 0) part.tabs = carried(part.tabs);
  if (part.sides.length > 0) part.sides = carried(part.sides);
  for (const { only } of part.work) if (only) only.letters = only.letters.flatMap((letter) => keyOf(letter) ?? []);
  part.work = part.work.filter(({ only }) => only === null || only.dots || only.letters.length > 0);
}
