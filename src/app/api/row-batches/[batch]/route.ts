/** A batch of rows: what is new of it, and that nobody waits for it any more. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { dropBatch, lookAtBatch } from '@/server/row-batches';

const NO_LONGER = 'These rows are no longer asked for.';

export const dynamic = 'force-dynamic';

export const GET = serve(API.lookAtRows, async ({ db, params }) =>
  found(await lookAtBatch(db, params.batch, Number(params.since)), NO_LONGER),
);

export const DELETE = serve(API.dropRows, async ({ db, params }) => {
  found(await dropBatch(db, params.batch), NO_LONGER);
  return {};
});
