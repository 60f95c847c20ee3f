/** Undo of deleting a job. */
import { answer, idOf, problem } from '@/server/answer';
import { restoreJob } from '@/server/jobs';

export const POST = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (db) =>
    (await restoreJob(db, await idOf(params))) ? Response.json({}) : problem(404, 'There is no such job.'),
  );
