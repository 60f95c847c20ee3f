/**
 * Lettering set in lines: text → letters with their outlines at true size. Everything is in mm with the origin on the
 * first baseline, at the left end, middle or right end of the lines as they are aligned.
 */

import { numberAt } from '../geometry/elements';
import { type Path, transformRegion } from '../geometry/path';
import {
  type Box,
  compose,
  EMPTY_BOX,
  IDENTITY,
  isEmptyBox,
  type Matrix,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import { closeUpLines } from './close-lines';
import { type DraftLine, draftLines, type LineFaces, overlapIn } from './draft-lines';
import type { Typeface } from './face';
import { inkWidth, letterOutlines, NUMBERS_PER_LETTER, type PlacedLetter, type SetLine } from './line';
import type { LetteringSpec } from './spec';

export type { PlacedLetter } from './line';

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
};

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

/**
 * Set the text. Lines align by what is drawn, not by side bearings, so that cut edges line up. `ofLine`: the typefaces of lines
 * that have one of their own.
 */
export function layoutLettering(
  spec: LetteringSpec,
  face: Typeface,
  memory: Memory = NO_MEMORY,
  ofLine: LineFaces['ofLine'] = () => face,
): Layout {
  const faces = { face, ofLine };
  let scale = spec.size.mm / face.capHeight;
  let drafts = draftLines(spec, faces, scale, memory);
  if (spec.size.by === 'width')
    for (let round = 0; round < ROUNDS; round++) {
      const widest = Math.max(0, ...drafts.map((d) => inkWidth(d.set)));
      const next = widest > 0 ? spec.size.mm / widest : scale;
      // The width is met whatever the overlap; only that is off by this share.
      const settled = Math.abs(next / scale - 1) < SCALE_SETTLED;
      scale = next;
      if (settled || !spec.closeUp) break;
      drafts = draftLines(spec, faces, scale, memory);
    }
  return place(spec, face, { drafts, scale, memory });
}

/** Space of a line above its baseline, as a share of the typeface's line height. */
const ABOVE = 0.8;

function place(
  spec: LetteringSpec,
  face: Typeface,
  { drafts, scale, memory }: { readonly drafts: readonly DraftLine[]; readonly scale: number; readonly memory: Memory },
): Layout {
  const baselines: number[] = [];
  let y = 0;
  drafts.forEach((d, i) => {
    const before = drafts[i - 1];
    if (before) y -= d.lineSpacing * (before.height + ABOVE * (d.height - before.height));
    baselines.push(y);
  });
  const shifts = drafts.map(({ set: { box } }) => {
    if (isEmptyBox(box)) return 0;
    return -{ left: box.minX, centre: (box.minX + box.maxX) / 2, right: box.maxX }[spec.align];
  });
  const closedLines = spec.closeUp?.lines
    ? closeUpLines(drafts, {
        shifts,
        baselines,
        overlap: overlapIn(spec.closeUp.overlap, face.capHeight, scale),
        capital: face.capHeight,
      })
    : [];
  let box = EMPTY_BOX;
  const letters: PlacedLetter[] = [];
  const lines: PlacedLine[] = [];
  const closedUp: ClosedUp[] = closedLines.map((c) => ({
    ...c,
    what: 'line',
    move: c.move * scale,
    joint: c.joint * scale,
  }));
  drafts.forEach(({ text, offset, face: own, capital, set, setting }, i) => {
    if (isEmptyBox(set.box)) return;
    const x = numberAt(shifts, i);
    const baseline = numberAt(baselines, i);
    const { minX, maxX, minY, maxY } = set.box;
    const lineBox = { minX: minX + x, maxX: maxX + x, minY: minY + baseline, maxY: maxY + baseline };
    box = uniteBoxes(box, lineBox);
    const from = letters.length;
    for (const letter of memory.get(PLACED_LETTERS, { set, line: i, offset, x, y: baseline })) letters.push(letter);
    for (const j of set.joints)
      closedUp.push({
        what: 'letter',
        start: j.start + offset,
        end: j.end + offset,
        move: j.move * scale,
        joint: j.joint * scale,
      });
    lines.push({ text, face: own, capital, from, to: letters.length, x, y: baseline, box: lineBox, setting });
  });
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
