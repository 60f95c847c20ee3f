/** Editing the words of a lettering: what is anchored to its letters goes along. */
import type { Job, Lettering } from '../document/schema';
import { carryLetters } from '../kinds/steps';
import { carried, letterMap } from '../lettering/changes';
import { changed } from './changed';

/**
 * Change the words of a lettering. What is anchored to letters keeps its letters, and
 * goes with those that go; lines drawn for every letter of a kind stay for the others of that kind.
 */
export const setWords = (job: Job, partId: string, memberId: string, text: string): Job =>
  changed(job, (draft) => carryWords(draft, partId, memberId, text));

function carryWords(job: Job, partId: string, memberId: string, text: string): void {
  const part = job.parts.find((p) => p.id === partId);
  const lettering = part?.members.find((m): m is Lettering => m.id === memberId && m.kind === 'lettering');
  if (!part || !lettering) return;
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
  for (const step of part.steps) carryLetters(step, { keyOf: carriedKey });
  // The keys of findings about the lines of a letter name it.
  const about = `uneven-line:${part.id}:`;
  job.leftAsIs = job.leftAsIs.flatMap((dismissed) => {
    const found =
      dismissed.finding.startsWith(about) && /^([^:]+:\d+)(:.*)$/.exec(dismissed.finding.slice(about.length));
    if (!found) return [dismissed];
    const letter = carriedKey(found[1] as string);
    return letter === null ? [] : [{ ...dismissed, finding: about + letter + found[2] }];
  });
}
