/** Asking the server: with a limit on time, and with a sentence for whatever goes wrong. */
import { LIMITS } from '../core/limits';
import { addressOf, type Endpoint } from './endpoint';

/** What is said where no answer came. */
const SERVER_AWAY = 'The server is away. Nothing was changed; try again in a moment.';

/** An answer that is not as wished. Its message is a sentence for the user. */
export class CallFault extends Error {
  /** `status`: what the server answered; null when no answer came. `more`: what it said beside the sentence. */
  constructor(
    readonly status: number | null,
    sentence: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(sentence);
  }

  /** Whether the same may go well a moment later. */
  get isAway(): boolean {
    return this.status === null || this.status >= 500;
  }
}

type Sent = { readonly body: BodyInit; readonly headers: Readonly<Record<string, string>> };

async function ask<A>(
  at: Pick<Endpoint<string, unknown, A>, 'method' | 'answer'>,
  address: string,
  sent: Sent | null,
  signal?: AbortSignal,
): Promise<A> {
  const limit = AbortSignal.timeout(LIMITS.answerSeconds * 1000);
  let response: Response;
  let body: unknown;
  try {
    response = await fetch(address, {
      method: at.method,
      signal: signal ? AbortSignal.any([signal, limit]) : limit,
      ...sent,
    });
    body = await response.json().catch((reason: unknown) => {
      // A body that is no JSON is told by what it lacks; one that was cut off is no answer.
      if (reason instanceof SyntaxError) return null;
      throw reason;
    });
  } catch (reason) {
    if (signal?.aborted) throw reason;
    throw new CallFault(null, SERVER_AWAY);
  }
  const said = (typeof body === 'object' && body !== null ? body : {}) as Record<string, unknown>;
  if (!response.ok) {
    const { sentence, ...more } = said;
    throw new CallFault(
      response.status,
      typeof sentence === 'string' ? sentence : 'The server could not do that.',
      more,
    );
  }
  const read = at.answer.safeParse(body);
  if (!read.success) throw new CallFault(response.status, 'The server gave an answer that can’t be read.', said);
  return read.data;
}

/**
 * What the server answers to a request; throws a CallFault, or what `signal` was stopped with.
 * @param params values for the names in braces in the path of the endpoint
 */
export const call = <P extends string, B, A>(
  at: Endpoint<P, B, A>,
  params: Readonly<Record<P, string>>,
  body: B,
  signal?: AbortSignal,
): Promise<A> =>
  ask(
    at,
    addressOf(at, params),
    at.body ? { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } } : null,
    signal,
  );

/** What the server answers to bytes that are sent as they are, with a name beside them; throws a CallFault. */
export const callWithBytes = <A>(at: Endpoint<never, null, A>, bytes: Blob | string, name: string): Promise<A> =>
  ask(at, addressOf(at, {}), { body: bytes, headers: { 'x-name': encodeURIComponent(name) } });
