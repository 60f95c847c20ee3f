/** Lines that fill, in the order they are drawn: the pass along the edge first or last. */
import { type Drawable, polyline, polylines } from '../../geometry/drawable';
import type { PartFill } from '../../toolpath/fill/part-fill';
import { nearestNext } from '../../toolpath/runs';
import { stepIn } from '../steps';
import type { WorkKind } from '../work';

function drawables(fill: PartFill, edgeFirst: boolean): Drawable[] {
  // Closed, it could be taken for the rim of an area.
  const edge = nearestNext(fill.edge).map(({ segments }) => polyline({ segments, closed: false }));
  return [
    ...(edgeFirst ? edge : []),
    ...polylines(fill.strokes),
    ...fill.rings.map(polyline),
    ...polylines(fill.overMissed),
    ...(edgeFirst ? [] : edge),
  ];
}

export const hatchWork: WorkKind<'hatch'> = {
  what: 'hatch',
  word: 'Filling lines',
  describes: 'lines that fill it',
  draws: 'hatch',
  comesOff: false,
  toDraw({ linework }, steps) {
    const fill = linework.hatch;
    if (!fill) return {};
    return { ordered: drawables(fill, stepIn({ steps }, 'hatch')?.outline === 'first'), lengthMm: fill.drawnMm };
  },
};
