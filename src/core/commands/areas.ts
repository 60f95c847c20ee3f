/** Commands on areas that are gone over row by row: parted into goes, each an operation, and put together again. */
import type { Job } from '../document/schema';
import { changed, moveEntry } from './changed';
import { addOperation } from './operations';

/** Which parts are filled by which operation: in one go each. */
export type AreasGiven = { readonly operation: string | null; readonly parts: readonly string[] };

/**
 * Which of some operations goes over which group of parts, so that as few parts as can be change theirs: for each group in order an
 * operation, null for one that is to be made.
 */
function givenTo(job: Job, operationIds: readonly string[], groups: readonly (readonly string[])[]): AreasGiven[] {
  const fills = (operation: string, part: string): boolean =>
    job.parts.some((p) => p.id === part && p.work.some((w) => w.what === 'fill' && w.operation === operation));
  const pairs = groups.flatMap((parts, k) =>
    operationIds.map((operation) => ({ k, operation, shared: parts.filter((p) => fills(operation, p)).length })),
  );
  const given = new Map<number, string>();
  // Sorting keeps the order of those that are alike: the first group, the first operation.
  for (const { k, operation, shared } of pairs.sort((a, b) => b.shared - a.shared))
    if (shared > 0 && !given.has(k) && ![...given.values()].includes(operation)) given.set(k, operation);
  const left = operationIds.filter((id) => ![...given.values()].includes(id));
  return groups.map((parts, k) => ({ operation: given.get(k) ?? left.shift() ?? null, parts }));
}

/** Whether anything is given to an operation. */
const isInUse = ({ parts }: Pick<Job, 'parts'>, operationId: string): boolean =>
  parts.some((part) => part.work.some((w) => w.operation === operationId));

/**
 * What some operations fill as areas, which they do alike, given to as many as there are groups of parts, run in the order of these: what is
 * missing is made, with their settings and a colour of its own; what has nothing to do any more is taken out.
 */
export function goOverInGoes(job: Job, operationIds: readonly string[], groups: readonly (readonly string[])[]): Job {
  const [firstId] = operationIds;
  const original = job.operations.find((o) => o.id === firstId);
  if (!original || groups.length === 0) return job;
  let made = job;
  const runs: string[] = [];
  for (const { operation, parts } of givenTo(job, operationIds, groups)) {
    let id = operation;
    if (id === null) {
      const before = made;
      made = addOperation(before, original.kind);
      id = made.operations.find((o) => !before.operations.some((b) => b.id === o.id))?.id ?? null;
      if (id === null) return job;
    }
    runs.push(id);
    const target = id;
    made = changed(made, (draft) => {
      const own = draft.operations.find((o) => o.id === target);
      if (own && operation === null)
        Object.assign(own, { tip: original.tip, scan: original.scan, settings: original.settings });
      for (const part of draft.parts)
        if (parts.includes(part.id))
          for (const work of part.work)
            if (work.what === 'fill' && operationIds.includes(work.operation)) work.operation = target;
    });
  }
  return changed(made, (draft) => {
    for (const id of operationIds)
      if (!runs.includes(id) && !isInUse(draft, id))
        draft.operations.splice(
          draft.operations.findIndex((o) => o.id === id),
          1,
        );
    // In the order of the goes, where the first of them ran.
    const at = Math.min(...runs.map((id) => draft.operations.findIndex((o) => o.id === id)));
    runs.forEach((id, k) => {
      const from = draft.operations.findIndex((o) => o.id === id);
      if (from !== at + k) moveEntry(draft.operations, from, at + k);
    });
  });
}
