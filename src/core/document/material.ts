/** What is safe in a material, how wide a cut in it is by each process, and the names it goes by. */
import type { Process } from '../schema/sheet';
import type { Material } from '../schema/shop/material';

/** The least safe width in mm of a material at a thickness in mm; to a hundredth. */
export const leastWidthOf = (
  { leastWidthMm, leastPerThickness }: Pick<Material, 'leastWidthMm' | 'leastPerThickness'>,
  thicknessMm: number | null,
): number => Math.round(Math.max(leastWidthMm, leastPerThickness * (thicknessMm ?? 0)) * 100) / 100;

/** Width of a cut in mm by a process, or by the one that is usual; null where it is not cut by that. */
export const kerfOf = ({ process: usual, kerfsMm }: Pick<Material, 'process' | 'kerfsMm'>, process: Process | null) =>
  kerfsMm[process ?? usual] ?? null;

/** Thicknesses that differ by less, in mm, are the same. */
const SAME_MM = 0.01;

/** What a square metre of a material costs at a thickness in mm; null where that is not said. */
export const priceOf = ({ thicknesses }: Pick<Material, 'thicknesses'>, thicknessMm: number | null): number | null =>
  thicknesses.find(({ mm }) => thicknessMm !== null && Math.abs(mm - thicknessMm) < SAME_MM)?.price ?? null;

/** Words that materials go by in shops, and which of the listed ones each is; the last of several in a name counts. */
const SPELLINGS: Readonly<Record<string, string>> = {
  ply: 'Birch plywood',
  plywood: 'Birch plywood',
  birch: 'Birch plywood',
  poplar: 'Poplar plywood',
  mdf: 'MDF',
  hdf: 'MDF',
  fibreboard: 'MDF',
  fiberboard: 'MDF',
  hardwood: 'Hardwood',
  wood: 'Hardwood',
  oak: 'Hardwood',
  beech: 'Hardwood',
  ash: 'Hardwood',
  maple: 'Hardwood',
  walnut: 'Hardwood',
  cherry: 'Hardwood',
  alder: 'Hardwood',
  cork: 'Cork',
  card: 'Card',
  cardboard: 'Card',
  paper: 'Card',
  acrylic: 'Acrylic',
  acrylics: 'Acrylic',
  pmma: 'Acrylic',
  laminate: 'Engraving laminate',
  leather: 'Leather',
  felt: 'Felt',
  steel: 'Mild steel',
  iron: 'Mild steel',
  stainless: 'Stainless steel',
  inox: 'Stainless steel',
  aluminium: 'Aluminium',
  aluminum: 'Aluminium',
  alu: 'Aluminium',
  vinyl: 'Vinyl film',
  film: 'Vinyl film',
};

const wordsIn = (name: string): string[] => name.toLowerCase().match(/[\p{L}\p{M}]+/gu) ?? [];

/**
 * The material of a name: one that is listed under it however it is written, or whose words are all in it; else what the name goes by in
 * shops ("ply", "aluminum", "brushed stainless").
 */
export function materialNamed<M extends Pick<Material, 'name'>>(name: string, among: readonly M[]): M | undefined {
  const said = wordsIn(name);
  const key = said.join(' ');
  if (key === '') return undefined;
  const exact = among.find((m) => wordsIn(m.name).join(' ') === key);
  if (exact) return exact;
  const within = among
    .filter((m) => wordsIn(m.name).every((word) => said.includes(word)))
    .sort((a, b) => wordsIn(b.name).length - wordsIn(a.name).length)[0];
  if (within) return within;
  // Steel that is said to be stainless is that, whichever word comes first.
  const meant = said.includes('stainless') ? 'stainless' : said.findLast((word) => Object.hasOwn(SPELLINGS, word));
  const listed = meant === undefined ? undefined : SPELLINGS[meant];
  return among.find((m) => m.name === listed);
}
