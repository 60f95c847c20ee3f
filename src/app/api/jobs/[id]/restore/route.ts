/** Deleting taken back. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { restoreJob } from '@/server/jobs';

export const POST = serve(API.restoreJob, async ({ db, params }) => {
  found(await restoreJob(db, params.id));
  return {};
});
