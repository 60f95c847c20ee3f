/** Starters as the screen has them: those that ship, and the shop's own. */
import { useQuery } from '@tanstack/react-query';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { checkJob } from '@/core/document/read';
import type { Job } from '@/core/document/schema';
import type { JobSummary } from '@/core/job/summary';
import { STARTERS as SHIPPED } from '@/core/starters/starters';

/** What the shop's own starters are remembered under. */
export const OWN_STARTERS = ['starters'];

/** A starter that is chosen: its id, and its job. */
export type ChosenStarter = { readonly id: string; readonly job: Job };

/** The shop's own starters. */
export const useOwnStarters = () =>
  useQuery({
    queryKey: OWN_STARTERS,
    queryFn: ({ signal }) => call(API.listStarters, {}, null, signal),
    refetchOnMount: 'always',
  });

/** The starter that ships under an id; undefined where none does. */
export const shippedStarter = (id: string | null): ChosenStarter | undefined =>
  SHIPPED.find((starter) => starter.id === id);

/** The starter of an id, shipped or of the shop; one that can't be had throws a sentence. */
export async function starterOf(id: string): Promise<ChosenStarter> {
  const shipped = shippedStarter(id);
  if (shipped) return shipped;
  const { document } = await call(API.openJob, { id }, null);
  const read = checkJob(document);
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return { id, job: read.job };
}

/** What one of the shop's own is shown by. */
export type OwnStarter = JobSummary;
