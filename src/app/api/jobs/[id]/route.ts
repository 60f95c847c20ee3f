/** One job: open, save, rename, delete. */
import { API } from '@/api/endpoints';
import { documentOf, found, Refusal, serve } from '@/server/answer';
import { deleteJob, formatOf, OLDER, openJob, renameJob, saveJob } from '@/server/jobs';

export const dynamic = 'force-dynamic';

const GONE = 'This job has been deleted.';

export const GET = serve(API.openJob, async ({ db, params }) => found(await openJob(db, params.id)));

export const PUT = serve(API.saveJob, async ({ db, params, body }) => {
  const { version, document, extras } = body;
  const job = documentOf(document);
  const result = await saveJob(db, params.id, { from: version, job, extras, format: formatOf(document) });
  if (result.outcome === 'gone') throw new Refusal(404, GONE);
  if (result.outcome === 'older') throw new Refusal(422, OLDER);
  if (result.outcome === 'stale')
    throw new Refusal(409, 'This job was changed in another window.', { stored: result.stored });
  return { version: result.version, changedAt: result.changedAt };
});

export const PATCH = serve(API.renameJob, async ({ db, params, body }) => {
  found(await renameJob(db, params.id, body.title), GONE);
  return {};
});

export const DELETE = serve(API.deleteJob, async ({ db, params }) => {
  found(await deleteJob(db, params.id), GONE);
  return {};
});
