/** Who is let in, by the first lines of a request alone. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Asked, isApi, type Line, pathOf, refusalOf } from '../../src/serve/gate';

const OWN: Line = { isEncrypted: false, address: '127.0.0.1', isOwn: true };
const SHOP: Line = { isEncrypted: false, address: '192.168.1.5', isOwn: false };
const HOST = '127.0.0.1:3480';

const asked = (method: string, target: string, headers: Asked['headers'] = {}): Asked => ({
  method,
  target,
  headers: { host: HOST, ...headers },
});
const statusOf = (one: Asked, line = OWN, names: readonly string[] = []) => refusalOf(one, line, names)?.status ?? null;
const json = { 'content-type': 'application/json', 'content-length': '2' };

describe('the name a server is called by', () => {
  test.each(['127.0.0.1', '127.0.0.1:3480', 'localhost:1', 'LOCALHOST:3480', '[::1]:3480', '[::1]'])(
    '%s is its own',
    (host) => expect(statusOf(asked('GET', '/', { host }))).toBeNull(),
  );

  test.each([
    'bench.example',
    'bench.example:3480',
    '127.0.0.1.bench.example:3480',
    'localhost.example',
    '127.0.0.2:3480',
    '192.168.1.5',
    '0.0.0.0:3480',
    '2130706433:3480',
    '',
    ':3480',
    '127.0.0.1:x',
    '127.0.0.1@bench.example',
    '127.0.0.1, bench.example',
    ' 127.0.0.1',
    '[::1',
  ])('“%s” is none of its own: whatever is asked, also by reading', (host) => {
    for (const method of ['GET', 'HEAD', 'POST', 'DELETE'])
      expect(statusOf(asked(method, '/api/jobs', { host })), method).toBe(421);
  });

  test('a missing one is none', () => {
    expect(refusalOf({ method: 'GET', target: '/', headers: {} }, OWN, [])?.status).toBe(421);
  });

  test('further ones are those of the settings, and the address it came to', () => {
    expect(statusOf(asked('GET', '/', { host: 'Bench.Shop:3480' }), OWN, ['bench.shop'])).toBeNull();
    expect(statusOf(asked('GET', '/', { host: '192.168.1.5:3480' }), SHOP)).toBeNull();
    expect(statusOf(asked('GET', '/', { host: '192.168.1.6:3480' }), SHOP)).toBe(421);
  });
});

describe('whose page a change comes from', () => {
  const post = (headers: Asked['headers']) => asked('POST', '/api/jobs', { ...json, ...headers });

  test('its own pages, and what is no page at all on this machine', () => {
    expect(statusOf(post({}))).toBeNull();
    expect(statusOf(post({ origin: `http://${HOST}` }))).toBeNull();
    expect(statusOf(post({ origin: `http://${HOST}`, 'sec-fetch-site': 'same-origin' }))).toBeNull();
    expect(statusOf(post({ 'sec-fetch-site': 'same-origin' }))).toBeNull();
  });

  test.each<[string, Asked['headers']]>([
    ['another page', { origin: 'http://bench.example' }],
    ['another port', { origin: 'http://127.0.0.1:3481' }],
    ['another scheme', { origin: `https://${HOST}` }],
    ['another name of this machine', { origin: 'http://localhost:3480' }],
    ['a page without an origin', { origin: 'null' }],
    ['another site', { 'sec-fetch-site': 'cross-site' }],
    ['the same site', { 'sec-fetch-site': 'same-site' }],
    ['an address that was typed', { 'sec-fetch-site': 'none' }],
    ['a word nobody knows', { 'sec-fetch-site': 'here' }],
    ['its own origin on another site', { origin: `http://${HOST}`, 'sec-fetch-site': 'cross-site' }],
  ])('not %s', (_who, headers) => {
    expect(statusOf(post(headers))).toBe(403);
    for (const method of ['PUT', 'PATCH', 'DELETE'])
      expect(statusOf(asked(method, '/api/jobs/1', headers)), method).toBe(403);
    expect(statusOf(asked('POST', '/api/assets', { 'content-length': '1', ...headers }))).toBe(403);
    expect(statusOf(asked('GET', '/api/jobs', headers))).toBeNull();
  });

  test('from the network, not what says nothing of where it comes from', () => {
    const host = '192.168.1.5:3480';
    expect(statusOf(post({ host }), SHOP)).toBe(403);
    expect(statusOf(post({ host, origin: `http://${host}` }), SHOP)).toBeNull();
    const encrypted = { ...SHOP, isEncrypted: true };
    expect(statusOf(post({ host, origin: `http://${host}` }), encrypted)).toBe(403);
    expect(statusOf(post({ host, origin: `https://${host}` }), encrypted)).toBeNull();
  });
});

describe('what is sent', () => {
  test.each(['application/json', 'Application/JSON; charset=utf-8', 'application/json;charset="UTF-8"'])(
    '%s is JSON',
    (type) => expect(statusOf(asked('PUT', '/api/jobs/1', { ...json, 'content-type': type }))).toBeNull(),
  );

  test.each([
    undefined,
    '',
    'text/plain',
    'application/x-www-form-urlencoded',
    'multipart/form-data; boundary=x',
    'application/jsonp',
    'text/plain; application/json',
    'application/json; charset=utf-16',
    'application/json, text/plain',
  ])('%s is not', (type) => {
    const headers = { 'content-length': '2', ...(type === undefined ? {} : { 'content-type': type }) };
    expect(statusOf(asked('PUT', '/api/jobs/1', headers))).toBe(415);
    expect(
      statusOf(asked('POST', '/api/jobs', { ...headers, 'content-length': undefined, 'transfer-encoding': 'chunked' })),
    ).toBe(415);
    // Files are sent as they are.
    expect(statusOf(asked('POST', '/api/assets', headers))).toBeNull();
  });

  test('where nothing is sent, nothing is to be said of it', () => {
    expect(statusOf(asked('DELETE', '/api/jobs/1'))).toBeNull();
    expect(statusOf(asked('POST', '/api/jobs/1/restore', { 'content-length': '0' }))).toBeNull();
  });
});

describe('the address and the way it is asked', () => {
  test.each([
    '/%ff',
    '/jobs/%',
    '/jobs/%zz',
    '/a%00b',
    '//bench.example',
    '/\\bench.example',
    '/%5cx',
    'http://bench.example/',
    '*',
    '',
    '/a%0d%0ab',
  ])('“%s” is none', (target) => {
    expect(pathOf(target)).toBeNull();
    expect(statusOf(asked('GET', target))).toBe(400);
  });

  test('any other is read without its query', () => {
    expect(pathOf('/jobs/a%20b?x=%ff#y')).toBe('/jobs/a%20b');
    fc.assert(
      fc.property(fc.webPath(), (path) => {
        fc.pre(path !== '' && !path.startsWith('//'));
        expect(pathOf(path)).toBe(path);
      }),
    );
  });

  test('pages are read only, and no address is asked in odd ways', () => {
    expect(isApi('/api/jobs')).toBe(true);
    expect(isApi('/apis')).toBe(false);
    for (const method of ['TRACE', 'OPTIONS', 'CONNECT', 'PROPFIND', 'get', '']) {
      expect(statusOf(asked(method, '/api/jobs')), method).toBe(405);
      expect(statusOf(asked(method, '/')), method).toBe(405);
    }
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE'])
      expect(statusOf(asked(method, '/jobs/1')), method).toBe(405);
  });
});
