/** A copy of a job. */
import { answer, idOf, problem } from '@/server/answer';
import { duplicateJob } from '@/server/jobs';

export const POST = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (db) => {
    const copy = await duplicateJob(db, await idOf(params));
    return copy ? Response.json(copy, { status: 201 }) : problem(404, 'There is no such job.');
  });
