/** How route handlers answer: JSON, with a sentence whenever something is not as wished. */
import { z } from 'zod';
import { LIMITS } from '../core/limits';
import { type Database, database } from './database';

/** A document and its picture, with some room for JSON around them. */
export const MOST_BODY_BYTES = LIMITS.documentBytes + LIMITS.pictureBytes + 64 * 1024;

export const problem = (status: number, sentence: string, more: object = {}): Response =>
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

const isAway = (reason: unknown): boolean => {
  const seen = new Set<unknown>();
  for (let at: unknown = reason; at && !seen.has(at); at = (at as { cause?: unknown }).cause) {
    seen.add(at);
    const { code, message } = at as { code?: string; message?: string };
    if (code && /^(ECONN|ENOTFOUND|EPIPE|ETIMEDOUT|57P|08|53)/.test(code)) return true;
    if (message && /timeout|terminated|Connection/i.test(message)) return true;
  }
  return false;
};

/** Run a handler; a database that can't be reached answers 503 instead of failing. */
export async function answer(handle: (db: Database) => Promise<Response>): Promise<Response> {
  try {
    return await handle(database());
  } catch (reason) {
    if (reason instanceof Refusal) return problem(reason.status, reason.message, reason.more);
    if (isAway(reason)) return problem(503, 'The database is away. Your work is kept here and saved when it is back.');
    console.error(reason);
    return problem(500, 'The server could not do that. Nothing was changed.');
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
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new Refusal(400, 'The request was not readable.');
  }
}

/** The id in a route, or a refusal. */
export async function idOf(params: Promise<{ id: string }>): Promise<string> {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) throw new Refusal(404, 'There is no such job.');
  return id;
}
