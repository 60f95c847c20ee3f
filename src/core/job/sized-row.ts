/** A row's job made larger or smaller as a whole. */
import { sizeChosen } from '../commands/chosen';
import type { Job } from '../document/schema';

const CORNER = { x: 0, y: 0 };

/** The parts of a job that are worked, not only shown for reference. */
export const workedParts = (job: Job): string[] => job.parts.filter((p) => !p.reference).map((p) => p.id);

/** All parts of a job so many times as large about the corner of the sheet, as sizing does it: lengths that stay as they were set stay. Locks do not hold here: what is locked is locked for the hand. */
export function sizedRow(job: Job, factor: number): Job {
  if (factor === 1) return job;
  const free = { ...job, parts: job.parts.map((part) => (part.locked ? { ...part, locked: false } : part)) };
  return sizeChosen(free, { partIds: free.parts.map((p) => p.id), memberId: null }, { factor, about: CORNER });
}
