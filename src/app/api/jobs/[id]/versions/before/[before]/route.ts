/** Earlier versions of a job, some at a time. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { listVersions } from '@/server/versions';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listVersions, async ({ db, params }) =>
  found(await listVersions(db, params.id, Number(params.before))),
);
