/** All that the shop has; a shop brought in from a file. */
import { API } from '@/api/endpoints';
import { LIMITS } from '@/core/limits';
import { readShop } from '@/core/shop/exchange';
import { Refusal, serve } from '@/server/answer';
import { bringInShop, openShop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(API.openShop, ({ db }) => openShop(db));

export const POST = serve(API.bringInShop, async ({ db, body }) => {
  const read = readShop(body.shop);
  if (!read.ok) throw new Refusal(422, read.sentence);
  const brought = await bringInShop(db, read.shop);
  if (brought === 'full')
    throw new Refusal(
      507,
      `A shelf of the shop holds up to ${LIMITS.shopEntries.toLocaleString('en')}. Nothing was added.`,
    );
  return brought;
});
