/** Members taken from the coordinates of one part into those of another, so that they stay where they are on the sheet. */

import type { Job, Member, Part } from '../document/schema';
import { compose, invert, type Matrix, translation } from '../geometry/point';
import { partMatrix, placementMatrix, placementOf } from '../prepare/placement';
import type { MiddleOf } from './changed';

/** From the coordinates of one part to those of another. */
export const betweenParts = (job: Job, from: Part, to: Part): Matrix =>
  compose(partMatrix(job.parts, from), invert(partMatrix(job.parts, to)));

/** The member as it is placed in the other coordinates; the same for none. */
export function inCoordinates<M extends Member>(member: M, into: Matrix, middleOf: MiddleOf): M {
  // What follows a copied shape is placed from the middle of that.
  const { x, y } = member.kind === 'copy' && member.follows ? middleOf(member.of) : { x: 0, y: 0 };
  const own = compose(placementMatrix(member.placement), translation(x, y));
  return { ...member, placement: placementOf(compose(compose(own, into), translation(-x, -y))) };
}
