/** Where outlines come from: the letters and shapes of a part. */
import type { ShapeKind } from '../schema/members';

/** A letter or shape that outlines come from; the labels of outlines are indices into the part's list of these. */
export type Source = {
  readonly memberId: string;
  /** The characters, or '' for a shape. */
  readonly text: string;
  readonly shape: 'letter' | 'drawing' | 'path' | 'trace' | ShapeKind;
  readonly line: number;
  /** Index of its first character in the member's text; 0 for a shape. */
  readonly start: number;
  /** Whether it takes material away (punched, or in a negative part). */
  readonly takesAway: boolean;
};
