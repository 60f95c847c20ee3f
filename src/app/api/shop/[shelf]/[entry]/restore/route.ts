/** Something of the shop put back on its shelf. */
import { API } from '@/api/endpoints';
import type { Shelf } from '@/core/schema/shop/shop';
import { found, serve } from '@/server/answer';
import { setEntryRemoved } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const POST = serve(API.restoreEntry, async ({ db, params }) => {
  found(await setEntryRemoved(db, params.shelf as Shelf, params.entry, false), 'The shop has nothing of that name.');
  return {};
});
