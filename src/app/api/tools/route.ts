/** The tools of the job that was saved last. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { lastTools } from '@/server/tools';

export const dynamic = 'force-dynamic';

export const GET = serve(API.lastTools, ({ db }) => lastTools(db));
