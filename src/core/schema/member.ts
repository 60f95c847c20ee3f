/** What every member has: a name, a place, and how it combines with those before it. */
import { z } from 'zod';
import { id } from './fields';
import { placementSchema } from './placement';

const role = z
  .enum(['join', 'punch', 'clip'])
  .default('join')
  .describe(
    'How the member combines with those before it: added, cut out of them, or keeping only what lies within it.',
  );

/** What every member has: its id, how it combines with those before it, and its placement. */
export const member = { id, role, placement: placementSchema };
