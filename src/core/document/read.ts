/** Reading a job document from outside: size, JSON, version and schema, each with a sentence that names the field. */
import type { z } from 'zod';
import { LIMITS } from '../limits';
import { unkeepableIn } from './json';
import { migrate } from './migrate';
import { JOB_FORMAT, type Job, jobSchema } from './schema';

/** A document that was read, or sentences with what is wrong with it, field by field. */
export type ReadJob = { readonly ok: true; readonly job: Job } | { readonly ok: false; readonly sentences: string[] };

const fail = (...sentences: string[]): ReadJob => ({ ok: false, sentences });

/** "parts[0].members[2].size.mm" from a path of keys. */
export const fieldName = (path: readonly PropertyKey[]): string =>
  path.map((key, i) => (typeof key === 'number' ? `[${key}]` : i === 0 ? String(key) : `.${String(key)}`)).join('') ||
  'The job';

function sentenceFor(issue: z.core.$ZodIssue): string {
  const field = fieldName(issue.path);
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined
        ? `${field} is missing.`
        : `${field} must be ${issue.expected === 'int' ? 'a whole number' : `a${/^[aeiou]/.test(issue.expected) ? 'n' : ''} ${issue.expected}`}.`;
    case 'too_small':
      if (issue.origin === 'string' || issue.origin === 'array') return `${field} is empty.`;
      return `${field} must be ${issue.inclusive === false ? 'more than' : 'at least'} ${issue.minimum}.`;
    case 'too_big':
      if (issue.origin === 'string') return `${field} is longer than ${issue.maximum} characters.`;
      if (issue.origin === 'array') return `${field} has more than ${issue.maximum} entries.`;
      return `${field} must be at most ${issue.maximum}.`;
    case 'unrecognized_keys':
      return `${field} has ${issue.keys.map((k) => `“${k.slice(0, 60)}”`).join(', ')}, which a job document does not know.`;
    case 'invalid_value':
      return `${field} must be ${issue.values.map((v) => `“${String(v)}”`).join(' or ')}.`;
    case 'invalid_union':
      return `${field} is of a kind this version does not know.`;
    case 'invalid_format':
    case 'custom':
      return `${field}: ${issue.message}.`;
    default:
      return `${field} is not as it should be (${issue.message}).`;
  }
}

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
  const sentences = parsed.error.issues.slice(0, 20).map(sentenceFor);
  const more = parsed.error.issues.length - sentences.length;
  return fail(...sentences, ...(more > 0 ? [`And ${more} more.`] : []));
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
