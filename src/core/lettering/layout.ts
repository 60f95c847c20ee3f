/**
 * Lettering set in lines: text → letters with their outlines at true size. Everything is in mm with the origin on the
 * first baseline, at the left end, middle or right end of the lines as they are aligned.
 */

import { numberAt } from '../geometry/elements';
import { type Path, transformRegion } from '../geometry/path';
import {
  type Box,
  boxHeight,
  boxWidth,
  compose,
  EMPTY_BOX,
  IDENTITY,
  isEmptyBox,
  type Matrix,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { factorFor } from '../geometry/root';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import { type BaselineTrack, type Bent, bend } from './bend';
import { closeUpLines } from './close-lines';
import { type DraftLine, draftLines, type LineFaces, overlapIn } from './draft-lines';
import type { Typeface } from './face';
import {
  inkWidth,
  type JointKind,
  letterOutlines,
  NUMBERS_PER_LETTER,
  type PlacedLetter,
  type SetLine,
} from './set-letter';
import type { LetteringSpec } from './spec';

export type { PlacedLetter } from './set-letter';

/** One line as set. Two lines of the same text in the same face and setting have the same letters. */
export type PlacedLine = {
  readonly text: string;
  readonly face: Typeface;
  /** Height of its capitals, in font units of the lettering's own face. */
  readonly capital: number;
  /** Range in the list of letters. */
  readonly from: number;
  readonly to: number;
  /** Where its pen starts, in font units from the lettering's origin. */
  readonly x: number;
  readonly y: number;
  /** Bounds of its ink in font units from the lettering's origin. */
  readonly box: Box;
  /** Tells lines of the same text apart that are set differently. */
  readonly setting: string;
  /** The stretch of a curve that it stands on; null for a straight line. */
  readonly track: BaselineTrack | null;
};

/** What closing up did to a letter or a line. */
export type ClosedUp = {
  /** Range in the text of what moved. */
  readonly start: number;
  readonly end: number;
  readonly what: 'letter' | 'line';
  /** In mm. */
  readonly move: number;
  readonly joint: number;
  readonly kind: JointKind;
};

/** A character that can't be drawn, and the first line whose typeface it was to be drawn in. */
export type Lacking = { readonly text: string; readonly line: number };

/** Lettering set: its lines with their letters in place, its size in mm, and characters the typeface lacks. */
export type Layout = {
  readonly letters: readonly PlacedLetter[];
  /** Lines that have letters. */
  readonly lines: readonly PlacedLine[];
  /** The typeface of each line of the text. */
  readonly faces: readonly Typeface[];
  /** Millimetres per font unit of the lettering's own face. */
  readonly scale: number;
  /** Bounds of the ink in mm; empty when nothing is drawn. */
  readonly box: Box;
  /** Characters their typeface lacks, each once, in the order met. */
  readonly missing: readonly Lacking[];
  /** Characters whose glyphs their typeface has in a way that can't be drawn. */
  readonly broken: readonly Lacking[];
  readonly capHeightMm: number;
  /** Baselines in mm from the origin, one a line, downwards negative. */
  readonly baselines: readonly number[];
  readonly closedUp: readonly ClosedUp[];
  /** The line that the words run along; null where they are straight. */
  readonly along: AlongFound | null;
};

/** The line that words run along, in mm from the origin: where they start on it, and how much longer they are than it. */
export type AlongFound = Pick<Bent, 'path' | 'overrunMm' | 'start'>;

/** The typeface of a letter. */
export const faceOfLetter = ({ faces }: Pick<Layout, 'faces'>, { line }: Pick<PlacedLetter, 'line'>): Typeface =>
  faces[line] as Typeface;

/** The outlines or lines of letters as drawn, overlaps and all, where `matrix` puts the lettering. */
export const letterPaths = (
  { letters, faces, scale }: Pick<Layout, 'letters' | 'faces' | 'scale'>,
  matrix: Matrix = IDENTITY,
): Path[] =>
  letters.flatMap((letter) =>
    transformRegion(
      letterOutlines(letter, faceOfLetter({ faces }, letter)),
      compose(compose(translation(letter.x, letter.y), scaling(scale)), matrix),
    ),
  );

/** Rounds of setting until the scale is settled: overlaps are in mm, the scale may hang on the width. */
const ROUNDS = 8;
const SCALE_SETTLED = 1e-4;
/** A height is met to this, in mm, by letters so many times smaller or larger than it. */
const HEIGHT_SEARCH = { met: 1e-5, least: 1e-4, most: 1e2 };

/** What words are set with beside their own face. */
export type LayoutWith = {
  /** The typefaces of lines that have one of their own. */
  readonly ofLine?: LineFaces['ofLine'];
  /** The line that the words run along, where it is drawn or another part's: in the lettering's coordinates, mm. */
  readonly drawn?: Path | null;
};

/** Set the text. Lines align by what is drawn, not by side bearings, so that cut edges line up. */
export function layoutLettering(
  spec: LetteringSpec,
  face: Typeface,
  memory: Memory = NO_MEMORY,
  { ofLine = () => face, drawn = null }: LayoutWith = {},
): Layout {
  // Along a line, letters are closed up where they stand.
  const straight = spec.along ? { ...spec, closeUp: null } : spec;
  const faces = { face, ofLine };
  const at = (scale: number): Setting => ({ drafts: draftLines(straight, faces, scale, memory), scale, memory, drawn });
  const first = spec.size.mm / face.capHeight;
  if (spec.size.by === 'height') {
    const heightAt = (factor: number) => boxHeight(place(spec, face, at(first * factor)).box);
    return place(spec, face, at(first * factorFor(heightAt, spec.size.mm, HEIGHT_SEARCH)));
  }
  let set = at(first);
  if (spec.size.by === 'width')
    for (let round = 0; round < ROUNDS; round++) {
      const widest = lengthOf(spec, face, set);
      const next = widest > 0 ? spec.size.mm / widest : set.scale;
      // The width is met whatever the overlap; only that is off by this share.
      const settled = Math.abs(next / set.scale - 1) < SCALE_SETTLED;
      set = spec.closeUp && !settled ? at(next) : { ...set, scale: next };
      if (settled || !spec.closeUp) break;
    }
  return place(spec, face, set);
}

/** Length of the longest line in units: its ink, of words along a line where they are closed up. */
function lengthOf(spec: LetteringSpec, face: Typeface, set: Setting): number {
  if (!spec.along || !spec.closeUp) return Math.max(0, ...set.drafts.map((d) => inkWidth(d.set)));
  const { lines } = place(spec, face, set);
  return Math.max(0, ...lines.map(({ track, box }) => (track ? (track.to - track.from) / set.scale : boxWidth(box))));
}

/** Lines set, and how large. */
type Setting = {
  readonly drafts: readonly DraftLine[];
  readonly scale: number;
  readonly memory: Memory;
  readonly drawn: Path | null;
};

/** Space of a line above its baseline, as a share of the typeface's line height. */
const ABOVE = 0.8;

/** Baselines from the first downwards, in units. */
function baselinesOf(drafts: readonly DraftLine[]): number[] {
  let y = 0;
  return drafts.map((d, i) => {
    const before = drafts[i - 1];
    if (before) y -= d.lineSpacing * (before.height + ABOVE * (d.height - before.height));
    return y;
  });
}

function place(spec: LetteringSpec, face: Typeface, { drafts, scale, memory, drawn }: Setting): Layout {
  const { closeUp, along, align } = spec;
  const baselines = baselinesOf(drafts);
  const closing = closeUp
    ? {
        overlapMm: closeUp.overlap,
        words: closeUp.words,
        joints: closeUp.joints ?? 'overlap',
        pairs: closeUp.pairs ?? [],
      }
    : null;
  const bent = along ? bend(drafts, { along, align, drawn, closeUp: closing, baselines, scale }, memory) : null;
  const straight = bent ? null : placeStraight(spec, face, { drafts, scale, memory, baselines });
  const letters: PlacedLetter[] = [];
  const lines: PlacedLine[] = [];
  const closedUp: ClosedUp[] = straight ? [...straight.closedUp] : [];
  drafts.forEach(({ text, offset, face: own, capital, setting }, i) => {
    const placed = bent ? bent.lines[i] : straight?.lines[i];
    if (!placed) return;
    const from = letters.length;
    for (const letter of placed.letters) letters.push(letter);
    for (const j of placed.joints)
      closedUp.push({
        what: 'letter',
        start: j.start + offset,
        end: j.end + offset,
        move: j.move * scale,
        joint: j.joint * scale,
        kind: j.kind,
      });
    const [x, y, track] = 'track' in placed ? [0, 0, placed.track] : [placed.x, placed.y, null];
    lines.push({
      text,
      face: own,
      capital,
      from,
      to: letters.length,
      x,
      y,
      box: placed.letters.reduce<Box>((all, letter) => uniteBoxes(all, letter.box), EMPTY_BOX),
      // Along a curve every letter stands by itself.
      setting: track
        ? placed.letters
            .map((l) =>
              Object.values(l.own ?? {})
                .concat(l.x, l.y)
                .join(),
            )
            .join(';')
        : setting,
      track,
    });
  });
  const box = lines.reduce<Box>((all, line) => uniteBoxes(all, line.box), EMPTY_BOX);
  return {
    letters,
    lines,
    faces: drafts.map((d) => d.face),
    scale,
    box: isEmptyBox(box)
      ? EMPTY_BOX
      : { minX: box.minX * scale, maxX: box.maxX * scale, minY: box.minY * scale, maxY: box.maxY * scale },
    missing: lacking(drafts, 'missing'),
    broken: lacking(drafts, 'broken'),
    capHeightMm: face.capHeight * scale,
    baselines: baselines.map((b) => b * scale),
    closedUp,
    along: bent,
  };
}

/** A straight line: where its pen starts, its letters, and the joints between them. */
type StraightLine = {
  readonly x: number;
  readonly y: number;
  readonly letters: readonly PlacedLetter[];
  readonly joints: SetLine['joints'];
};

/** Lines one under the other, aligned; `baselines` are changed where lines are closed up. */
function placeStraight(
  spec: LetteringSpec,
  face: Typeface,
  { drafts, scale, memory, baselines }: Pick<Setting, 'drafts' | 'scale' | 'memory'> & { readonly baselines: number[] },
): { readonly lines: readonly (StraightLine | null)[]; readonly closedUp: readonly ClosedUp[] } {
  const shifts = drafts.map(({ set: { box } }) => {
    if (isEmptyBox(box)) return 0;
    return -{ left: box.minX, centre: (box.minX + box.maxX) / 2, right: box.maxX }[spec.align];
  });
  const closed = spec.closeUp?.lines
    ? closeUpLines(drafts, {
        shifts,
        baselines,
        overlap: overlapIn(spec.closeUp.overlap, face.capHeight, scale),
        capital: face.capHeight,
      })
    : [];
  const lines = drafts.map(({ offset, set }, i): StraightLine | null => {
    if (isEmptyBox(set.box)) return null;
    const [x, y] = [numberAt(shifts, i), numberAt(baselines, i)];
    return { x, y, letters: memory.get(PLACED_LETTERS, { set, line: i, offset, x, y }), joints: set.joints };
  });
  return {
    lines,
    closedUp: closed.map((c) => ({ ...c, what: 'line', kind: 'touch', move: c.move * scale, joint: c.joint * scale })),
  };
}

type PlacedAt = {
  readonly set: SetLine;
  readonly line: number;
  readonly offset: number;
  readonly x: number;
  readonly y: number;
};

/** Letters of a line where they are placed: most lines stay as they are from one edit to the next. */
const PLACED_LETTERS: Stage<PlacedAt, readonly PlacedLetter[]> = {
  name: 'placed letters',
  key: ({ set, line, offset, x, y }, idOf) => `${idOf(set)}|${line}|${offset}|${x}|${y}`,
  run: placedLetters,
  weigh: (letters) => NUMBERS_PER_LETTER * letters.length,
};

function placedLetters({ set, line, offset, x, y }: PlacedAt): readonly PlacedLetter[] {
  return set.letters.map(
    ({ letter, box }): PlacedLetter => ({
      text: letter.text,
      start: letter.start + offset,
      end: letter.end + offset,
      line,
      glyphs: letter.glyphs,
      own: letter.own,
      drawn: letter.drawn,
      baselineDeg: letter.baselineDeg,
      x: letter.x + x,
      y: letter.y + y,
      box: { minX: box.minX + x, maxX: box.maxX + x, minY: box.minY + y, maxY: box.maxY + y },
    }),
  );
}

/** What the faces of lines lack, each character of a face once. */
const lacking = (drafts: readonly DraftLine[], what: 'missing' | 'broken'): Lacking[] => {
  const found = new Map<Typeface, Map<string, Lacking>>();
  drafts.forEach(({ face, set }, line) => {
    const known = found.get(face) ?? new Map<string, Lacking>();
    found.set(face, known);
    for (const text of set[what]) if (!known.has(text)) known.set(text, { text, line });
  });
  return [...found.values()].flatMap((known) => [...known.values()]);
};
