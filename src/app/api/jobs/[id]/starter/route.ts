/** A copy of a job that others are started from. */
import { API } from '@/api/endpoints';
import { found, Refusal, serve } from '@/server/answer';
import { keepAsStarter } from '@/server/jobs';

export const POST = serve(API.keepAsStarter, async ({ db, params }) => {
  const kept = found(await keepAsStarter(db, params.id));
  if (!('id' in kept)) throw new Refusal(422, kept.join(' '));
  return { id: kept.id };
});
