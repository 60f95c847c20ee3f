/** A material of the shop: what stock there is of it, what is safe in it, and what must not be done to it. Lengths in mm. */
import { z } from 'zod';
import { LIMITS } from '../../limits';
import { about, name, price } from '../fields';
import { offCutSchema, processSchema, refusalSchema } from '../sheet';

/** A thickness in stock. */
const thicknessSchema = z.strictObject({
  mm: about(z.number().min(0.01).max(1000), 'In mm.'),
  as: about(
    z.string().max(LIMITS.quantityCharacters).default(''),
    'What it goes by, such as a gauge; empty for its measure.',
  ),
  price: about(price, 'What a square metre of it costs; null: it is not reckoned.'),
});

const width = z.number().min(0).max(1000);

/** A material. */
export const materialSchema = z.strictObject({
  name: about(name.trim().min(1), 'What the shop calls it.'),
  leastWidthMm: about(width, 'The least safe width is the greater of this length and a share of the thickness.'),
  leastPerThickness: about(z.number().min(0).max(100), 'That share.'),
  bridgeMm: about(width.default(0), 'How wide bridges in it are; 0: by the least safe width.'),
  process: about(processSchema, 'How it is cut where nothing else is said.'),
  kerfsMm: about(
    z.partialRecord(processSchema, z.number().min(0).max(100)),
    'Width of a cut by process; those it is not cut by are left out.',
  ),
  thicknesses: about(z.array(thicknessSchema).max(LIMITS.thicknesses).default([]), 'Thicknesses in stock.'),
  sheets: about(
    z
      .array(
        z.strictObject({
          width: z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm),
          height: z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm),
          offCut: about(offCutSchema.nullable().default(null), 'Corners of an off-cut; null: a whole sheet.'),
        }),
      )
      .max(LIMITS.sheetSizes)
      .default([]),
    'Sizes of sheets in stock.',
  ),
  refuses: about(z.array(refusalSchema).max(LIMITS.refusals).default([]), 'What must not be done to it.'),
});

/** A material: what is safe in it, and how wide a cut it is. */
export type Material = z.infer<typeof materialSchema>;
