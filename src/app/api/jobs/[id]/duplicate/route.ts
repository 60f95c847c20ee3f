/** A copy of a job. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { duplicateJob } from '@/server/jobs';

export const POST = serve(API.duplicateJob, async ({ db, params }) => ({
  id: found(await duplicateJob(db, params.id)).id,
}));
