/** A tag given to jobs, or taken from them. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { tagJobs } from '@/server/jobs';

export const POST = serve(API.tagJobs, async ({ db, body }) => ({ changed: await tagJobs(db, body) }));
