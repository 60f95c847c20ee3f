/** The server in front of the framework, on this machine's own line and on a second loopback address as another shop's network. */
import { readFileSync } from 'node:fs';
import { type IncomingHttpHeaders, request as plainRequest } from 'node:http';
import { request as tlsRequest } from 'node:https';
import type { AddressInfo, Server } from 'node:net';
import { connect } from 'node:net';
import { afterEach, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { Entrance, keptPassphrase } from '../../src/serve/entrance';
import { serverFor } from '../../src/serve/server';
import type { Passphrase } from '../../src/server/settings';

const WORDS = 'four oak boards';
const PEM = { cert: readFileSync('tests/serve/cert.pem', 'utf8'), key: readFileSync('tests/serve/key.pem', 'utf8') };
let kept: Passphrase;
let servers: Server[];
/** What was let in, as the framework sees it. */
let seen: { url: string | undefined; headers: IncomingHttpHeaders }[];
let bytesRead: number;

beforeAll(async () => {
  kept = await keptPassphrase(WORDS);
});
beforeEach(() => {
  servers = [];
  seen = [];
  bytesRead = 0;
});
afterEach(() => {
  for (const server of servers) server.close();
});

type Answer = { status: number; headers: IncomingHttpHeaders; body: string };

async function serve(address: string, isGuarded: boolean, isEncrypted = false): Promise<number> {
  const server = serverFor(
    {
      names: ['bench.shop'],
      entrance: isGuarded ? new Entrance(kept, Date.now) : null,
      handle: (req, res) => {
        seen.push({ url: req.url, headers: req.headers });
        req.on('data', (chunk: Buffer) => {
          bytesRead += chunk.length;
        });
        req.on('end', () => res.end('the page'));
      },
    },
    isEncrypted ? PEM : null,
  );
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, address, resolve));
  return (server.address() as AddressInfo).port;
}

const ask = (
  address: string,
  port: number,
  method: string,
  path: string,
  {
    headers = {},
    body = '',
    isEncrypted = false,
  }: { headers?: Record<string, string>; body?: string; isEncrypted?: boolean } = {},
): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const send = isEncrypted ? tlsRequest : plainRequest;
    const req = send(
      { host: address, port, method, path, headers, agent: false, rejectUnauthorized: false } as never,
      (res) => {
        let text = '';
        res.on('data', (chunk: Buffer) => {
          text += chunk;
        });
        res.on('end', () => resolve({ status: res.statusCode ?? 0, headers: res.headers, body: text }));
      },
    );
    req.on('error', reject);
    req.end(body);
  });

const enter = (address: string, port: number, words: string, isEncrypted = false) =>
  ask(address, port, 'POST', '/api/enter', {
    headers: { 'content-type': 'application/json', origin: `http${isEncrypted ? 's' : ''}://${address}:${port}` },
    body: JSON.stringify({ passphrase: words }),
    isEncrypted,
  });

describe('on its own line', () => {
  test('every answer says what browsers may do with it', async () => {
    const port = await serve('127.0.0.1', false);
    const answers = [
      await ask('127.0.0.1', port, 'GET', '/'),
      await ask('127.0.0.1', port, 'GET', '/', { headers: { host: 'bench.example' } }),
      await ask('127.0.0.1', port, 'GET', '/_next/static/worker.js'),
    ];
    expect(answers.map((a) => a.status)).toEqual([200, 421, 200]);
    for (const { headers } of answers)
      expect(headers).toMatchObject({
        'x-content-type-options': 'nosniff',
        'referrer-policy': 'no-referrer',
        'cross-origin-resource-policy': 'same-origin',
        'cross-origin-opener-policy': 'same-origin',
      });
    const policies = answers.map((a) => String(a.headers['content-security-policy']));
    expect(policies[0]).toMatch(/script-src 'self' 'nonce-[\w+/=]{24}';/);
    expect(policies[0]).not.toMatch(/script-src[^;]*unsafe/);
    expect(policies[2]).toMatch(/script-src 'self' 'wasm-unsafe-eval' 'unsafe-eval';/);
    // The word for scripts is another each time, and the framework hears it; what a sender says of it is not believed.
    const again = await ask('127.0.0.1', port, 'GET', '/', {
      headers: {
        'x-nonce': 'mine',
        'x-needlefile-line': 'encrypted',
        'x-forwarded-host': 'bench.example',
        'content-security-policy': "script-src 'nonce-mine'",
      },
    });
    expect(again.headers['content-security-policy']).not.toBe(policies[0]);
    const heard = seen.at(-1)?.headers;
    expect(again.headers['content-security-policy']).toContain(`'nonce-${heard?.['x-nonce']}'`);
    expect(heard).toMatchObject({
      'content-security-policy': again.headers['content-security-policy'],
      'x-needlefile-line': 'own',
    });
    expect(heard).not.toHaveProperty('x-forwarded-host');
  });

  test('a refusal is a sentence, before the framework or a body is read', async () => {
    const port = await serve('127.0.0.1', false);
    const refused = await ask('127.0.0.1', port, 'POST', '/api/jobs', {
      headers: { origin: 'http://bench.example', 'content-type': 'application/json' },
      body: 'x'.repeat(200_000),
    });
    expect([refused.status, JSON.parse(refused.body)]).toEqual([
      403,
      { sentence: expect.stringContaining('Only pages of Needlefile') },
    ]);
    const traced = await ask('127.0.0.1', port, 'TRACE', '/');
    expect([traced.status, traced.headers.allow]).toEqual([405, 'GET, HEAD']);
    expect((await ask('127.0.0.1', port, 'OPTIONS', '/api/jobs')).headers.allow).toBe(
      'GET, HEAD, POST, PUT, PATCH, DELETE',
    );
    expect([seen, bytesRead]).toEqual([[], 0]);
  });

  test('who sends on after a refusal is cut off', async () => {
    const port = await serve('127.0.0.1', false);
    const socket = connect(port, '127.0.0.1');
    let sent = 0;
    const isCut = new Promise<boolean>((resolve) => {
      socket.on('error', () => {});
      socket.on('close', () => resolve(true));
    });
    socket.write('POST /api/jobs HTTP/1.1\r\nHost: bench.example\r\nContent-Length: 1000000000\r\n\r\n');
    const chunk = Buffer.alloc(64 * 1024);
    const timer = setInterval(() => {
      if (sent < 64 * 1024 * 1024 && socket.writable) {
        socket.write(chunk);
        sent += chunk.length;
      }
    }, 1);
    expect(await isCut).toBe(true);
    clearInterval(timer);
    expect(sent).toBeLessThan(64 * 1024 * 1024);
  });

  test('who asks before sending is told to go on, or why not', async () => {
    const port = await serve('127.0.0.1', false);
    const told = (host: string): Promise<string> =>
      new Promise((resolve) => {
        const socket = connect(port, '127.0.0.1');
        socket.on('data', (text: Buffer) => {
          resolve(String(text).split('\r\n')[0] as string);
          socket.destroy();
        });
        socket.write(`POST /api/assets HTTP/1.1\r\nHost: ${host}\r\nContent-Length: 5\r\nExpect: 100-continue\r\n\r\n`);
      });
    expect(await told('127.0.0.1')).toBe('HTTP/1.1 100 Continue');
    expect(await told('bench.example')).toMatch(/^HTTP\/1.1 421 /);
  });

  test('no passphrase is asked for, and a name of the settings is let in', async () => {
    const port = await serve('127.0.0.1', false);
    expect((await ask('127.0.0.1', port, 'GET', '/jobs/1')).body).toBe('the page');
    expect((await enter('127.0.0.1', port, WORDS)).status).toBe(404);
    expect((await ask('127.0.0.1', port, 'GET', '/', { headers: { host: `bench.shop:${port}` } })).status).toBe(200);
  });
});

describe('on an address of the network', () => {
  const THERE = '127.0.0.2';

  test('who is not in sees where the passphrase is asked for, and nothing else', async () => {
    const port = await serve(THERE, true);
    const page = await ask(THERE, port, 'GET', '/jobs/1?at=hold');
    expect([page.status, page.headers.location]).toEqual([303, '/enter?to=%2Fjobs%2F1%3Fat%3Dhold']);
    for (const [method, path] of [
      ['GET', '/api/jobs'],
      ['DELETE', '/api/jobs/1'],
      ['GET', '/api/assets/1'],
    ] as const) {
      const refused = await ask(THERE, port, method, path, { headers: { origin: `http://${THERE}:${port}` } });
      expect([refused.status, JSON.parse(refused.body)], path).toEqual([
        401,
        { sentence: expect.stringContaining('passphrase') },
      ]);
    }
    expect(seen).toEqual([]);
    for (const path of ['/enter', '/enter?to=%2F', '/icon.svg', '/api/health', '/_next/static/chunk.js'])
      expect((await ask(THERE, port, 'GET', path)).status, path).toBe(200);
    for (const path of ['/enter/../', '/_next/image', '/_next/data/x.json'])
      expect((await ask(THERE, port, 'GET', path)).status, path).toBe(303);
  });

  test('with the passphrase one is in, and hears that the line is open', async () => {
    const port = await serve(THERE, true);
    const wrong = await enter(THERE, port, 'five oak boards');
    expect([wrong.status, wrong.headers['retry-after'], JSON.parse(wrong.body)]).toEqual([
      403,
      '1',
      { sentence: 'This is not the passphrase. Try again in a second.' },
    ]);
    expect((await enter(THERE, port, WORDS)).status).toBe(429);
    await new Promise((resolve) => setTimeout(resolve, 1_050));
    const right = await enter(THERE, port, WORDS);
    expect(right.status).toBe(200);
    const cookie = String(right.headers['set-cookie']).split(';')[0] as string;
    expect((await ask(THERE, port, 'GET', '/jobs/1', { headers: { cookie } })).body).toBe('the page');
    expect(seen.at(-1)?.headers['x-needlefile-line']).toBe('open');
    const change = {
      headers: { cookie, origin: `http://${THERE}:${port}`, 'content-type': 'application/json' },
      body: '{}',
    };
    expect((await ask(THERE, port, 'PUT', '/api/jobs/1', change)).status).toBe(200);
  });

  test('an encrypted line says so, and its session is for such lines', async () => {
    const port = await serve(THERE, true, true);
    const right = await enter(THERE, port, WORDS, true);
    expect(String(right.headers['set-cookie'])).toContain('; Secure');
    const cookie = String(right.headers['set-cookie']).split(';')[0] as string;
    expect((await ask(THERE, port, 'GET', '/', { headers: { cookie }, isEncrypted: true })).body).toBe('the page');
    expect(seen.at(-1)?.headers['x-needlefile-line']).toBe('encrypted');
  });

  test('what is sent as a passphrase and is none is refused', async () => {
    const port = await serve(THERE, true);
    const origin = `http://${THERE}:${port}`;
    for (const body of ['', '{', '7', 'null', '{"passphrase":7}', `{"passphrase":"${'x'.repeat(5_000)}"}`]) {
      const headers = { origin, 'content-type': 'application/json' };
      expect((await ask(THERE, port, 'POST', '/api/enter', { headers, body })).status, body).toBe(400);
    }
  });
});
