/** What a filling draws, in the order it is drawn. */
import { type Drawable, polyline, polylines } from '../../geometry/drawable';
import type { Path } from '../../geometry/path';
import type { Strokes } from '../../geometry/strokes';

/** The lines of a filling: rows and what links them, rings, strokes over what these miss, and the pass along the edge. */
export type HatchParts = {
  readonly strokes: Strokes;
  readonly rings: readonly Path[];
  readonly overMissed: Strokes;
  readonly edge: readonly Path[];
};

/** All that a filling draws, in order; the pass along the edge comes first or last. */
export function hatchDrawables({ strokes, rings, overMissed, edge }: HatchParts, edgeFirst: boolean): Drawable[] {
  // Closed, the pass along the edge could be taken for the rim of an area.
  const along = edge.map(({ segments }) => polyline({ segments, closed: false }));
  return [
    ...(edgeFirst ? along : []),
    ...polylines(strokes),
    ...rings.map(polyline),
    ...polylines(overMissed),
    ...(edgeFirst ? [] : along),
  ];
}
