/**
 * Who is let in, decided before a body is read: pages of other origins are not, under whatever name they reach this machine. What is
 * promised stands in docs/security.md.
 */
import type { IncomingHttpHeaders } from 'node:http';

/** A request as its first lines say it. */
export type Asked = {
  readonly method: string;
  /** The target as it was sent. */
  readonly target: string;
  readonly headers: IncomingHttpHeaders;
};

/** The line a request came by. */
export type Line = {
  readonly isEncrypted: boolean;
  /** The address of this machine that it came to. */
  readonly address: string;
  /** Whether it is this machine's own line, which nobody else reaches. */
  readonly isOwn: boolean;
};

/** A request that is not let in: the status, and a sentence. */
export type Refused = { readonly status: number; readonly sentence: string };

/** Names by which this machine calls itself. */
const OWN_NAMES = ['localhost', '127.0.0.1', '[::1]'];
const READS = ['GET', 'HEAD'];
/** What each kind of address is asked with. */
export const METHODS = { page: READS, api: [...READS, 'POST', 'PUT', 'PATCH', 'DELETE'] } as const;
/** Where bytes are sent as they are; everywhere else what is sent is JSON. */
const BYTES_GO_TO = '/api/assets';

const refuse = (status: number, sentence: string): Refused => ({ status, sentence });
const one = (header: string | readonly string[] | undefined): string | undefined =>
  typeof header === 'string' ? header : header?.[0];

/** The path of a target; null where it is none: not from the root, or not readable. */
export function pathOf(target: string): string | null {
  const [path = ''] = target.split(/[?#]/);
  if (!path.startsWith('/') || path.startsWith('//')) return null;
  try {
    const read = decodeURIComponent(path);
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is refused
    return /[\u0000-\u001f\\]/.test(read) ? null : path;
  } catch {
    return null;
  }
}

/** Whether an address is one of the routes that answer in JSON. */
export const isApi = (path: string): boolean => path === '/api' || path.startsWith('/api/');

/** The name in a Host header, without its port, in lower case; null where it is none. */
function nameIn(host: string | undefined): string | null {
  const found = /^(\[[0-9a-f:.]+\]|[a-z0-9._-]+)(?::\d{1,5})?$/.exec((host ?? '').toLowerCase());
  return found?.[1] ?? null;
}

/** Whether a request that changes something comes from a page of this app, or from no page at all. */
function isFromHere({ headers }: Asked, line: Line): boolean {
  const origin = one(headers.origin);
  const site = one(headers['sec-fetch-site']);
  const own = `${line.isEncrypted ? 'https' : 'http'}://${headers.host?.toLowerCase()}`;
  if (origin !== undefined && origin.toLowerCase() !== own) return false;
  if (site !== undefined && site !== 'same-origin') return false;
  // A command says neither; a browser says at least one.
  return origin !== undefined || site !== undefined || line.isOwn;
}

const hasBody = ({ headers }: Asked): boolean =>
  headers['transfer-encoding'] !== undefined || (headers['content-length'] ?? '0') !== '0';
const isJson = (type: string | undefined): boolean =>
  /^application\/json\s*(;\s*charset="?utf-8"?\s*)?$/i.test(type ?? '');

/**
 * Why a request is not let in; null where it is.
 * @param names further names that this machine may be called by
 */
export function refusalOf(asked: Asked, line: Line, names: readonly string[]): Refused | null {
  const { method, target, headers } = asked;
  const path = pathOf(target);
  if (path === null) return refuse(400, 'There is no such address.');
  const methods = METHODS[isApi(path) ? 'api' : 'page'];
  if (!(methods as readonly string[]).includes(method)) return refuse(405, 'This address is not asked in this way.');
  const name = nameIn(headers.host);
  if (name === null || ![...OWN_NAMES, line.address.toLowerCase(), ...names].includes(name))
    return refuse(421, 'Needlefile is not served under this name. A further name is let in by the settings.');
  if (READS.includes(method)) return null;
  if (!isFromHere(asked, line)) return refuse(403, 'Only pages of Needlefile itself can change something here.');
  if (hasBody(asked) && path !== BYTES_GO_TO && !isJson(headers['content-type']))
    return refuse(415, 'Only JSON is read here.');
  return null;
}
