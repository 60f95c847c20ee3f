/** The stock that parts are cut out of. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, coordinate, name, price } from './fields';

/** How stock is cut. */
export const PROCESSES = ['laser', 'plasma', 'water jet', 'router', 'knife'] as const;
/** How stock is cut, as a field. */
export const processSchema = z.enum(PROCESSES);

/** A way of cutting: by a beam, a flame, water, a turning tool or a blade. */
export type Process = (typeof PROCESSES)[number];

const from = (what: string) =>
  about(
    z.enum(['material', 'typed']).nullable().default(null),
    `Whether ${what} came with the material, which it then follows, or was typed; null where that was never said.`,
  );

/** Something that must not be done to stock. */
export const refusalSchema = z.strictObject({
  process: about(processSchema, 'What must not be done to it.'),
  why: about(z.string().trim().min(1).max(LIMITS.nameCharacters), 'Why, as it is said.'),
});

/** The outline of an off-cut in its own bounds, y upwards: its corners one after the other, in mm. */
export const offCutSchema = z
  .array(z.tuple([coordinate, coordinate]))
  .min(3)
  .max(LIMITS.offCutCorners);

/** The stock: its size, material and thickness, and what is safe in it. Lengths in mm. */
export const sheetSchema = z.strictObject({
  width: about(z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm), 'Width in mm.'),
  height: about(z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm), 'Height in mm.'),
  offCut: about(
    offCutSchema.nullable().default(null),
    'Corners of the outline that the stock has, in mm, where it is an off-cut; null: all of its width and height.',
  ),
  material: about(name.default(''), 'What the stock is, in the user’s words.'),
  thickness: about(z.number().min(0).max(1000).nullable().default(null), 'Thickness in mm, or null when not given.'),
  thicknessAs: about(
    z.string().max(LIMITS.quantityCharacters).nullable().default(null),
    'The thickness as a fraction of an inch, where it was typed so, such as `1/8 in`; null otherwise.',
  ),
  leastWidth: about(
    z.number().min(0).max(1000).nullable().default(null),
    'The least width that is safe in this material, in mm; null: strength is not looked at.',
  ),
  kerf: about(
    z.number().min(0).max(100).nullable().default(null),
    'Width that the beam or tool takes away, in mm; null when not given.',
  ),
  process: about(processSchema.nullable().default(null), 'How it is cut; null: as is usual for the material.'),
  refuses: about(
    z.array(refusalSchema).max(LIMITS.refusals).default([]),
    'What must not be done to it, as its material says.',
  ),
  price: about(price, 'What a square metre of it costs; null: it is not reckoned.'),
  priced: about(
    z.enum(['used', 'whole']).default('used'),
    'Of the stock is paid for what is `used`, the bounds of the work, or the `whole` sheet.',
  ),
  leastWidthFrom: from('the least width'),
  kerfFrom: from('the kerf'),
  priceFrom: from('the price'),
});

/** The stock on the table. */
export type Sheet = z.infer<typeof sheetSchema>;
