/** Dots along the outlines, or down the middle of the strokes. */
import { EMPTY_BOX, growBox, uniteBoxes } from '../../geometry/point';
import { stepIn } from '../steps';
import { lengthAround, type WorkKind } from '../work';

/** Setting dots. */
export const dotsWork: WorkKind<'dots'> = {
  what: 'dots',
  word: 'Dots',
  describes: 'dots',
  draws: 'dots',
  comesOff: false,
  toDraw({ linework }, steps) {
    const step = stepIn({ steps }, 'dots');
    const r = step?.as === 'point' ? null : (step?.diameter ?? 0) / 2;
    const made = linework.dots?.dots.map(({ x, y }) => ({ x, y, r })) ?? [];
    return { dots: made, lengthMm: lengthAround(made) };
  },
  box: ({ dots: made }) =>
    (made?.dots ?? []).reduce(
      (box, { x, y }) => uniteBoxes(box, growBox({ minX: x, minY: y, maxX: x, maxY: y }, (made?.diameter ?? 0) / 2)),
      EMPTY_BOX,
    ),
};
