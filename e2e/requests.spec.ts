/** Requests nobody of the page sends: each is answered as docs/security.md says, and none as if the server had failed. */
import { Agent, request } from 'node:http';
import { expect, test } from '@playwright/test';
import { LIMITS } from '../src/core/limits';
import { chance } from '../tests/support/random';

type Sent = {
  readonly method: string;
  readonly target: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
};
type Answer = { readonly status: number; readonly type: string; readonly text: string };

const JSON_TYPE = { 'content-type': 'application/json' };
const NOWHERE = '123e4567-e89b-42d3-a456-426614174000';

/** A typeface that nobody brought in. */
const FACE = `/api/typefaces/${'a'.repeat(64)}`;
const FACE_JOBS = `${FACE}/jobs`;

/** Endpoints by method and path; `ID` and `N` stand for a job and a version. */
const READS = [
  '/api/jobs',
  '/api/jobs/ID',
  '/api/jobs/ID/summary',
  '/api/jobs/ID/pictures/N',
  '/api/jobs/ID/versions/before/N',
  '/api/jobs/ID/versions/N',
  '/api/shop',
  '/api/shop/machines/laser/jobs',
  '/api/row-batches/ID?since=0',
  '/api/typefaces',
  FACE_JOBS,
] as const;
const CHANGES: readonly (readonly [string, string])[] = [
  ['POST', '/api/jobs'],
  ['PUT', '/api/jobs/ID'],
  ['PATCH', '/api/jobs/ID'],
  ['DELETE', '/api/jobs/ID'],
  ['POST', '/api/jobs/ID/duplicate'],
  ['POST', '/api/jobs/ID/restore'],
  ['PATCH', '/api/jobs/ID/versions/N'],
  ['POST', '/api/jobs/ID/versions/N/restore'],
  ['POST', '/api/typefaces'],
  ['DELETE', FACE],
  ['POST', `${FACE}/restore`],
  ['PATCH', '/api/face-marks'],
  ['POST', '/api/shop'],
  ['POST', '/api/row-batches'],
  ['DELETE', '/api/row-batches/ID'],
  ['PUT', '/api/shop/machines/laser'],
  ['DELETE', '/api/shop/machines/laser'],
  ['POST', '/api/shop/machines/laser/restore'],
];
const WITH_BODY = CHANGES.filter(([method, path]) => method !== 'DELETE' && !/duplicate|restore/.test(path));

const ODD_TARGETS = [
  '/%ff',
  '/%',
  '/jobs/%zz',
  '/a%00b',
  '//bench.example',
  '/%5cbench',
  '/api/jobs/%ff',
  '/api/%c0%af',
  '/a%0d%0ab',
];
const FOREIGN_HOSTS = [
  'bench.example',
  'bench.example:80',
  '127.0.0.1.bench.example',
  'localhost.example',
  '127.0.0.2',
  '0.0.0.0',
  '169.254.169.254',
  '[::2]',
  '127.1',
  'x@127.0.0.1',
];
const FOREIGN: readonly Readonly<Record<string, string>>[] = [
  { origin: 'http://bench.example' },
  { origin: 'null' },
  { origin: 'file://' },
  { origin: 'http://127.0.0.1:1' },
  { origin: 'https://127.0.0.1' },
  { 'sec-fetch-site': 'cross-site' },
  { 'sec-fetch-site': 'same-site' },
  { 'sec-fetch-site': 'none' },
];
const ODD_TYPES = [
  'text/plain',
  'application/x-www-form-urlencoded',
  'multipart/form-data; boundary=x',
  'application/xml',
  'application/json; charset=utf-16',
  'application/json, text/plain',
  '',
];
const ODD_IDS = [
  '0',
  '-1',
  'null',
  'undefined',
  'x',
  '..',
  '%2e%2e%2f',
  "'%20or%20'1'='1",
  `${NOWHERE}0`,
  NOWHERE.slice(1),
  '%F0%9F%AA%B5',
  'a'.repeat(300),
  '[object%20Object]',
  '%3Cscript%3E',
  NOWHERE,
];
const ODD_VERSIONS = ['-1', '1.5', '1e3', 'x', '9'.repeat(10), '%2B1', '0x1', '1%20', '%D9%A3'];
const ODD_METHODS = ['TRACE', 'OPTIONS', 'PROPFIND', 'LOCK'];
const ODD_BODIES = [
  '',
  '{',
  'null',
  '7',
  '"x"',
  '[]',
  '{}',
  'NaN',
  '{"a":1}x',
  '\u0000',
  '{"__proto__":{"x":1}}',
  '{"constructor":1}',
  `${'['.repeat(5_000)}${']'.repeat(5_000)}`,
];
const ODD_NAMES = ['', ' ', '\u0000', 'a\u0000b', '\ud800', 'a\udfff', 'x'.repeat(201), 7, null, {}, []];
const ODD_QUERIES = [
  'words=%00',
  `words=${'x'.repeat(300)}`,
  `tag=${'x'.repeat(300)}`,
  'after=x',
  'after=1',
  `after=1.${NOWHERE}x`,
  `after=-1.${NOWHERE}`,
  "after='",
  'tag=%00',
  `after=${'9'.repeat(18)}.${NOWHERE}`,
];
const GOOD_QUERIES = [
  'words=%ff',
  'words=%25_',
  "words='",
  'tag=%27',
  `after=1.${NOWHERE}`,
  'words=a&words=b',
  'x=y',
  `after=${'9'.repeat(17)}.${NOWHERE}`,
];

test('requests nobody of the page sends are answered with a sentence', async ({ baseURL }) => {
  const { hostname, port } = new URL(baseURL as string);
  const agent = new Agent({ keepAlive: true });
  const own = `http://${hostname}:${port}`;
  let asked = 0;

  const ask = ({ method, target, headers = {}, body }: Sent): Promise<Answer> =>
    new Promise((resolve, reject) => {
      asked += 1;
      const length = body === undefined ? {} : { 'content-length': String(Buffer.byteLength(body)) };
      const sent = request(
        { hostname, port, agent, method, path: target, headers: { ...length, ...headers } },
        (res) => {
          let text = '';
          res.on('data', (chunk: Buffer) => {
            text += chunk;
          });
          res.on('end', () => resolve({ status: res.statusCode ?? 0, type: res.headers['content-type'] ?? '', text }));
          res.on('error', reject);
        },
      );
      sent.on('error', (fault) => reject(new Error(`${method} ${target.slice(0, 120)}: ${fault.message}`)));
      sent.end(body);
    });
  /** What is sent is answered with one of some statuses, and a refusal of the API with a sentence. */
  const answered = async (sent: Sent, ...statuses: number[]): Promise<Answer> => {
    const answer = await ask(sent);
    const what = `${sent.method} ${sent.target.slice(0, 120)} ${JSON.stringify(sent.headers ?? {}).slice(0, 120)} ${(sent.body ?? '').slice(0, 60)}`;
    expect(statuses, `${what}: ${answer.status} ${answer.text.slice(0, 200)}`).toContain(answer.status);
    if (answer.status >= 400 && sent.target.startsWith('/api') && sent.method !== 'HEAD') {
      expect(answer.type, what).toMatch(/^application\/json/);
      expect((JSON.parse(answer.text) as { sentence: string }).sentence, what).toMatch(/^\S.*[.?]$/s);
    }
    return answer;
  };
  const make = async (): Promise<string> => {
    const document = { format: 3, title: 'Sawhorse', sheet: { width: 300, height: 200 } };
    const made = await answered(
      { method: 'POST', target: '/api/jobs', headers: JSON_TYPE, body: JSON.stringify({ document }) },
      201,
    );
    return (JSON.parse(made.text) as { id: string }).id;
  };
  const id = await make();
  const at = (path: string, job = id, version = '1') => path.replace('ID', job).replace('N', version);

  for (const target of ODD_TARGETS)
    for (const method of ['GET', 'HEAD', 'POST', 'PUT', 'DELETE']) await answered({ method, target }, 400);

  for (const host of FOREIGN_HOSTS) {
    for (const path of READS) await answered({ method: 'GET', target: at(path), headers: { host } }, 421);
    for (const [method, path] of CHANGES)
      await answered({ method, target: at(path), headers: { host, ...JSON_TYPE } }, 421);
    await answered({ method: 'GET', target: '/', headers: { host } }, 421);
    await answered({ method: 'POST', target: '/api/assets', headers: { host }, body: 'x' }, 421);
  }

  for (const headers of FOREIGN) {
    for (const [method, path] of CHANGES)
      await answered({ method, target: at(path), headers: { ...JSON_TYPE, ...headers }, body: '{}' }, 403);
    await answered({ method: 'POST', target: '/api/assets', headers, body: 'x' }, 403);
  }

  for (const type of ODD_TYPES)
    for (const [method, path] of WITH_BODY)
      await answered({ method, target: at(path), headers: { 'content-type': type, origin: own }, body: '{}' }, 415);

  for (const method of ODD_METHODS)
    for (const path of [...READS, '/', `/jobs/${id}`, '/enter']) await answered({ method, target: at(path) }, 405);
  for (const target of ['/', `/jobs/${id}`, '/enter', '/icon.svg'])
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE'])
      await answered({ method, target, headers: JSON_TYPE }, 405);
  // Methods that an address of the API does not know.
  for (const [method, path] of [
    ['PUT', '/api/jobs'],
    ['DELETE', '/api/jobs'],
    ['POST', '/api/jobs/ID'],
    ['PUT', '/api/shop'],
    ['DELETE', '/api/jobs/ID/versions/N'],
  ] as const)
    expect((await ask({ method, target: at(path), headers: JSON_TYPE })).status).toBe(405);

  for (const odd of ODD_IDS) {
    for (const path of READS.filter((p) => p.includes('ID'))) {
      const { status } = await ask({ method: 'GET', target: at(path, odd) });
      // A list may ask for the picture of a job that was deleted meanwhile: there is none.
      const none = odd === NOWHERE && path.includes('pictures') ? [200] : [400, 404, 308];
      expect(none, `${path} ${odd}`).toContain(status);
    }
    for (const [method, path] of CHANGES.filter(([, p]) => p.includes('ID'))) {
      const body =
        method === 'PATCH'
          ? '{"title":"x","name":"x"}'
          : method === 'PUT'
            ? '{"version":1,"document":{"format":3,"title":"x","sheet":{"width":9,"height":9}},"extras":null}'
            : undefined;
      const { status } = await ask({ method, target: at(path, odd), headers: JSON_TYPE, ...(body && { body }) });
      expect([400, 404, 405, 308], `${method} ${path} ${odd}`).toContain(status);
    }
    const page = await ask({ method: 'GET', target: `/jobs/${odd}` });
    expect([400, 404, 308, 200], odd).toContain(page.status);
    expect(page.status === 200 ? '..' : odd).toBe(odd);
  }
  // Two dots are gone before anything is asked.
  for (const odd of ODD_IDS.filter((o) => o !== '..'))
    for (const [method, path] of [
      ['GET', FACE_JOBS],
      ['DELETE', FACE],
      ['POST', `${FACE}/restore`],
    ] as const) {
      const target = path.replace('a'.repeat(64), encodeURIComponent(odd));
      expect([400, 404, 405, 308], target).toContain((await ask({ method, target, headers: JSON_TYPE })).status);
    }
  for (const odd of ODD_VERSIONS)
    for (const path of READS.filter((p) => p.includes('N') && p.includes('/N')))
      await answered({ method: 'GET', target: at(path, id, odd) }, 404);

  for (const body of ODD_BODIES)
    for (const [method, path] of WITH_BODY)
      await answered({ method, target: at(path), headers: JSON_TYPE, body }, 400, 415, 422);
  for (const name of ODD_NAMES) {
    const document = { format: 3, title: name, sheet: { width: 300, height: 200 } };
    await answered(
      { method: 'PATCH', target: at('/api/jobs/ID'), headers: JSON_TYPE, body: JSON.stringify({ title: name }) },
      422,
    );
    if (name !== '' && name !== ' ')
      await answered(
        { method: 'POST', target: '/api/jobs', headers: JSON_TYPE, body: JSON.stringify({ document }) },
        422,
      );
    if (name !== null)
      await answered(
        { method: 'PATCH', target: at('/api/jobs/ID/versions/N'), headers: JSON_TYPE, body: JSON.stringify({ name }) },
        422,
      );
  }

  // Pictures are not made smaller on the server.
  for (const url of ['%2Ficon.svg', 'http%3A%2F%2Fbench.example%2Fx.png', ''])
    await answered({ method: 'GET', target: `/_next/image?url=${url}&w=64&q=75` }, 400, 404);

  for (const query of ODD_QUERIES) await answered({ method: 'GET', target: `/api/jobs?${query}` }, 404);
  for (const query of GOOD_QUERIES) await answered({ method: 'GET', target: `/api/jobs?${query}` }, 200);

  // Too large: a document, a picture, a file.
  const long = 'x'.repeat(LIMITS.documentBytes + LIMITS.pictureBytes + 100_000);
  await answered(
    { method: 'PUT', target: at('/api/jobs/ID'), headers: JSON_TYPE, body: JSON.stringify({ long }) },
    413,
  );
  const shapes = Array.from({ length: 70 }, () => ({ kind: 'cut', fill: false, d: 'M0 0L1 1'.repeat(12_500) }));
  const extras = { picture: { width: 1, height: 1, shapes }, openFindings: 0 };
  const document = { format: 3, title: 'x', sheet: { width: 300, height: 200 } };
  const pictured = JSON.stringify({ version: 1, document, extras });
  expect(pictured.length).toBeGreaterThan(7_000_000);
  await answered({ method: 'PUT', target: at('/api/jobs/ID'), headers: JSON_TYPE, body: pictured }, 422);
  await answered({ method: 'POST', target: '/api/assets', body: 'x'.repeat(LIMITS.assetBytes + 1) }, 413);
  expect((await ask({ method: 'GET', target: '/', headers: { 'x-long': 'x'.repeat(17_000) } })).status).toBe(431);
  for (const name of ['%', '%ff', '%00', 'x'.repeat(5_000), '%ED%A0%80', '..%2f..%2fetc', '%22%0d%0a'])
    await answered({ method: 'POST', target: '/api/assets', headers: { 'x-name': name }, body: name }, 201);
  for (const asset of ['x', '..', '0'.repeat(63), '0'.repeat(64), 'G'.repeat(64), '%00'])
    expect([400, 404, 308]).toContain((await ask({ method: 'GET', target: `/api/assets/${asset}` })).status);

  // Any of all that with any of the rest.
  const random = chance(840);
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  for (let i = 0; i < 200; i++) {
    const [method, path] = any([...CHANGES, ...READS.map((read) => ['GET', read] as const)]);
    const target = `${at(path, any([...ODD_IDS, NOWHERE]), any(ODD_VERSIONS))}?${any([...ODD_QUERIES, ...GOOD_QUERIES])}`;
    const headers = any([{}, JSON_TYPE, ...FOREIGN, ...ODD_TYPES.map((type) => ({ 'content-type': type }))]);
    const body =
      method === 'GET'
        ? undefined
        : any([
            ...ODD_BODIES,
            ...ODD_NAMES.map((name) =>
              JSON.stringify({ title: name, name, document: name, version: name, extras: name }),
            ),
          ]);
    const { status } = await ask({ method, target, headers, ...(body !== undefined && { body }) });
    expect(status, `${method} ${target} ${body}`).toBeLessThan(500);
  }

  // After all that the job is as it was, and what browsers may read packed is packed.
  const kept = await answered({ method: 'GET', target: `/api/jobs/${id}` }, 200);
  expect(JSON.parse(kept.text)).toMatchObject({ version: 1, document: { title: 'Sawhorse' } });
  const packed = await fetch(`${own}/api/jobs`, { headers: { 'accept-encoding': 'gzip' } });
  expect(packed.headers.get('content-encoding')).toBe('gzip');
  expect(asked).toBeGreaterThan(840);
  agent.destroy();
});
