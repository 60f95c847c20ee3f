/** Bridges that a letter takes from one like it: at the same places of the letter. */
import { numberAt } from '../../geometry/elements';
import { applyMatrix, invert, type Matrix, type Point, turnWith } from '../../geometry/point';
import type { VoidEdges } from './edges';
import { type Candidate, candidateAt, type Site } from './search';

/** A bridge in its letter: where it starts and which way it runs, in capital heights; how wide it is where it starts, in mm. */
type Place = { readonly at: Point; readonly way: Point; readonly width: number };

/** How islands were bridged whose bridges others like them share, and what those cost. */
export type Models = Map<string, { readonly places: readonly Place[]; readonly cost: number }>;

/** The places of bridges in their letter, whose frame is `matrix`. */
export function placesIn(candidates: readonly Candidate[], matrix: Matrix): Place[] {
  const back = invert(matrix);
  return candidates.map(({ span }) => ({
    at: applyMatrix(back, span.from.middle),
    way: turnWith(back, span.way),
    width: span.width,
  }));
}

/** The bridge at the same place of a letter like the one it was found on; null where there is no room for it. */
export function likeThere(edges: VoidEdges, site: Site, place: Place, matrix: Matrix): Candidate | null {
  const way = turnWith(matrix, place.way);
  const near = edges.nearest(applyMatrix(matrix, place.at), [site.island]);
  if (!near) return null;
  const at = numberAt(edges.start, near.chord) + near.along * edges.chordLength(near.chord);
  const flare = site.width - site.waist;
  const here = { ...site, width: place.width, waist: place.width - flare };
  return candidateAt(edges, here, { at, angle: Math.atan2(way.y, way.x) });
}
