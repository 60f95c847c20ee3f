/** Editing the words of a lettering: what is anchored to its letters goes along. */
import type { Job, Lettering } from '../document/schema';
import { carried, letterMap } from '../lettering/changes';
import { carryPlaces } from './carry';
import { changed, memberOf } from './changed';
import { carriedPairs } from './joints';
import { carriedLines } from './own-lines';

/** What words become, and where their letters go: null for one that is gone. */
export type Rewritten = {
  readonly text: string;
  readonly map: (at: number) => number | null;
  /** Where a line goes; left out, each goes with its letters. */
  readonly lineOf?: (line: number) => number;
};

/**
 * Change the words of a lettering. What is anchored to letters keeps its letters, and
 * goes with those that go; lines drawn for every letter of a kind stay for the others of that kind.
 */
export const setWords = (job: Job, partId: string, memberId: string, text: string): Job =>
  changed(job, (draft) => carryWords(draft, partId, memberId, (before) => ({ text, map: letterMap(before, text) })));

/** Change the words of a lettering in place, with all that is anchored to its letters. */
export function carryWords(job: Job, partId: string, memberId: string, rewrite: (before: string) => Rewritten): void {
  const part = job.parts.find((p) => p.id === partId);
  const lettering = part?.members.find((m): m is Lettering => m.id === memberId && m.kind === 'lettering');
  if (!part || !lettering) return;
  const before = lettering.text;
  const { text, map, lineOf } = rewrite(before);
  lettering.text = text;
  lettering.letters = carried(lettering.letters, map);
  if (lettering.closeUp) lettering.closeUp.pairs = carriedPairs(lettering.closeUp.pairs, map);
  lettering.lines = lineOf
    ? lettering.lines.map((own) => ({ ...own, line: lineOf(own.line) }))
    : carriedLines(lettering.lines, { before, after: text, map });
  /** The key of the same letter in the new words; null when it is gone. */
  const carriedKey = (key: string): string | null => {
    const found = /^(.+):(\d+)(\/\d+)?$/.exec(key);
    if (!found || found[1] !== lettering.id) return key;
    const at = map(Number(found[2]));
    return at === null ? null : `${found[1]}:${at}${found[3] ?? ''}`;
  };
  carryPlaces(part, carriedKey);
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

/** How words are written. */
export type Case = 'upper' | 'lower' | 'title';

/** Words written so. */
export const CASES: Readonly<Record<Case, (text: string) => string>> = {
  upper: (text) => text.toUpperCase(),
  lower: (text) => text.toLowerCase(),
  title: (text) =>
    text
      .toLowerCase()
      .replace(
        /(^|[^\p{L}\p{M}\p{N}’'])(\p{L})/gu,
        (_, before: string, letter: string) => before + letter.toUpperCase(),
      ),
};

/** Write the words in capitals, in small letters, or each with a capital. What is anchored to a letter stays with it. */
export function setCase(job: Job, partId: string, memberId: string, as: Case): Job {
  const member = memberOf(job, partId, memberId);
  if (member?.kind !== 'lettering') return job;
  const text = CASES[as](member.text);
  if (text.length !== member.text.length) return setWords(job, partId, memberId, text);
  return changed(job, (draft) => {
    const words = memberOf(draft, partId, memberId);
    if (words?.kind === 'lettering') words.text = text;
  });
}
