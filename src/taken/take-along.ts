/** Taking a job along: packed in the worker, with all that it names, and handed to the browser to be saved. */
import type { Job } from '@/core/document/schema';
import { takenName } from '@/core/job/file-names';
import { download } from '@/ui/download';
import { computing } from '@/worker/client';

/** Save a job as one file. Returns what is to be said of it: the name of the file, and what does not go along. */
export async function takeJobAlong(job: Job): Promise<string> {
  const { bytes, leftOut } = await computing().takeAlong(job);
  const name = takenName(job);
  download(name, bytes, 'application/zip');
  return [`Written: ${name}.`, ...leftOut].join(' ');
}
