/** What a kind of work is: what of a part an operation works. One file says everything about a kind; works.ts lists them. */
import type { AreaDrawable, OutlineDrawable } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import type { Box, Point } from '../geometry/point';
import type { Memory } from '../memo';
import type { PreparedPart } from '../prepare/prepared';
import type { OrderedFilling } from '../toolpath/hatch/hatch-within';
import type { DrawKind, Linework, Step } from './steps';

/** A dot to be set: a circle, or where `r` is null a point. */
export type DotToDraw = Point & { readonly r: number | null };

/** What work on a part comes to, before it is brought into an order. */
export type ToDraw = {
  readonly areas: readonly AreaDrawable[];
  /** Fillings by lines, each with the order of its own. */
  readonly fillings: readonly OrderedFilling[];
  /** Lines that are joined where they meet, and dots. */
  readonly polylines: readonly Path[];
  readonly dots: readonly DotToDraw[];
  readonly outlines: readonly OutlineDrawable[];
  /** Of all lines, outlines and dots together, in mm. */
  readonly lengthMm: number;
};

/** What work comes to where there is nothing to draw. */
export const NOTHING_DRAWN: ToDraw = { areas: [], fillings: [], polylines: [], dots: [], outlines: [], lengthMm: 0 };

/** A part made ready, with what its steps draw. */
export type WorkedPart = PreparedPart & {
  /** The same in its own coordinates. */
  readonly own: PreparedPart;
  readonly linework: Linework;
};

/** All there is to say about a kind of work: its words, what it draws of a part, and the bounds of that. */
export type WorkKind<W extends string = string> = {
  readonly what: W;
  /** What it is called at the head of a column. */
  readonly word: string;
  /** What of the part is worked, for the description of documents. */
  readonly describes: string;
  /** The step whose lines are drawn; null: the shape itself. */
  readonly draws: DrawKind['kind'] | null;
  /** Whether the part comes out of the stock when an operation that cuts does it. */
  readonly comesOff: boolean;
  readonly toDraw: (part: WorkedPart, steps: readonly Step[], memory: Memory) => Partial<ToDraw>;
  /** Bounds of what is worked, in mm; empty when nothing is. Left out where it lies within the outlines. */
  readonly box?: (linework: Linework) => Box;
};

/** Length of line around dots that are circles, in mm. */
export const lengthAround = (dots: readonly DotToDraw[]): number =>
  dots.reduce((sum, { r }) => sum + 2 * Math.PI * (r ?? 0), 0);
