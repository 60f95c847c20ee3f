/**
 * Jobs as this window last saved them, kept as long as the window is there. Going back, the router shows a page as it was made, and
 * what was saved since is not in it.
 */
import type { QueryClient } from '@tanstack/react-query';
import type { StoredJob } from '@/core/job/summary';

/** What queries of saved jobs begin with. */
export const SAVED_JOB = ['saved job'];

/** Keep a job as it was just saved. */
export const rememberSaved = (client: QueryClient, job: StoredJob): void =>
  void client.setQueryData<StoredJob>([...SAVED_JOB, job.id], job);

/** The newer of a job as its page has it and as this window last saved it. */
export function newestOf(client: QueryClient, id: string, stored: StoredJob | null): StoredJob | null {
  const saved = client.getQueryData<StoredJob>([...SAVED_JOB, id]);
  return saved && saved.version > (stored?.version ?? 0) ? saved : stored;
}
