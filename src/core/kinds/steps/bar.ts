/** Bar: a bar under or through each line of words. */
import { z } from 'zod';
import { barsOf } from '../../prepare/bar';
import { withStrips } from '../../prepare/unite';
import { about, ends, length, stepOn } from '../../schema/fields';
import { outlineStep, tenths } from '../step';

/** A bar under or through words, that they hang on. */
export const barStep = outlineStep({
  kind: 'bar',
  word: 'bar',
  isSingle: false,
  schema: z.strictObject({
    kind: z.literal('bar'),
    on: stepOn,
    at: about(
      z.enum(['under', 'through']).default('under'),
      '`under`: the letters stand in it; `through`: it runs through their middle.',
    ),
    height: about(length.default(5), 'Thickness in mm.'),
    overlap: about(z.number().min(0).max(1000).default(1), 'How deep letters on the baseline stand in it, in mm.'),
    beyond: about(
      z.number().min(-1000).max(1000).default(0),
      'How far it reaches beyond the words at each end, in mm.',
    ),
    ends: about(ends, 'Whether its ends are straight or half circles.'),
  }),
  suited: ({ capHeightMm, leastWidthMm }) => ({
    height: tenths(Math.max(leastWidthMm ?? 0, capHeightMm / 6)),
    overlap: tenths(capHeightMm / 25),
  }),
  lengths: { grows: ['height', 'beyond'], stays: ['overlap'] },
  keepsLetters: false,
  run({ shape }, step, { engine, members }) {
    const bars = members.flatMap(({ role, layout, matrix }) =>
      layout && role === 'join' ? barsOf(layout, matrix, step) : [],
    );
    return bars.length > 0 ? { shape: withStrips(engine, shape, bars) } : {};
  },
  moved: (note: null) => note,
  rules: [],
});
