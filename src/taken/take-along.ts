/** Taking a job along: packed in the worker, with all that it names, and handed to the browser to be saved. */
import type { Job } from '@/core/document/schema';
import { takenName } from '@/core/job/export';
import { download } from '@/ui/download';
import { computing } from '@/worker/client';

/** Save a job as one file. Returns what is to be said of it, and whether something does not go along. */
export async function takeJobAlong(job: Job): Promise<{ readonly words: string; readonly isAll: boolean }> {
  const { bytes, leftOut } = await computing().takeAlong(job);
  const name = takenName(job);
  download(name, bytes, 'application/zip');
  return { words: [`Written: ${name}.`, ...leftOut].join(' '), isAll: leftOut.length === 0 };
}
