/** The unit that new jobs are begun in: the one that was chosen last in this browser. */
import type { Job } from '@/core/document/schema';
import { remember, remembered } from '@/ui/remembered';

/** The unit chosen last; millimetres where none was, or this browser keeps nothing. */
export const lastUnits = (): Job['units'] => (remembered('units') === 'in' ? 'in' : 'mm');

/** Keep the unit for the next job. */
export const keepUnits = (units: Job['units']): void => remember('units', units);
