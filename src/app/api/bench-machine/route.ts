/** The bench machine as it stands. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { benchMachine } from '@/server/bench-machine';

export const dynamic = 'force-dynamic';

export const GET = serve(API.benchMachine, benchMachine);
