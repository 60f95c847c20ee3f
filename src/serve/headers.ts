/** What browsers are told with every answer, and what of a request the framework does not see. */
import type { IncomingHttpHeaders } from 'node:http';

/** What pages may load. Nothing but this app's own files; no inline script but those with the word of this one answer. */
const policy = (scripts: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' ${scripts}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "worker-src 'self'",
    "connect-src 'self'",
    "font-src 'self' data:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');

/**
 * A worker is ruled by the policy sent with its own script. WebAssembly needs 'wasm-unsafe-eval', the glue code of the polygon clipper
 * 'unsafe-eval'; pages themselves get neither.
 */
const WORKER_POLICY = policy("'wasm-unsafe-eval' 'unsafe-eval'");

/** Where the files of the build are: the same for everybody. */
export const isBuilt = (path: string): boolean => path.startsWith('/_next/static/');

/**
 * Headers of every answer.
 * @param nonce a word for the inline scripts of this one answer
 */
export const answerHeaders = (path: string, nonce: string): Readonly<Record<string, string>> => ({
  'Content-Security-Policy': isBuilt(path) ? WORKER_POLICY : policy(`'nonce-${nonce}'`),
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
});

/** The request header by which pages hear whether their line is encrypted: "own", "encrypted" or "open". */
export const LINE_HEADER = 'x-needlefile-line';
/** The request header by which pages hear the word for their inline scripts. */
export const NONCE_HEADER = 'x-nonce';

/** What proxies and the framework say among themselves: from outside it is not believed. */
const AMONG_THEMSELVES = /^x-(forwarded|middleware|invoke|matched|now|needlefile|nonce|nextjs)/;

/** The headers of a request as the framework is to see them; it reads the word for its own scripts from the policy. */
export function seenHeaders(headers: IncomingHttpHeaders, nonce: string, line: string): IncomingHttpHeaders {
  const kept = Object.fromEntries(Object.entries(headers).filter(([name]) => !AMONG_THEMSELVES.test(name)));
  return {
    ...kept,
    'content-security-policy': policy(`'nonce-${nonce}'`),
    [NONCE_HEADER]: nonce,
    [LINE_HEADER]: line,
  };
}
