/** The shop's own starters. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { listStarters } from '@/server/jobs-page';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listStarters, ({ db }) => listStarters(db));
