/** Commands on the stock: its material and thickness, and what follows from these. */
import { leastWidthOf, type Material, materialNamed } from '../document/material';
import type { Job } from '../document/schema';
import { stepIn } from '../kinds/steps';
import { changed } from './changed';

/** The stock of a job: what it is called, how thick it is in mm, and the materials that are known. */
export type Stock = { readonly material: string; readonly thickness: number | null };

/** Another material and thickness; what is safe in it and how wide a cut it is come with a material that is known. */
export const setStock = (job: Job, { material, thickness }: Stock, known: readonly Material[]): Job =>
  changed(job, (draft) => {
    draft.sheet.material = material;
    draft.sheet.thickness = thickness;
    const named = materialNamed(material, known);
    if (!named) return;
    draft.sheet.leastWidth = leastWidthOf(named, thickness);
    draft.sheet.kerf = named.kerfMm;
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
