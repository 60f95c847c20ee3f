/** The service of the bench machine over the wire: who is let in, half a file, and being killed in the middle of a run. */
import { type ChildProcess, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { request } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { benchMachineSchema } from '../../src/api/bench-machine';
import { machineSchema } from '../../src/core/schema/shop/machine';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

let port: number;
let home: string;
let service: ChildProcess | null = null;

async function start(): Promise<void> {
  service = spawn(process.execPath, ['--import', 'tsx', 'src/bench-machine/main.ts'], {
    env: {
      ...process.env,
      NEEDLEFILE_MACHINE_PORT: String(port),
      NEEDLEFILE_MACHINE_HOME: home,
      NEEDLEFILE_MACHINE_PACE: '1',
    },
    stdio: 'inherit',
  });
  await expect
    .poll(
      () =>
        fetch(`http://127.0.0.1:${port}/api/state`).then(
          (r) => r.status,
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200);
}
const killed = async (): Promise<void> => {
  const gone = new Promise((resolve) => service?.once('exit', resolve));
  if (service?.pid) process.kill(service.pid, 'SIGKILL');
  await gone;
  service = null;
};

beforeEach(async () => {
  port = await freePort();
  home = mkdtempSync(path.join(tmpdir(), 'needlefile-machine-service-'));
});
afterEach(async () => {
  service?.kill('SIGTERM');
  service = null;
});

const TEXT = `<svg xmlns="http://www.w3.org/2000/svg" width="520mm" height="60mm" viewBox="0 0 520 60"><path fill="none" stroke="#ff0000" d="M10 10H510"/></svg>`;
const file = () => ({
  name: 'long.svg',
  bytes: Buffer.from(TEXT).toString('base64'),
  sha256: createHash('sha256').update(TEXT).digest('hex'),
  machine: machineSchema.parse({ name: 'Laser', kind: 'laser' }),
  set: [{ kind: 'cut', colour: '#ff0000', speed: 1 }],
});
const send = (body: string, headers: Record<string, string> = { 'content-type': 'application/json' }) =>
  fetch(`http://127.0.0.1:${port}/api/runs`, { method: 'POST', body, headers });
const state = async () => benchMachineSchema.parse(await (await fetch(`http://127.0.0.1:${port}/api/state`)).json());
const sentence = async (response: Response) => ((await response.json()) as { sentence: string }).sentence;

test('the rules of Host and Origin are those of the app; what is no file is said', { tags: 'slow' }, async () => {
  await start();
  const raw = (headers: Record<string, string>, method = 'GET', at = '/api/state') =>
    new Promise<number>((resolve, reject) => {
      const asked = request({ host: '127.0.0.1', port, path: at, method, headers }, (response) => {
        response.resume();
        resolve(response.statusCode ?? 0);
      });
      asked.on('error', reject);
      asked.end();
    });
  expect(await raw({ host: `127.0.0.1:${port}` })).toBe(200);
  expect(await raw({ host: 'elsewhere.example' })).toBe(421);
  expect(await raw({ host: `127.0.0.1:${port}`, origin: 'http://elsewhere.example' }, 'POST', '/api/runs')).toBe(403);
  expect(await raw({ host: `127.0.0.1:${port}` }, 'TRACE')).toBe(405);
  expect((await send('x', { 'content-type': 'text/plain' })).status).toBe(415);
  const half = await send(JSON.stringify(file()).slice(0, 300));
  expect([half.status, await sentence(half)]).toEqual([422, expect.stringContaining('Only half of it came')]);
  const odd = await send('{}');
  expect([odd.status, await sentence(odd)]).toEqual([422, 'It is no file with a machine to run it on.']);
  expect((await fetch(`http://127.0.0.1:${port}/api/elsewhere`)).status).toBe(404);
  expect((await state()).runs).toEqual([]);
});

test('killed in the middle of a run it knows where it was, and nothing is lost', { tags: 'slow' }, async () => {
  await start();
  const { id } = (await (await send(JSON.stringify(file()))).json()) as { id: string };
  expect((await send(JSON.stringify({ ...file(), name: 'next.svg' }))).status).toBe(201);
  await expect.poll(async () => (await state()).runs[0]?.done ?? 0, { timeout: 30_000 }).toBeGreaterThan(0.3);
  await killed();
  await start();
  const { runs, log } = await state();
  expect(runs[0]).toMatchObject({ id, name: 'long.svg', state: 'stopped' });
  expect(runs[1]?.name).toBe('next.svg');
  expect(log.map((line) => line.words).join('\n')).toContain('The machine went off in the middle of long.svg');
  await expect.poll(async () => (await state()).runs[1]?.state, { timeout: 30_000 }).toBe('running');
});
