/** Weld: letters that overlap become one outline. */
import { z } from 'zod';
import { about } from '../../schema/fields';
import { fixedStep } from '../step';

/** Whether overlapping outlines become one. */
export const weldStep = fixedStep({
  kind: 'weld',
  word: 'weld',
  place: 'weld',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('weld'),
    on: about(z.boolean().default(true), 'Off: overlapping letters stay outlines of their own.'),
  }),
  suited: () => ({}),
  lengths: { grows: [], stays: [] },
  keepsLetters: true,
  rules: [],
});
