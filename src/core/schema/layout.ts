/** How the names of a list are laid on sheets. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, coordinate, id, length, turn } from './fields';

const layPlaceSchema = z.strictObject({
  row: about(id, 'Id of the row.'),
  copy: about(
    z
      .int()
      .min(0)
      .max(LIMITS.copiesOfRow - 1)
      .default(0),
    'Which of its copies, from 0.',
  ),
  parts: about(
    z.array(id).max(LIMITS.parts).default([]),
    'The parts that are laid here, where those of a row are laid apart; empty: all of them.',
  ),
  sheet: about(
    z
      .int()
      .min(0)
      .max(LIMITS.laidSheets - 1),
    'Which sheet of the stock it lies on, from 0.',
  ),
  scale: about(
    z
      .number()
      .min(1 / LIMITS.laidScale)
      .max(LIMITS.laidScale)
      .default(1),
    'Made so many times as large, as sizing does it, about the corner of the sheet.',
  ),
  turn: about(turn, 'Then turned so far about the corner of the sheet, in degrees counter-clockwise.'),
  x: about(coordinate, 'Then moved so far to the right, in mm.'),
  y: about(coordinate, 'The same upwards.'),
  locked: about(z.boolean().default(false), 'It stays where it is when the others are laid anew.'),
});

/** Blanks that lie in a jig or on the table: alike, in rows and columns. */
const blanksSchema = z.strictObject({
  shape: about(z.enum(['rectangle', 'ellipse']).default('rectangle'), 'What a blank looks like.'),
  width: about(length.default(60), 'Width of a blank as it lies, in mm.'),
  height: about(length.default(20), 'Height of a blank as it lies, in mm.'),
  inset: about(
    z.number().min(0).max(LIMITS.spacingMm).default(2),
    'Room that a name keeps to the edge of its blank, in mm.',
  ),
  columns: about(z.int().min(1).max(LIMITS.blanksAlong).default(4), 'How many lie beside each other.'),
  rows: about(z.int().min(1).max(LIMITS.blanksAlong).default(6), 'How many lie one above the other.'),
  x: about(
    coordinate.default(40),
    'Middle of the first of them, the upper left one, from the left edge of the sheet, in mm.',
  ),
  y: about(coordinate.default(20), 'The same from the upper edge of the sheet, downwards, in mm.'),
  across: about(length.default(70), 'From the middle of one to that of the next beside it, in mm.'),
  down: about(length.default(30), 'The same to the next below it, in mm.'),
  turn: about(
    z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).default(0),
    'Turned so far names lie on them, in degrees counter-clockwise.',
  ),
  size: about(
    z.enum(['smaller', 'fill', 'as-set']).default('smaller'),
    '`smaller`: a name too large for its blank is made smaller; `fill`: each as large as its blank takes; `as-set`: as it is.',
  ),
  leftOut: about(
    z
      .array(
        z
          .int()
          .min(0)
          .max(LIMITS.blanksAlong ** 2 - 1),
      )
      .max(LIMITS.blanksAlong ** 2)
      .default([]),
    'Blanks that are not used, counted from 0 row by row from the upper left.',
  ),
});

/** How the names of a list are laid on sheets, and where they lie. */
export const layoutSchema = z.strictObject({
  way: about(
    z.enum(['nested', 'rows', 'blanks']).default('nested'),
    '`nested`: by their true shapes, as close as they go; `rows`: in rows and columns, in the order of the list; `blanks`: each on a blank at its place.',
  ),
  spacing: about(z.number().min(0).max(LIMITS.spacingMm).default(3), 'Room between them, in mm.'),
  margin: about(z.number().min(0).max(LIMITS.spacingMm).default(5), 'Room to the edge of the sheet, in mm.'),
  turns: about(
    z.int().min(1).max(LIMITS.laidTurns).default(2),
    'Directions they may lie in: 1 as they are, 2 also turned over, 4 also across, or any number of even turns.',
  ),
  grain: about(z.boolean().default(false), 'The grain keeps its direction: they lie as they are, or turned over.'),
  apart: about(
    z.enum(['no', 'same-sheet', 'free']).default('no'),
    '`no`: all parts of a row are laid as one thing; `same-sheet`: those clear of each other by themselves, on one sheet; `free`: these on any. For `nested`.',
  ),
  holes: about(z.boolean().default(true), 'They may lie in holes of others.'),
  blanks: about(blanksSchema.prefault({}), 'The blanks, for `blanks`.'),
  places: about(
    z.array(layPlaceSchema).max(LIMITS.laidPlaces).default([]),
    'Where each of them lies; what is not there is not laid yet.',
  ),
});

/** How names are laid on sheets. */
export type RowLayout = z.infer<typeof layoutSchema>;
/** Where a name lies. */
export type LayPlace = z.infer<typeof layPlaceSchema>;

/** Turns that are tried, in degrees. */
export function turnsOf({ turns, grain }: Pick<RowLayout, 'turns' | 'grain'>): number[] {
  const count = grain ? Math.min(turns, 2) : turns;
  return Array.from({ length: count }, (_, i) => (360 * i) / count);
}

/** Blanks that names are laid on. */
export type Blanks = RowLayout['blanks'];

/** The middle of a blank, y upwards, in mm; and which it is, from 0. */
export type Blank = { readonly nth: number; readonly x: number; readonly y: number };

/** All blanks on a sheet so high, in mm, row by row from the upper left, those left out among them. */
export function allBlanks({ columns, rows, x, y, across, down }: Blanks, sheetHeight: number): Blank[] {
  return Array.from({ length: columns * rows }, (_, nth) => ({
    nth,
    x: x + (nth % columns) * across,
    y: sheetHeight - y - Math.floor(nth / columns) * down,
  }));
}

/** Whether two places are of the same thing: a copy of a row, or of the same of its parts. */
export const isSamePlace = (
  one: Pick<LayPlace, 'row' | 'copy' | 'parts'>,
  other: Pick<LayPlace, 'row' | 'copy' | 'parts'>,
): boolean => one.row === other.row && one.copy === other.copy && one.parts[0] === other.parts[0];
