/** Rows of a roster that are prepared by row workers: asked for as a batch, remembered by what they hang on, told of as they are there. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { and, asc, eq, gt, inArray, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import type { AskedBatch, BatchTold } from '../api/row-batches';
import type { Job } from '../core/document/schema';
import { contentBesideRows, type RowSeen, rowContent } from '../core/job/rows';
import { filesNamed } from '../core/job/taken-along';
import { LIMITS } from '../core/limits';
import { withPartsOfRows } from '../core/roster/in-row';
import type { Database } from './database';
import type { RowQueue, RowTask } from './row-queue';
import { assets, preparedRows, rowBatches, rowsOfBatch, rowWorkers } from './schema';

/** A worker that was not heard of for so long is gone. */
const GONE = sql`now() - interval '20 seconds'`;
/** What nobody asked for so long is let go. */
const STALE = sql`now() - interval '7 days'`;
const STALE_BATCH = sql`now() - interval '1 day'`;
/** Rows that are put into a table in one statement. */
const AT_ONCE = 500;

/** A worker says that it is there. */
export async function workerIsThere(db: Database, id: string): Promise<void> {
  await db
    .insert(rowWorkers)
    .values({ id })
    .onConflictDoUpdate({ target: rowWorkers.id, set: { seenAt: sql`now()` } });
  await db.delete(rowWorkers).where(lt(rowWorkers.seenAt, GONE));
}

/** A worker says that it goes. */
export async function workerGoes(db: Database, id: string): Promise<void> {
  await db.delete(rowWorkers).where(eq(rowWorkers.id, id));
}

/** How many workers there are. */
export const workersThere = (db: Database): Promise<number> => db.$count(rowWorkers, gt(rowWorkers.seenAt, GONE));

/** Tells builds of the app apart: another one may prepare rows otherwise. */
const build = (() => {
  try {
    return readFileSync(path.join(process.cwd(), '.next', 'BUILD_ID'), 'utf8');
  } catch {
    return '';
  }
})();

const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Keys of the rows of a job that are made, with their places: a row with the same key comes to the same. */
async function keysOf(db: Database, job: Job, today: string): Promise<{ nth: number; rowId: string; key: string }[]> {
  const named = filesNamed(withPartsOfRows(job, { today })).map(({ id }) => id);
  // A file that is missing now may be there later.
  const there = await db
    .select({ id: assets.sha256 })
    .from(assets)
    .where(inArray(assets.sha256, named))
    .orderBy(asc(assets.sha256));
  const beside = hashOf(JSON.stringify([build, contentBesideRows(job), there.map(({ id }) => id)]));
  return (job.roster?.rows ?? []).flatMap((row, nth) =>
    row.out ? [] : [{ nth, rowId: row.id, key: hashOf(beside + rowContent(job, nth, { today })) }],
  );
}

/** Tasks for rows at these places. */
export function tasksFor(batch: string, nths: readonly number[], atOnce: number = LIMITS.rowsAtOnce): RowTask[] {
  const tasks: RowTask[] = [];
  for (let from = 0; from < nths.length; from += atOnce) tasks.push({ batch, nths: nths.slice(from, from + atOnce) });
  return tasks;
}

/**
 * Ask workers for the rows of a job that are made. What some came to is known already; of the others each is put into the queue. Null
 * where there is no worker.
 */
export async function askRows(db: Database, queue: RowQueue, job: Job, today: string): Promise<AskedBatch | null> {
  const workers = await workersThere(db);
  if (workers === 0) return null;
  const rows = await keysOf(db, job, today);
  const keys = rows.map(({ key }) => key);
  const { batch, known } = await db.transaction(async (tx) => {
    await tx.delete(rowBatches).where(lt(rowBatches.askedAt, STALE_BATCH));
    await tx.delete(preparedRows).where(lt(preparedRows.usedAt, STALE));
    // What could not be prepared is tried again.
    await tx.delete(preparedRows).where(and(inArray(preparedRows.key, keys), isNotNull(preparedRows.fault)));
    const used = await tx
      .update(preparedRows)
      .set({ usedAt: sql`now()` })
      .where(inArray(preparedRows.key, keys))
      .returning({ key: preparedRows.key });
    const [made] = await tx.insert(rowBatches).values({ document: job, today }).returning({ id: rowBatches.id });
    const id = made?.id as string;
    for (let from = 0; from < rows.length; from += AT_ONCE)
      await tx.insert(rowsOfBatch).values(rows.slice(from, from + AT_ONCE).map((row) => ({ batch: id, ...row })));
    return { batch: id, known: new Set(used.map(({ key }) => key)) };
  });
  const asked = new Set(known);
  const wanting = rows.filter(({ key }) => !asked.has(key) && asked.add(key)).map(({ nth }) => nth);
  try {
    await queue.put(tasksFor(batch, wanting));
  } catch (reason) {
    await dropBatch(db, batch).catch(() => {});
    throw reason;
  }
  return { batch, of: rows.length, workers };
}

/** What is new of a batch since `after`, 0 for all; null where it is no longer there. */
export async function lookAtBatch(db: Database, batch: string, after: number): Promise<BatchTold | null> {
  const [counts] = await db
    .select({ of: sql<number>`count(*)::int`, done: sql<number>`count(${preparedRows.key})::int` })
    .from(rowsOfBatch)
    .leftJoin(preparedRows, eq(preparedRows.key, rowsOfBatch.key))
    .where(eq(rowsOfBatch.batch, batch));
  const there = await db.$count(rowBatches, eq(rowBatches.id, batch));
  if (there === 0 || !counts) return null;
  const rows = await db
    .select({
      rowIds: sql<string[]>`array_agg(${rowsOfBatch.rowId} order by ${rowsOfBatch.nth})`,
      seen: preparedRows.seen,
      fault: preparedRows.fault,
      serial: preparedRows.serial,
    })
    .from(rowsOfBatch)
    .innerJoin(preparedRows, eq(preparedRows.key, rowsOfBatch.key))
    .where(and(eq(rowsOfBatch.batch, batch), gt(preparedRows.serial, after)))
    .groupBy(preparedRows.key)
    .orderBy(asc(preparedRows.serial))
    .limit(LIMITS.rowsTold);
  return {
    rows: rows.map(({ rowIds, seen, fault }) => ({ rowIds, seen, fault })),
    after: rows.at(-1)?.serial ?? after,
    ...counts,
    workers: await workersThere(db),
  };
}

/** Nobody waits for a batch any more: what of it is still in the queue is passed over. False where there is no such batch. */
export async function dropBatch(db: Database, batch: string): Promise<boolean> {
  const dropped = await db.delete(rowBatches).where(eq(rowBatches.id, batch)).returning({ id: rowBatches.id });
  return dropped.length > 0;
}

/** The document of a batch; null where nobody waits for it any more. */
export async function batchOf(db: Database, batch: string): Promise<{ job: Job; today: string } | null> {
  const [found] = await db
    .select({ job: rowBatches.document, today: rowBatches.today })
    .from(rowBatches)
    .where(eq(rowBatches.id, batch));
  return found ?? null;
}

/** Of rows of a batch those that nothing is known of yet, each with its key. */
export async function wantedOf(db: Database, { batch, nths }: RowTask): Promise<{ nth: number; key: string }[]> {
  return db
    .select({ nth: rowsOfBatch.nth, key: rowsOfBatch.key })
    .from(rowsOfBatch)
    .leftJoin(preparedRows, eq(preparedRows.key, rowsOfBatch.key))
    .where(and(eq(rowsOfBatch.batch, batch), inArray(rowsOfBatch.nth, [...nths]), isNull(preparedRows.key)))
    .orderBy(asc(rowsOfBatch.nth));
}

/** Keep what a row came to, or why it could not be prepared. Of two that prepared the same, the first is kept. */
export async function keepPrepared(
  db: Database,
  key: string,
  came: { readonly seen: RowSeen } | { readonly fault: string },
): Promise<void> {
  await db
    .insert(preparedRows)
    .values({ key, ...came })
    .onConflictDoNothing();
}
