/** How route handlers answer: JSON, with a sentence whenever something is not as wished. */
import { z } from 'zod';
import { RUN_ORDERS } from '../api/bench-machine';
import type { Endpoint } from '../api/endpoint';
import { unkeepableIn } from '../core/document/json';
import { checkJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import { LIMITS } from '../core/limits';
import { id as idSchema } from '../core/schema/fields';
import { fieldName } from '../core/schema/said-of';
import { SHELVES } from '../core/schema/shop/shop';
import { isKeepable } from '../core/units/text';
import { type Database, database } from './database';
import { AFTER } from './jobs-page';

/** A document and its picture, with some room for JSON around them. */
export const MOST_BODY_BYTES = LIMITS.documentBytes + LIMITS.pictureBytes + 64 * 1024;

/** An answer that is not as wished, with its sentence. */
const problem = (status: number, sentence: string, more: object = {}): Response =>
  Response.json({ sentence, ...more }, { status });

/** Thrown inside a handler to answer with a sentence. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    sentence: string,
    readonly more: object = {},
  ) {
    super(sentence);
  }
}

/** What the driver says where it gives no code. Whole sentences: what a user wrote may be part of a message. */
const AWAY_WORDS: ReadonlySet<string> = new Set([
  'Connection terminated',
  'Connection terminated unexpectedly',
  'Connection terminated due to connection timeout',
  'timeout exceeded when trying to connect',
  'timeout expired',
  'Query read timeout',
  'Client has encountered a connection error and is not queryable',
]);

type Fault = { readonly code?: string; readonly message?: string; readonly cause?: unknown };

/** Whether a fault, or what caused it, is of a kind. */
const isOfKind = (reason: unknown, isIt: (fault: Fault) => boolean | undefined | ''): boolean => {
  const seen = new Set<unknown>();
  for (let at = reason as Fault | undefined; at && !seen.has(at); at = at.cause as Fault | undefined) {
    seen.add(at);
    if (isIt(at)) return true;
  }
  return false;
};

/** Whether the database could not be reached, or went away meanwhile: by the codes of the system and of PostgreSQL. */
const isAway = (reason: unknown): boolean =>
  isOfKind(reason, ({ code, message }) =>
    code
      ? /^(ECONN|ENOTFOUND|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH|57P|08|53)/.test(code)
      : message && AWAY_WORDS.has(message),
  );

/** Whether there was no room left for what was to be kept. */
const isFull = (reason: unknown): boolean => isOfKind(reason, ({ code }) => code === '53100' || code === 'ENOSPC');

/** Run a handler; a database that can't be reached answers 503 instead of failing. */
export async function answer(handle: (db: Database) => Promise<Response>): Promise<Response> {
  try {
    return await handle(database());
  } catch (reason) {
    if (reason instanceof Refusal) return problem(reason.status, reason.message, reason.more);
    if (isFull(reason)) return problem(507, 'There is no room left on the disk of the server. Nothing was changed.');
    if (isAway(reason)) return problem(503, 'The database is away. Nothing was changed; try again in a moment.');
    console.error(reason);
    return problem(500, 'The server could not do that. Nothing was changed.');
  }
}

/** What a page reads from the database; null where that is away, and the page is to make do without. */
export async function unlessAway<T>(read: (db: Database) => Promise<T>): Promise<T | null> {
  try {
    return await read(database());
  } catch (reason) {
    if (isAway(reason)) return null;
    throw reason;
  }
}

/** How many times too large a body may be and still be read, so that its sender hears the refusal, not a cut line. */
const DRAINED = 8;

/** The bytes of a body, or a refusal with a sentence when there are more than `most`. */
export async function bytesOf(request: Request, most: number, tooLarge: string): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of request.body ?? []) {
    size += chunk.length;
    if (size <= most) chunks.push(chunk);
    else if (size > DRAINED * most) break;
  }
  if (size > most) throw new Refusal(413, tooLarge);
  return Buffer.concat(chunks);
}

/** The body as JSON, or a refusal when it is too large or not JSON. */
export async function bodyOf(request: Request): Promise<unknown> {
  const bytes = await bytesOf(
    request,
    MOST_BODY_BYTES,
    `This job is larger than the ${LIMITS.documentBytes / 1024 / 1024} MB that can be saved. Nothing was changed; take something out of it and try again.`,
  );
  let body: unknown;
  try {
    body = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new Refusal(400, 'The request was not readable.');
  }
  const odd = unkeepableIn(body);
  if (odd)
    throw new Refusal(422, `${fieldName(odd)} holds a sign that can’t be kept: half of a letter, or none at all.`);
  return body;
}

const WHAT_IS_SAID: Readonly<Record<string, string>> = {
  id: 'There is no such job.',
  version: 'There is no such version.',
  content: 'There is no such typeface.',
  shelf: 'The shop has no such shelf.',
  entry: 'The shop has nothing of that name.',
  batch: 'These rows are no longer asked for.',
  run: 'There is no such run on the bench machine.',
  order: 'The bench machine does not do that.',
};

const isWords = (value: string): boolean => value.length <= LIMITS.nameCharacters && isKeepable(value);
/** What parameters are to be, by their names; numbers of versions where nothing is said. */
const IS_GOOD: Readonly<Record<string, (value: string) => boolean>> = {
  id: (value) => z.uuid().safeParse(value).success,
  batch: (value) => z.uuid().safeParse(value).success,
  since: (value) => /^\d{1,15}$/.test(value),
  words: isWords,
  tag: isWords,
  content: (value) => /^[0-9a-f]{64}$/.test(value),
  shelf: (value) => Object.hasOwn(SHELVES, value),
  entry: (value) => idSchema.safeParse(value).success,
  run: (value) => /^[0-9a-f]{12}$/.test(value),
  order: (value) => (RUN_ORDERS as readonly string[]).includes(value.replace('-', ' ')),
  after: (value) => value === '' || AFTER.test(value),
};
const isVersion = (value: string): boolean => /^\d{1,9}$/.test(value);

/** Parameters of a route, or of its query, as they are to be; else a refusal. */
function paramsOf<P extends string>(names: readonly P[], given: Readonly<Record<string, string>>): Record<P, string> {
  const params = {} as Record<P, string>;
  for (const name of names) {
    const value = given[name] ?? '';
    if (!(IS_GOOD[name] ?? isVersion)(value)) throw new Refusal(404, WHAT_IS_SAID[name] ?? 'There is no such page.');
    params[name] = value;
  }
  return params;
}

type Asked<P extends string, B> = {
  readonly db: Database;
  readonly params: Readonly<Record<P, string>>;
  readonly body: B;
};

/**
 * The route handler of an endpoint: what is sent is checked, what `handle` gives is sent back. It refuses by throwing a Refusal.
 */
export const serve =
  <P extends string, B, A>(at: Endpoint<P, B, A>, handle: (asked: Asked<P, B>) => Promise<A>) =>
  (request: Request, context: { readonly params: Promise<Record<string, string>> }): Promise<Response> =>
    answer(async (db) => {
      const query = Object.fromEntries(new URL(request.url).searchParams);
      const params = paramsOf(at.params, { ...query, ...(await context.params) });
      const body = at.body ? at.body.safeParse(await bodyOf(request)) : null;
      if (body && !body.success) throw new Refusal(at.refusal.status, at.refusal.sentence);
      const said = await handle({ db, params, body: body?.data as B });
      const keeps = at.isLasting(said, params) ? 'private, max-age=31536000, immutable' : 'no-store';
      return Response.json(said, { status: at.status, headers: { 'cache-control': keeps } });
    });

/** A job document that was sent, or a refusal with what is wrong with it. */
export function documentOf(sent: unknown): Job {
  const read = checkJob(sent);
  if (!read.ok) throw new Refusal(422, read.sentences.join(' '));
  return read.job;
}

/** What was found, or a refusal where nothing was. */
export function found<T>(one: T | null | undefined | false, sentence = 'There is no such job.'): T {
  if (one === null || one === undefined || one === false) throw new Refusal(404, sentence);
  return one;
}
