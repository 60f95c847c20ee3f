/** The same done to several parts in one change, and what they have in common. */
import type { Job } from '../document/schema';
import { partOf } from './changed';

/** Edit parts one after the other; what is locked stays as it is. */
export const forParts = (job: Job, partIds: readonly string[], edit: (job: Job, partId: string) => Job): Job =>
  partIds.reduce((now, id) => (partOf(now, id)?.locked === false ? edit(now, id) : now), job);

/** What several have: the value of the first, and whether another has another. */
export type Common<T> = { readonly value: T; readonly mixed: boolean };

/** What at least one has in common; values are told apart by what is in them. */
export function common<T>(values: readonly T[]): Common<T> {
  const [first] = values;
  const told = JSON.stringify(first);
  return { value: first as T, mixed: values.some((value) => JSON.stringify(value) !== told) };
}
