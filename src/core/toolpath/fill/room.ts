/** Where the middle of a tip may stand in a shape, what it can cover from there, and how closely both are looked at. */
import type { ClipEngine } from '../../geometry/boolean/engine';
import { offsetRegion } from '../../geometry/offset/offset';
import { type Box, boxHeight, boxWidth, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { measureOutlines, type Outline } from '../../prepare/outline';

/** Curves are flattened within this share of the tip, and at least and at most so many mm. */
export const flatness = (widthMm: number): number => Math.min(0.002, Math.max(0.0002, widthMm / 50));
/** Rows of a tip's width that cover is looked at in; no row is higher than so many mm. */
const ROWS_A_TIP = 12;
const ROW_MOST_MM = 0.1;

/** What is known of a part under a tip: where its middle may stand, and what it can cover. Held by the width. */
export type Room = { readonly outlines: readonly Outline[]; readonly reached: readonly Outline[] };

export function roomOf(engine: ClipEngine, outlines: readonly Outline[], widthMm: number): Room {
  // A tip fits into a stroke just as wide as it is: what is left of that is a thread.
  const inner = measureOutlines(offsetRegion(engine, outlines, -widthMm / 2, 'round', undefined, NO_THREAD));
  return { outlines: inner, reached: measureOutlines(offsetRegion(engine, inner, widthMm / 2, 'round')) };
}

const NO_THREAD = 0;

/** Height of rows that a shape under a tip is looked at in, whatever their direction. */
export function rowStep(widthMm: number, outlines: readonly Outline[]): number {
  const box = outlines.reduce<Box>((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const most = isEmptyBox(box) ? 0 : Math.hypot(boxWidth(box), boxHeight(box));
  return Math.max(Math.min(widthMm / ROWS_A_TIP, ROW_MOST_MM), most / LIMITS.coverRows);
}
