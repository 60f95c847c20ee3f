/** Rows of a long roster, prepared by row workers where there are any: asked for together, told as they are there. */
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { AskedBatch, BatchTold } from '@/api/row-batches';
import type { Job } from '@/core/document/schema';
import { type RowDone, rowFault } from '@/core/job/rows';
import { LIMITS } from '@/core/limits';

/** How often it is asked what is new, in ms. */
const LOOK_MS = 600;
/** As often as this no worker is heard of before the page goes on by itself: one that computes may be late. */
const UNHEARD = 8;

/** Who is told of rows, and of how many there are and how many workers share them. */
export type Hearing = {
  readonly onRows: (rows: readonly RowDone[]) => void;
  readonly onProgress: (done: number, of: number, workers: number) => void;
  /** Whether nobody waits for them any more. */
  readonly isOld: () => boolean;
};

/** Whether a roster is so long that workers are asked. */
export const isForWorkers = (job: Job): boolean =>
  (job.roster?.rows.filter((row) => !row.out).length ?? 0) >= LIMITS.rowsForWorkers;

const rowsIn = ({ rows }: BatchTold): RowDone[] =>
  rows.flatMap(({ rowIds, seen, fault }) =>
    rowIds.map((rowId) => ({ rowId, seen: seen ?? rowFault(fault ?? 'It could not be computed.') })),
  );

/** Hear of the rows of a batch until all are there: true; false where nobody prepares them, or nobody waits for them. */
async function hear(batch: string, { onRows, onProgress, isOld }: Hearing): Promise<boolean> {
  const told = new Set<string>();
  let unheard = 0;
  for (let after = 0; !isOld(); ) {
    const news = await call(API.lookAtRows, { batch, since: String(after) }, null);
    if (isOld()) return false;
    const rows = rowsIn(news).filter(({ rowId }) => !told.has(rowId));
    for (const { rowId } of rows) told.add(rowId);
    after = news.after;
    if (rows.length > 0) onRows(rows);
    onProgress(told.size, news.of, news.workers);
    if (told.size === news.of) return true;
    unheard = news.workers > 0 ? 0 : unheard + 1;
    if (unheard >= UNHEARD) return false;
    // Two that were kept at once may come in either order: what was passed over is asked for once all are there.
    if (news.done === news.of && news.rows.length === 0) after = 0;
    if (news.rows.length < LIMITS.rowsTold) await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
  return false;
}

/** Have row workers prepare the rows of a job; false where there are none, or they went away: the page computes them itself then. */
export async function preparedByWorkers(job: Job, today: string, hearing: Hearing): Promise<boolean> {
  let asked: AskedBatch | null = null;
  try {
    ({ asked } = await call(API.askRows, {}, { document: job, today }));
    return asked !== null && (await hear(asked.batch, hearing));
  } catch (reason) {
    if (!(reason instanceof CallFault)) throw reason;
    return false;
  } finally {
    // What is not there yet is not wanted any more; what is, stays remembered.
    if (asked) void call(API.dropRows, { batch: asked.batch }, null).catch(() => {});
  }
}
