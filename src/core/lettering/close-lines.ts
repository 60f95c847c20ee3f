/** Closing up lines: each is moved up to those above it until they overlap as much as asked. */
import { numberAt } from '../geometry/elements';
import { columnsOf, type InkRows, moveRows, uniteRows } from '../geometry/ink-rows';
import { transformRegion } from '../geometry/path';
import { translation } from '../geometry/point';
import { closingMove } from './close-up';
import type { DraftLine } from './draft-lines';
import { letterOutlines } from './set-letter';

/** Columns a capital is cut into for closing lines. */
const COLUMNS_PER_CAPITAL = 200;
/** Lines above a line that it is closed up with. */
const LINES_ABOVE = 2;
/** Lines farther apart than this many capital heights stay as they are. */
const FARTHEST_LINE = 3;

/** A line that was moved up: its range in the text, how far, and how strong the joint is; in the lettering's units. */
export type LineJoint = { readonly start: number; readonly end: number; readonly move: number; readonly joint: number };

/** Moves every line up to those above it, and all below along with it; changes `baselines`. Lengths in the lettering's units. */
export function closeUpLines(
  drafts: readonly DraftLine[],
  {
    shifts,
    baselines,
    overlap,
    capital,
  }: {
    readonly shifts: readonly number[];
    readonly baselines: number[];
    readonly overlap: number;
    /** Height of the lettering's capitals. */
    readonly capital: number;
  },
): LineJoint[] {
  const step = capital / COLUMNS_PER_CAPITAL;
  const out: LineJoint[] = [];
  const above: InkRows[] = [];
  let moved = 0;
  drafts.forEach((draft, i) => {
    baselines[i] = numberAt(baselines, i) + moved;
    if (draft.face.isSingleStroke) return;
    const paths = draft.set.letters.flatMap(({ letter }) =>
      transformRegion(letterOutlines(letter, draft.face), translation(letter.x + numberAt(shifts, i), letter.y)),
    );
    // Columns run downwards, so that moving up is moving towards lower values.
    const own = flipped(columnsOf(paths, step));
    if (own.rows.length === 0) return;
    const movedRows = moveRows(own, -numberAt(baselines, i));
    const closing =
      above.length > 0
        ? closingMove(uniteRows(above.slice(-LINES_ABOVE)), movedRows, {
            wanted: overlap,
            farthest: FARTHEST_LINE * capital,
            step,
          })
        : null;
    if (closing) {
      moved += closing.move;
      baselines[i] = numberAt(baselines, i) + closing.move;
      out.push({ start: draft.offset, end: draft.offset + draft.text.length, ...closing });
    }
    above.push(moveRows(own, -numberAt(baselines, i)));
  });
  return out;
}

const flipped = (r: InkRows): InkRows => ({ first: r.first, rows: r.rows.map((row) => row.map((y) => -y).reverse()) });
