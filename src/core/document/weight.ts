/** What a piece weighs: by the usual density of its material, as handbooks give it. */
import type { Sheet } from '../schema/sheet';
import { materialNamed } from './material';

/** Densities in kg/m³, by the names materials are listed under. */
const DENSITIES = [
  { name: 'Birch plywood', density: 680 },
  { name: 'Poplar plywood', density: 450 },
  { name: 'MDF', density: 740 },
  { name: 'Hardwood', density: 700 },
  { name: 'Cork', density: 200 },
  { name: 'Card', density: 750 },
  { name: 'Acrylic', density: 1190 },
  { name: 'Engraving laminate', density: 1200 },
  { name: 'Leather', density: 860 },
  { name: 'Felt', density: 250 },
  { name: 'Mild steel', density: 7850 },
  { name: 'Stainless steel', density: 7900 },
  { name: 'Aluminium', density: 2700 },
] as const;

/** Grams of so many mm² of a stock; null where its thickness or its density is not known. */
export function gramsOf(
  areaMm2: number,
  { material, thickness }: Pick<Sheet, 'material' | 'thickness'>,
): number | null {
  const known = materialNamed(material, DENSITIES);
  // A kilogram a cubic metre is a millionth of a gram a cubic millimetre.
  return known && thickness !== null ? (areaMm2 * thickness * known.density) / 1e6 : null;
}
