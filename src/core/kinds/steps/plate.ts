/** Plate: what is cut away is cut out of a plate of its own. */
import { z } from 'zod';
import { LIMITS } from '../../limits';
import { plate as plateAround } from '../../prepare/plate';
import { about, length, stepOn } from '../../schema/fields';
import { outlineStep, tenths } from '../step';

const plateMargin = z.number().min(-1000).max(LIMITS.lengthMm).default(20);

/** A plate that the shape is cut out of. */
export const plateStep = outlineStep({
  kind: 'plate',
  word: 'plate',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('plate'),
    on: stepOn,
    shape: about(z.enum(['rectangle', 'ellipse']).default('rectangle'), 'Shape of the plate.'),
    across: about(plateMargin, 'Stock left and right of the words, in mm; an ellipse goes round the corners of that.'),
    upright: about(plateMargin, 'The same above and below them.'),
    corner: about(z.number().min(0).max(LIMITS.lengthMm).default(0), 'Radius of the corners in mm.'),
    holes: about(
      z.enum(['none', 'corners', 'top', 'sides']).default('none'),
      'Holes for screws or hanging: none, near the four corners, near the two upper ones, or half way up both sides.',
    ),
    holeWidth: about(length.default(5), 'Diameter of the holes in mm.'),
    inset: about(length.default(10), 'From the edges of the plate to the middle of the holes, in mm.'),
  }),
  suited({ capHeightMm }) {
    const margin = Math.max(1, Math.round(capHeightMm / 3));
    return { across: margin, upright: margin, inset: tenths(Math.max(5, margin / 2)) };
  },
  lengths: { grows: ['across', 'upright', 'corner', 'holeWidth', 'inset'], stays: [] },
  keepsLetters: false,
  run: ({ shape, keep }, step, { engine }) =>
    keep === 'outside' ? { shape: plateAround(engine, shape, step), keep: 'inside' } : {},
  moved: (note: null) => note,
  rules: [],
});
