/** Tools that fill letters. */
import { z } from 'zod';
import { about, id } from './fields';

const toolShape = {
  shape: about(
    z.enum(['line', 'flat', 'round', 'cone']).default('line'),
    '`line`: a pen or beam as wide as its tip; `flat`: a tool with a flat end; `round`: one with a round end; `cone`: one that widens upwards.',
  ),
  tip: about(z.number().min(0.01).max(1000).default(1), 'Width in mm; of a cone, of its tip.'),
  angle: about(z.number().min(1).max(170).default(60), 'Angle of a cone between its sides, in degrees.'),
  depth: about(
    z.number().min(0.001).max(1000).default(0.5),
    'How deep it goes, in mm; it tells how wide a round end or a cone works.',
  ),
};

/** A tool that fills: its shape and sizes; lengths in mm. */
export const hatchToolSchema = z.strictObject(toolShape);

/** A tool in the job's list, with its name. */
export const listedToolSchema = z.strictObject({
  id,
  ...toolShape,
  feed: about(z.number().min(1).max(1_000_000).default(1000), 'How fast it goes along lines, in mm a minute.'),
});

/** A tool that fills. */
export type HatchTool = z.infer<typeof hatchToolSchema>;

/** A tool in the job's list. */
export type ListedTool = z.infer<typeof listedToolSchema>;
