/** Editing the words of a lettering: what is anchored to its letters goes along. */
import type { Lettering, Part } from '../document/schema';
import { carried, letterMap } from '../lettering/changes';
import { stepIn } from './steps';

/** Change the words in a part given as a draft or a copy. Changes to letters and answers for ties keep their letters. */
export function setWords(part: Part, lettering: Lettering, text: string): void {
  const before = lettering.text;
  lettering.text = text;
  lettering.letters = carried(lettering.letters, before, text);
  const step = stepIn(part, 'tie');
  if (!step || step.answers.length === 0) return;
  const map = letterMap(before, text);
  step.answers = step.answers.flatMap((answer) => {
    const found = /^(.+):(\d+)(\/\d+)?$/.exec(answer.piece);
    if (!found || found[1] !== lettering.id) return [answer];
    const at = map(Number(found[2]));
    return at === null ? [] : [{ ...answer, piece: `${found[1]}:${at}${found[3] ?? ''}` }];
  });
}
