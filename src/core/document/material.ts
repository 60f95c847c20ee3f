/** What is safe in a material, and what follows for a sheet of it. */
import { z } from 'zod';

/** A material as it is listed; lengths in mm. */
export const materialSchema = z.object({
  name: z.string(),
  /** The least safe width is the greater of the two: a length in mm, and a share of the thickness. */
  leastWidthMm: z.number(),
  leastPerThickness: z.number(),
  kerfMm: z.number(),
});

/** A material: what is safe in it, and how wide a cut it is. */
export type Material = z.infer<typeof materialSchema>;

/** The least safe width in mm of a material at a thickness in mm; to a hundredth. */
export const leastWidthOf = (material: Material, thicknessMm: number | null): number =>
  Math.round(Math.max(material.leastWidthMm, material.leastPerThickness * (thicknessMm ?? 0)) * 100) / 100;

/** The material of a name, however it is capitalised. */
export const materialNamed = (name: string, among: readonly Material[]): Material | undefined =>
  among.find((m) => m.name.toLowerCase() === name.trim().toLowerCase());
