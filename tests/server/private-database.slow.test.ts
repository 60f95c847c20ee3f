/**
 * The private database survives what happens to the files around it: whatever is lost, what is in it stays.
 *
 * @module-tag slow
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { afterAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { lock } from '../../scripts/lib/lock.mjs';
import { local } from '../../scripts/lib/paths.mjs';
import { postgres } from '../../scripts/lib/postgres.mjs';
import { servedAt, serving, servingEnded } from '../../scripts/lib/served.mjs';
import { ask } from '../support/ask';

const server = postgres('guarded-database', { fast: true });
const asides: string[] = [];
let home = '';

const kept = async (url: string) => (await ask<{ word: string }>(url, 'select word from kept')).map((row) => row.word);

afterAll(() => {
  server.remove();
  for (const aside of asides) rmSync(aside, { recursive: true, force: true });
});

describe('what is in the database stays', () => {
  beforeEach(async () => {
    vi.spyOn(console, 'log').mockImplementation(() => {});
    server.remove();
    const url = await server.start();
    await ask(url, "create table kept (word text); insert into kept values ('oak')");
    home =
      (await ask<{ folder: string }>(url, "select current_setting('data_directory') as folder"))[0]?.folder.replace(
        /\/data$/,
        '',
      ) ?? '';
    server.stop();
  });

  test.each<[string, (file: string) => void]>([
    ['its address is lost', (file) => rmSync(file)],
    ['its address is empty', (file) => writeFileSync(file, '')],
    ['its address is not readable', (file) => writeFileSync(file, 'oak')],
    ['its address has no password', (file) => writeFileSync(file, 'postgres://needlefile@127.0.0.1:20001/needlefile')],
    ['its password is another', (file) => writeFileSync(file, readFileSync(file, 'utf8').replace(/:[^:@]+@/, ':elm@'))],
  ])('where %s', async (_, spoil) => {
    spoil(path.join(home, 'url'));
    expect(await kept(await server.start())).toEqual(['oak']);
    // And the one after that needs no mending.
    server.stop();
    vi.mocked(console.log).mockClear();
    expect(await kept(await server.start())).toEqual(['oak']);
    expect(console.log).not.toHaveBeenCalled();
  });

  test('where it is started twice', async () => {
    const [one, two] = [await server.start(), await server.start()];
    expect(two).toBe(one);
    expect(await kept(two)).toEqual(['oak']);
  });

  test('where its port is taken by another', async () => {
    const port = Number(new URL(readFileSync(path.join(home, 'url'), 'utf8').trim()).port);
    const other = createServer().listen(port, '127.0.0.1');
    await new Promise((resolve) => other.once('listening', resolve));
    const url = await server.start();
    expect(Number(new URL(url).port)).not.toBe(port);
    expect(await kept(url)).toEqual(['oak']);
    await new Promise((resolve) => other.close(resolve));
  });

  test('where it died and is started again', async () => {
    await server.start();
    const pid = Number(readFileSync(path.join(home, 'data', 'postmaster.pid'), 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGKILL');
    for (let i = 0; i < 50 && server.isRunning(); i++) await new Promise((resolve) => setTimeout(resolve, 100));
    expect(server.isRunning()).toBe(false);
    expect(await kept(await server.start())).toEqual(['oak']);
  });

  test('where starting over sets it aside: brought back as is said, it is there again', async () => {
    const put = server.setAside();
    if (!put) throw new Error('nothing was set aside');
    expect(path.basename(put.aside)).toMatch(/^.*database.*-\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d/);
    expect(put.home).toBe(home);
    const fresh = await server.start();
    expect((await ask(fresh, "select 1 from pg_tables where tablename = 'kept'")).length).toBe(0);
    const second = server.setAside();
    if (!second) throw new Error('nothing was set aside');
    asides.push(second.aside);
    expect(second.aside).not.toBe(put.aside);
    renameSync(put.aside, put.home);
    expect(await kept(await server.start())).toEqual(['oak']);
  });

  test('where making it was cut short: what is half made is put aside, not removed', async () => {
    server.remove();
    mkdirSync(path.join(home, 'data'), { recursive: true });
    writeFileSync(path.join(home, 'data', 'something'), 'oak');
    await server.start();
    const aside = readdirSync(home).find((name) => name.startsWith('data-'));
    expect(readFileSync(path.join(home, aside ?? '', 'something'), 'utf8')).toBe('oak');
  });
});

describe('starting', () => {
  test('is done by one at a time; the next goes on when that is done, or gone', async () => {
    const file = path.join(local, 'trial.lock');
    rmSync(file, { force: true });
    const said: string[] = [];
    const release = await lock('trial');
    const second = lock('trial', () => void said.push('waits'));
    let isIn = false;
    void second.then(() => {
      isIn = true;
    });
    await new Promise((resolve) => setTimeout(resolve, 700));
    expect([isIn, said]).toEqual([false, ['waits']]);
    release();
    (await second)();
    expect(existsSync(file)).toBe(false);
    // One that holds it and is killed does not hold it for good, nor does a number that was given out again.
    const holder = spawn(process.execPath, [
      '-e',
      "import('./scripts/lib/lock.mjs').then(async ({ lock }) => { await lock('trial'); console.log('has it'); setInterval(() => {}, 1000); })",
    ]);
    await new Promise((resolve) => holder.stdout.once('data', resolve));
    const gone = new Promise((resolve) => holder.once('exit', resolve));
    holder.kill('SIGKILL');
    await gone;
    expect(existsSync(file)).toBe(true);
    (await lock('trial'))();
    writeFileSync(file, `${process.pid} 1`);
    (await lock('trial'))();
  });

  test('of many at once, each has it by itself', async () => {
    const counter = path.join(local, 'trial.count');
    rmSync(counter, { force: true });
    const script = `import('./scripts/lib/lock.mjs').then(async ({ lock }) => {
      const fs = await import('node:fs');
      const release = await lock('trial');
      const before = fs.existsSync(${JSON.stringify(counter)}) ? Number(fs.readFileSync(${JSON.stringify(counter)}, 'utf8')) : 0;
      await new Promise((resolve) => setTimeout(resolve, 30));
      fs.writeFileSync(${JSON.stringify(counter)}, String(before + 1));
      release();
    })`;
    await Promise.all(
      Array.from(
        { length: 8 },
        () => new Promise((resolve) => spawn(process.execPath, ['-e', script]).once('exit', resolve)),
      ),
    );
    expect(readFileSync(counter, 'utf8')).toBe('8');
    rmSync(counter, { force: true });
  });

  test('asks the address that is noted: a living process by itself is not the app', async () => {
    vi.stubGlobal('fetch', vi.fn().mockResolvedValue(new Response('{}')));
    const file = path.join(local, 'served.json');
    const before = existsSync(file) ? readFileSync(file, 'utf8') : null;
    try {
      serving('http://127.0.0.1:1');
      expect(await servedAt()).toBe('http://127.0.0.1:1');
      vi.mocked(fetch).mockRejectedValue(new Error('refused'));
      expect(await servedAt()).toBeNull();
      writeFileSync(file, '');
      expect(await servedAt()).toBeNull();
      servingEnded();
      expect(await servedAt()).toBeNull();
    } finally {
      vi.unstubAllGlobals();
      if (before !== null) writeFileSync(file, before);
    }
  });
});
