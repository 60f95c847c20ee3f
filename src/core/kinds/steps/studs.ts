/** Studs: where a part is mounted, in each of its pieces. */
import { z } from 'zod';
import { applyMatrix, transformedBox } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { about, length, stepOn } from '../../schema/fields';
import { type Studs, studsFor } from '../../toolpath/studs';
import { drawStep, tenths } from '../step';

const NUMBERS_PER_PLACE = 8;

/** Places for studs or stand-offs. */
export const studsStep = drawStep({
  kind: 'studs',
  word: 'studs',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('studs'),
    on: stepOn,
    width: about(length.default(4), 'Diameter of the hole for a stud or stand-off in mm.'),
    edge: about(
      z.number().min(0).max(LIMITS.lengthMm).default(3),
      'From the hole to the edge of its piece, at least, in mm.',
    ),
    each: about(z.int().min(1).max(LIMITS.studsEach).default(2), 'How many each piece gets, where there is room.'),
  }),
  suited: ({ capHeightMm, leastWidthMm }) => ({
    width: tenths(Math.min(4, Math.max(1.5, capHeightMm / 25))),
    edge: tenths(Math.max(leastWidthMm ?? 0, capHeightMm / 40)),
  }),
  lengths: { grows: [], stays: ['width', 'edge'] },
  keepsLetters: true,
  // A drill paper shows them although no operation marks them on the part.
  isAlways: true,
  canDraw: ({ keep, outlines }) => keep === 'inside' && outlines.length > 0,
  draw: {
    name: 'studs',
    key: ({ shape, step }, idOf) => JSON.stringify([idOf(shape), step]),
    // biome-ignore lint/correctness/useYield: studs are set in one go.
    *run({ shape, step }) {
      return studsFor(shape.outlines, step);
    },
    weigh: ({ at }) => NUMBERS_PER_PLACE * at.length,
  },
  moved: (made: Studs, matrix): Studs => ({
    ...made,
    at: made.at.map((p) => applyMatrix(matrix, p)),
    without: made.without.map((box) => transformedBox(box, matrix)),
  }),
  rules: [
    {
      code: 'no-room-for-stud',
      severity: 'caution',
      station: 'hold',
      many: (count) => `${count} pieces have no room for a stud.`,
      find: ({ step, drawn, title, length: mm }) =>
        step && drawn
          ? drawn.without.slice(0, LIMITS.piecesNamed).map((box, i) => ({
              sentence: `A piece of ${title} has no room for a stud of ${mm(step.width)} with ${mm(step.edge)} to its edge.`,
              box,
              detail: `${i}`,
            }))
          : [],
    },
    {
      code: 'too-many-to-stud',
      severity: 'caution',
      station: 'hold',
      find: ({ drawn, title, part }) =>
        drawn && drawn.notTried > 0
          ? [
              {
                sentence: `${title} is in more than ${LIMITS.piecesStudded} pieces; the others get no studs.`,
                box: part.box,
                detail: 'many',
              },
            ]
          : [],
    },
  ],
});
