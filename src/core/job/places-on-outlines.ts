/** Which outlines the places belong to that are kept by hand on letters of a part. */
import { nearestOnLine } from '../geometry/near-lines';
import { applyMatrix, type Point } from '../geometry/point';
import type { LetterFrame } from '../prepare/frames';
import type { Outline } from '../prepare/outline';
import type { StartPlace } from '../schema/cut-places';

/** A place by hand where it lies, and its number in the part's list. */
export type ByHand<P> = { readonly place: P; readonly at: Point; readonly index: number };

/** Of each outline the places that belong to it: it is the nearest to them. Those on letters that are gone belong to none. */
export function placedOn<P extends StartPlace>(
  places: readonly P[],
  frames: readonly LetterFrame[],
  outlines: readonly Outline[],
): (readonly ByHand<P>[])[] {
  const of = outlines.map((): ByHand<P>[] => []);
  if (places.length === 0) return of;
  const matrices = new Map(frames.map(({ key, matrix }) => [key, matrix]));
  places.forEach((place, index) => {
    const matrix = matrices.get(place.letter);
    if (!matrix) return;
    const at = applyMatrix(matrix, place);
    let [best, least] = [-1, Number.POSITIVE_INFINITY];
    outlines.forEach(({ path }, i) => {
      const nearest = nearestOnLine(path, at, least);
      if (nearest) [best, least] = [i, Math.hypot(nearest.at.x - at.x, nearest.at.y - at.y)];
    });
    of[best]?.push({ place, at, index });
  });
  return of;
}
