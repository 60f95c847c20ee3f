/** The graphics state of a PDF page, as in the published PDF reference: what holds for all that is drawn next. */
import { IDENTITY, type Matrix } from '../../geometry/point';
import type { ReadStroke } from '../read-drawing';

/** A font as pdf.js hands it over; outlines of its letters are kept beside it, by the font's name and the letter. */
export type PdfFont = {
  readonly name?: string;
  readonly loadedName?: string;
  readonly missingFile?: boolean;
  readonly isType3Font?: boolean;
  readonly vertical?: boolean;
  readonly bold?: boolean;
  readonly black?: boolean;
  readonly italic?: boolean;
  readonly fontMatrix?: readonly number[];
  readonly defaultVMetrics?: readonly number[];
  readonly charProcOperatorList?: Readonly<Record<string, Operators>>;
};

/** A list of operators: their numbers, and what belongs to each. */
export type Operators = {
  readonly fnArray: readonly number[];
  // biome-ignore lint/suspicious/noExplicitAny: each operator has arguments of its own
  readonly argsArray: readonly any[];
};

/** What holds for all that is drawn next. */
export type GraphicsState = {
  /** From the page's numbers to mm, y upwards. */
  readonly matrix: Matrix;
  /** "#rrggbb"; null where nothing is painted. */
  readonly fill: string | null;
  readonly stroke: string | null;
  readonly fillAlpha: number;
  readonly strokeAlpha: number;
  readonly lineWidth: number;
  readonly cap: ReadStroke['cap'];
  readonly join: ReadStroke['join'];
  readonly miter: number;
  readonly dashes: readonly number[];
  readonly dashOffset: number;
  readonly clips: readonly number[];
  readonly font: PdfFont | null;
  readonly fontSize: number;
  readonly letterSpacing: number;
  readonly wordSpacing: number;
  /** Letters as wide as this share of what they are. */
  readonly across: number;
  readonly leading: number;
  readonly rise: number;
  /** Fill, stroke, both, neither (0 to 3), and the same adding to the clip. */
  readonly textMode: number;
};

/** The state a page begins with. */
export const initialState = (matrix: Matrix): GraphicsState => ({
  matrix,
  fill: '#000000',
  stroke: '#000000',
  fillAlpha: 1,
  strokeAlpha: 1,
  lineWidth: 1,
  cap: 'butt',
  join: 'miter',
  miter: 10,
  dashes: [],
  dashOffset: 0,
  clips: [],
  font: null,
  fontSize: 0,
  letterSpacing: 0,
  wordSpacing: 0,
  across: 1,
  leading: 0,
  rise: 0,
  textMode: 0,
});

/** A matrix of six numbers as PDF writes it; what is none is the identity. */
export const matrixOf = (numbers: ArrayLike<number> | null | undefined): Matrix =>
  numbers && numbers.length >= 6
    ? {
        a: numbers[0] as number,
        b: numbers[1] as number,
        c: numbers[2] as number,
        d: numbers[3] as number,
        e: numbers[4] as number,
        f: numbers[5] as number,
      }
    : IDENTITY;
