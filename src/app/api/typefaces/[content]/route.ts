/** A typeface taken out of the list. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { setRemoved } from '@/server/typefaces';

export const dynamic = 'force-dynamic';

export const DELETE = serve(API.removeTypeface, async ({ db, params }) => {
  found(await setRemoved(db, params.content, true), 'There is no such typeface.');
  return {};
});
