/** What the list of jobs asks of the server. Every refusal is a sentence. */
import { z } from 'zod';
import { newJob } from '@/core/commands/defaults';
import { type JobSummary, jobSummarySchema } from '@/core/job/summary';

async function ask(path: string, init?: RequestInit): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers: { 'content-type': 'application/json' } });
  } catch {
    throw new Error('The server is away. Nothing was changed; try again in a moment.');
  }
  const body: unknown = await response.json().catch(() => ({}));
  if (!response.ok) throw new Error((body as { sentence?: string }).sentence ?? 'The server could not do that.');
  return body;
}

const idOf = (body: unknown): string => z.object({ id: z.string() }).parse(body).id;

export const fetchJobs = async (): Promise<JobSummary[]> => z.array(jobSummarySchema).parse(await ask('/api/jobs'));

export const createJob = async (title: string): Promise<string> =>
  idOf(await ask('/api/jobs', { method: 'POST', body: JSON.stringify({ document: newJob(title) }) }));

export const renameJob = (id: string, title: string): Promise<unknown> =>
  ask(`/api/jobs/${id}`, { method: 'PATCH', body: JSON.stringify({ title }) });

export const duplicateJob = async (id: string): Promise<string> =>
  idOf(await ask(`/api/jobs/${id}/duplicate`, { method: 'POST' }));

export const deleteJob = (id: string): Promise<unknown> => ask(`/api/jobs/${id}`, { method: 'DELETE' });

export const restoreJob = (id: string): Promise<unknown> => ask(`/api/jobs/${id}/restore`, { method: 'POST' });
