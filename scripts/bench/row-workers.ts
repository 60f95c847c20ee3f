/** How long lists are shared: two row workers against one, over the same rows. */
import { type ChildProcess, spawn } from 'node:child_process';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { openDatabase } from '../../src/server/database';
import { askRows, lookAtBatch, workersThere } from '../../src/server/row-batches';
import { openRowQueue } from '../../src/server/row-queue';
import { preparedRows } from '../../src/server/schema';
import { figure } from '../../tests/support/figures';
import { NAME_JOBS, namesFor, rosterOfNames } from '../../tests/support/names';
import { postgres } from '../lib/postgres.mjs';
import { middle } from './median';

const ROUNDS = 3;
const ROWS = 600;
const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

const server = postgres('bench-database', { fast: true });
server.remove();
const url = await server.start();
const { database: db, close } = openDatabase(url);
await migrate(db, { migrationsFolder: 'drizzle' });
const queue = await openRowQueue(db, { looks: false });

const tied = NAME_JOBS['tied name'] as (words: string, more?: object) => Parameters<typeof askRows>[2];
/** Names that are not prepared yet: other ones each time. */
const listOf = (count: number, round: string) =>
  tied('‹Name›', {
    roster: rosterOfNames(
      namesFor(count + 20)
        .slice(20)
        .map((name, i) => `${name} ${round} ${i}`),
    ),
  });

async function prepared(count: number, round: string): Promise<number> {
  const began = performance.now();
  const asked = await askRows(db, queue, listOf(count, round), '2026-05-04');
  if (!asked) throw new Error('no worker is there');
  while ((await lookAtBatch(db, asked.batch, Number.MAX_SAFE_INTEGER))?.done !== count) await wait(20);
  return performance.now() - began;
}

const running: ChildProcess[] = [];
const one = () =>
  running.push(
    spawn(process.execPath, ['--import', 'tsx', 'src/row-workers/main.ts'], {
      env: { ...process.env, DATABASE_URL: url },
      stdio: ['ignore', 'ignore', 'inherit'],
    }),
  );
async function times(workers: number): Promise<number[]> {
  while (running.length < workers) one();
  while ((await workersThere(db)) < workers) await wait(100);
  // What is loaded once is loaded.
  await prepared(60, `${workers} first`);
  const all: number[] = [];
  for (let round = 0; round < ROUNDS; round++) all.push(await prepared(ROWS, `${workers} ${round}`));
  return all;
}

const [alone, both] = [middle(await times(1)), middle(await times(2))];
figure({
  name: `${ROWS} tied names by two row workers against one`,
  value: both / alone,
  digits: 2,
  unit: '×',
  aim: { most: 0.7 },
  note: `${(both / 1000).toFixed(1)} s against ${(alone / 1000).toFixed(1)} s`,
});

for (const worker of running) worker.kill('SIGTERM');
await db.delete(preparedRows);
await queue.close();
await close();
server.remove();
process.exit(0);
