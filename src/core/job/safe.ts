/** The least size, and the least thickening, at which nothing of a part is thinner than is safe. */

import { partOf } from '../commands/changed';
import { sizeChosen } from '../commands/chosen';
import type { Job, Part } from '../document/schema';
import { boxCentre, isEmptyBox } from '../geometry/point';
import { leastWidth } from '../inspect/strength';
import { newStep, stepIn, withStep } from '../kinds/steps';
import { LIMITS } from '../limits';
import type { FaceLookup, PreparedPart } from '../prepare/prepared';
import type { Evaluator, Progress } from './evaluate';
import { NOTHING_TAKEN, type TakenBySide, takenBySide, takenOf } from './taken-by-cut';

/** The part as it should be, or a sentence why there is no such part. */
export type SafePart = { readonly ok: true; readonly part: Part } | { readonly ok: false; readonly sentence: string };

/** Sizes are settled to this share. */
const SETTLED = 0.002;
const ROUNDS = 16;
/** Depths of thickening tried up to the least safe width, and how fine the least of them is settled, in mm. */
const DEPTHS = 24;
const FINEST_MM = 0.005;
/** Sizes looked at, against the present one. */
const SMALLEST = 1 / 50;
const LARGEST = 50;

/** What a changed part would be like. */
function trier(job: Job, partId: string, evaluator: Evaluator, faces: FaceLookup) {
  const part = job.parts.find((p) => p.id === partId);
  const prepared = (changed: Part): PreparedPart | undefined =>
    evaluator.prepare({ ...job, parts: job.parts.map((p) => (p.id === partId ? changed : p)) }, partId, faces);
  const least = job.sheet.leastWidth ?? 0;
  const taken: TakenBySide = part ? takenBySide(part, job) : NOTHING_TAKEN;
  /** The narrowest that stays of a part once it is cut, as far as it is under so much. */
  const leastLeft = (changed: Part, ready: PreparedPart, most: number): number | null =>
    leastWidth(ready.kept, most, takenOf(changed, ready, taken));
  const isSafe = (changed: Part): boolean => {
    const ready = prepared(changed);
    return ready !== undefined && !isEmptyBox(ready.box) && leastLeft(changed, ready, least) === null;
  };
  return { part, prepared, least, taken: 2 * taken.usual, leastLeft, isSafe };
}

/** The least value between two for which something holds, where it holds for `high`; to a share of the range. */
function* leastFor(
  low: number,
  high: number,
  holds: (value: number) => boolean,
  settled: number,
): Generator<Progress, number> {
  let lo = low;
  let hi = high;
  for (let k = 0; k < ROUNDS && hi - lo > settled; k++) {
    yield { done: k, of: ROUNDS };
    const mid = (lo + hi) / 2;
    if (holds(mid)) hi = mid;
    else lo = mid;
  }
  return hi;
}

const NO_LEAST = 'The least safe width is not known: choose a material or type it at station Compose.';

/** The part at its least safe size: sized as parts are, about its middle. Yields the rounds done. */
export function* atSafeSize(
  job: Job,
  partId: string,
  evaluator: Evaluator,
  faces: FaceLookup,
): Generator<Progress, SafePart> {
  const { part, prepared, least, taken, leastLeft, isSafe } = trier(job, partId, evaluator, faces);
  const now = part && prepared(part);
  if (!part || !now || isEmptyBox(now.box)) return { ok: false, sentence: 'There is nothing to size.' };
  if (!(least > 0)) return { ok: false, sentence: NO_LEAST };
  const about = boxCentre(now.box);
  const scaled = (factor: number): Part =>
    partOf(sizeChosen(job, { partIds: [partId], memberId: null }, { factor, about }), partId) ?? part;
  // Widths grow with the size, so that the narrowest says about where to look.
  const width = (leastLeft(part, now, least * 3) ?? least * 3) + taken;
  const guess = Math.min(LARGEST, Math.max(SMALLEST, (least + taken) / width));
  let low = guess;
  let high = guess;
  while (!isSafe(scaled(high))) {
    yield { done: 0, of: ROUNDS };
    low = high;
    high *= 1.15;
    if (high > LARGEST)
      return { ok: false, sentence: 'No size makes it safe: what is too thin does not grow with it.' };
  }
  while (low > SMALLEST && low === high) {
    yield { done: 0, of: ROUNDS };
    if (isSafe(scaled(low / 1.15))) high = low /= 1.15;
    else low /= 1.15;
  }
  const factor = yield* leastFor(low, high, (f) => isSafe(scaled(f)), SETTLED * high);
  return { ok: true, part: scaled(factor) };
}

/** The part thickened just so far that nothing is too thin. Yields the depths tried. */
export function* thickenedEnough(
  job: Job,
  partId: string,
  {
    evaluator,
    faces,
    capHeightMm,
  }: { readonly evaluator: Evaluator; readonly faces: FaceLookup; readonly capHeightMm: number },
): Generator<Progress, SafePart> {
  const { part, prepared, least, taken, isSafe } = trier(job, partId, evaluator, faces);
  if (!part || !prepared(part)) return { ok: false, sentence: 'There is nothing to thicken.' };
  if (!(least > 0)) return { ok: false, sentence: NO_LEAST };
  const step =
    stepIn(part, 'thicken') ?? newStep('thicken', { capHeightMm, leastWidthMm: least, kerfMm: job.sheet.kerf });
  const thickened = (by: number): Part => ({ ...part, steps: withStep(part.steps, { ...step, on: true, by }) });
  if (isSafe(thickened(0)))
    return { ok: true, part: { ...part, steps: part.steps.filter((s) => s.kind !== 'thicken') } };
  // More is not always safer: outlines that just grow together leave a thin neck. So every depth is tried in turn.
  const most = Math.min(LIMITS.offsetMostMm, least + taken);
  for (let i = 1; i <= DEPTHS; i++) {
    const deep = (most * i) / DEPTHS;
    yield { done: i - 1, of: DEPTHS };
    if (!isSafe(thickened(deep))) continue;
    const enough = yield* leastFor((most * (i - 1)) / DEPTHS, deep, (mm) => isSafe(thickened(mm)), FINEST_MM);
    const by = Math.ceil(enough * 1000) / 1000;
    return { ok: true, part: isSafe(thickened(by)) ? thickened(by) : thickened(deep) };
  }
  return { ok: false, sentence: 'Thickening alone does not make it safe; make it larger, or use another typeface.' };
}
