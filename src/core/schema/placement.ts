/** Where things lie: members in their part, parts on the sheet. */
import { z } from 'zod';
import { about, coordinate, turn } from './fields';

const turnAndMirror = {
  turn: about(turn, 'Turn about the origin in degrees, counter-clockwise.'),
  mirror: about(z.boolean().default(false), 'Mirrored left to right about the origin before turning.'),
};

/** Where a member lies in its part: mirrored, then turned, then moved. */
export const placementSchema = z.strictObject({
  x: about(coordinate, 'Place of the member’s origin in its part in mm, to the right of the part’s origin.'),
  y: about(coordinate, 'The same upwards.'),
  ...turnAndMirror,
});

/** Where a part lies on the sheet, or from the part it goes along with. */
export const partPlacementSchema = z.strictObject({
  x: about(
    coordinate,
    'Place of the part’s origin on the sheet in mm, from the left edge; or in the part it goes along with.',
  ),
  y: about(coordinate, 'The same upwards from the bottom edge.'),
  ...turnAndMirror,
});

/** A place in mm, a turn in degrees counter-clockwise, and whether it is mirrored. */
export type Placement = z.infer<typeof placementSchema>;
