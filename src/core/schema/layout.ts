/** How the names of a list are laid on sheets. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, coordinate, id, turn } from './fields';

const layPlaceSchema = z.strictObject({
  row: about(id, 'Id of the row.'),
  copy: about(
    z
      .int()
      .min(0)
      .max(LIMITS.copiesOfRow - 1)
      .default(0),
    'Which of its copies, from 0.',
  ),
  sheet: about(
    z
      .int()
      .min(0)
      .max(LIMITS.laidSheets - 1),
    'Which sheet of the stock it lies on, from 0.',
  ),
  turn: about(turn, 'Turned so far about the corner of the sheet, in degrees counter-clockwise.'),
  x: about(coordinate, 'Then moved so far to the right, in mm.'),
  y: about(coordinate, 'The same upwards.'),
  locked: about(z.boolean().default(false), 'It stays where it is when the others are laid anew.'),
});

/** How the names of a list are laid on sheets, and where they lie. */
export const layoutSchema = z.strictObject({
  way: about(
    z.enum(['nested', 'rows']).default('nested'),
    '`nested`: by their true shapes, as close as they go; `rows`: in rows and columns, in the order of the list.',
  ),
  spacing: about(z.number().min(0).max(LIMITS.spacingMm).default(3), 'Room between them, in mm.'),
  margin: about(z.number().min(0).max(LIMITS.spacingMm).default(5), 'Room to the edge of the sheet, in mm.'),
  turns: about(
    z.int().min(1).max(LIMITS.laidTurns).default(2),
    'Directions they may lie in: 1 as they are, 2 also turned over, 4 also across, or any number of even turns.',
  ),
  grain: about(z.boolean().default(false), 'The grain keeps its direction: they lie as they are, or turned over.'),
  holes: about(z.boolean().default(true), 'They may lie in holes of others.'),
  places: about(
    z.array(layPlaceSchema).max(LIMITS.laidPlaces).default([]),
    'Where each of them lies; what is not there is not laid yet.',
  ),
});

/** How names are laid on sheets. */
export type RowLayout = z.infer<typeof layoutSchema>;
/** Where a name lies. */
export type LayPlace = z.infer<typeof layPlaceSchema>;

/** Turns that are tried, in degrees. */
export function turnsOf({ turns, grain }: Pick<RowLayout, 'turns' | 'grain'>): number[] {
  const count = grain ? Math.min(turns, 2) : turns;
  return Array.from({ length: count }, (_, i) => (360 * i) / count);
}
