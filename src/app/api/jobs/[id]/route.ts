/** One job: open, save, rename, delete. */
import { z } from 'zod';
import { checkJob } from '@/core/document/read';
import { savedExtrasSchema } from '@/core/job/summary';
import { LIMITS } from '@/core/limits';
import { answer, bodyOf, idOf, problem, Refusal } from '@/server/answer';
import { deleteJob, openJob, renameJob, saveJob } from '@/server/jobs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const GONE = 'This job has been deleted.';

export const GET = (_request: Request, { params }: Context) =>
  answer(async (db) => {
    const job = await openJob(db, await idOf(params));
    return job ? Response.json(job) : problem(404, 'There is no such job.');
  });

const saveBody = z.object({ version: z.number().int(), document: z.unknown(), extras: savedExtrasSchema.nullable() });

export const PUT = (request: Request, { params }: Context) =>
  answer(async (db) => {
    const id = await idOf(params);
    const body = saveBody.safeParse(await bodyOf(request));
    if (!body.success) throw new Refusal(400, 'The request was not readable.');
    const read = checkJob(body.data.document);
    if (!read.ok) throw new Refusal(422, read.sentences.join(' '));
    const result = await saveJob(db, id, body.data.version, read.job, body.data.extras);
    if (result.outcome === 'gone') return problem(404, GONE);
    if (result.outcome === 'stale')
      return problem(409, 'This job was changed in another window.', { stored: result.stored });
    return Response.json({ version: result.version, changedAt: result.changedAt });
  });

const renameBody = z.object({ title: z.string().trim().min(1).max(LIMITS.nameCharacters) });

export const PATCH = (request: Request, { params }: Context) =>
  answer(async (db) => {
    const id = await idOf(params);
    const body = renameBody.safeParse(await bodyOf(request));
    if (!body.success) throw new Refusal(422, 'A job needs a name of 1 to 200 characters.');
    return (await renameJob(db, id, body.data.title)) ? Response.json({}) : problem(404, GONE);
  });

export const DELETE = (_request: Request, { params }: Context) =>
  answer(async (db) => ((await deleteJob(db, await idOf(params))) ? Response.json({}) : problem(404, GONE)));
