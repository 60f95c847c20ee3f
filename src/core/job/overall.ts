/** A part sized to the width that its finished outline is to have. */
import type { Part } from '../document/schema';
import { growPart } from '../document/sizes';
import { boxWidth, isEmptyBox } from '../geometry/point';
import { factorFor } from '../geometry/root';
import type { PrepareContext } from '../prepare/member';
import type { PreparedPart } from '../prepare/prepared';
import { preparePart } from './own-shape';

/** The width is met to this, in mm, and parts are made so many times smaller or larger for it. */
const SEARCH = { met: 1e-4, least: 1e-4, most: 1e4 };

/**
 * A part in its own coordinates as `preparePart` gives it, but as large as its overall width asks. Borders, thickening and ties
 * do not grow with the words, so that the factor is searched for. A width that no size gives is noted, and the nearest that
 * was tried is taken.
 */
export function prepareSized(part: Part, context: PrepareContext): PreparedPart {
  const asked = part.overallWidth;
  if (asked === null) return preparePart(part, context);
  const made = new Map<number, PreparedPart>();
  const at = (factor: number): PreparedPart => {
    let known = made.get(factor);
    if (!known) {
      const sized = structuredClone(part);
      growPart(sized, factor, false);
      known = preparePart(sized, context);
      made.set(factor, known);
    }
    return known;
  };
  if (isEmptyBox(at(1).box)) return at(1);
  const factor = factorFor((f) => boxWidth(at(f).box), asked, SEARCH);
  const best = at(factor);
  return { ...best, overall: { askedMm: asked, gotMm: boxWidth(best.box), factor } };
}
