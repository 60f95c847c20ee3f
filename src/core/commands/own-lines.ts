/** Lines of words with a typeface, size or spacing of their own: what is set acts on the lines that are chosen, or on all. */
import type { Job, Lettering, OwnLine } from '../document/schema';
import { textLines } from '../lettering/draft-lines';
import type { LineFace } from '../schema/lettering';
import { changed, memberOf, partOf } from './changed';

/** Words, and which of their lines; null for all. */
export type LinesAt = {
  readonly partId: string;
  readonly memberId: string;
  readonly lines: readonly number[] | null;
};

/** Words of a part. */
export type WordsAt = Omit<LinesAt, 'lines'>;

/** What a line has by itself. */
type Own = Omit<OwnLine, 'line'>;

const NOTHING_OWN: Own = { face: null, scale: 1, letterSpacing: null, lineSpacing: null };

/** Change words whose part is not locked. */
export const editWords = (job: Job, { partId, memberId }: WordsAt, recipe: (member: Lettering) => void): Job =>
  changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member?.kind === 'lettering' && !partOf(draft, partId)?.locked) recipe(member);
  });

/** The chosen lines of words that have several; null where that is all of them. */
export function chosenLines(text: string, lines: readonly number[] | null): readonly number[] | null {
  if (lines === null) return null;
  const count = textLines(text).length;
  const there = lines.filter((line) => line >= 0 && line < count);
  return there.length === 0 || new Set(there).size === count ? null : there;
}

/**
 * Set something of chosen lines, in place, and of the whole words where all are: then no line keeps its own. `keys`: what of a
 * line that is.
 */
export function setOfLines(
  member: Lettering,
  lines: readonly number[] | null,
  own: Partial<Own>,
  ofAll: (member: Lettering) => void,
): void {
  const chosen = chosenLines(member.text, lines);
  if (chosen === null) {
    ofAll(member);
    for (const key of Object.keys(own) as (keyof Own)[])
      for (const line of member.lines) Object.assign(line, { [key]: NOTHING_OWN[key] });
  } else
    for (const line of chosen) {
      let known = member.lines.find((l) => l.line === line);
      if (!known) {
        known = { line, ...NOTHING_OWN };
        member.lines.push(known);
      }
      Object.assign(known, own.face ? { ...own, face: copyOfFace(own.face) } : own);
    }
  settleLines(member);
}

/** A typeface for one line more. */
export const copyOfFace = (face: LineFace): LineFace => ({
  ...face,
  axes: { ...face.axes },
  features: { ...face.features },
});

/** Takes out lines that have nothing of their own, in place, and puts the others in order. */
function settleLines(member: Lettering): void {
  member.lines = member.lines
    .filter((l) => (Object.keys(NOTHING_OWN) as (keyof Own)[]).some((key) => l[key] !== NOTHING_OWN[key]))
    .sort((a, b) => a.line - b.line);
}

/** What a line measures now: heights of capitals in mm, of the line and of the words. */
export type CapitalsSeen = { readonly words: number | null | undefined };

/** Height of the capitals of chosen lines, in mm. Without knowing how high those of the words are, nothing happens. */
export const setLineCapitals = (job: Job, at: LinesAt, mm: number, { words }: CapitalsSeen): Job =>
  words
    ? editWords(job, at, (member) => {
        const scale = Math.min(100, Math.max(0.01, Math.round((mm / words) * 1e6) / 1e6));
        setOfLines(member, at.lines, { scale }, (all) => {
          all.size = { by: 'capital', mm };
        });
      })
    : job;

/** Space between letters, as a share of the capital height. */
export const setLetterSpacing = (job: Job, at: LinesAt, share: number): Job =>
  editWords(job, at, (member) =>
    setOfLines(member, at.lines, { letterSpacing: share }, (all) => {
      all.letterSpacing = share;
    }),
  );

/** Distance of lines to those above them, as a multiple of what the typefaces have. */
export const setLineSpacing = (job: Job, at: LinesAt, share: number): Job =>
  editWords(job, at, (member) =>
    setOfLines(member, at.lines, { lineSpacing: share }, (all) => {
      all.lineSpacing = share;
    }),
  );

/** Lines that have something of their own, as the words are. */
export const linesAlike = (job: Job, at: LinesAt): Job =>
  editWords(job, at, (member) => setOfLines(member, at.lines, { ...NOTHING_OWN }, () => {}));

/** Where lines of a text go when it is edited: the line that keeps their first letter; null for those that are gone. */
export function carriedLines(
  lines: readonly OwnLine[],
  {
    before,
    after,
    map,
  }: { readonly before: string; readonly after: string; readonly map: (at: number) => number | null },
): OwnLine[] {
  const taken = new Set<number>();
  const starts = startsOf(before);
  return lines.flatMap((own) => {
    const start = starts[own.line];
    const text = textLines(before)[own.line];
    if (start === undefined || text === undefined) return [];
    const to =
      lineOf(after, start, text.length, map) ??
      (text === '' && starts.length === startsOf(after).length ? own.line : null);
    if (to === null || taken.has(to)) return [];
    taken.add(to);
    return [{ ...own, line: to }];
  });
}

const startsOf = (text: string): number[] => {
  let at = 0;
  return textLines(text).map((line) => {
    const start = at;
    at += line.length + 1;
    return start;
  });
};

/** The line of the edited text in which the first letter of a line that is still there stands. */
function lineOf(after: string, start: number, length: number, map: (at: number) => number | null): number | null {
  for (let i = start; i < start + length; i++) {
    const at = map(i);
    if (at !== null) return textLines(after.slice(0, at)).length - 1;
  }
  return null;
}
