/** The list of jobs, and new ones. */
import { API } from '@/api/endpoints';
import { documentOf, found, serve } from '@/server/answer';
import { createJob } from '@/server/jobs';
import { listJobs } from '@/server/jobs-page';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listJobs, ({ db, params }) => listJobs(db, params));

export const POST = serve(API.createJob, async ({ db, body }) => {
  const job = documentOf(body.document);
  const { width, height } = job.sheet;
  // Of an empty job the picture is known; that of any other comes with its first save.
  const picture = job.parts.length === 0 ? { width, height, shapes: [] } : null;
  return { id: found(await createJob(db, job, body.extras ?? { picture, openFindings: 0 })).id };
});
