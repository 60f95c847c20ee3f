/** The shop: its machines, materials and tools, and cut charts. */
import { z } from 'zod';
import { LIMITS } from '../../limits';
import { about, colour, id, name } from '../fields';
import { operationSchema } from '../operations';
import { listedToolSchema } from '../tools';
import { machineSchema } from './machine';
import { materialSchema } from './material';
import { settingsSchema } from './settings';

/** A tool of the shop. */
export const shopToolSchema = z.strictObject({
  name: about(name.trim().min(1), 'What the shop calls it.'),
  ...listedToolSchema.omit({ id: true }).shape,
  diameter: about(
    z.number().min(0).max(1000).nullable().default(null),
    'Diameter of its shank, in mm; null when not given.',
  ),
  colour: about(colour.nullable().default(null), 'Colour of a pen; null for other tools.'),
});

/** A row of a cut chart: how an operation of a kind is done on a machine, in a material of a thickness. */
export const chartRowSchema = z.strictObject({
  machine: about(id, 'The machine, by its id.'),
  material: about(id, 'The material, by its id.'),
  thickness: about(z.number().min(0.01).max(1000).nullable().default(null), 'In mm; null: whatever the thickness.'),
  kind: about(operationSchema.shape.kind, 'Kind of the operation.'),
  settings: settingsSchema.prefault({}),
  tried: about(z.boolean().default(false), 'Whether a test piece, or the user, has shown that it works.'),
});

/** What the shop has on each of its shelves. */
export const SHELVES = {
  machines: machineSchema,
  materials: materialSchema,
  tools: shopToolSchema,
  chart: chartRowSchema,
} as const;
/** The shelves by name. */
export const SHELF_NAMES = Object.keys(SHELVES) as readonly Shelf[];
/** A shelf of the shop. */
export type Shelf = keyof typeof SHELVES;
/** What a shelf holds. */
export type EntryOf<S extends Shelf> = z.infer<(typeof SHELVES)[S]>;

const shelf = <T extends z.ZodType>(entry: T) => z.array(z.strictObject({ id, entry })).max(LIMITS.shopEntries);
/** All that the shop has, each with its id. */
export const shopSchema = z.strictObject({
  machines: shelf(machineSchema).default([]),
  materials: shelf(materialSchema).default([]),
  tools: shelf(shopToolSchema).default([]),
  chart: shelf(chartRowSchema).default([]),
});

/** Something of the shop as it is kept: with its id, and how often it was changed. */
const keptShelf = <T extends z.ZodType>(entry: T) => z.array(z.object({ id, version: z.int(), entry }));
/** All that the shop has, as it is kept. */
export const keptShopSchema = z.object({
  machines: keptShelf(machineSchema),
  materials: keptShelf(materialSchema),
  tools: keptShelf(shopToolSchema),
  chart: keptShelf(chartRowSchema),
});
/** All that the shop has, as it is kept. */
export type KeptShop = z.infer<typeof keptShopSchema>;

/** All that the shop has. */
export type Shop = z.infer<typeof shopSchema>;
/** Something of the shop with its id. */
export type Kept<E> = { readonly id: string; readonly entry: E };
/** A tool of the shop. */
export type ShopTool = EntryOf<'tools'>;
/** A row of a cut chart. */
export type ChartRow = EntryOf<'chart'>;
