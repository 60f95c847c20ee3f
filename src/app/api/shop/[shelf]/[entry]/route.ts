/** Something on a shelf of the shop: put there, changed, taken away. */
import { API } from '@/api/endpoints';
import { LIMITS } from '@/core/limits';
import type { Shelf } from '@/core/schema/shop/shop';
import { readEntry } from '@/core/shop/exchange';
import { found, Refusal, serve } from '@/server/answer';
import { keepEntry, setEntryRemoved } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const PUT = serve(API.keepEntry, async ({ db, params, body }) => {
  const shelf = params.shelf as Shelf;
  const read = readEntry(shelf, body.entry);
  if (!read.ok) throw new Refusal(422, read.sentence);
  const kept = await keepEntry(db, shelf, params.entry, { version: body.version, entry: read.entry });
  if (kept === 'stale')
    throw new Refusal(409, 'This was changed or removed in another window meanwhile. It is shown as it is now.');
  if (kept === 'full')
    throw new Refusal(507, `There are ${LIMITS.shopEntries.toLocaleString('en')} of these; no more are kept.`);
  return kept;
});

export const DELETE = serve(API.removeEntry, async ({ db, params }) => {
  found(await setEntryRemoved(db, params.shelf as Shelf, params.entry, true), 'The shop has nothing of that name.');
  return {};
});
