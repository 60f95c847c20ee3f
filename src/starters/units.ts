/** The unit that new jobs are begun in: the one that was chosen last in this browser. */
import type { Job } from '@/core/document/schema';

const KEY = 'needlefile:units';

/** The unit chosen last; millimetres where none was, or this browser keeps nothing. */
export function lastUnits(): Job['units'] {
  try {
    return localStorage.getItem(KEY) === 'in' ? 'in' : 'mm';
  } catch {
    return 'mm';
  }
}

/** Keep the unit for the next job. */
export function keepUnits(units: Job['units']): void {
  try {
    localStorage.setItem(KEY, units);
  } catch {
    // A browser that keeps nothing asks again.
  }
}
