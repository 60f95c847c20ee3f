/** Hang: a hole, or a ring, that a part hangs by. */
import { z } from 'zod';
import { applyMatrix, determinant, growBox, type Point } from '../../geometry/point';
import { type Hanger, hung } from '../../prepare/hanger';
import { about, length, stepOn } from '../../schema/fields';
import { outlineStep, tenths } from '../step';

const share = z.number().min(-1).max(2).nullable().default(null);

/** It hangs level within this, in degrees. */
export const LEVEL_DEG = 0.5;

/** "3.2° clockwise"; how a part is turned that hangs free. */
export const turnedWords = (turnDeg: number): string =>
  `${Math.abs(turnDeg).toFixed(1)}° ${turnDeg > 0 ? 'clockwise' : 'anticlockwise'}`;

const around = (at: Point, mm: number) => growBox({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, mm);

/** What a part hangs by. */
export const hangStep = outlineStep({
  kind: 'hang',
  word: 'what it hangs by',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('hang'),
    on: stepOn,
    by: about(
      z.enum(['hole', 'ring']).default('hole'),
      'By a hole in it, or by a ring that stands on its edge and is one with it.',
    ),
    width: about(length.default(4), 'Diameter of the hole in mm.'),
    edge: about(length.default(3), 'Stock around the hole, to the edge of the part or of the ring, in mm.'),
    x: about(
      share,
      'Middle of the hole in shares of the part’s width from its left side; null: straight over the middle of its weight, so that it hangs level.',
    ),
    y: about(share, 'How high it is, in shares of the part’s height from below; null with `x`.'),
  }),
  suited: ({ capHeightMm, leastWidthMm }) => ({
    width: tenths(Math.max(2, capHeightMm / 10)),
    edge: tenths(Math.max(1.2 * (leastWidthMm ?? 0), capHeightMm / 12)),
  }),
  lengths: { grows: [], stays: ['width', 'edge'] },
  keepsLetters: false,
  run({ shape, keep }, step, { engine }) {
    // What is cut out of the sheet is no piece to hang, and where there is nothing yet nothing hangs.
    if (keep !== 'inside' || shape.length === 0) return {};
    const { shape: made, hanger } = hung(engine, shape, step);
    return { shape: made, note: hanger };
  },
  moved: (note: Hanger, { matrix }): Hanger => ({
    ...note,
    at: note.at && applyMatrix(matrix, note.at),
    weight: applyMatrix(matrix, note.weight),
    // A mirrored part turns the other way.
    turnDeg: determinant(matrix) < 0 ? -note.turnDeg : note.turnDeg,
  }),
  rules: [
    {
      code: 'no-place-to-hang',
      severity: 'fault',
      station: 'hold',
      find({ step, note, part, title, length: mm }) {
        if (!step || !note || note.at || note.isOff) return [];
        const room = `a ${step.by === 'hole' ? 'hole' : 'ring with a hole'} of ${mm(step.width)} with ${mm(step.edge)} around it`;
        const sentence = `There is no place above the middle of weight of ${title} for ${room}.`;
        return [{ sentence, box: part.box, detail: 'place', mend: step.by === 'hole' ? {} : null }];
      },
      mend: {
        words: 'Hang it by a ring',
        step: (step) => {
          step.by = 'ring';
        },
      },
    },
    {
      code: 'hangs-by-nothing',
      severity: 'fault',
      station: 'hold',
      find: ({ step, note, part, title }) =>
        step && note?.isOff
          ? [{ sentence: `What ${title} is to hang by does not lie on it.`, box: part.box, detail: 'off', mend: {} }]
          : [],
      mend: {
        words: 'Hang it level',
        step: (step) => {
          step.x = null;
          step.y = null;
        },
      },
    },
    {
      code: 'hangs-turned',
      severity: 'note',
      station: 'hold',
      find({ step, note, title }) {
        if (!step || !note?.at || Math.abs(note.turnDeg) <= LEVEL_DEG) return [];
        const isOver = Math.abs(note.turnDeg) > 90;
        const sentence = isOver
          ? `${title} turns over when it hangs: what it hangs by is below the middle of its weight.`
          : `${title} hangs turned by ${turnedWords(note.turnDeg)}.`;
        const byHand = step.x !== null && step.y !== null;
        return [
          {
            sentence,
            box: around(note.at, step.width),
            detail: 'turned',
            ...(isOver && { severity: 'caution' as const }),
            mend: byHand ? {} : null,
          },
        ];
      },
      mend: {
        words: 'Hang it level',
        step: (step) => {
          step.x = null;
          step.y = null;
        },
      },
    },
  ],
});
