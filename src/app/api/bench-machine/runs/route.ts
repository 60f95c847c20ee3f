/** Files are sent to the bench machine. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { sendToMachine } from '@/server/bench-machine';

export const dynamic = 'force-dynamic';

export const POST = serve(API.sendToMachine, ({ db, body }) => sendToMachine(db, body));
