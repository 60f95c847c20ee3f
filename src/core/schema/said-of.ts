/** What is said of something from outside that is not as it should be, field by field. */
import type { z } from 'zod';

/** "parts[0].members[2].size.mm" from a path of keys. */
export const fieldName = (path: readonly PropertyKey[], all = 'The job'): string =>
  path.map((key, i) => (typeof key === 'number' ? `[${key}]` : i === 0 ? String(key) : `.${String(key)}`)).join('') ||
  all;

function sentenceFor(issue: z.core.$ZodIssue, of: string, all: string): string {
  const field = fieldName(issue.path, all);
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
      return `${field} has ${issue.keys.map((k) => `“${k.slice(0, 60)}”`).join(', ')}, which ${of} does not know.`;
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

/** So many sentences are enough at once. */
const MOST = 20;

/** What is wrong, in sentences that name the fields; `of` is what was read, "a job document", and `all` the whole of it, "The job". */
export function sentencesFor({ issues }: z.ZodError, of: string, all: string): string[] {
  const sentences = issues.slice(0, MOST).map((issue) => sentenceFor(issue, of, all));
  const more = issues.length - sentences.length;
  return more > 0 ? [...sentences, `And ${more} more.`] : sentences;
}
