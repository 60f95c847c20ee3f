/** The tools of a job tried on one part: what each leaves, how far it goes and how long that takes. */
import type { Job, ListedTool } from '../document/schema';
import type { FaceLookup } from '../prepare/prepared';
import { liftsOf } from '../toolpath/hatch/hatch-lines';
import { travelOfLines } from '../toolpath/hatch/in-order';
import type { Evaluator } from './evaluate';

/** What one of the job's tools would come to on a part: lines, lifts, how much it leaves. */
export type ToolTrial = {
  readonly tool: ListedTool;
  /** How wide it works, in mm. */
  readonly widthMm: number;
  /** Share of the area it leaves because it does not fit. */
  readonly beyond: number;
  readonly drawnMm: number;
  readonly lifts: number;
  readonly minutes: number;
  /** It fits nowhere, or would take more lines than are made. */
  readonly unfit: boolean;
};

/** A lift with the way to the next place takes about this long, in seconds. */
export const LIFT_SECONDS = 1;

const minutesFor = (drawnMm: number, travelMm: number, lifts: number, feedMmPerMinute: number): number =>
  (drawnMm + travelMm) / feedMmPerMinute + (lifts * LIFT_SECONDS) / 60;

/** Each tool of the job on a part, in the order of its list. Yields how many tools are done, with the share of the next. */
export function* toolTrials(
  job: Job,
  partId: string,
  evaluator: Evaluator,
  faces: FaceLookup,
): Generator<number, ToolTrial[]> {
  const trials: ToolTrial[] = [];
  for (const tool of job.tools) {
    const { shape, tip, angle, depth } = tool;
    const trying = evaluator.tryTool(job, partId, { shape, tip, angle, depth }, faces);
    let tried = trying.next();
    for (; !tried.done; tried = trying.next()) yield trials.length + Math.min(0.99, tried.value);
    if (!tried.value) return trials;
    const { lines, reach } = tried.value;
    const lifts = liftsOf(lines);
    trials.push({
      tool,
      widthMm: lines.widthMm,
      beyond: reach.missedMm2 / Math.max(reach.areaMm2, 1e-9),
      drawnMm: lines.drawnMm,
      lifts,
      minutes: minutesFor(lines.drawnMm, travelOfLines(lines), lifts, tool.feed),
      unfit: lifts === 0,
    });
    yield trials.length;
  }
  return trials;
}

/**
 * The tool that is proposed: the one that works widest of those that leave at most a share of the area, the quicker of two that
 * are as wide; null when all leave more.
 */
export function proposedTool(trials: readonly ToolTrial[], mostMissed: number): ToolTrial | null {
  return trials
    .filter((t) => !t.unfit && t.beyond <= mostMissed)
    .reduce<ToolTrial | null>(
      (best, t) =>
        !best || t.widthMm > best.widthMm + 1e-9 || (t.widthMm > best.widthMm - 1e-9 && t.minutes < best.minutes)
          ? t
          : best,
      null,
    );
}
