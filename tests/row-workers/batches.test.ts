/** Rows prepared by row workers: asked for once, kept once, taken up again where a worker is gone, given up where nothing helps. */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { removeRows, rosterOf, setCell, setRoster } from '../../src/core/commands/roster';
import type { Job } from '../../src/core/document/schema';
import type { RowSeen } from '../../src/core/job/rows';
import { LIMITS } from '../../src/core/limits';
import { openPreparing, type Preparing } from '../../src/row-workers/prepare';
import { RowWorker } from '../../src/row-workers/work';
import { keepAsset } from '../../src/server/assets';
import type { Database } from '../../src/server/database';
import {
  askRows,
  batchOf,
  dropBatch,
  keepPrepared,
  lookAtBatch,
  tasksFor,
  wantedOf,
  workerGoes,
  workerIsThere,
  workersThere,
} from '../../src/server/row-batches';
import { openRowQueue, type RowQueue } from '../../src/server/row-queue';
import { assets, preparedRows, rowBatches, rowWorkers } from '../../src/server/schema';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

let db: Database;
let close: () => Promise<void>;
let queue: RowQueue;
const ME = randomUUID();

beforeAll(async () => {
  ({ db, close } = await ownDatabase('row_workers'));
  queue = await openRowQueue(db, { looks: false });
});
afterAll(async () => {
  await queue.close();
  await close();
});
beforeEach(async () => {
  await db.delete(rowBatches);
  await db.delete(preparedRows);
  await db.delete(rowWorkers);
  await db.execute('delete from pgboss.job');
  await workerIsThere(db, ME);
});

const TODAY = '2026-05-04';
const jobOf = (names: readonly string[]): Job =>
  setRoster(
    jobWith([partOf([lettering('‹Name›')])]),
    rosterOf(
      ['Name'],
      names.map((name) => [name]),
    ),
  );
const plants = (count: number) => Array.from({ length: count }, (_, i) => `Bed ${i}`);
const seenAs = (width: number): RowSeen => ({
  picture: { width, height: 1, shapes: [] },
  findings: [],
  isOnePiece: true,
  size: null,
  bounds: [],
});

/** A worker whose rows come to their number; `row` says otherwise. `clock` is its time in ms. */
function worker(row: (nth: number, job: Job) => number | Error = (nth) => nth + 1, clock = { now: 0 }) {
  const done: number[] = [];
  const preparing: Preparing = {
    row: async (job, nth) => {
      const came = row(nth, job);
      if (came instanceof Error) throw came;
      done.push(nth);
      return { seen: seenAs(came) };
    },
  };
  const working = new RowWorker({
    id: ME,
    db,
    queue,
    preparing,
    now: () => clock.now,
    wait: async () => {},
    say: () => {},
  });
  return { working, done };
}
const allOf = async (working: RowWorker) => {
  for (let rest = 400; (await working.next()) && rest > 0; rest--);
};
const asked = async (job: Job) => {
  const batch = await askRows(db, queue, job, TODAY);
  if (!batch) throw new Error('nobody is there');
  return batch;
};
const waiting = async () =>
  Number((await db.execute("select count(*) from pgboss.job where name = 'rows' and state < 'active'")).rows[0]?.count);

test('without a worker nothing is asked for; one that was not heard of for long, or went, is none', async () => {
  expect(await workersThere(db)).toBe(1);
  await db.execute("update row_workers set seen_at = now() - interval '21 seconds'");
  expect(await workersThere(db)).toBe(0);
  expect(await askRows(db, queue, jobOf(['Ivy']), TODAY)).toBeNull();
  expect(await db.$count(rowBatches)).toBe(0);
  const other = randomUUID();
  await workerIsThere(db, other);
  await workerIsThere(db, other);
  expect(await db.$count(rowWorkers)).toBe(1);
  await workerGoes(db, other);
  expect(await workersThere(db)).toBe(0);
});

test('each row is prepared once, those alike once together, and told as they are there', async () => {
  const names = [...plants(23), 'Bed 3', 'Bed 4'];
  const job = jobOf(names);
  const batch = await asked(job);
  expect(batch).toMatchObject({ of: 25, workers: 1 });
  expect(await lookAtBatch(db, batch.batch, 0)).toMatchObject({ rows: [], done: 0, of: 25, after: 0, workers: 1 });
  const { working, done } = worker();
  expect(await working.next()).toBe(true);
  const some = await lookAtBatch(db, batch.batch, 0);
  // The two that are alike are there with their likes.
  expect(some?.done).toBe(12);
  expect(some?.rows).toHaveLength(10);
  await allOf(working);
  expect(done).toEqual(Array.from({ length: 23 }, (_, i) => i));
  const rest = await lookAtBatch(db, batch.batch, some?.after ?? 0);
  expect(rest?.done).toBe(25);
  const told = [...(some?.rows ?? []), ...(rest?.rows ?? [])];
  expect(told.flatMap(({ rowIds }) => rowIds).sort()).toEqual(job.roster?.rows.map((row) => row.id).sort());
  expect(told.find(({ rowIds }) => rowIds.includes('r24'))).toMatchObject({
    rowIds: ['r4', 'r24'],
    seen: seenAs(4),
    fault: null,
  });
  expect((await lookAtBatch(db, batch.batch, rest?.after ?? 0))?.rows).toEqual([]);
  expect(await db.$count(preparedRows)).toBe(23);
});

test('as many are told at once as may be', async () => {
  const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };
  const { rowsTold } = LIMITS;
  const batch = await asked(jobOf(plants(7)));
  await allOf(worker().working);
  try {
    limits.rowsTold = 5;
    const first = await lookAtBatch(db, batch.batch, 0);
    expect(first?.rows).toHaveLength(5);
    expect((await lookAtBatch(db, batch.batch, first?.after ?? 0))?.rows).toHaveLength(2);
  } finally {
    limits.rowsTold = rowsTold;
  }
});

test('a change prepares only what hangs on it; another day, another document and other files prepare all anew', async () => {
  const job = jobOf(plants(12));
  await asked(job);
  await allOf(worker().working);
  const changed = setCell(job, 'r5', 0, 'Rowan');
  await asked(changed);
  const { working, done } = worker();
  await allOf(working);
  expect(done).toEqual([4]);
  // A row left out, or made more often, prepares nothing.
  await asked(removeRows(changed, ['r1', 'r2']));
  expect(await waiting()).toBe(0);
  await asked({ ...job, title: 'Another' });
  expect(await waiting()).toBe(2);
  await db.execute('delete from pgboss.job');
  // A file that is named and comes only later.
  const face = '0'.repeat(64);
  const named = jobWith([partOf([lettering('‹Name›', 'House', { content: face })])]);
  const withFace = setRoster(named, job.roster);
  await asked(withFace);
  await allOf(worker().working);
  await asked(withFace);
  expect(await waiting()).toBe(0);
  const kept = (await keepAsset(db, Buffer.from('face'), 'house.ttf')) as string;
  await db.update(assets).set({ sha256: face });
  expect(kept).not.toBe(face);
  await asked(withFace);
  expect(await waiting()).toBe(2);
  await db.delete(assets);
});

test('nobody waits any more: what is still in the queue is passed over', async () => {
  const { batch } = await asked(jobOf(plants(40)));
  const { working, done } = worker();
  await working.next();
  expect(await dropBatch(db, batch)).toBe(true);
  expect(await dropBatch(db, batch)).toBe(false);
  await allOf(working);
  expect(done).toHaveLength(10);
  expect(await lookAtBatch(db, batch, 0)).toBeNull();
  expect(await batchOf(db, batch)).toBeNull();
  expect(await waiting()).toBe(0);
});

test('a task that takes long goes back for others to share; a worker that stops gives back what it has not begun', async () => {
  const clock = { now: 0 };
  const { batch } = await asked(jobOf(plants(10)));
  const slow = worker((nth) => {
    clock.now += 2_000;
    return nth + 1;
  }, clock);
  await slow.working.next();
  expect(slow.done).toEqual([0, 1]);
  const stopping = worker((nth) => {
    stopping.working.stop();
    return nth + 1;
  });
  await stopping.working.next();
  expect(stopping.done).toEqual([2]);
  await allOf(worker().working);
  expect(await lookAtBatch(db, batch, 0)).toMatchObject({ done: 10 });
});

test('what a killed worker had in hand runs out and is taken up row by row; what ends every worker is given up and told', async () => {
  const { batch } = await asked(jobOf(plants(10)));
  // Taken, and never heard of again.
  expect(await queue.take()).toMatchObject({ batch, isRetried: false });
  expect(await worker().working.next()).toBe(false);
  const runOut = async () => {
    await db.execute("update pgboss.job set started_on = now() - interval '46 seconds' where state = 'active'");
    await (await looking()).expire();
    await dueNow();
  };
  const dueNow = () => db.execute("update pgboss.job set start_after = now() where state = 'retry'");
  await runOut();
  const { working, done } = worker((nth) => (nth === 6 ? new Error('the end') : nth + 1));
  expect(await working.next()).toBe(true);
  expect(done).toEqual([]);
  for (let rest = 40; rest > 0; rest--) await working.next().catch(dueNow);
  expect(done.sort()).toEqual([0, 1, 2, 3, 4, 5, 7, 8, 9]);
  const told = await lookAtBatch(db, batch, 0);
  expect(told).toMatchObject({ done: 10 });
  expect(told?.rows.filter(({ fault }) => fault !== null)).toMatchObject([
    { rowIds: ['r7'], seen: null, fault: 'It was begun several times, and its worker ended each time.' },
  ]);
  // Asked for again it is tried again.
  await asked(jobOf(plants(10)));
  const again = worker();
  await allOf(again.working);
  expect(again.done).toEqual([6]);
});

test('of two that prepared the same, one is kept', async () => {
  const { batch } = await asked(jobOf(['Ivy']));
  const [wanted] = await wantedOf(db, { batch, nths: [0] });
  await keepPrepared(db, wanted?.key ?? '', { seen: seenAs(1) });
  await keepPrepared(db, wanted?.key ?? '', { seen: seenAs(2) });
  expect((await lookAtBatch(db, batch, 0))?.rows).toMatchObject([{ seen: { picture: { width: 1 } } }]);
  expect(await wantedOf(db, { batch, nths: [0] })).toEqual([]);
});

test('a worker goes on when the database is back', async () => {
  await asked(jobOf(['Ivy']));
  let away = 2;
  const said: string[] = [];
  const working = new RowWorker({
    id: ME,
    db,
    queue: {
      ...queue,
      take: () => (away-- > 0 ? Promise.reject(new Error('connect ECONNREFUSED')) : queue.take()),
    },
    preparing: {
      row: async () => {
        working.stop();
        return { seen: seenAs(1) };
      },
    },
    now: () => 0,
    wait: async () => {},
    say: (line) => said.push(line),
  });
  await working.run();
  expect(said).toEqual([
    'The database is away, or a row could not be prepared: connect ECONNREFUSED.',
    'The database is back.',
  ]);
  expect(await workersThere(db)).toBe(0);
});

test('what nobody asked for in days is let go', async () => {
  const { batch } = await asked(jobOf(['Ivy']));
  await allOf(worker().working);
  await db.execute("update prepared_rows set used_at = now() - interval '8 days'");
  await db.execute("update row_batches set asked_at = now() - interval '25 hours'");
  await asked(jobOf(['Fern']));
  expect(await db.$count(preparedRows)).toBe(0);
  expect(await batchOf(db, batch)).toBeNull();
});

test('what a row comes to while a file can’t be fetched is not kept: it is tried again, and kept once the file is there', async () => {
  let now = 0;
  let isAway = true;
  const poppins = new Uint8Array(readFileSync('public/typefaces/poppins.ttf'));
  const preparing = await openPreparing(
    async () => {
      if (isAway) throw new Error('the disk is away');
      return poppins;
    },
    async () => null,
    () => now,
  );
  const job = jobOf(['Ivy']);
  await expect(preparing.row(job, 0, TODAY)).rejects.toThrow('could not be fetched');
  isAway = false;
  now += 5_000;
  await expect(preparing.row(job, 0, TODAY)).rejects.toThrow('could not be fetched');
  // A file that is not kept is a finding like any other.
  now += 5_000;
  const missing = setRoster(jobWith([partOf([lettering('‹Name›', 'House', { content: '0'.repeat(64) })])]), job.roster);
  const came = await preparing.row(missing, 0, TODAY);
  expect('seen' in came && came.seen.findings.map((f) => f.code)).toContain('no-typeface');
});

test('rows are put into tasks of a few', () => {
  expect(tasksFor('b', [1, 2, 3], 2)).toEqual([
    { batch: 'b', nths: [1, 2] },
    { batch: 'b', nths: [3] },
  ]);
});

/** Looks for tasks that ran out at once, as workers do every few seconds. */
async function looking() {
  const { default: PgBoss } = await import('pg-boss');
  return new PgBoss({ db: { executeSql: (text, values) => db.$client.query(text, values) } }) as unknown as {
    expire: () => Promise<void>;
  };
}
