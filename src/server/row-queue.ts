/**
 * The queue of rows that row workers take theirs from, in PostgreSQL (pg-boss). A job of it is some rows of a batch. One whose worker is
 * killed runs out, and goes to another; one that fails as often as it may is given up.
 */
import PgBoss from 'pg-boss';
import { LIMITS } from '../core/limits';
import type { Database } from './database';

const ROWS = 'rows';
const GIVEN_UP = 'rows-given-up';

/** Longer than a worker may take over the rows of one job, in seconds. */
const RUNS_OUT_SECONDS = LIMITS.rowSeconds + 4;
/** How often it is looked for jobs that have run out. With the above it is less than a minute until they are taken up. */
const LOOK_SECONDS = 5;
const RETRIES = 2;
/** What failed is tried again after this, in seconds: by then a file that could not be fetched is asked for anew. */
const AGAIN_SECONDS = 7;
/** Jobs that are done are of no use to anybody. */
const KEPT_SECONDS = 3_600;

/** Some rows of a batch, by their places. */
export type RowTask = { readonly batch: string; readonly nths: readonly number[] };

/** A task in the hands of a worker. */
export type TakenTask = RowTask & {
  readonly id: string;
  /** It failed before, or its worker is gone. */
  readonly isRetried: boolean;
};

/** The queue, as those see it who put rows in or take them out. */
export type RowQueue = {
  readonly put: (tasks: readonly RowTask[]) => Promise<void>;
  /** The next task; null where there is none now. */
  readonly take: () => Promise<TakenTask | null>;
  /** The next one that was given up; null where there is none. It is out of the queue then. */
  readonly takeGivenUp: () => Promise<RowTask | null>;
  readonly done: (task: TakenTask) => Promise<void>;
  readonly failed: (task: TakenTask, reason: string) => Promise<void>;
  readonly close: () => Promise<void>;
};

const isTask = (data: unknown): data is RowTask =>
  typeof data === 'object' && data !== null && 'batch' in data && 'nths' in data && Array.isArray(data.nths);

const opened = new WeakMap<Database, Promise<RowQueue>>();

/** The queue of the server's own database, opened when first asked for. */
export function rowQueue(db: Database): Promise<RowQueue> {
  const known = opened.get(db);
  if (known) return known;
  const opening = openRowQueue(db, { looks: false });
  opened.set(db, opening);
  opening.catch(() => opened.delete(db));
  return opening;
}

/**
 * The queue in a database; its tables are made where they are not there. `looks` whether this process looks for jobs that ran out.
 */
export async function openRowQueue(db: Database, { looks }: { readonly looks: boolean }): Promise<RowQueue> {
  const boss = new PgBoss({
    db: { executeSql: (text, values) => db.$client.query(text, values) },
    schedule: false,
    supervise: looks,
    maintenanceIntervalSeconds: LOOK_SECONDS,
    archiveCompletedAfterSeconds: KEPT_SECONDS,
    deleteAfterSeconds: KEPT_SECONDS,
  });
  // What goes wrong in the background goes wrong again in what is asked next, and is told there.
  boss.on('error', () => {});
  await boss.start();
  await boss.createQueue(GIVEN_UP);
  const how = {
    retryLimit: RETRIES,
    retryDelay: AGAIN_SECONDS,
    expireInSeconds: RUNS_OUT_SECONDS,
    deadLetter: GIVEN_UP,
  };
  await boss.createQueue(ROWS, { name: ROWS, ...how });
  return {
    put: async (tasks) => {
      if (tasks.length > 0)
        // In their order; what is asked for later waits for the first of what was asked for before, not for the last.
        await boss.insert(tasks.map((data, i) => ({ name: ROWS, data: { ...data }, priority: -i, ...how })));
    },
    take: async () => {
      const [job] = await boss.fetch<unknown>(ROWS, { includeMetadata: true });
      if (!job) return null;
      if (isTask(job.data)) return { ...job.data, id: job.id, isRetried: job.retryCount > 0 };
      await boss.complete(ROWS, job.id);
      return null;
    },
    takeGivenUp: async () => {
      const [job] = await boss.fetch<unknown>(GIVEN_UP);
      if (!job) return null;
      await boss.complete(GIVEN_UP, job.id);
      return isTask(job.data) ? job.data : null;
    },
    done: async ({ id }) => void (await boss.complete(ROWS, id)),
    failed: async ({ id }, reason) => void (await boss.fail(ROWS, id, { reason })),
    close: () => boss.stop({ graceful: false, wait: true, close: false }),
  };
}
