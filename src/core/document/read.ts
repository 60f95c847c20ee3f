/** Reading a job document from outside: size, JSON, version and schema, each with a sentence that names the field. */
import { LIMITS } from '../limits';
import { fieldName, sentencesFor } from '../schema/said-of';
import { unkeepableIn } from './json';
import { migrate } from './migrate';
import { JOB_FORMAT, type Job, jobSchema } from './schema';

/** A document that was read, or sentences with what is wrong with it, field by field. */
export type ReadJob = { readonly ok: true; readonly job: Job } | { readonly ok: false; readonly sentences: string[] };

const fail = (...sentences: string[]): ReadJob => ({ ok: false, sentences });

/** Check a parsed document of this format or an older one, and fill in defaults. */
export function checkJob(document: unknown): ReadJob {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    return fail('This is not a job document.');
  const format = (document as { format?: unknown }).format;
  if (typeof format === 'number' && format > JOB_FORMAT)
    return fail(
      `format: this job was saved by a newer Needlefile (format ${format}); this one reads up to format ${JOB_FORMAT}. Nothing was changed.`,
    );
  if (typeof format === 'number' && !(Number.isInteger(format) && format >= 1))
    return fail(`format: there is no format ${format}; this Needlefile reads formats 1 to ${JOB_FORMAT}.`);
  const odd = unkeepableIn(document);
  if (odd) return fail(`${fieldName(odd)} holds a sign that can’t be kept: half of a letter, or none at all.`);
  const parsed = jobSchema.safeParse(migrate(document as Record<string, unknown>), { reportInput: true });
  if (parsed.success) return { ok: true, job: parsed.data };
  return fail(...sentencesFor(parsed.error, 'a job document', 'The job'));
}

/** Size of a text as UTF-8, in bytes. */
const bytesIn = (text: string): number => new TextEncoder().encode(text).length;

/** What is said of a document of so many bytes, which are too many. */
export const documentTooLarge = (bytes: number): string =>
  `This job document has ${(bytes / 1024 / 1024).toFixed(1)} MB; up to ${LIMITS.documentBytes / 1024 / 1024} MB can be read.`;

/** Read a job document from JSON text. */
export function readJob(text: string): ReadJob {
  const bytes = bytesIn(text);
  if (bytes > LIMITS.documentBytes) return fail(documentTooLarge(bytes));
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch {
    return fail('This is not a job document: it is not valid JSON.');
  }
  return checkJob(document);
}
