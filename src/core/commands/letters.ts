/** Letters moved, turned and sized by themselves. */
import type { Job, LetterChange, Lettering } from '../document/schema';
import { applyMatrix, type Matrix, rotation } from '../geometry/point';
import { changed, memberOf, partOf } from './changed';

/**
 * What a lettering was computed to: its capitals in mm, the matrix from its own coordinates to the sheet, and its letters by where they
 * start in the text.
 */
export type LetteringSeen = {
  readonly capHeightMm: number | null;
  readonly matrix: Matrix;
  readonly picks: readonly { readonly start: number; readonly capitalMm: number; readonly baselineDeg: number }[];
};

/** The change of one letter, made when it has none yet, in place; `settleLetters` takes it out if it stays without effect. */
export function letterChange(member: Lettering, at: number): LetterChange {
  let known = member.letters.find((c) => c.at === at);
  if (!known) {
    known = { at, dx: 0, dy: 0, turn: 0, scale: 1, form: null };
    member.letters.push(known);
  }
  return known;
}

/** Takes out changes that change nothing, and rounds the others, in place. */
export function settleLetters(member: Lettering): void {
  const round = (value: number, per: number) => Math.round(value * per) / per;
  for (const c of member.letters) {
    c.dx = round(c.dx, 1e6);
    c.dy = round(c.dy, 1e6);
    c.turn = round(c.turn, 100);
    c.scale = round(c.scale, 1e4);
  }
  member.letters = member.letters.filter(
    (c) => c.dx !== 0 || c.dy !== 0 || c.turn !== 0 || c.scale !== 1 || c.form !== null,
  );
}

/** Change a lettering that is not locked; `settleLetters` is done. */
const editLettering = (job: Job, partId: string, memberId: string, recipe: (member: Lettering) => void): Job =>
  changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member?.kind !== 'lettering' || partOf(draft, partId)?.locked) return;
    recipe(member);
    settleLetters(member);
  });

/** Move picked letters, by where they start in the text, by mm on the sheet. */
export function nudgeLetters(
  job: Job,
  partId: string,
  {
    memberId,
    picked,
    dx,
    dy,
    seen: {
      capHeightMm,
      matrix: { a, b, c, d },
      picks,
    },
  }: {
    readonly memberId: string;
    readonly picked: readonly number[];
    readonly dx: number;
    readonly dy: number;
    readonly seen: LetteringSeen;
  },
): Job {
  if (!capHeightMm) return job;
  // Back through the turn and mirror of the lettering, whose axes the changes are in.
  const det = a * d - b * c || 1;
  const ox = (d * dx - c * dy) / det;
  const oy = (-b * dx + a * dy) / det;
  return editLettering(job, partId, memberId, (member) => {
    for (const at of picked) {
      const change = letterChange(member, at);
      const letter = picks.find((l) => l.start === at);
      const capital = letter?.capitalMm ?? capHeightMm;
      // Up is away from the line that the words run along.
      const own = applyMatrix(rotation(-(letter?.baselineDeg ?? 0)), { x: ox, y: oy });
      change.dx += own.x / capital;
      change.dy += own.y / capital;
    }
  });
}

/** More room between the letters of a lettering whose capitals are so high, in mm. */
export const spaceLetters = (
  job: Job,
  partId: string,
  {
    memberId,
    byMm,
    capHeightMm,
  }: { readonly memberId: string; readonly byMm: number; readonly capHeightMm: number | null | undefined },
): Job =>
  changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (capHeightMm && member?.kind === 'lettering')
      member.letterSpacing = Math.min(10, Math.ceil((member.letterSpacing + byMm / capHeightMm) * 1e3 + 1) / 1e3);
  });
