/** What a request to the server is: said once, and held to by the page that asks and by the handler that answers. */
import type { z } from 'zod';

/** A request: `Params` are the names in braces in its path, `Body` is what is sent, `Answer` what comes back. */
export type Endpoint<Params extends string = string, Body = unknown, Answer = unknown> = {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** "/api/jobs/{id}", "/api/jobs?words={words}". */
  readonly path: string;
  /** What is sent as JSON is checked by this on the server; null where nothing is sent. */
  readonly body: z.ZodType<Body> | null;
  /** What comes back is checked by this in the page. */
  readonly answer: z.ZodType<Answer>;
  /** The status of an answer that is as wished. */
  readonly status: number;
  /** What is said of a body that is not as it should be. */
  readonly refusal: { readonly status: number; readonly sentence: string };
  readonly params: readonly Params[];
  /** Whether an answer stays as it is, so that browsers may keep it. */
  readonly isLasting: (answer: Answer, params: Readonly<Record<Params, string>>) => boolean;
};

type Given<Path extends string, Body, Answer> = {
  readonly method: Endpoint['method'];
  readonly path: Path;
  readonly body?: z.ZodType<Body>;
  readonly answer: z.ZodType<Answer>;
  readonly status?: number;
  readonly refusal?: { readonly status: number; readonly sentence: string };
  readonly isLasting?: (answer: Answer, params: Readonly<Record<string, string>>) => boolean;
};

/** The names in braces in a path. */
type ParamsIn<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}`
  ? Name | ParamsIn<Rest>
  : never;

/** An endpoint by its path; parameters are read from it. */
export function endpoint<const Path extends string, Answer, Body = null>(
  given: Given<Path, Body, Answer>,
): Endpoint<ParamsIn<Path>, Body, Answer> {
  return {
    status: 200,
    isLasting: () => false,
    refusal: { status: 400, sentence: 'The request was not readable.' },
    ...given,
    body: given.body ?? null,
    params: [...given.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name as ParamsIn<Path>),
  };
}

/** The address of an endpoint with its parameters put in, percent-encoded. */
export const addressOf = <P extends string>(
  at: Pick<Endpoint<P>, 'path' | 'params'>,
  params: Readonly<Record<P, string>>,
): string => at.params.reduce((path, name) => path.replace(`{${name}}`, encodeURIComponent(params[name])), at.path);
