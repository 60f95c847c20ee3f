/** What is done with a run of the bench machine. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { orderRun } from '@/server/bench-machine';

export const dynamic = 'force-dynamic';

export const POST = serve(API.orderRun, async ({ params }) => {
  await orderRun(params);
  return {};
});
