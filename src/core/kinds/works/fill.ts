/** The area inside outlines as a whole, for a beam to scan. */
import { EMPTY_BOX, uniteBoxes } from '../../geometry/point';
import type { WorkKind } from '../work';

/** Scanning the inside as an area. */
export const fillWork: WorkKind<'fill'> = {
  what: 'fill',
  word: 'Inside',
  describes: 'the area inside them as a whole',
  draws: null,
  comesOff: false,
  toDraw: ({ outlines }) =>
    outlines.length > 0
      ? {
          areas: [
            {
              kind: 'area',
              paths: outlines.map((o) => o.path),
              box: outlines.reduce((box, o) => uniteBoxes(box, o.box), EMPTY_BOX),
              areaMm2: outlines.reduce((sum, o) => sum + o.area, 0),
            },
          ],
        }
      : {},
};
