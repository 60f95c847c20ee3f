/** A border at a distance around a shape: its hollows bridged, its corners smoothed, its holes dropped. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { largestCircleIn } from '../geometry/inscribed';
import { type Corners, offsetRegion } from '../geometry/offset/offset';
import { boxHeight, boxWidth, EMPTY_BOX, uniteBoxes } from '../geometry/point';
import type { Memory } from '../memo';
import { measureOutlines, type Outline } from './outline';
import { parallelsIn } from './parallels';

/** How a border runs around a shape. */
export type BorderSettings = {
  /** From the shape, in mm. */
  readonly distance: number;
  readonly corners: Corners;
  readonly envelope: boolean;
  /** Gaps narrower than this are bridged, and corners rounded to this radius, in mm. */
  readonly bridge: number;
  readonly smooth: number;
  /** Holes at least this wide stay, in mm; null: none does. */
  readonly holesFrom: number | null;
};

/** An envelope spans hollows up to this share of the shape's shorter side, so that it is nearly the convex hull. */
const ENVELOPE = 2;

/**
 * The outline of a border around a shape. Bridging is closing (growing, then shrinking by as much), smoothing is
 * closing and then opening, as in mathematical morphology (Serra 1982); the growing that bridges is one with that to
 * the border's distance.
 */
export function border(
  engine: ClipEngine,
  shape: readonly Outline[],
  step: BorderSettings,
  memory: Memory,
): readonly Outline[] {
  if (shape.length === 0) return shape;
  const parallels = parallelsIn(memory);
  const grow = (outlines: readonly Outline[], by: number, corners: Corners = 'round') =>
    by === 0 ? outlines : measureOutlines(offsetRegion(engine, outlines, { by, corners, parallels }));
  const box = shape.reduce((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const spanned = step.envelope ? ENVELOPE * Math.min(boxWidth(box), boxHeight(box)) : 0;
  let out = spanned > 0 ? grow(grow(shape, spanned), -spanned) : shape;
  // Holes that none of is kept need not be computed.
  if (step.holesFrom === null) out = withoutHoles(out, step);
  const bridging = step.bridge / 2;
  out = grow(grow(out, step.distance + bridging, step.corners), -bridging);
  if (step.smooth > 0) out = grow(grow(grow(out, step.smooth), -2 * step.smooth), step.smooth);
  return withoutHoles(out, step);
}

/** The outlines without the holes that are dropped, and without what lies in those. */
function withoutHoles(outlines: readonly Outline[], step: BorderSettings): Outline[] {
  const dropped = new Set<number>();
  const order = outlines
    .map((_, i) => i)
    .sort((a, b) => (outlines[a] as Outline).depth - (outlines[b] as Outline).depth);
  for (const i of order) {
    const o = outlines[i] as Outline;
    if (o.parent >= 0 && dropped.has(o.parent)) dropped.add(i);
    else if (o.depth % 2 === 1 && (step.holesFrom === null || 2 * largestCircleIn(o.path).radius < step.holesFrom))
      dropped.add(i);
  }
  if (dropped.size === 0) return [...outlines];
  return measureOutlines(outlines.filter((_, i) => !dropped.has(i)));
}
