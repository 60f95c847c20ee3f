/** An earlier version made the newest one. */
import { API } from '@/api/endpoints';
import { found, Refusal, serve } from '@/server/answer';
import { bringBackVersion } from '@/server/jobs';

export const POST = serve(API.bringBackVersion, async ({ db, params }) => {
  const done = found(await bringBackVersion(db, params.id, Number(params.version)), 'This version is no longer kept.');
  if (typeof done === 'string') throw new Refusal(422, done);
  return done;
});
