/** Rows of a roster prepared by row workers. */
import { API } from '@/api/endpoints';
import { documentOf, serve } from '@/server/answer';
import { askRows } from '@/server/row-batches';
import { rowQueue } from '@/server/row-queue';

export const dynamic = 'force-dynamic';

export const POST = serve(API.askRows, async ({ db, body }) => ({
  asked: await askRows(db, await rowQueue(db), documentOf(body.document), body.today),
}));
