/** The jobs that use a typeface. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { usersOfTypeface } from '@/server/typefaces';

export const dynamic = 'force-dynamic';

export const GET = serve(API.usersOfTypeface, ({ db, params }) => usersOfTypeface(db, params.content));
