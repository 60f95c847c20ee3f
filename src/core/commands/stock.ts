/** Commands on the stock: its material and thickness, and what follows from these. */
import { kerfOf, leastWidthOf, materialNamed, priceOf } from '../document/material';
import type { Job, Sheet } from '../document/schema';
import { stepIn } from '../kinds/steps';
import type { Material } from '../schema/shop/material';
import { changed } from './changed';

/** What can be said of the stock; what is left out stays. Thickness in mm. */
export type Stock = Partial<Pick<Sheet, 'material' | 'thickness' | 'thicknessAs' | 'process'>>;

/** What of a sheet follows its material, unless it was typed. */
type FollowsMaterial = 'leastWidth' | 'kerf' | 'price';
const FOLLOWING = ['leastWidth', 'kerf', 'price'] as const satisfies readonly FollowsMaterial[];

/** What the materials that are known say of a sheet; null where they say nothing. */
export function saidOf(
  { material, thickness, process }: Pick<Sheet, 'material' | 'thickness' | 'process'>,
  known: readonly Material[],
): { readonly material: Material | null } & Readonly<Record<FollowsMaterial, number | null>> {
  const named = materialNamed(material, known);
  if (!named) return { material: null, leastWidth: null, kerf: null, price: null };
  return {
    material: named,
    leastWidth: leastWidthOf(named, thickness),
    kerf: kerfOf(named, process),
    price: priceOf(named, thickness),
  };
}

/** Whether something follows the material: it came with it, or it was never said where from and is nothing else. */
export const followsMaterial = (sheet: Sheet, which: FollowsMaterial, known: readonly Material[]): boolean =>
  sheet[`${which}From`] === null
    ? sheet[which] === null || sheet[which] === saidOf(sheet, known)[which]
    : sheet[`${which}From`] === 'material';

/**
 * Another material, thickness or way of cutting. The least safe width, the kerf and the price follow, unless they were typed: a material
 * that is not known has none, rather than those of another.
 */
export const setStock = (job: Job, stock: Stock, known: readonly Material[]): Job =>
  changed(job, (draft) => {
    const before = job.sheet;
    Object.assign(draft.sheet, stock);
    // Where the list has not come, nothing can be said.
    if (known.length === 0) return;
    const said = saidOf(draft.sheet, known);
    draft.sheet.refuses = said.material?.refuses ?? [];
    for (const which of FOLLOWING) {
      if (!followsMaterial(before, which, known)) continue;
      draft.sheet[which] = said[which];
      draft.sheet[`${which}From`] = 'material';
    }
  });

/** A width of the stock in mm, or its price, typed by hand, which then stays; null: as the material says. */
export const setOfStock = (job: Job, which: FollowsMaterial, value: number | null, known: readonly Material[]): Job =>
  changed(job, (draft) => {
    draft.sheet[which] = value ?? saidOf(job.sheet, known)[which];
    draft.sheet[`${which}From`] = value === null ? 'material' : 'typed';
  });

/** Joints stronger than is safe by this, as new ones are. */
const STRONGER = 1.2;

/**
 * What holds things together made no narrower than the least safe width of the stock: joints of letters, bars, ties and bridges.
 * Widths that are enough stay.
 */
export const strongEnough = (job: Job): Job => {
  const least = job.sheet.leastWidth;
  if (least === null) return job;
  // To a hundredth, and no less than is asked for.
  const strong = Math.ceil(STRONGER * least * 100 - 1e-6) / 100;
  return changed(job, (draft) => {
    for (const part of draft.parts) {
      for (const member of part.members)
        if (member.kind === 'lettering' && member.closeUp)
          member.closeUp.overlap = Math.max(member.closeUp.overlap, strong);
      const bar = stepIn(part, 'bar');
      if (bar) bar.height = Math.max(bar.height, least);
      for (const kind of ['tie', 'bridge'] as const) {
        const step = stepIn(part, kind);
        if (step) step.width = Math.max(step.width, strong);
      }
    }
  });
};
