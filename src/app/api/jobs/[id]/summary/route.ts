/** What a list shows of one job. */
import { API } from '@/api/endpoints';
import { found, serve } from '@/server/answer';
import { openSummary } from '@/server/jobs-page';

export const dynamic = 'force-dynamic';

export const GET = serve(API.openSummary, async ({ db, params }) => found(await openSummary(db, params.id)));
