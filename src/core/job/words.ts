/** Editing the words of a lettering: what is anchored to its letters goes along. */
import type { Lettering, Part } from '../document/schema';
import { carried, letterMap } from '../lettering/changes';
import { stepIn } from './steps';

/** Change the words in a part given as a draft or a copy. What is anchored to letters keeps its letters. */
export function setWords(part: Part, lettering: Lettering, text: string): void {
  const before = lettering.text;
  lettering.text = text;
  lettering.letters = carried(lettering.letters, before, text);
  const map = letterMap(before, text);
  /** The key of the same letter in the new words; null when it is gone. */
  const carriedKey = (key: string): string | null => {
    const found = /^(.+):(\d+)(\/\d+)?$/.exec(key);
    if (!found || found[1] !== lettering.id) return key;
    const at = map(Number(found[2]));
    return at === null ? null : `${found[1]}:${at}${found[3] ?? ''}`;
  };
  const onLetter = <T extends { letter: string }>(list: readonly T[]): T[] =>
    list.flatMap((entry) => {
      const letter = carriedKey(entry.letter);
      return letter === null ? [] : [{ ...entry, letter }];
    });
  const tie = stepIn(part, 'tie');
  if (tie)
    tie.answers = tie.answers.flatMap((answer) => {
      const piece = carriedKey(answer.piece);
      return piece === null ? [] : [{ ...answer, piece }];
    });
  const bridge = stepIn(part, 'bridge');
  if (bridge) {
    bridge.islands = onLetter(bridge.islands);
    bridge.placed = onLetter(bridge.placed);
  }
}
