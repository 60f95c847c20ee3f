/** A typeface put back into the list. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { setRemoved } from '@/server/typefaces';

export const dynamic = 'force-dynamic';

export const POST = serve(API.restoreTypeface, async ({ db, params }) => {
  found(await setRemoved(db, params.content, false), 'There is no such typeface.');
  return {};
});
