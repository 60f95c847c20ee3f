/** Settings of an operation that its time hangs on, by one name each, wherever in the document they stand. */

import { partsOnSheet } from '../document/on-sheet';
import type { Job, Operation, Part, StepOf } from '../document/schema';
import { stepIn } from '../kinds/steps';
import { LIMITS } from '../limits';
import { settingsOn } from '../shop/in-force';
import { changed } from './changed';
import { typeSetting } from './shop';

/** Settings that time hangs on: of the operation, and of the lines that fill what it works on. */
export const TIMED_SETTINGS = ['speed', 'passes', 'rowDistance', 'overlap', 'tool'] as const;
/** One of them; `tool` is the tool that fills, by its place in the job's list. */
export type TimedSetting = (typeof TIMED_SETTINGS)[number];

const isGiven = ({ work }: Part, what: 'fill' | 'hatch', operationId: string): boolean =>
  work.some((w) => w.what === what && w.operation === operationId);

/** The steps that fill with lines what an operation works on, on the sheet in hand. */
const fillingSteps = (job: Job, operationId: string): StepOf<'hatch'>[] =>
  partsOnSheet(job)
    .filter((part) => isGiven(part, 'hatch', operationId))
    .flatMap((part) => {
      const step = stepIn(part, 'hatch');
      return step?.on ? [step] : [];
    });

const isSameTool = (a: StepOf<'hatch'>['tool'], b: StepOf<'hatch'>['tool']): boolean =>
  a.shape === b.shape && a.tip === b.tip && a.angle === b.angle && a.depth === b.depth;

/** A setting as it is now; null where it is not given, or does not matter to the operation. Speeds in mm a second, lengths in mm. */
export function timedSetting(job: Job, operation: Operation, which: TimedSetting): number | null {
  const now = settingsOn(operation, job.sheet);
  switch (which) {
    case 'speed':
    case 'passes':
      return now[which];
    case 'rowDistance': {
      const fillsAreas = partsOnSheet(job).some((part) => isGiven(part, 'fill', operation.id));
      return fillsAreas && job.machine?.areas ? (now.rowDistance ?? operation.scan?.interval ?? null) : null;
    }
    case 'overlap':
      return fillingSteps(job, operation.id)[0]?.overlap ?? null;
    case 'tool': {
      const [step] = fillingSteps(job, operation.id);
      const at = step ? job.tools.findIndex((tool) => isSameTool(tool, step.tool)) : -1;
      return step && job.tools.length > 1 ? at : null;
    }
  }
}

/** A job with another value of such a setting; those of lines that fill are set for all parts on the sheet in hand that the
 * operation fills. */
export function withTimedSetting(job: Job, operationId: string, which: TimedSetting, value: number): Job {
  switch (which) {
    case 'speed':
    case 'passes':
    case 'rowDistance':
      return typeSetting(job, operationId, which, value);
    case 'overlap':
    case 'tool': {
      const listed = job.tools[value];
      return changed(job, (draft) => {
        for (const step of fillingSteps(draft, operationId)) {
          if (which === 'overlap') step.overlap = value;
          else if (listed) {
            const { shape, tip, angle, depth } = listed;
            step.tool = { shape, tip, angle, depth };
          }
        }
      });
    }
  }
}

/** What speeds and distances of rows are tried, against those of now. */
const SHARES = [0.25, 0.35, 0.5, 0.7, 1, 1.4, 2, 2.8, 4];
const OVERLAPS = [-1, -0.5, -0.25, 0, 0.15, 0.3, 0.5, 0.7];
/** Passes are tried from one to so many more than now. */
const PASSES_MORE = 4;

/** Like a number one would type: two figures that count, of which the second is even where that is near. */
const roundish = (value: number): number => Number(value.toPrecision(2));

const sorted = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** The values of a setting that are worth looking at about that of now, which is among them. */
export function valuesToTry(job: Job, which: TimedSetting, now: number): number[] {
  const about = (least: number, most: number): number[] =>
    sorted([now, ...SHARES.map((share) => (share === 1 ? now : roundish(now * share)))]).filter(
      (value) => value === now || (value >= least && value <= most),
    );
  switch (which) {
    case 'speed': {
      const { machine } = job;
      const most = machine ? Math.max(machine.speed.x, machine.speed.y) : LIMITS.speedMostMmS;
      return about(machine?.slowest ?? LIMITS.speedLeastMmS, most);
    }
    case 'rowDistance':
      return about(0.01, 10);
    case 'passes':
      return Array.from({ length: Math.min(LIMITS.passes, now + PASSES_MORE) }, (_, i) => i + 1);
    case 'overlap':
      return sorted([now, ...OVERLAPS]);
    case 'tool':
      return job.tools.map((_, i) => i);
  }
}
