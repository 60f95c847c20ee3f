/** Where the middle of a tip may stand in a shape, what it can cover from there, and how closely both are looked at. */
import type { ClipEngine } from '../../geometry/boolean/engine';
import { offsetRegion } from '../../geometry/offset/offset';
import { isThread, type Path } from '../../geometry/path';
import { type Box, boxHeight, boxWidth, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../../geometry/point';
import { pointAt } from '../../geometry/segment';
import { nearestParameter, segmentBox } from '../../geometry/segment-measures';
import { windingAt } from '../../geometry/winding';
import { LIMITS } from '../../limits';
import { measureOutlines, type Outline } from '../../prepare/outline';

/** Curves are flattened within this share of the tip, and at least and at most so many mm. */
export const flatness = (widthMm: number): number => Math.min(0.002, Math.max(0.0002, widthMm / 50));
/** Rows of a tip's width that cover is looked at in; no row is higher than so many mm. */
const ROWS_A_TIP = 12;
const ROW_MOST_MM = 0.1;

/** What is known of a part under a tip: where its middle may stand, and what it can cover. Held by the width. */
export type TipRoom = { readonly outlines: readonly Outline[]; readonly reached: readonly Outline[] };

/** Where the middle of a round tip of some width may stand in a shape, and what it covers from there. Yields the share done. */
export function* tipRoom(
  engine: ClipEngine,
  outlines: readonly Outline[],
  widthMm: number,
): Generator<number, TipRoom> {
  // A tip fits into a stroke just as wide as it is: what is left of that is a thread. Others are left over by rounding.
  const radius = widthMm / 2;
  const shrunk = offsetRegion(engine, outlines, { by: -radius, corners: 'round', threadMm: NO_THREAD });
  yield 0.4;
  const inner = measureOutlines(
    shrunk.filter(({ path }) => !isThread(path, THREAD_MM) || fitsAt(outlines, path, radius)),
  );
  yield 0.6;
  return { outlines: inner, reached: measureOutlines(offsetRegion(engine, inner, { by: radius, corners: 'round' })) };
}

/** Outlines thinner than this on average are looked at: whether a tip really fits there. */
const THREAD_MM = 0.02;
/** How far curves may stray, so how much nearer to an edge a tip may seem to stand, in mm. */
const STRAY_MM = 0.004;

/** Whether the middle of a tip of half width `radius` may stand all along a path: inside, and nowhere nearer to an edge. */
function fitsAt(outlines: readonly Outline[], { segments }: Path, radius: number): boolean {
  return segments.every((s) => {
    const { x, y } = pointAt(s, 0.5);
    if (outlines.reduce((sum, o) => sum + windingAt(o.path, x, y), 0) === 0) return false;
    return outlines.every(({ path }) =>
      path.segments.every((edge) => {
        const b = segmentBox(edge);
        if (x < b.minX - radius || x > b.maxX + radius || y < b.minY - radius || y > b.maxY + radius) return true;
        const near = pointAt(edge, nearestParameter(edge, x, y));
        return Math.hypot(near.x - x, near.y - y) >= radius - STRAY_MM;
      }),
    );
  });
}

const NO_THREAD = 0;

/** Height of rows that a shape under a tip is looked at in, whatever their direction. */
export function rowStep(widthMm: number, outlines: readonly Outline[]): number {
  const box = outlines.reduce<Box>((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const most = isEmptyBox(box) ? 0 : Math.hypot(boxWidth(box), boxHeight(box));
  return Math.max(Math.min(widthMm / ROWS_A_TIP, ROW_MOST_MM), most / LIMITS.coverRows);
}
