/** What a list of jobs shows of one, and what travels between browser and server. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { pictureSchema } from './picture';

/** A job as lists have it: everything but its document and its picture. */
export const jobSummarySchema = z.object({
  id: z.uuid(),
  title: z.string(),
  tags: z.array(z.string()),
  material: z.string(),
  thickness: z.number().nullable(),
  width: z.number(),
  height: z.number(),
  units: z.enum(['mm', 'in']),
  openFindings: z.number().int(),
  version: z.number().int(),
  changedAt: z.string(),
});

/** What a list of jobs shows of one. */
export type JobSummary = z.infer<typeof jobSummarySchema>;

/** Some of the jobs, the last changed first; all tags there are; and where the next ones begin, null where these are the last. */
export const jobsPageSchema = z.object({
  jobs: z.array(jobSummarySchema),
  tags: z.array(z.string()),
  next: z.string().nullable(),
});
/** Some of the jobs. */
export type JobsPage = z.infer<typeof jobsPageSchema>;

/**
 * The picture of a version of a job, or of the newest where that one is no longer kept; null where there is none, or it can't be read.
 * `version` is the one it is of.
 */
export const keptPictureSchema = z.object({ version: z.int().nullable(), picture: pictureSchema.nullable() });
/** A picture that was kept. */
export type KeptPicture = z.infer<typeof keptPictureSchema>;

/** Characters of a picture as it is sent. */
const sizeOf = ({ shapes }: z.infer<typeof pictureSchema>): number => shapes.reduce((sum, { d }) => sum + d.length, 0);

/** What a save sends beside the document. */
export const savedExtrasSchema = z.object({
  picture: pictureSchema.refine((picture) => sizeOf(picture) <= LIMITS.pictureBytes, 'is too large').nullable(),
  openFindings: z.number().int().min(0).max(1_000_000),
});

/** A document's picture and how many findings it has open, as sent with a save. */
export type SavedExtras = z.infer<typeof savedExtrasSchema>;

/** A job as it is kept: its document is checked where it is opened. */
export const storedJobSchema = z.object({
  id: z.uuid(),
  version: z.int(),
  changedAt: z.string(),
  document: z.unknown(),
});

/** A job as the server has it, its document not checked yet. */
export type StoredJob = z.infer<typeof storedJobSchema>;
