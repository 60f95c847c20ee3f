/** Row workers as processes: three of them over a long list, one killed in the middle of its rows. */
// @module-tag slow
import { type ChildProcess, spawn } from 'node:child_process';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { rosterOf, setRoster } from '../../src/core/commands/roster';
import { Evaluator } from '../../src/core/job/evaluate';
import { rowSeenSteps } from '../../src/core/job/rows';
import { finished } from '../../src/core/memo';
import type { Database } from '../../src/server/database';
import { askRows, lookAtBatch, workersThere } from '../../src/server/row-batches';
import { openRowQueue, type RowQueue } from '../../src/server/row-queue';
import { preparedRows } from '../../src/server/schema';
import { faces, wasmEngine } from '../support/faces';
import { NAME_JOBS, namesFor } from '../support/names';
import { ownDatabase } from '../support/own-database';
import { inFull } from '../support/scale';

let db: Database;
let url: string;
let close: () => Promise<void>;
let queue: RowQueue;
const running: ChildProcess[] = [];

beforeAll(async () => {
  ({ db, url, close } = await ownDatabase('killed'));
  queue = await openRowQueue(db, { looks: false });
});
afterAll(async () => {
  for (const child of running) child.kill('SIGTERM');
  await Promise.all(
    running.map((child) => child.exitCode ?? child.signalCode ?? new Promise((done) => child.once('exit', done))),
  );
  await queue.close();
  await close();
});

const start = (): ChildProcess => {
  const child = spawn(process.execPath, ['--import', 'tsx', 'src/row-workers/main.ts'], {
    env: { ...process.env, DATABASE_URL: url },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  running.push(child);
  return child;
};
const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
async function until(is: () => Promise<boolean>): Promise<void> {
  while (!(await is())) await wait(50);
}
const active = async () =>
  (await db.execute("select data from pgboss.job where name = 'rows' and state = 'active'")).rows.length;

const DAY = '2026-05-04';
const COUNT = inFull ? 500 : 120;
/** Hard ones among them, no two alike. */
const names = namesFor(COUNT).map((name, i) => (i < 12 ? name : `${name} ${i}`));

test('none is lost, each is kept once, and comes to what a job of that name comes to', async () => {
  const plain = NAME_JOBS['tied name']?.('‹Name›');
  if (!plain) throw new Error('no such job');
  const job = setRoster(
    plain,
    rosterOf(
      ['Name'],
      names.map((name) => [name]),
    ),
  );
  const [killed] = [start(), start(), start()];
  await until(async () => (await workersThere(db)) === 3);
  const asked = await askRows(db, queue, job, DAY);
  if (!asked) throw new Error('nobody is there');
  expect(asked).toMatchObject({ of: COUNT, workers: 3 });
  const look = async (after = 0) => {
    const told = await lookAtBatch(db, asked.batch, after);
    if (!told) throw new Error('the batch is gone');
    return told;
  };
  await until(async () => (await look()).done > COUNT / 4);
  // In the middle of its rows: all three have some in hand.
  await until(async () => (await active()) === 3);
  killed?.kill('SIGKILL');
  const [{ at }] = (await db.execute('select now() as at')).rows as [{ at: string }];
  // Tasks run out by themselves when all is verified; else they are said to have begun earlier, those of the others too.
  if (!inFull)
    await db.execute("update pgboss.job set started_on = started_on - interval '40 seconds' where state = 'active'");
  await until(async () => (await look()).done === COUNT);
  await until(async () => (await workersThere(db)) === 2);
  // What it had in hand was taken up again within a minute.
  const [taken] = (
    await db.execute(
      sql`select count(*)::int as tasks, extract(epoch from max(started_on) - ${at}::timestamptz)::float as seconds
        from pgboss.job where name = 'rows' and retry_count > 0`,
    )
  ).rows as { tasks: number; seconds: number }[];
  expect(taken?.tasks).toBeGreaterThan(0);
  expect(taken?.seconds).toBeLessThan(60);

  const rows = [];
  for (let after = 0; ; ) {
    const told = await look(after);
    if (told.rows.length === 0) break;
    rows.push(...told.rows);
    after = told.after;
  }
  expect(rows.flatMap(({ rowIds }) => rowIds).sort()).toEqual(job.roster?.rows.map((row) => row.id).sort());
  expect(rows.filter(({ fault }) => fault !== null)).toEqual([]);
  expect(rows).toHaveLength(COUNT);
  expect(await db.$count(preparedRows)).toBe(COUNT);

  const evaluator = new Evaluator(wasmEngine);
  for (const nth of [0, 3, 12, 21, 77, COUNT - 1]) {
    const own = finished(rowSeenSteps(job, nth, { today: DAY }, { evaluator, faces }));
    const kept = rows.find(({ rowIds }) => rowIds.includes(job.roster?.rows[nth]?.id ?? ''));
    expect(kept?.seen).toEqual(JSON.parse(JSON.stringify(own)));
  }
});
