/** Thickening and thinning a shape, with holes kept open. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { numberAt } from '../geometry/elements';
import { largestCircleIn } from '../geometry/inscribed';
import type { Corners } from '../geometry/offset/offset';
import type { Memory } from '../memo';
import { type ClosedWhite, closedByGrowing } from './grown';
import { offsetOutlines } from './offset-outlines';
import type { Outline } from './outline';

/** How outlines are moved: how far outwards, in mm, and how narrow holes may get. */
export type ThickenSettings = {
  /** Outwards in mm; negative: inwards. */
  readonly by: number;
  readonly corners: Corners;
  /** Holes are kept at least this wide, in mm; null: they may close. */
  readonly holesOpen: number | null;
};

/** Outlines moved, and the holes that would have become too narrow and were held open. */
export type Thickened = {
  readonly outlines: readonly Outline[];
  /** Holes that grew together less than asked, by how wide they are kept, in mm. */
  readonly heldHoles: readonly { readonly hole: Outline; readonly widthMm: number }[];
  /** What closed by it. */
  readonly closed: readonly ClosedWhite[];
};

/** Holes narrower than this, in mm, are left over from where letters meet. */
const HARDLY_MM = 0.1;

const widthOf = (hole: Outline): number => 2 * largestCircleIn(hole.path).radius;

/** Every outline moved by the step's distance; a hole that would get narrower than it may gives way. */
export function thicken(
  engine: ClipEngine,
  shape: readonly Outline[],
  step: ThickenSettings,
  memory: Memory,
): Thickened {
  if (step.by === 0) return { outlines: shape, heldHoles: [], closed: [] };
  const heldHoles: { hole: Outline; widthMm: number }[] = [];
  const least = step.holesOpen;
  const by = shape.map((o) => {
    if (o.depth % 2 === 0 || step.by < 0 || least === null) return step.by;
    const width = widthOf(o);
    const most = Math.max(0, (width - least) / 2);
    // What is hardly a hole may close.
    if (most >= step.by || width < HARDLY_MM) return step.by;
    heldHoles.push({ hole: o, widthMm: width - 2 * most });
    return most;
  });
  const { corners } = step;
  const outlines = offsetOutlines(engine, shape, { by: step.by, corners, holeBy: (i) => numberAt(by, i) }, memory);
  const closed = step.by < 0 ? [] : closedByGrowing(shape, outlines, (hole) => widthOf(hole) < HARDLY_MM);
  return { outlines, heldHoles, closed };
}
