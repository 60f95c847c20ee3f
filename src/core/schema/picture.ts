/** Pictures: those that lie on the sheet, and outlines traced from one. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { assetId } from './artwork';
import { about, id, name } from './fields';
import { member } from './member';
import { placementSchema } from './placement';

const pixels = z.int().min(1).max(LIMITS.rasterSide);
const cut = z.int().min(0).max(LIMITS.rasterSide).default(0);

const cropSchema = z
  .strictObject({
    left: about(cut, 'Columns left out on the left.'),
    right: about(cut, 'Columns left out on the right.'),
    top: about(cut, 'Rows left out at the top.'),
    bottom: about(cut, 'Rows left out at the bottom.'),
  })
  .describe('What is left out of the picture along its sides, in pixels.');

/** What a picture on the sheet and a trace have in common: which picture, its size in pixels, and what of it. */
const ofPicture = {
  name: about(name.default(''), 'Name of the file it came from.'),
  pixels: about(assetId, 'The pixels as they were decoded, a PNG file, by their id.'),
  original: about(assetId.nullable().default(null), 'The file itself, by its id.'),
  columns: about(pixels, 'How many pixels it is wide.'),
  rows: about(pixels, 'How many pixels it is high.'),
  crop: cropSchema.prefault({}),
  scale: about(
    z.number().min(LIMITS.pixelLeastMm).max(LIMITS.pixelMostMm),
    'Width of a pixel in mm. The origin is the middle of the whole picture.',
  ),
};

/** A picture that lies on the sheet, under the parts: to draw over, and to trace. It is never cut or engraved. */
export const placedPictureSchema = z.strictObject({
  id,
  ...ofPicture,
  placement: placementSchema,
  likely: about(
    z.enum(['dark', 'light', 'opaque']).default('dark'),
    'Which tones its shape most likely has, as found when it came in; what tracing it begins with.',
  ),
  shown: about(z.boolean().default(true), 'Whether it is shown.'),
  strength: about(z.number().min(0.05).max(1).default(0.6), 'How strongly it is shown, 1 for as it is.'),
  locked: about(z.boolean().default(false), 'Whether it stays where it is when it is pressed on.'),
});

const pickSchema = z.strictObject({
  x: about(z.number().min(0).max(LIMITS.rasterSide), 'Column, in pixels from the left.'),
  y: about(z.number().min(0).max(LIMITS.rasterSide), 'Row, in pixels from the top.'),
  belongs: about(z.boolean(), 'Whether what has this tone belongs to the shape.'),
});

const tonesSchema = z
  .strictObject({
    by: about(
      z.enum(['dark', 'light', 'opaque', 'picked']).default('dark'),
      'Which tones belong to the shape: the dark ones, the light ones, all that can’t be seen through, or those of the places in `picks`.',
    ),
    picks: about(z.array(pickSchema).max(LIMITS.tonePicks).default([]), 'Places that were pressed on.'),
    evenLight: about(z.boolean().default(true), 'Whether uneven light is evened out first.'),
  })
  .describe('Which tones of the picture belong to the shape.');

/** The shape in a picture, traced: which tones it has, and what of it is worth keeping. Lengths in mm at the size it has. */
export const traceSchema = z.strictObject({
  ...member,
  kind: z.literal('trace'),
  ...ofPicture,
  tones: tonesSchema.prefault({}),
  least: about(
    z.number().min(0).max(LIMITS.offsetMostMm).default(0.5),
    'Shapes and holes smaller across than this are left out, in mm.',
  ),
  follow: about(
    z.number().min(0.001).max(LIMITS.gapMostMm).nullable().default(null),
    'How far curves may be from the edges, in mm; null: as near as these are told.',
  ),
  dropRim: about(z.boolean().default(true), 'Whether what reaches in along the rim of the picture is left out.'),
});

/** A picture on the sheet. */
export type PlacedPicture = z.infer<typeof placedPictureSchema>;
/** The outlines of a shape in a picture, as a member of a part. */
export type Trace = z.infer<typeof traceSchema>;
/** What is left out of a picture along its sides. */
export type Crop = z.infer<typeof cropSchema>;
