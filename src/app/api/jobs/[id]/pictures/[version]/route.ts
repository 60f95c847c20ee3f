/** The picture of a version of a job. */
import { API } from '@/api/endpoints';
import { Refusal, serve } from '@/server/answer';
import { openPicture } from '@/server/versions';

export const dynamic = 'force-dynamic';

export const GET = serve(API.openPicture, async ({ db, params }) => {
  const picture = await openPicture(db, params.id, Number(params.version));
  if (picture === undefined) throw new Refusal(404, 'There is no such version.');
  return { picture };
});
