/** A longer search for an order, which may be stopped and then answers with what it found. */
import type { Job } from '../core/document/schema';
import type { JobResult, Progress } from '../core/job/evaluate';
import { longerOrders } from '../core/job/run';
import type { FoundOrder } from '../core/schema/operations';
import { withProgress } from './steps';

/** The best order found, and what its moves take less than those of the order before: in seconds, or in mm where no machine is known. */
export type FoundLonger = { readonly order: FoundOrder; readonly saved: number };
/** Hears the share done, and what is saved so far. */
export type OnFound = (share: number, saved: number) => void;

/** It is told so often, by the share done. */
const TOLD = 0.005;

/** The search that is under way: one at a time. */
export class LongerSearch {
  private isStopped = false;

  begin(): void {
    this.isStopped = false;
  }

  stop(): void {
    this.isStopped = true;
  }

  *steps(job: Job, result: JobResult, operationId: string, onFound?: OnFound): Generator<Progress, FoundLonger | null> {
    const run = yield* withProgress(result.run('full'));
    let best: FoundLonger | null = null;
    let told = 0;
    for (const { share, found, before, after } of longerOrders(job, run, result.operations, operationId)) {
      best = { order: found, saved: before - after };
      if (share >= told + TOLD) {
        told = share;
        onFound?.(share, best.saved);
      }
      if (this.isStopped) break;
      yield { done: share, of: 1 };
    }
    return best;
  }
}
