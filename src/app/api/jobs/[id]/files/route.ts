/** Files of a job that were given out. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { giveFiles, listGivenFiles } from '@/server/given-files';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listGivenFiles, async ({ db, params }) => found(await listGivenFiles(db, params.id)));

export const POST = serve(API.giveFiles, async ({ db, params, body }) => {
  found(await giveFiles(db, params.id, body), 'There is no such job, or no such file is kept.');
  return {};
});
