/** The width that words keep within, whatever they are. */
import { z } from 'zod';
import { about, length } from './fields';

/** How words behave that are wider, or narrower, than they are to be. */
export const withinSchema = z.strictObject({
  width: about(length, 'Width in mm that the widest line is to keep within.'),
  least: about(length.nullable().default(null), 'Capitals get no lower than this, in mm; null: as low as it takes.'),
  greatest: about(
    length.nullable().default(null),
    'Words that are narrower grow until they are as wide, their capitals no higher than this, in mm; null: they stay.',
  ),
  tightest: about(
    z.number().min(-2).max(10).nullable().default(null),
    'Letter spacing that is first given up, down to this share of the capital height; null: it stays as it is set.',
  ),
});

/** The width that words keep within, and how. */
export type Within = z.infer<typeof withinSchema>;
