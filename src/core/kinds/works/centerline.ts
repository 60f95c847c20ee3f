/** The middle of the strokes. */
import { regionBox } from '../../geometry/path';
import { EMPTY_BOX, growBox, uniteBoxes } from '../../geometry/point';
import { stepIn } from '../steps';
import { lengthAround, type WorkKind } from '../work';

/** Going along the lines down the middle of strokes. */
export const centerlineWork: WorkKind<'centerline'> = {
  what: 'centerline',
  word: 'Middle lines',
  describes: 'the middle of its strokes',
  draws: 'centerline',
  comesOff: false,
  toDraw({ linework }, steps) {
    const { centerline: made } = linework;
    if (!made) return {};
    const asPoints = stepIn({ steps }, 'centerline')?.dots === 'point';
    const dots = made.dots.map(({ x, y, r }) => ({ x, y, r: asPoints ? null : r / 2 }));
    return { polylines: made.paths, dots, lengthMm: made.lengthMm + lengthAround(dots) };
  },
  box: ({ centerline: made }) =>
    made
      ? made.dots.reduce(
          (box, { x, y, r }) => uniteBoxes(box, growBox({ minX: x, minY: y, maxX: x, maxY: y }, r / 2)),
          regionBox(made.paths),
        )
      : EMPTY_BOX,
};
