/** Placements as matrices: members in their part, parts on the sheet. */

import { compose, determinant, IDENTITY, invert, type Matrix, rotation, scaling, translation } from '../geometry/point';
import type { Placement } from '../schema/placement';

/** A part, as far as it says where it lies. */
export type PlacedPart = {
  readonly id: string;
  readonly placement: Placement;
  /** The part it goes along with. */
  readonly along: string | null;
};

/** The placement of what lies where it was made. */
export const UNMOVED: Placement = { x: 0, y: 0, turn: 0, mirror: false };

/** From the coordinates of what is placed to those it is placed in: mirrored, turned, then moved. */
export const placementMatrix = (p: Placement): Matrix =>
  compose(compose(p.mirror ? scaling(-1, 1) : IDENTITY, rotation(p.turn)), translation(p.x, p.y));

/** Digits kept of a placement: nanometres, and billionths of a degree, which are less than that at the rim of a large sheet. */
const PER_MM = 1e6;
const PER_DEGREE = 1e9;

/** The placement that a matrix without scaling is; `turn` from -180 up to 180 degrees. */
export function placementOf(m: Matrix): Placement {
  const mirror = determinant(m) < 0;
  const [c, s] = mirror ? [-m.a, -m.b] : [m.a, m.b];
  const turn = Math.round(((Math.atan2(s, c) * 180) / Math.PI) * PER_DEGREE) / PER_DEGREE;
  return { x: steady(m.e), y: steady(m.f), turn: turn === 180 ? -180 : turn + 0, mirror };
}

const steady = (mm: number): number => Math.round(mm * PER_MM) / PER_MM + 0;

/**
 * From a part's own coordinates to the sheet: its placement, then that of the part it goes along with, and so on. The schema
 * refuses parts that go along with each other in a circle; in a draft that has one, the circle is cut.
 */
export function partMatrix(parts: readonly PlacedPart[], part: PlacedPart): Matrix {
  let matrix = placementMatrix(part.placement);
  const met = new Set([part.id]);
  for (let id = part.along; id !== null; ) {
    const next = parts.find((p) => p.id === id);
    if (!next || met.has(next.id)) break;
    met.add(next.id);
    matrix = compose(matrix, placementMatrix(next.placement));
    id = next.along;
  }
  return matrix;
}

/** The placement a part needs so that its own coordinates lie on the sheet as `matrix` says. */
export function placementFor(parts: readonly PlacedPart[], part: PlacedPart, matrix: Matrix): Placement {
  const leader = part.along === null ? undefined : parts.find((p) => p.id === part.along);
  return placementOf(leader ? compose(matrix, invert(partMatrix(parts, leader))) : matrix);
}
