/** What words are fitted into. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, id, length } from './fields';

const shared = {
  margin: about(z.number().min(0).max(LIMITS.lengthMm).default(0), 'Room between the words and the edge, in mm.'),
  centre: about(
    z.enum(['ink', 'weight', 'capitals']).default('ink'),
    'What of the words lies in the middle: `ink`: the bounds of what is drawn; `weight`: its centre of weight; `capitals`: the middle between the top of the first line’s capitals and the last baseline.',
  ),
};

const boxSchema = z.strictObject({
  to: z.literal('box'),
  width: about(length, 'Width in mm; the box lies about the origin of the words.'),
  height: about(length, 'Height in mm.'),
  ...shared,
});

const panelSchema = z.strictObject({
  to: z.literal('panel'),
  of: about(id, 'Id of another part; the words lie as in that part’s own coordinates.'),
  outline: about(z.int().min(0).max(9_999).default(0), 'Which of its closed outlines, the longest first.'),
  ...shared,
});

/** What words are fitted into: their size is found, and they are centred in it. */
export const fitSchema = z.discriminatedUnion('to', [boxSchema, panelSchema]);

/** What words are fitted into. */
export type Fit = z.infer<typeof fitSchema>;
