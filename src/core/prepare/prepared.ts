/** What a part made ready is: its members, outlines, what is kept of it and in how many pieces. */
import type { Path } from '../geometry/path';
import type { Box, Matrix, Point } from '../geometry/point';
import type { Typeface } from '../lettering/face';
import type { Layout } from '../lettering/layout';
import type { FaceNamed } from '../schema/lettering';
import type { PreparedArtwork } from './artwork';
import type { BridgeNotes } from './bridges/notes';
import type { LetterFrame } from './frames';
import type { Mover } from './mover';
import type { Outline } from './outline';
import type { Piece } from './pieces';
import type { Source } from './source';
import type { TraceFound } from './trace';

/** Whether the shape is what stays (a positive) or what is cut away (a negative). */
export type Keep = 'inside' | 'outside';

/** What a step noted, and the same where its part lies elsewhere. */
export type StepNote = { readonly note: unknown; readonly moved: (mover: Mover) => StepNote };

/** Why a member has no outlines. */
export type MemberTrouble =
  | { readonly kind: 'no words' }
  | { readonly kind: 'too many characters'; readonly count: number }
  | { readonly kind: 'no typeface'; readonly named: FaceNamed; readonly sentence: string }
  /** The line that words run along. */
  | { readonly kind: 'no line'; readonly why: 'gone' | 'loop' | 'nothing drawn' | 'no outline' }
  /** The panel that words are fitted into, and what leaves no room for them. */
  | { readonly kind: 'no panel'; readonly why: 'gone' | 'loop' | 'no outline' }
  | { readonly kind: 'no room' }
  | { readonly kind: 'no drawing'; readonly sentence: string }
  | { readonly kind: 'no picture'; readonly sentence: string }
  | { readonly kind: 'nothing traced' }
  | { readonly kind: 'no part' }
  | { readonly kind: 'copies itself' }
  | { readonly kind: 'too many segments'; readonly count: number }
  /** How large it would be on its longer side. */
  | { readonly kind: 'too large'; readonly mm: number }
  | { readonly kind: 'too small'; readonly mm: number };

/** One kind of trouble. */
export type TroubleOf<K extends MemberTrouble['kind']> = Extract<MemberTrouble, { kind: K }>;

/** A member made ready: its outlines and open paths on the sheet, and what setting or closing it found. */
export type PreparedMember = {
  readonly id: string;
  readonly matrix: Matrix;
  /** Bounds before placing, and on the sheet; both in mm, empty when nothing is drawn. */
  readonly ownBox: Box;
  readonly box: Box;
  readonly outlines: readonly Outline[];
  readonly layout: Layout | null;
  /** How far words that are fitted into something lie from their origin, in their own coordinates. */
  readonly shift: Point;
  /** The typeface that words were set in before they came here without it; null where theirs is there. */
  readonly lacks: FaceNamed | null;
  /** Where its letters would be without closing up, as they are drawn; empty when nothing is closed up. */
  readonly unclosed: readonly Path[];
  readonly missing: Layout['missing'];
  readonly broken: Layout['broken'];
  /** The letters and shapes of a copied part, by the names they have there; empty for other members. */
  readonly copied: readonly Source[];
  /** Open lines on the sheet: of a drawing, or of a one-line face. */
  readonly openPaths: readonly Path[];
  /** What closing a drawing found, in the member's own coordinates; null for other members. */
  readonly closing: PreparedArtwork['closing'] | null;
  /** What tracing a picture found; null for other members. */
  readonly traced: TraceFound | null;
  readonly trouble: MemberTrouble | null;
};

/**
 * A part made ready: its members, its shape before and after its steps, what stays of it, and what the steps have to
 * say.
 */
export type PreparedPart = {
  readonly id: string;
  /** From its own coordinates, which places by hand are kept in, to those that all that follows is in: own, or the sheet's. */
  readonly matrix: Matrix;
  /** Whether the shape is what stays; a negative with a plate of its own is kept inside it. */
  readonly keep: Keep;
  /** The welded shape, whatever the steps leave of it; what a copy copies. */
  readonly solid: readonly Outline[];
  readonly sources: readonly Source[];
  /** One for each source. */
  readonly frames: readonly LetterFrame[];
  readonly members: readonly PreparedMember[];
  /** The shape before thickening, ties and the like: what its words and shapes alone give. */
  readonly bare: readonly Outline[];
  /** The shape as drawn: what is cut along and filled. */
  readonly outlines: readonly Outline[];
  /** Lines that do not close, as they are in its drawings. */
  readonly openPaths: readonly Path[];
  /** Whether overlaps are left in the outlines because welding is off. */
  readonly overlaps: boolean;
  /** Outlines of what stays: the shape, or the sheet without it. */
  readonly kept: readonly Outline[];
  readonly pieces: readonly Piece[];
  /** Its outlines were worked on by hand; `stale` when what they stand in place of has changed since. Null when not. */
  readonly handMade: {
    readonly stale: boolean;
    readonly under: readonly Outline[];
    readonly underLines: readonly Path[];
  } | null;
  /** Bounds of the shape; empty when nothing is drawn. */
  readonly box: Box;
  /** The same in the part's own coordinates. */
  readonly ownBox: Box;
  /** What outline steps noted, by kind: the last of a kind. */
  readonly notes: ReadonlyMap<string, StepNote>;
  /** The islands there were and what bridging did; null when there are none and nothing was to be bridged. */
  readonly bridged: BridgeNotes | null;
  /**
   * The overall width that was asked for and the one it has, in mm, and how many times as large as its members say the part is
   * for it; null when none was asked for.
   */
  readonly overall: { readonly askedMm: number; readonly gotMm: number; readonly factor: number } | null;
};

/** A typeface, or the sentence why there is none. */
export type FaceAnswer = { readonly typeface: Typeface } | { readonly sentence: string };

/** How typefaces are asked for; the answer may be a sentence why there is none. */
export type FaceLookup = (lettering: FaceNamed) => FaceAnswer;
