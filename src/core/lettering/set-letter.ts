/** Letters as a line of lettering sets them, and what is drawn of each. In font units. */
import { type Path, transformRegion } from '../geometry/path';
import { type Box, boxWidth, compose, IDENTITY, type Matrix, type Point, translation } from '../geometry/point';
import type { PairAnswer } from '../schema/lettering';
import type { Typeface } from './face';

/** What one character (or what it joined with) became. */
export type PlacedLetter = {
  /** The characters it stands for, as typed. */
  readonly text: string;
  /** Range in the text, in UTF-16 units. */
  readonly start: number;
  readonly end: number;
  readonly line: number;
  /** Glyphs with their origins in font units, relative to the letter's own origin. */
  readonly glyphs: readonly { readonly glyph: number; readonly x: number; readonly y: number }[];
  /** Turn and size of its own about its origin, in font units; null for none. */
  readonly own: Matrix | null;
  /** What is drawn in place of its glyphs, where joining changed it; null for these. */
  readonly drawn: DrawnLetter | null;
  /** How its baseline is turned, in degrees: with the line that the words run along; 0 on a straight one. */
  readonly baselineDeg: number;
  /** Origin of the letter in font units from the lettering's origin. */
  readonly x: number;
  readonly y: number;
  /** Bounds of its ink in font units from the lettering's origin. */
  readonly box: Box;
};

/** A letter as joining left it: its outlines about its origin, with the strips that join it to what stands before it. */
export type DrawnLetter = {
  readonly paths: readonly Path[];
  /** Tells letters of a face apart that are drawn otherwise. */
  readonly key: string;
  /** Its own outlines, without strips, its own turn and size, where parts of it were lowered; null where none was. */
  readonly lowered: { readonly paths: readonly Path[]; readonly name: string } | null;
};

/** Where two neighbours were closed up. */
export type LetterJoint = {
  /** Ranges in the text of the letter that moved. */
  readonly start: number;
  readonly end: number;
  /** How far it moved towards those before it, and how strong the joint is, in font units. */
  readonly move: number;
  readonly joint: number;
  readonly kind: JointKind;
};

/**
 * How two neighbours are joined: as they stand, moved until they overlap, by a strip along a common line, or by another. And `held`:
 * a free part tied to its own letter.
 */
export type JointKind = 'as is' | 'touch' | 'foot' | 'tie' | 'held';

/** A letter of a line with the bounds of its ink, how far it moves the pen on, and how far it was moved by itself. */
export type SetLetter = {
  readonly letter: Omit<PlacedLetter, 'box'>;
  readonly box: Box;
  readonly advance: number;
  readonly moved: Point | null;
};

/**
 * A line of lettering set: its letters, ink and joints, from its own pen start. In the units that its scale leads to: font units of
 * the lettering's own face.
 */
export type SetLine = {
  readonly letters: readonly SetLetter[];
  /** Bounds of the ink. */
  readonly box: Box;
  /** Characters the typeface lacks, and those whose glyphs it has in a way that can't be drawn. */
  readonly missing: readonly string[];
  readonly broken: readonly string[];
  readonly joints: readonly LetterJoint[];
};

/** How letters of a line are closed up: the overlap wanted, in its units, over spaces too or not, the height of capitals, and how. */
export type LineCloseUp = {
  readonly overlap: number;
  readonly words: boolean;
  readonly capital: number;
  readonly joints: 'overlap' | 'best';
  readonly pairs: readonly PairAnswer[];
};

/** A letter's glyphs, matrix and bounds, in numbers. */
export const NUMBERS_PER_LETTER = 40;
/** The outlines of a letter in font units about its origin, its own turn and size applied. */
export function letterOutlines(
  { glyphs, own, drawn }: Pick<PlacedLetter, 'glyphs' | 'own' | 'drawn'>,
  face: Typeface,
): readonly Path[] {
  if (drawn) return drawn.paths;
  return glyphs.flatMap((g) => transformRegion(face.outline(g.glyph), compose(translation(g.x, g.y), own ?? IDENTITY)));
}

/** Glyphs of a face by their numbers and places: the same for letters that the face draws alike. */
export const glyphNames = (glyphs: PlacedLetter['glyphs']): string =>
  glyphs.map((g) => `${g.glyph}@${g.x},${g.y}`).join('+');

/** Tells letters of a face apart by their glyphs, and their own turn and size. */
export const glyphsKey = ({ glyphs, own, drawn }: SetLetter['letter']): string =>
  drawn?.key ?? `${glyphNames(glyphs)}|${own ? Object.values(own).join() : ''}`;

/** Whether white space stands between two letters, in whichever direction they are read. */
export function spaceBetween(a: SetLetter['letter'], b: SetLetter['letter'], text: string): boolean {
  const from = Math.min(a.end, b.end);
  const to = Math.max(a.start, b.start);
  return to > from && /\s/.test(text.slice(from, to));
}

/** Bounds moved. */
export const shiftBox = (b: Box, x: number, y: number): Box => ({
  minX: b.minX + x,
  maxX: b.maxX + x,
  minY: b.minY + y,
  maxY: b.maxY + y,
});

/** Width of what is drawn; 0 for nothing. */
export const inkWidth = (line: SetLine): number => boxWidth(line.box);
