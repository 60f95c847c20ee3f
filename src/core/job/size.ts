/** Sizing what is chosen to a width or a height. */
import { type Chosen, moveChosen, sizeChosen } from '../commands/chosen';
import type { Job } from '../document/schema';
import { boxHeight, boxWidth } from '../geometry/point';
import { factorSteps, ROUNDS } from '../geometry/root';
import type { FaceLookup } from '../prepare/prepared';
import type { Evaluator, Progress } from './evaluate';

/** Widths and heights are met to this, in mm, by factors in these limits. */
const SEARCH = { met: 1e-4, least: 1e-4, most: 1e4 };

/** How a size is come by: everything larger by a factor about the corner of the sheet, then moved, in mm. */
export type Sizing = { readonly factor: number; readonly dx: number; readonly dy: number };

/**
 * A job with what is chosen sized and moved by a sizing; `everything` makes larger too what stays as it was set
 * otherwise.
 */
export const sized = (job: Job, chosen: Chosen, { factor, dx, dy }: Sizing, everything: boolean): Job =>
  moveChosen(sizeChosen(job, chosen, { factor, about: CORNER, everything }), chosen, dx, dy);

const CORNER = { x: 0, y: 0 };

/**
 * The sizing after which the bounds of what is chosen are so wide, or so high, in mm on the sheet, their lower left corner where
 * it was; null when nothing is drawn of it. Lengths that stay as they are set make this a search rather than a division; it yields the
 * rounds done.
 */
export function* sizingTo(
  job: Job,
  chosen: Chosen,
  {
    side,
    mm,
    everything,
    evaluator,
    faces,
  }: {
    readonly side: 'width' | 'height';
    readonly mm: number;
    readonly everything: boolean;
    readonly evaluator: Evaluator;
    readonly faces: FaceLookup;
  },
): Generator<Progress, Sizing | null> {
  const measure = side === 'width' ? boxWidth : boxHeight;
  const boxAt = (factor: number) =>
    evaluator.boxOf(sizeChosen(job, chosen, { factor, about: CORNER, everything }), chosen, faces);
  const before = boxAt(1);
  if (!(measure(before) > 0)) return null;
  const search = factorSteps((f) => measure(boxAt(f)), mm, SEARCH);
  let round = search.next();
  for (; !round.done; round = search.next()) yield { done: round.value, of: ROUNDS };
  const factor = round.value;
  const after = boxAt(factor);
  return { factor, dx: before.minX - after.minX, dy: before.minY - after.minY };
}
