/** What a job costs to make: the stock it uses, the time on the machine, and pierces; each where the shop says what it costs. */

import type { Job } from '../document/schema';
import { type Box, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { offCutArea } from '../nesting/off-cut';
import type { JobRun } from './run';

/** A price, in the money of the shop. */
export type Price = {
  /** What of the stock is paid for, in mm². */
  readonly stockMm2: number;
  /** Null where no price is known. */
  readonly stock: number | null;
  readonly time: number | null;
  readonly pierces: number;
  readonly piercing: number | null;
  readonly total: number;
};

const MM2_TO_M2 = 1e-6;
const HOUR_S = 3600;

/** The area of a sheet, or of the off-cut that it is, in mm². */
export const sheetArea = ({ width, height, offCut }: Pick<Job['sheet'], 'width' | 'height' | 'offCut'>): number =>
  offCut ? offCutArea(offCut) : width * height;

/** What of the stock a job uses, in mm²: the bounds of what is made of it, or the whole sheet. */
function stockUsed({ sheet }: Pick<Job, 'sheet'>, workBox: Box): number {
  if (sheet.priced === 'whole') return sheetArea(sheet);
  return isEmptyBox(workBox) ? 0 : boxWidth(workBox) * boxHeight(workBox);
}

/** What a job costs; null where nothing is known to cost anything. What takes a time that is not known is left out of it. */
export function priceOfRun(job: Pick<Job, 'sheet' | 'machine'>, workBox: Box, run: JobRun): Price | null {
  const { machine, sheet } = job;
  // What costs nothing is not reckoned.
  const [square, hour, pierce] = [sheet.price, machine?.hourPrice, machine?.piercePrice].map((price) => price || null);
  if (!square && !hour && !pierce) return null;
  const stockMm2 = stockUsed(job, workBox);
  const pierces = run.operations.reduce((sum, o) => sum + (o.times?.pierces ?? 0), 0);
  const stock = square ? square * stockMm2 * MM2_TO_M2 : null;
  const time = hour ? (hour * run.seconds) / HOUR_S : null;
  const piercing = pierce ? pierce * pierces : null;
  return { stockMm2, stock, time, pierces, piercing, total: (stock ?? 0) + (time ?? 0) + (piercing ?? 0) };
}
