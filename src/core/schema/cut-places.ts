/** Places on the outlines of a part that are kept by hand: where cuts begin, and where they are left out. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, letterKey } from './fields';

const placeShape = {
  letter: letterKey,
  x: about(
    z.number().min(-LIMITS.bridgeCapitals).max(LIMITS.bridgeCapitals),
    'Where it is, in capital heights from the letter’s origin; of a shape in its heights.',
  ),
  y: about(z.number().min(-LIMITS.bridgeCapitals).max(LIMITS.bridgeCapitals), 'The same upwards from the baseline.'),
};

/** Where a cut begins: on the outline nearest to the place, as near to it as there is room. */
export const startPlaceSchema = z.strictObject(placeShape);

/** Where a tab is: on the outline nearest to the place, which has no others than those given. */
export const tabPlaceSchema = z.strictObject({
  ...placeShape,
  width: about(
    z.number().min(0).max(LIMITS.tabMm).nullable().default(null),
    'How wide it is, in mm; 0: the outline has none; null: as the operation says.',
  ),
});

/** An outline that is cut on another side than the others: the one nearest to the place. */
export const sidePlaceSchema = z.strictObject({
  ...placeShape,
  side: about(
    z.enum(['line', 'other']),
    '`line`: on the outline itself; `other`: on its other side, so that what is kept comes out smaller, or a hole larger.',
  ),
});

/** A place on a letter at which a cut begins. */
export type StartPlace = z.infer<typeof startPlaceSchema>;
