/** The bench machine as a service on this machine's own line: who is let in is decided as for the app. */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { arrivingSchema, RUN_ORDERS } from '../api/bench-machine';
import { LIMITS } from '../core/limits';
import { refusalOf } from '../serve/gate';
import type { Machine } from './machine';

const JSON_TYPE = 'application/json; charset=utf-8';
/** Bytes in base64, with room for what is said beside them. */
const MOST_BODY = Math.ceil((LIMITS.machineFileBytes * 4) / 3) + 1024 * 1024;

const send = (res: ServerResponse, status: number, said: object): void => {
  res.writeHead(status, {
    'content-type': JSON_TYPE,
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
  });
  res.end(JSON.stringify(said));
};

/** A body as JSON; a sentence where it is none, or breaks off. */
async function bodyOf(req: IncomingMessage): Promise<{ readonly body: unknown } | { readonly sentence: string }> {
  const chunks: Buffer[] = [];
  let size = 0;
  try {
    for await (const chunk of req as AsyncIterable<Buffer>) {
      size += chunk.length;
      if (size <= MOST_BODY) chunks.push(chunk);
    }
  } catch {
    return { sentence: 'The line broke off in the middle of it.' };
  }
  if (size > MOST_BODY) return { sentence: `Files of up to ${LIMITS.machineFileBytes / 1024 / 1024} MB are run here.` };
  try {
    return { body: JSON.parse(Buffer.concat(chunks).toString('utf8')) };
  } catch {
    return { sentence: 'Only half of it came, or it is no file that was sent here.' };
  }
}

async function answer(machine: Machine, req: IncomingMessage, res: ServerResponse): Promise<void> {
  const path = (req.url ?? '').split('?')[0] ?? '';
  if (path === '/api/state' && req.method === 'GET') return send(res, 200, machine.state());
  if (path === '/api/runs' && req.method === 'POST') {
    const read = await bodyOf(req);
    if ('sentence' in read) return send(res, 422, read);
    const arriving = arrivingSchema.safeParse(read.body);
    if (!arriving.success) return send(res, 422, { sentence: 'It is no file with a machine to run it on.' });
    const said = await machine.receive(arriving.data);
    return 'ok' in said ? send(res, 201, said.ok) : send(res, 422, said);
  }
  const [, id, word] = /^\/api\/runs\/([0-9a-f]{12})\/([a-z-]+)$/.exec(path) ?? [];
  const order = RUN_ORDERS.find((o) => o.replace(' ', '-') === word);
  if (id && order && req.method === 'POST') {
    const said = machine.order(id, order);
    return 'ok' in said ? send(res, 200, {}) : send(res, 409, said);
  }
  return send(res, 404, { sentence: 'The bench machine has no such address.' });
}

/** The service of a machine. */
export function serviceOf(machine: Machine): Server {
  return createServer((req, res) => {
    const line = { isEncrypted: false, address: req.socket.localAddress ?? '', isOwn: true };
    const refused = refusalOf({ method: req.method ?? '', target: req.url ?? '', headers: req.headers }, line, []);
    if (refused) return send(res, refused.status, { sentence: refused.sentence });
    void answer(machine, req, res).catch((reason: unknown) => {
      console.error(reason);
      send(res, 500, { sentence: 'The bench machine could not do that. Nothing of it was run.' });
    });
  });
}
