/** A border at a distance around a shape: its hollows bridged, its corners smoothed, its holes dropped. */
import type { StepOf } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { largestCircleIn } from '../geometry/inscribed';
import { type Corners, offsetRegion } from '../geometry/offset/offset';
import { boxHeight, boxWidth, EMPTY_BOX, uniteBoxes } from '../geometry/point';
import { measureOutlines, type Outline } from './outline';

/** An envelope spans hollows up to this share of the shape's shorter side, so that it is nearly the convex hull. */
const ENVELOPE = 2;

/**
 * Bridging is closing (growing, then shrinking by as much), smoothing is opening (shrinking, then growing), as in
 * mathematical morphology (Serra 1982): three offsets in all.
 */
export function border(engine: ClipEngine, shape: readonly Outline[], step: StepOf<'border'>): readonly Outline[] {
  if (shape.length === 0) return shape;
  const box = shape.reduce((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const spanned = step.envelope ? ENVELOPE * Math.min(boxWidth(box), boxHeight(box)) : 0;
  const closing = Math.max(step.bridge / 2, spanned);
  const grow = (outlines: readonly Outline[], by: number, corners: Corners) =>
    by === 0 ? outlines : measureOutlines(offsetRegion(engine, outlines, by, corners));
  // Closing must be round to span evenly; the corners asked for belong to the distance itself.
  let out = closing > 0 ? grow(grow(shape, closing, 'round'), -closing, 'round') : shape;
  out = grow(step.holesFrom === null ? withoutHoles(out, step) : out, step.distance, step.corners);
  if (step.smooth > 0) out = grow(grow(out, -step.smooth, 'round'), step.smooth, 'round');
  return withoutHoles(out, step);
}

/** The outlines without the holes that are dropped, and without what lies in those. */
function withoutHoles(outlines: readonly Outline[], step: StepOf<'border'>): Outline[] {
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
