/** A row worker: takes tasks out of the queue, prepares their rows, and keeps what they came to. */
import { checkJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import type { Database } from '../server/database';
import { batchOf, keepPrepared, tasksFor, wantedOf, workerGoes, workerIsThere } from '../server/row-batches';
import type { RowQueue, TakenTask } from '../server/row-queue';
import type { Preparing } from './prepare';

/** How often a worker says that it is there, in ms. */
const BEAT_MS = 4_000;
/** How long it waits where there is nothing to do, and where the database is away, in ms. */
const IDLE_MS = 300;
const AWAY_MS = 2_000;
/** What of a task is not done after this goes back into the queue, so that others share it and none runs out, in ms. */
const TASK_MS = 3_000;

type Batch = { readonly id: string; readonly job: Job; readonly today: string };

/** What a worker works with. `now` is a clock in ms, `wait` waits so many; `say` hears what goes on. */
export type WorkerMeans = {
  readonly id: string;
  readonly db: Database;
  readonly queue: RowQueue;
  readonly preparing: Preparing;
  readonly now: () => number;
  readonly wait: (ms: number) => Promise<void>;
  readonly say: (line: string) => void;
};

/** Works until it is stopped; what it has begun of a row it ends first. */
export class RowWorker {
  private isStopped = false;
  private batch: Batch | null = null;
  private heard = Number.NEGATIVE_INFINITY;

  constructor(private readonly means: WorkerMeans) {}

  stop(): void {
    this.isStopped = true;
  }

  async run(): Promise<void> {
    const { db, id, wait, say } = this.means;
    let isAway = false;
    while (!this.isStopped) {
      try {
        await this.beat();
        const isDone = await this.next();
        if (isAway) say('The database is back.');
        isAway = false;
        if (!isDone) await wait(IDLE_MS);
      } catch (reason) {
        if (!isAway)
          say(
            `The database is away, or a row could not be prepared: ${reason instanceof Error ? reason.message : 'unknown'}.`,
          );
        isAway = true;
        await wait(AWAY_MS);
      }
    }
    await workerGoes(db, id).catch(() => {});
  }

  /** Do the next task; false where there is none. */
  async next(): Promise<boolean> {
    const { queue } = this.means;
    const task = await queue.take();
    if (!task) return this.giveUp();
    try {
      await this.work(task);
      await queue.done(task);
    } catch (reason) {
      // Others, or this one, try it again.
      await queue.failed(task, reason instanceof Error ? reason.message : 'unknown');
      throw reason;
    }
    return true;
  }

  private async work(task: TakenTask): Promise<void> {
    const { db, queue, preparing, now } = this.means;
    const batch = await this.openBatch(task.batch);
    if (!batch) return;
    const wanted = await wantedOf(db, task);
    const back = (from: number, atOnce?: number) =>
      queue.put(
        tasksFor(
          task.batch,
          wanted.slice(from).map(({ nth }) => nth),
          atOnce,
        ),
      );
    // One of them may be what ended the worker before: each by itself, the others are not given up along with it.
    if (task.isRetried && wanted.length > 1) return back(0, 1);
    const began = now();
    for (const [i, { nth, key }] of wanted.entries()) {
      if (i > 0 && (this.isStopped || now() - began > TASK_MS)) return back(i);
      await keepPrepared(db, key, await preparing.row(batch.job, nth, batch.today));
      await this.beat();
    }
  }

  /** What was tried as often as it may be is told as it is; false where there is none. */
  private async giveUp(): Promise<boolean> {
    const { db, queue } = this.means;
    const task = await queue.takeGivenUp();
    if (!task) return false;
    for (const { key } of await wantedOf(db, task))
      await keepPrepared(db, key, { fault: 'It was begun several times, and its worker ended each time.' });
    return true;
  }

  /** The batch in hand, read once: rows share what is prepared of the same document. */
  private async openBatch(id: string): Promise<Batch | null> {
    const found = await batchOf(this.means.db, id);
    if (!found) return null;
    if (this.batch?.id === id) return this.batch;
    const read = checkJob(found.job);
    if (!read.ok) throw new Error(read.sentences.join(' '));
    this.batch = { id, job: read.job, today: found.today };
    return this.batch;
  }

  private async beat(): Promise<void> {
    const { db, id, now } = this.means;
    if (now() - this.heard < BEAT_MS) return;
    await workerIsThere(db, id);
    this.heard = now();
  }
}
