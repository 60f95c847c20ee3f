/** One version of a job: opened, and named to be kept for good. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { nameVersion, openVersion } from '@/server/versions';

export const dynamic = 'force-dynamic';

const GONE = 'This version is no longer kept.';

export const GET = serve(API.openVersion, async ({ db, params }) =>
  found(await openVersion(db, params.id, Number(params.version)), GONE),
);

export const PATCH = serve(API.nameVersion, async ({ db, params, body }) => {
  found(await nameVersion(db, params.id, Number(params.version), body.name), GONE);
  return {};
});
