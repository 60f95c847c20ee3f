/** Commands on the pens of plotter files: which is written for an operation, and which operation one means where it is read. */
import type { Job, Operation } from '../document/schema';
import { LIMITS } from '../limits';
import { changed } from './changed';

const distinct = (pens: readonly number[]): number[] => [...new Set(pens)].slice(0, LIMITS.pensOfOperation);

/** An operation is written with a pen from now on. Others may have the same: some machines have but one. */
export const writeWithPen = (job: Job, operationId: Operation['id'], pen: number): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (operation) operation.pens = distinct([pen, ...operation.pens.slice(1)]);
  });

/**
 * What the pens of a file were said to mean, each of them: also where that is what was proposed, since a proposal moves when another
 * pen is given. Of a pen that is said twice the first holds.
 */
export const readPensAs = (
  job: Job,
  pens: readonly { readonly pen: number; readonly operationId: Operation['id'] }[],
): Job =>
  pens
    .filter(({ pen }, i) => pens.findIndex((other) => other.pen === pen) === i)
    .reduce((now, { pen, operationId }) => readPenAs(now, pen, operationId), job);

/** A pen means one operation, and no other, where a file is read from now on; one that has a pen goes on being written with it. */
export const readPenAs = (job: Job, pen: number, operationId: Operation['id']): Job =>
  changed(job, (draft) => {
    for (const operation of draft.operations)
      if (operation.id !== operationId) {
        if (operation.pens.includes(pen)) operation.pens = operation.pens.filter((p) => p !== pen);
      } else if (!operation.pens.includes(pen)) operation.pens = distinct([...operation.pens, pen]);
  });
