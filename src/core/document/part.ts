/** A part of a job: what it is made of, how that is prepared, and what is worked. */
import { z } from 'zod';
import { stepSchema } from '../kinds/steps';
import { workSchema } from '../kinds/works';
import { LIMITS } from '../limits';

import { sidePlaceSchema, startPlaceSchema, tabPlaceSchema } from '../schema/cut-places';
import { about, id, length, name } from '../schema/fields';
import { memberSchema } from '../schema/members';
import { partPlacementSchema } from '../schema/placement';

/** A part of the job document: its members, steps and work, and where it lies on the sheet. Lengths in mm. */
export const partSchema = z.strictObject({
  id,
  name: about(name.default(''), 'What the user calls it.'),
  sheet: about(id.default('sheet'), 'Id of the sheet it is cut out of.'),
  hidden: about(z.boolean().default(false), 'Hidden parts are kept but neither shown nor exported.'),
  reference: about(
    z.boolean().default(false),
    'Shown for reference only: other parts are placed by it; nothing of it is worked or written, and nothing is found about it.',
  ),
  locked: about(z.boolean().default(false), 'Locked parts are not moved, changed or removed by hand.'),
  keep: about(
    z.enum(['inside', 'outside']).default('inside'),
    '`inside`: the shape is what stays (a positive); `outside`: the shape is cut away and the sheet stays (a negative).',
  ),
  selfAdhesive: about(
    z.boolean().default(false),
    'Islands stay where they are because the stock sticks: they are neither bridged nor found wanting.',
  ),
  hangsTogether: about(
    z.enum(['yes', 'no']).nullable().default(null),
    'Whether what stays is to come off as one piece; null: it was never asked, and steps that join letters stand for yes.',
  ),
  placement: partPlacementSchema.describe(
    'Where its own coordinates lie on the sheet; all that it is made of goes with it.',
  ),
  along: about(
    id.nullable().default(null),
    'Id of the part it goes along with: its place then counts from that part’s; null when it goes by itself.',
  ),
  overallWidth: about(
    length.nullable().default(null),
    'Width of the finished outline in the part’s own coordinates, in mm, which all it is made of is sized to, whatever the words are; null: members are as large as they say.',
  ),
  members: about(z.array(memberSchema).max(LIMITS.members), 'What the part is made of, combined in order.'),
  steps: about(
    z
      .array(stepSchema)
      .max(LIMITS.steps)
      .prefault([{ kind: 'weld' }]),
    'How the outlines are prepared, and what is drawn of them, in order.',
  ),
  starts: about(
    z.array(startPlaceSchema).max(LIMITS.cutPlaces).default([]),
    'Where cuts along its outlines begin, moved by hand.',
  ),
  tabs: about(
    z.array(tabPlaceSchema).max(LIMITS.cutPlaces).default([]),
    'Tabs by hand: outlines that have any have no others.',
  ),
  sides: about(
    z.array(sidePlaceSchema).max(LIMITS.cutPlaces).default([]),
    'Outlines that are cut on another side than the operation says.',
  ),
  work: about(z.array(workSchema).max(LIMITS.operations).default([]), 'Which operation does what to it.'),
});

/** What comes off the machine as one piece: members, the steps they are prepared by, and the work done. */
export type Part = z.infer<typeof partSchema>;
