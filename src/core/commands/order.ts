/** Commands on the order in which operations are run, and on how long that is measured to take. */
import type { Job, Operation } from '../document/schema';
import { LIMITS } from '../limits';
import type { FoundOrder } from '../schema/operations';
import { changed, moveEntry } from './changed';

const edited = (job: Job, operationId: string, edit: (operation: Operation) => void): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (operation) edit(operation);
  });

/** By what the order of an operation goes. */
export const orderBy = (job: Job, operationId: string, by: Operation['order']['by']): Job =>
  edited(job, operationId, (o) => {
    o.order.by = by;
  });

/** Keep an order that was searched for longer; null: that of the files, as it is found by itself. */
export const keepOrder = (job: Job, operationId: string, found: FoundOrder | null): Job =>
  edited(job, operationId, (o) => {
    o.order.found = found;
  });

/** Run a part first in an operation, after those that are pinned; or no longer. */
export const pinPart = (job: Job, operationId: string, partId: string, isPinned: boolean): Job =>
  edited(job, operationId, (o) => {
    const others = o.order.pinned.filter((id) => id !== partId);
    o.order.pinned = isPinned ? [...others, partId] : others;
  });

/** Put a pinned part elsewhere among those that are. */
export const movePinned = (job: Job, operationId: string, from: number, to: number): Job =>
  edited(job, operationId, (o) => {
    moveEntry(o.order.pinned, from, to);
  });

/**
 * How long an operation was measured to take, against how long it was reckoned to without a factor, in seconds: what is of its kind is reckoned
 * so on this machine from now on. Null: as reckoned.
 */
export const measureTime = (
  job: Job,
  operationId: string,
  measured: { readonly seconds: number; readonly reckoned: number } | null,
): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (!operation || !draft.machine || (measured && !(measured.reckoned > 0))) return;
    const factor = measured ? measured.seconds / measured.reckoned : 1;
    draft.machine.factors[operation.kind] = Math.min(LIMITS.timeFactorMost, Math.max(LIMITS.timeFactorLeast, factor));
  });
