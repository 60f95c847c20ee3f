/** Editing the words of a lettering: what is anchored to its letters goes along. */
import type { Job, Lettering } from '../document/schema';
import { stepIn } from '../document/steps';
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
  const centerline = stepIn(part, 'centerline');
  if (centerline)
    centerline.corrections = centerline.corrections.flatMap((c) => {
      const letter = carriedKey(c.letter);
      if (letter !== null) return [{ ...c, letter }];
      return c.alike === null ? [] : [c];
    });
  const dots = stepIn(part, 'dots');
  if (dots)
    dots.changes = dots.changes.flatMap((c) => {
      if (c.letter === null) return [c];
      const letter = carriedKey(c.letter);
      return letter === null ? [] : [{ ...c, letter }];
    });
  // The keys of findings about the lines of a letter name it.
  const about = `uneven-line:${part.id}:`;
  job.leftAsIs = job.leftAsIs.flatMap((left) => {
    const found = left.finding.startsWith(about) && /^([^:]+:\d+)(:.*)$/.exec(left.finding.slice(about.length));
    if (!found) return [left];
    const letter = carriedKey(found[1] as string);
    return letter === null ? [] : [{ ...left, finding: about + letter + found[2] }];
  });
}
