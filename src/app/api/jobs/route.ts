/** The list of jobs, and new ones. */
import { z } from 'zod';
import { checkJob } from '@/core/document/read';
import { savedExtrasSchema } from '@/core/job/summary';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { createJob, listJobs } from '@/server/jobs';

export const dynamic = 'force-dynamic';

export const GET = () => answer(async (db) => Response.json(await listJobs(db)));

const newJobBody = z.object({ document: z.unknown(), extras: savedExtrasSchema.nullish() });

export const POST = (request: Request) =>
  answer(async (db) => {
    const body = newJobBody.safeParse(await bodyOf(request));
    if (!body.success) throw new Refusal(400, 'The request was not readable.');
    const read = checkJob(body.data.document);
    if (!read.ok) throw new Refusal(422, read.sentences.join(' '));
    const made = await createJob(db, read.job, body.data.extras ?? { picture: null, openFindings: 0 });
    return Response.json(made, { status: 201 });
  });
