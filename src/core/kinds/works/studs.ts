/** Marks, or holes, where a part is mounted. */
import { EMPTY_BOX, growBox, uniteBoxes } from '../../geometry/point';
import { lengthAround, type WorkKind } from '../work';

/** Marking places for studs. */
export const studsWork: WorkKind<'studs'> = {
  what: 'studs',
  word: 'Studs',
  describes: 'places for studs',
  draws: 'studs',
  comesOff: false,
  toDraw({ linework }) {
    const made = linework.studs?.at.map(({ x, y }) => ({ x, y, r: (linework.studs?.width ?? 0) / 2 })) ?? [];
    return { dots: made, lengthMm: lengthAround(made) };
  },
  box: ({ studs }) =>
    (studs?.at ?? []).reduce(
      (box, { x, y }) => uniteBoxes(box, growBox({ minX: x, minY: y, maxX: x, maxY: y }, (studs?.width ?? 0) / 2)),
      EMPTY_BOX,
    ),
};
