/** The list of jobs, and new ones. */
import { API } from '@/api/endpoints';
import { documentOf, found, serve } from '@/server/answer';
import { createJob, listJobs } from '@/server/jobs';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listJobs, ({ db }) => listJobs(db));

const NOTHING_YET = { picture: null, openFindings: 0 };

export const POST = serve(API.createJob, async ({ db, body }) => ({
  id: found(await createJob(db, documentOf(body.document), body.extras ?? NOTHING_YET)).id,
}));
