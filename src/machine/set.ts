/** What a machine is set to for each layer of a file: no drawing carries it, so that it is told along with one. */
import { z } from 'zod';
import { isShortened } from '../core/formats/layer-names';
import { LIMITS } from '../core/limits';

/** What is set for a layer: which layer, what is done there, and how. Lengths in mm, speed in mm a second. */
export const layerSetSchema = z.strictObject({
  name: z.string().max(LIMITS.nameCharacters).default(''),
  colour: z.string().max(32).default(''),
  pen: z.int().min(0).max(LIMITS.pens).nullable().default(null),
  kind: z.enum(['cut', 'score', 'engrave', 'mark']),
  speed: z.number().min(LIMITS.speedLeastMmS).max(LIMITS.speedMostMmS).nullable().default(null),
  passes: z.int().min(1).max(LIMITS.passes).default(1),
  rowDistance: z.number().min(0.001).max(100).nullable().default(null),
  direction: z.number().min(-360).max(360).default(0),
  /** How wide it works. */
  width: z.number().min(0).max(1000).nullable().default(null),
  tool: z.string().max(LIMITS.nameCharacters).default(''),
});

/** What a machine is set to for a layer. */
export type LayerSet = z.infer<typeof layerSetSchema>;

/** What tells a layer of a file from others. */
export type LayerOf = { readonly name: string; readonly colour: string; readonly pen?: number | null | undefined };

const isSame = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/**
 * What is set for a layer of a file: for its pen; for its name, as a file of any format may have it, with its colour or without; for its
 * colour. Null where nothing is.
 */
export function setFor(set: readonly LayerSet[], { name, colour, pen }: LayerOf): LayerSet | null {
  if (typeof pen === 'number') return set.find((s) => s.pen === pen) ?? null;
  const named = set.filter((s) => s.name !== '' && (isSame(s.name, name) || isShortened(s.name, name)));
  return named.find((s) => isSame(s.colour, colour)) ?? named[0] ?? set.find((s) => isSame(s.colour, colour)) ?? null;
}
