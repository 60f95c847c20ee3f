/** The jobs that use something of the shop. */
import { API } from '@/api/endpoints';
import type { Shelf } from '@/core/schema/shop/shop';
import { serve } from '@/server/answer';
import { usersOfEntry } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(API.usersOfEntry, ({ db, params }) => usersOfEntry(db, params.shelf as Shelf, params.entry));
