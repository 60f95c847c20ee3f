/** Lines that fill, in the order they are drawn: the pass along the edge first or last. */
import { type Drawable, polyline, polylines } from '../../geometry/drawable';
import type { PartHatch } from '../../toolpath/hatch/part-hatch';
import { nearestNext } from '../../toolpath/runs';
import { stepIn } from '../steps';
import type { WorkKind } from '../work';

function drawables(hatch: PartHatch, edgeFirst: boolean): Drawable[] {
  // Closed, it could be taken for the rim of an area.
  const edge = nearestNext(hatch.edge).map(({ segments }) => polyline({ segments, closed: false }));
  return [
    ...(edgeFirst ? edge : []),
    ...polylines(hatch.strokes),
    ...hatch.rings.map(polyline),
    ...polylines(hatch.overMissed),
    ...(edgeFirst ? [] : edge),
  ];
}

/** Going along hatch lines. */
export const hatchWork: WorkKind<'hatch'> = {
  what: 'hatch',
  word: 'Hatch lines',
  describes: 'lines that fill it',
  draws: 'hatch',
  comesOff: false,
  toDraw({ linework }, steps) {
    const hatch = linework.hatch;
    if (!hatch) return {};
    return { ordered: drawables(hatch, stepIn({ steps }, 'hatch')?.outline === 'first'), lengthMm: hatch.drawnMm };
  },
};
