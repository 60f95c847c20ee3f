/** Files of a job that were given out: which bytes, of which version of the document, and what their proof said. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { id } from '../schema/fields';

/** What the proof of files said when they were given out. */
export const keptProofSchema = z.object({
  /** The machine they were run as; null for any. */
  machine: z.string().max(LIMITS.nameCharacters).nullable(),
  differences: z.int().min(0),
  /** Faults of the job that were open. */
  faults: z.int().min(0),
});

/** The parts that were written, by their ids; null: all. */
export const givenPartsSchema = z.array(id).max(LIMITS.parts).nullable();

/** A file that is given out: its name, its bytes by what is in them, and what the proof said of just these bytes; null where it was not proved. */
export const toGiveSchema = z.object({
  name: z.string().trim().min(1).max(LIMITS.fileNameCharacters),
  file: z.string().regex(/^[0-9a-f]{64}$/),
  proof: keptProofSchema.nullable(),
});

/** A file that was given out; `givenAt` is ISO. */
export const givenFileSchema = toGiveSchema.extend({
  id: z.uuid(),
  version: z.int(),
  bytes: z.int(),
  partIds: givenPartsSchema,
  givenAt: z.string(),
});

/** A file that is given out. */
export type ToGive = z.infer<typeof toGiveSchema>;
/** What the proof of files said. */
export type KeptProof = z.infer<typeof keptProofSchema>;
/** A file that was given out. */
export type GivenFile = z.infer<typeof givenFileSchema>;
