/** Names laid on sheets, as the page asks for it: told whenever the layout became better, and stopped at any time with the best there is. */
import type { Job } from '../core/document/schema';
import type { Progress } from '../core/job/evaluate';
import { laidRows } from '../core/job/laid-rows';
import type { LaidRows } from '../core/job/lay-out';
import type { FilledWith } from '../core/roster/fields';
import type { RowLayout } from '../core/schema/layout';
import type { Means } from './job-host';

/** Hears of a better layout, and the share of the search that is done. */
export type OnLaid = (laid: LaidRows) => void;

/** The laying under way: one at a time. */
export class Laying {
  private isStopped = false;

  begin(): void {
    this.isStopped = false;
  }

  stop(): void {
    this.isStopped = true;
  }

  *steps(
    job: Job,
    { layout, moves, filling }: { readonly layout: RowLayout; readonly moves: number; readonly filling: FilledWith },
    onLaid: OnLaid,
    means: Means,
  ): Generator<Progress, LaidRows> {
    let best: LaidRows | null = null;
    const steps = laidRows(job, { layout, moves, filling }, means);
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return step.value;
      if (step.value.laid) {
        best = step.value.laid;
        onLaid(best);
      }
      if (this.isStopped && best) return best;
      yield { done: step.value.share, of: 1 };
    }
  }
}
