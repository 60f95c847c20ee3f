/** The stock that parts are cut out of. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, name } from './fields';

/** The stock: its size, material and thickness, and what is safe in it. Lengths in mm. */
export const sheetSchema = z.strictObject({
  width: about(z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm), 'Width in mm.'),
  height: about(z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm), 'Height in mm.'),
  material: about(name.default(''), 'What the stock is, in the user’s words.'),
  thickness: about(z.number().min(0).max(1000).nullable().default(null), 'Thickness in mm, or null when not given.'),
  leastWidth: about(
    z.number().min(0).max(1000).nullable().default(null),
    'The least width that is safe in this material, in mm; null: strength is not looked at.',
  ),
  kerf: about(
    z.number().min(0).max(100).nullable().default(null),
    'Width that the beam or tool takes away, in mm; null when not given.',
  ),
});

/** The stock on the table. */
export type Sheet = z.infer<typeof sheetSchema>;
