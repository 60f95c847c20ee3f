/** All that the page asks of the server. */

import { z } from 'zod';
import { givenFileSchema, givenPartsSchema, toGiveSchema } from '../core/job/given-files';
import { pictureSchema } from '../core/job/picture';
import {
  jobSummarySchema,
  jobsPageSchema,
  keptPictureSchema,
  savedExtrasSchema,
  storedJobSchema,
} from '../core/job/summary';
import { versionSchema, versionsPageSchema } from '../core/job/versions';
import { LIMITS } from '../core/limits';
import { assetId } from '../core/schema/artwork';
import { faceAboutSchema } from '../core/schema/face-about';
import { faceMarkSchema, faceUserSchema, keptTypefaceSchema } from '../core/schema/kept-face';
import { keptShopSchema } from '../core/schema/shop/shop';
import { listedToolSchema } from '../core/schema/tools';
import { benchMachineSchema, machineRunSchema, toSendSchema } from './bench-machine';
import { endpoint } from './endpoint';
import { askedBatchSchema, batchToldSchema } from './row-batches';

/** A job document as it is sent: what is in it is checked, and told by field, where it is read. */
const documentSchema = z.unknown();
const savedSchema = z.object({ version: z.int(), changedAt: z.string() });
const madeSchema = z.object({ id: z.uuid() });
const doneSchema = z.object({});
const nameSchema = z.string().trim().min(1).max(LIMITS.nameCharacters);

/** What is said of a job that was not sent as it should be. */
const SENT_ODDLY = {
  status: 422,
  sentence: `A job is sent with its document and a picture of at most ${LIMITS.pictureBytes / 1024} kB.`,
};

/** The endpoints of the server by what they are for. */
export const API = {
  /** Some of the jobs that have all the words and the tag, last changed first; `after` is where a page before said the next begins. */
  listJobs: endpoint({
    method: 'GET',
    path: '/api/jobs?words={words}&tag={tag}&after={after}',
    answer: jobsPageSchema,
  }),
  createJob: endpoint({
    method: 'POST',
    path: '/api/jobs',
    body: z.object({ document: documentSchema, extras: savedExtrasSchema.nullish() }),
    answer: madeSchema,
    status: 201,
    refusal: SENT_ODDLY,
  }),
  openJob: endpoint({ method: 'GET', path: '/api/jobs/{id}', answer: storedJobSchema }),
  openSummary: endpoint({ method: 'GET', path: '/api/jobs/{id}/summary', answer: jobSummarySchema }),
  /** The picture of a version, which never changes; of one that is no longer kept, the newest. */
  openPicture: endpoint({
    method: 'GET',
    path: '/api/jobs/{id}/pictures/{version}',
    answer: keptPictureSchema,
    isLasting: ({ version }, asked) => String(version) === asked.version,
  }),
  /** Save over a version; 409 with `stored` where that is no longer the newest. */
  saveJob: endpoint({
    method: 'PUT',
    path: '/api/jobs/{id}',
    body: z.object({ version: z.int(), document: documentSchema, extras: savedExtrasSchema.nullable() }),
    answer: savedSchema,
    refusal: SENT_ODDLY,
  }),
  renameJob: endpoint({
    method: 'PATCH',
    path: '/api/jobs/{id}',
    body: z.object({ title: nameSchema }),
    answer: doneSchema,
    refusal: { status: 422, sentence: `A job needs a name of 1 to ${LIMITS.nameCharacters} characters.` },
  }),
  /** Give a tag to jobs, or take it from them; answers which of them had it changed. */
  tagJobs: endpoint({
    method: 'POST',
    path: '/api/jobs/tags',
    body: z.object({
      ids: z.array(z.uuid()).min(1).max(LIMITS.jobsTagged),
      tag: z.string().trim().min(1).max(LIMITS.tagCharacters),
      on: z.boolean(),
    }),
    answer: z.object({ changed: z.array(z.uuid()) }),
    refusal: {
      status: 422,
      sentence: `A tag has 1 to ${LIMITS.tagCharacters} characters, and is given to up to ${LIMITS.jobsTagged} jobs at once.`,
    },
  }),
  deleteJob: endpoint({ method: 'DELETE', path: '/api/jobs/{id}', answer: doneSchema }),
  duplicateJob: endpoint({ method: 'POST', path: '/api/jobs/{id}/duplicate', answer: madeSchema, status: 201 }),
  /** The shop's own starters. */
  listStarters: endpoint({ method: 'GET', path: '/api/starters', answer: z.array(jobSummarySchema) }),
  /** The pictures of the help, by station and number. */
  helpPictures: endpoint({ method: 'GET', path: '/api/help', answer: z.record(z.string(), pictureSchema) }),
  /** The tools of the job that was saved last. */
  lastTools: endpoint({ method: 'GET', path: '/api/tools', answer: z.array(listedToolSchema) }),
  /** Keep a copy of a job that others are started from. */
  keepAsStarter: endpoint({ method: 'POST', path: '/api/jobs/{id}/starter', answer: madeSchema, status: 201 }),
  /** Take deleting back. */
  restoreJob: endpoint({ method: 'POST', path: '/api/jobs/{id}/restore', answer: doneSchema }),

  /** Earlier versions, the newest first: those before `before`, or the newest where that is 0. */
  listVersions: endpoint({
    method: 'GET',
    path: '/api/jobs/{id}/versions/before/{before}',
    answer: versionsPageSchema,
  }),
  openVersion: endpoint({ method: 'GET', path: '/api/jobs/{id}/versions/{version}', answer: versionSchema }),
  /** Keep a version for good under a name; null: by its age, as others. */
  nameVersion: endpoint({
    method: 'PATCH',
    path: '/api/jobs/{id}/versions/{version}',
    body: z.object({ name: nameSchema.nullable() }),
    answer: doneSchema,
    refusal: { status: 422, sentence: `A version needs a name of 1 to ${LIMITS.nameCharacters} characters.` },
  }),
  /** Make an earlier version the newest; what was the newest becomes an earlier one. */
  bringBackVersion: endpoint({
    method: 'POST',
    path: '/api/jobs/{id}/versions/{version}/restore',
    answer: savedSchema,
  }),

  /** Files of the job that were given out, the newest first. */
  listGivenFiles: endpoint({ method: 'GET', path: '/api/jobs/{id}/files', answer: z.array(givenFileSchema) }),
  /** Note that kept files were given out, of a version and some of its parts, each with what its proof said. */
  giveFiles: endpoint({
    method: 'POST',
    path: '/api/jobs/{id}/files',
    body: z.object({
      version: z.int(),
      partIds: givenPartsSchema,
      files: z.array(toGiveSchema).min(1).max(LIMITS.givenAtOnce),
    }),
    answer: doneSchema,
    status: 201,
    refusal: { status: 422, sentence: 'Files are noted with their names and what is in them.' },
  }),

  /** Rows of a job's roster, to be prepared by row workers; null where there is none. */
  askRows: endpoint({
    method: 'POST',
    path: '/api/row-batches',
    body: z.object({ document: documentSchema, today: z.string().regex(/^(\d{4}-\d\d-\d\d)?$/) }),
    answer: z.object({ asked: askedBatchSchema.nullable() }),
    refusal: { status: 422, sentence: 'Rows are asked for with their job.' },
  }),
  /** What is new of rows that were asked for. */
  lookAtRows: endpoint({
    method: 'GET',
    path: '/api/row-batches/{batch}?since={since}',
    answer: batchToldSchema,
  }),
  /** Nobody waits for these rows any more. */
  dropRows: endpoint({ method: 'DELETE', path: '/api/row-batches/{batch}', answer: doneSchema }),

  /** The bench machine: what is in its line, and its log. */
  benchMachine: endpoint({ method: 'GET', path: '/api/bench-machine', answer: benchMachineSchema }),
  /** Send a kept file to the bench machine. */
  sendToMachine: endpoint({
    method: 'POST',
    path: '/api/bench-machine/runs',
    body: toSendSchema,
    answer: machineRunSchema,
    status: 201,
    refusal: { status: 422, sentence: 'A file is sent with its name and the machine to run it as.' },
  }),
  orderRun: endpoint({ method: 'POST', path: '/api/bench-machine/runs/{run}/{order}', answer: doneSchema }),

  /** Be let in from the network; answered before anything else is. */
  enter: endpoint({
    method: 'POST',
    path: '/api/enter',
    body: z.object({ passphrase: z.string() }),
    answer: doneSchema,
  }),

  /** The shop's typefaces that were brought in, and what is noted of faces. */
  listTypefaces: endpoint({
    method: 'GET',
    path: '/api/typefaces',
    answer: z.object({ typefaces: z.array(keptTypefaceSchema), marks: z.array(faceMarkSchema) }),
  }),
  /** Note the faces of a kept file. */
  addTypeface: endpoint({
    method: 'POST',
    path: '/api/typefaces',
    body: z.object({ content: assetId, faces: z.array(faceAboutSchema).min(1).max(LIMITS.facesInFile) }),
    answer: z.object({ outcome: z.enum(['added', 'known']) }),
    refusal: { status: 422, sentence: 'A typeface is sent with what is known of its faces.' },
  }),
  /** The jobs that use a typeface. */
  usersOfTypeface: endpoint({ method: 'GET', path: '/api/typefaces/{content}/jobs', answer: z.array(faceUserSchema) }),
  removeTypeface: endpoint({ method: 'DELETE', path: '/api/typefaces/{content}', answer: doneSchema }),
  /** Take removing back. */
  restoreTypeface: endpoint({ method: 'POST', path: '/api/typefaces/{content}/restore', answer: doneSchema }),
  markFace: endpoint({
    method: 'PATCH',
    path: '/api/face-marks',
    body: faceMarkSchema
      .pick({ face: true, favourite: true, look: true })
      .partial({ favourite: true, look: true })
      .extend({ used: z.boolean().optional() }),
    answer: doneSchema,
  }),

  /** All that the shop has. */
  openShop: endpoint({ method: 'GET', path: '/api/shop', answer: keptShopSchema }),
  /** Add what a file with a shop has; what is there under the same id is replaced. */
  bringInShop: endpoint({
    method: 'POST',
    path: '/api/shop',
    body: z.object({ shop: z.unknown() }),
    answer: z.object({ added: z.int(), changed: z.int(), same: z.int() }),
  }),
  /** Put something on a shelf, or over a version of it; 409 where that is no longer the newest. */
  keepEntry: endpoint({
    method: 'PUT',
    path: '/api/shop/{shelf}/{entry}',
    body: z.object({ version: z.int().nullable(), entry: z.unknown() }),
    answer: z.object({ version: z.int() }),
  }),
  /** Jobs that use something of the shop, those changed last first, and no more than are shown. */
  usersOfEntry: endpoint({
    method: 'GET',
    path: '/api/shop/{shelf}/{entry}/jobs',
    answer: z.array(z.object({ id: z.uuid(), title: z.string() })),
  }),
  removeEntry: endpoint({ method: 'DELETE', path: '/api/shop/{shelf}/{entry}', answer: doneSchema }),
  /** Take removing back. */
  restoreEntry: endpoint({ method: 'POST', path: '/api/shop/{shelf}/{entry}/restore', answer: doneSchema }),
  /** Keep a file; its bytes are sent as they are, its name beside them. */
  keepAsset: endpoint({ method: 'POST', path: '/api/assets', answer: z.object({ id: z.string() }), status: 201 }),
} as const;
