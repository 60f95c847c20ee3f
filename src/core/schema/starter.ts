/** What makes a job a starter: a job that others begin from. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about } from './fields';

/** A job with this is a starter; its words that are asked for say so themselves (`asked` of a lettering). */
export const starterSchema = z.strictObject({
  about: about(z.string().max(LIMITS.starterAbout).default(''), 'What comes of it, in a sentence.'),
});
