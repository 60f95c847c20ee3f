/** What is noted of a face. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { markFace } from '@/server/typefaces';

export const dynamic = 'force-dynamic';

export const PATCH = serve(API.markFace, async ({ db, body: { face, ...change } }) => {
  await markFace(db, face, change);
  return {};
});
