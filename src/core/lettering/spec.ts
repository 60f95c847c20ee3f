/** What lettering is set by. */
import type { Along } from '../schema/along';
import type { CloseUp, LetterChange, OwnLine } from '../schema/lettering';

/** Where the lines of lettering stand: at their left ends, middles or right ends. */
export type Alignment = 'left' | 'centre' | 'right';

/** How lines are made equally wide. */
export type EvenLines = 'no' | 'spacing' | 'size' | 'both';

/** What lettering is set by: its words, size, spacing, alignment, closing up and changes to single letters. */
export type LetteringSpec = {
  readonly text: string;
  /** By capital height, by the width of the widest line as drawn, or the height of all; in mm. */
  readonly size: { readonly by: 'capital' | 'width' | 'height'; readonly mm: number };
  /** Extra space between letters as a share of the capital height; ligatures are off when it is not 0. */
  readonly letterSpacing: number;
  /** Distance between baselines as a multiple of the typeface's own. */
  readonly lineSpacing: number;
  readonly align: Alignment;
  readonly evenLines?: EvenLines;
  readonly closeUp?: (Pick<CloseUp, 'overlap' | 'words' | 'lines'> & Partial<CloseUp>) | null;
  /** Changes to single letters; `at` counts in the whole text. */
  readonly letters?: readonly LetterChange[];
  /** Features of the typeface that are asked for, by their tags: 0 off, 1 on, or which of several. */
  readonly features?: Readonly<Record<string, number>>;
  /** Lines that have a typeface, size or spacing of their own. */
  readonly lines?: readonly OwnLine[];
  /** The line that the words run along; null for straight. */
  readonly along?: Along | null;
};
