/** A typeface, whatever it was read from: metrics, shaping and glyph outlines, in font units. */
import type { Path } from '../geometry/path';
import type { Box } from '../geometry/point';

/** A glyph as shaping places it, in font units from where its line's pen stands. */
export type ShapedGlyph = {
  readonly glyph: number;
  /** Index of the first UTF-16 unit of the text this glyph came from. */
  readonly cluster: number;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
};

/** An OpenType feature that is asked for: by its tag, its value (0 off, 1 on, or which of several), and over which of the text. */
export type FeatureUse = {
  readonly tag: string;
  readonly value: number;
  /** UTF-16 units of the text it holds for; all of it where these are left out. */
  readonly from?: number;
  readonly to?: number;
};

/** How a text is shaped. */
export type Shaping = {
  /** Whether standard ligatures are made; kerning and contextual forms always are. */
  readonly ligatures: boolean;
  readonly features: readonly FeatureUse[];
};

/** As a face shapes by itself. */
export const PLAIN_SHAPING: Shaping = { ligatures: true, features: [] };

/** A typeface that is loaded: it shapes text to glyphs and gives their outlines, in font units. */
export type Typeface = {
  readonly family: string;
  readonly weight: number;
  readonly italic: boolean;
  /** Whether its glyphs are open lines for a tool to run along, not closed outlines. */
  readonly isSingleStroke: boolean;
  readonly unitsPerEm: number;
  readonly ascent: number;
  /** Below the baseline, negative. */
  readonly descent: number;
  readonly lineGap: number;
  /** Height of a flat capital, measured on the outline of H where there is one. */
  readonly capHeight: number;
  /** How far its uprights lean to the right, in degrees, as the face itself says. */
  readonly slantDeg: number;
  /**
   * Shape one run of a single direction and script. Glyphs come in visual order, left to right. Glyph 0 stands for a character the
   * face lacks.
   */
  readonly shape: (text: string, direction: 'ltr' | 'rtl', shaping: Shaping) => ShapedGlyph[];
  /** Closed outlines of a glyph in font units, y upwards, to be filled by the non-zero rule; open lines where `isSingleStroke`. */
  readonly outline: (glyph: number) => readonly Path[];
  /** Bounds of a glyph's outlines in font units; empty when it draws nothing. */
  readonly box: (glyph: number) => Box;
  /** Code points of the characters it has, and its glyphs but for the one that stands for what it lacks. */
  readonly characters: () => readonly number[];
  readonly glyphs: () => readonly number[];
  /** Whether what the face says of a glyph can't be drawn; it has no outlines then. */
  readonly isBroken: (glyph: number) => boolean;
};
