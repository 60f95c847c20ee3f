/** Dots: along outlines and lines, or down the middle of the strokes. */
import { z } from 'zod';
import { applyMatrix, growBox } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { about, coordinate, letterKey, stepOn } from '../../schema/fields';
import { type PartDots, partDots } from '../../toolpath/dots/part-dots';
import { drawStep, madeBy, tenths } from '../step';
import { centerlineStep } from './centerline';

const dotMoveSchema = z.strictObject({
  letter: about(
    letterKey.nullable().default(null),
    'Which letter its place counts from, in capital heights of that letter; null: from the first member’s origin.',
  ),
  x: about(coordinate, 'Where the dot would be, from that origin, in capital heights, or heights of the first member.'),
  y: about(coordinate, 'The same upwards.'),
  dx: about(coordinate.nullable().default(null), 'How far it was moved, in the same measure; null: it is left out.'),
  dy: about(coordinate.nullable().default(null), 'The same upwards.'),
});

const NUMBERS_PER_DOT = 12;

/** Dots along lines at a spacing. */
export const dotsStep = drawStep({
  kind: 'dots',
  word: 'dots',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('dots'),
    on: stepOn,
    along: about(
      z.enum(['centerline', 'outline']).default('outline'),
      'Along the middle of the strokes, or along outlines and lines.',
    ),
    diameter: about(z.number().min(0.01).max(1000).default(2), 'Diameter of each dot in mm.'),
    spacing: about(z.number().min(0.01).max(1000).default(3), 'From middle to middle in mm.'),
    even: about(
      z.boolean().default(true),
      'Spacing is stretched or squeezed a little, so that corners and ends are met evenly; else it is kept and the last gap is what is left.',
    ),
    apart: about(z.boolean().default(true), 'Dots that would touch others are left out; else they stay and are found.'),
    as: about(z.enum(['circle', 'point']).default('circle'), 'What a dot is in files: a circle, or its middle.'),
    changes: about(z.array(dotMoveSchema).max(LIMITS.dotChanges).default([]), 'Dots moved or left out by hand.'),
  }),
  suited({ capHeightMm }) {
    const diameter = tenths(Math.max(0.3, capHeightMm / 20));
    return { diameter, spacing: tenths(1.5 * diameter) };
  },
  lengths: { grows: [], stays: ['diameter', 'spacing'] },
  letters(step, { keyOf }) {
    step.changes = step.changes.flatMap((c) => {
      if (c.letter === null) return [c];
      const letter = keyOf(c.letter);
      return letter === null ? [] : [{ ...c, letter }];
    });
  },
  keepsLetters: true,
  needs: (step) => (step.along === 'centerline' ? [centerlineStep.kind] : []),
  draw: {
    name: 'dots',
    key({ shape, step, made }, idOf) {
      const lines = madeBy(centerlineStep, made);
      return JSON.stringify([idOf(shape), step, lines && idOf(lines)]);
    },
    // biome-ignore lint/correctness/useYield: dots are set in one go.
    *run({ shape, step, made }) {
      return partDots(shape, madeBy(centerlineStep, made), step);
    },
    weigh: (made) => NUMBERS_PER_DOT * made.dots.length,
  },
  moved: (made: PartDots, matrix): PartDots => ({
    ...made,
    dots: made.dots.map((d) => ({ ...d, ...applyMatrix(matrix, d), home: applyMatrix(matrix, d.home) })),
    clashes: made.clashes.map((c) => ({ ...c, ...applyMatrix(matrix, c) })),
  }),
  rules: [
    {
      code: 'too-many-dots',
      severity: 'fault',
      station: 'fill',
      find: ({ drawn, title, part }) =>
        drawn?.tooMany
          ? [
              {
                sentence: `${title} would have more than ${LIMITS.dots.toLocaleString('en')} dots: none is made. Space them wider.`,
                box: part.box,
                detail: 'many',
              },
            ]
          : [],
    },
    {
      code: 'dots-touch',
      severity: 'caution',
      station: 'fill',
      many: (count) => `${count} dots lie on others.`,
      find: ({ drawn, length }) =>
        drawn && !drawn.tooMany
          ? drawn.clashes.slice(0, LIMITS.clashesNamed).map((p) => ({
              sentence: `Two dots of ${length(drawn.diameter)} lie on each other here.`,
              box: growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, 3 * drawn.diameter),
              detail: `${p.x.toFixed(1)},${p.y.toFixed(1)}`,
            }))
          : [],
    },
    {
      code: 'more-dots-touch',
      severity: 'caution',
      station: 'fill',
      find({ drawn, title, part }) {
        const count = drawn && !drawn.tooMany ? drawn.clashes.length - LIMITS.clashesNamed : 0;
        if (count <= 0) return [];
        const sentence = `${count.toLocaleString('en')} more dots of ${title} lie on others.`;
        return [{ sentence, box: part.box, detail: 'clashes' }];
      },
    },
    {
      code: 'dot-gone',
      severity: 'note',
      station: 'fill',
      find({ drawn, title, part }) {
        const count = drawn && !drawn.tooMany ? drawn.idle : 0;
        if (count === 0) return [];
        const sentence =
          count === 1
            ? `A dot of ${title} that was changed by hand is no longer there.`
            : `${count.toLocaleString('en')} dots of ${title} that were changed by hand are no longer there.`;
        return [{ sentence, box: part.box, detail: 'idle' }];
      },
    },
  ],
});
