/** Commands on what a job's machine and stock cost. */
import type { Job } from '../document/schema';
import { LIMITS } from '../limits';
import { changed } from './changed';

/** What an hour of the job's machine, or a pierce, costs; null: it is not reckoned. */
export const setMachinePrice = (job: Job, which: 'hourPrice' | 'piercePrice', price: number | null): Job =>
  changed(job, (draft) => {
    if (draft.machine) draft.machine[which] = price === null ? null : Math.min(LIMITS.price, Math.max(0, price));
  });

/** Whether the stock within the bounds of the work is paid for, or the whole sheet. */
export const payFor = (job: Job, priced: Job['sheet']['priced']): Job =>
  changed(job, (draft) => {
    draft.sheet.priced = priced;
  });
