/** What can be undone of jobs that were on the bench of this tab and were left: kept as long as the tab is there. */
import type { Job } from '@/core/document/schema';

/** The documents a bench can go back and forth to; the newest job is the one it was left with. */
type History<Step> = { readonly job: Job; readonly past: readonly Step[]; readonly future: readonly Step[] };

/** Jobs whose history is kept; the one left first goes first. */
export const HISTORIES = 8;

/** A value with the keys of its objects in one order: a database gives them back in its own. */
const inOrder = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(inOrder)
    : typeof value === 'object' && value !== null
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([key, held]) => [key, inOrder(held)]),
        )
      : value;
const textOf = (job: Job): string => JSON.stringify(inOrder(job));

/** Histories by the ids of their jobs. */
export class Histories<Step> {
  private readonly left = new Map<string, History<Step>>();

  /** Keep the history of a job that is left. */
  leave(id: string, history: History<Step>): void {
    this.left.delete(id);
    if (history.past.length + history.future.length === 0) return;
    this.left.set(id, history);
    const first = this.left.keys().next().value;
    if (this.left.size > HISTORIES && first !== undefined) this.left.delete(first);
  }

  /** The history of a job that is opened again; null where none is kept, or the job is not as it was left: somebody else changed it. */
  of(id: string, job: Job): History<Step> | null {
    const history = this.left.get(id);
    return history && textOf(history.job) === textOf(job) ? history : null;
  }
}
