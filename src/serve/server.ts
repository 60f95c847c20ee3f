/** The server in front of the framework: who is let in, and what every answer says, before anything else is done. */
import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { Entrance } from './entrance';
import { isApi, type Line, METHODS, pathOf, type Refused, refusalOf } from './gate';
import { answerHeaders, isBuilt, seenHeaders } from './headers';

/** What a server lets in, and by what it is answered then. */
export type Serving = {
  /** Further names that this machine may be called by. */
  readonly names: readonly string[];
  /** The way in for others; null on this machine's own line. */
  readonly entrance: Entrance | null;
  /** Answers what is let in. */
  readonly handle: RequestListener;
};

/** Where the passphrase is asked for, and where it is sent. */
const ENTER_PAGE = '/enter';
const ENTER = '/api/enter';
/** What everybody may see: the page that asks for the passphrase, and what it is made of. */
const isOpenToAll = (path: string): boolean =>
  isBuilt(path) || [ENTER_PAGE, ENTER, '/icon.svg', '/api/health'].includes(path);
/** Bytes of a passphrase as it is sent, at most. */
const MOST_ENTER_BYTES = 4_096;
/** After a refusal so much is still read, so that its sender hears it; then the line is cut. */
const DRAINED_BYTES = 1024 * 1024;

function refuse(req: IncomingMessage, res: ServerResponse, { status, sentence }: Refused): void {
  const path = pathOf(req.url ?? '');
  res.statusCode = status;
  if (status === 405) res.setHeader('Allow', METHODS[path !== null && isApi(path) ? 'api' : 'page'].join(', '));
  res.setHeader('Connection', 'close');
  res.setHeader('Content-Type', 'application/json; charset=utf-8');
  res.end(JSON.stringify({ sentence }));
  let drained = 0;
  req.on('data', (chunk: Buffer) => {
    drained += chunk.length;
    if (drained > DRAINED_BYTES) req.destroy();
  });
}

/** The body of a request as JSON; null where it is too large or none. */
async function smallBody(req: IncomingMessage): Promise<unknown> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of req as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST_ENTER_BYTES) return null;
    chunks.push(chunk);
  }
  try {
    return JSON.parse(Buffer.concat(chunks).toString('utf8'));
  } catch {
    return null;
  }
}

const seconds = (ms: number): string => {
  const n = Math.ceil(ms / 1000);
  return n === 1 ? 'a second' : `${n} seconds`;
};

async function enter(req: IncomingMessage, res: ServerResponse, entrance: Entrance, isEncrypted: boolean) {
  const body = await smallBody(req);
  const words = (body as { passphrase?: unknown } | null)?.passphrase;
  if (typeof words !== 'string') return refuse(req, res, { status: 400, sentence: 'The request was not readable.' });
  const tried = await entrance.enter(req.socket.remoteAddress ?? '', words, isEncrypted);
  if ('cookie' in tried) {
    res.setHeader('Set-Cookie', tried.cookie);
    res.setHeader('Content-Type', 'application/json; charset=utf-8');
    res.end('{}');
    return;
  }
  res.setHeader('Retry-After', Math.ceil(tried.waitMs / 1000));
  const wait = `Try again in ${seconds(tried.waitMs)}.`;
  if (tried.isWrong) refuse(req, res, { status: 403, sentence: `This is not the passphrase. ${wait}` });
  else refuse(req, res, { status: 429, sentence: `There was a wrong try just now. ${wait}` });
}

/** The framework sets headers of route handlers as lists of one, and then does not recognise what it may compress. */
function withSingleHeaders(res: ServerResponse): void {
  const setHeader = res.setHeader.bind(res);
  res.setHeader = (name, value) => setHeader(name, Array.isArray(value) && value.length === 1 ? value[0] : value);
}

/** Why a request is not let in, by its first lines; null where it is. */
function refusedAtOnce(req: IncomingMessage, { names, entrance }: Serving, isEncrypted: boolean): Refused | null {
  const line: Line = { isEncrypted, address: req.socket.localAddress ?? '', isOwn: entrance === null };
  return refusalOf({ method: req.method ?? '', target: req.url ?? '', headers: req.headers }, line, names);
}

/** Answer a request: refused, let in, or shown where the passphrase is asked for. */
function listener(serving: Serving, isEncrypted: boolean): RequestListener {
  const { entrance, handle } = serving;
  return (req, res) => {
    const target = req.url ?? '';
    const path = pathOf(target) ?? '';
    const nonce = randomBytes(16).toString('base64');
    for (const [name, value] of Object.entries(answerHeaders(path, nonce))) res.setHeader(name, value);
    const refused = refusedAtOnce(req, serving, isEncrypted);
    if (refused) return refuse(req, res, refused);
    if (path === ENTER && req.method === 'POST') {
      if (entrance) return void enter(req, res, entrance, isEncrypted).catch(() => res.destroy());
      return refuse(req, res, { status: 404, sentence: 'No passphrase is needed on this machine.' });
    }
    if (entrance && !isOpenToAll(path) && !entrance.isIn(req.headers.cookie)) {
      if (isApi(path))
        return refuse(req, res, { status: 401, sentence: 'The passphrase is asked for again: open the list of jobs.' });
      res.writeHead(303, { Location: `${ENTER_PAGE}?to=${encodeURIComponent(target)}` }).end();
      return;
    }
    const kind = entrance === null ? 'own' : isEncrypted ? 'encrypted' : 'open';
    withSingleHeaders(res);
    req.headers = seenHeaders(req.headers, nonce, kind);
    handle(req, res);
  };
}

/**
 * A server for one address.
 * @param certificate certificate and key in PEM; null for a line that is not encrypted
 */
export function serverFor(
  serving: Serving,
  certificate: { readonly cert: string; readonly key: string } | null,
): Server {
  const listen = listener(serving, certificate !== null);
  const server = certificate ? createTlsServer(certificate, listen) : createServer(listen);
  // Whoever asks before sending hears the refusal instead of “go on”.
  server.on('checkContinue', (req: IncomingMessage, res: ServerResponse) => {
    if (refusedAtOnce(req, serving, certificate !== null) === null) res.writeContinue();
    listen(req, res);
  });
  return server;
}
