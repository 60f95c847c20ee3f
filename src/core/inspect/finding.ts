/** A finding: one sentence about the job with the place it speaks of. */
import type { Box } from '../geometry/point';

/** `fault` spoils the work, `caution` may, `note` is worth knowing. */
export type Severity = 'fault' | 'caution' | 'note';

export type Station = 'compose' | 'close' | 'hold' | 'fill' | 'assign' | 'prove';

export type FindingCode =
  | 'no-words'
  | 'too-many-characters'
  | 'no-typeface'
  | 'missing-characters'
  | 'no-drawing'
  | 'gap'
  | 'more-gaps'
  | 'asked-gap'
  | 'open-lines'
  | 'shared-edges'
  | 'words-set-anew'
  | 'hand-made'
  | 'no-part'
  | 'copies-itself'
  | 'too-many-segments'
  | 'empty-part'
  | 'off-sheet'
  | 'overall-width'
  | 'overlaps'
  | 'island'
  | 'loose'
  | 'more-pieces'
  | 'too-many-to-tie'
  | 'unbridged'
  | 'bridge-narrowed'
  | 'fewer-bridges'
  | 'bridge-unplaced'
  | 'too-many-to-bridge'
  | 'hair'
  | 'thin'
  | 'more-thin'
  | 'tight'
  | 'more-tight'
  | 'hole-held'
  | 'uneven-line'
  | 'more-uneven'
  | 'too-many-traced'
  | 'too-many-dots'
  | 'dots-touch'
  | 'more-dots-touch'
  | 'dot-gone'
  | 'missed'
  | 'more-missed'
  | 'beyond-reach'
  | 'fits-nowhere'
  | 'too-many-lines'
  | 'filled-over'
  | 'swallowed'
  | 'lines-not-filled'
  | 'small-for-tip'
  | 'fill-and-cut'
  | 'no-operation'
  | 'operation-off'
  | 'cut-first';

/** What would mend it in one press. */
export type Mend =
  | { readonly kind: 'bridge'; readonly letter: string; readonly island: number }
  /** Strokes over what the lines that fill miss. */
  | { readonly kind: 'rest' }
  /** Another part cut out of one that is filled around it. */
  | { readonly kind: 'cut-out'; readonly otherId: string }
  /** Words that vanish in the shape they are joined to, cut out of it instead. */
  | { readonly kind: 'punch'; readonly memberId: string }
  /** Two ends of a drawing joined. */
  | { readonly kind: 'close'; readonly memberId: string; readonly gap: string }
  /** Back from outlines worked on by hand to what the steps give. */
  | { readonly kind: 'unhand' }
  /** The middle lines of a letter drawn by hand. */
  | { readonly kind: 'lines'; readonly letter: string }
  /** More room between the letters of a lettering, in mm. */
  | { readonly kind: 'space'; readonly memberId: string; readonly byMm: number };

export type Finding = {
  /** The same finding keeps its key from one evaluation to the next. */
  readonly key: string;
  readonly code: FindingCode;
  readonly severity: Severity;
  readonly sentence: string;
  /** Where it is dealt with. */
  readonly station: Station;
  readonly partId: string | null;
  readonly memberId: string | null;
  /** Place on the sheet in mm. */
  readonly box: Box | null;
  readonly mend: Mend | null;
  /** The reason when the user has left it as it is. */
  readonly left: string | null;
};
