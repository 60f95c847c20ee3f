/** A job as the machine runs it: every operation in order, from where the one before ended, and how long each takes. */
import type { Job, Operation } from '../document/schema';
import type { Point } from '../geometry/point';
import type { Memory } from '../memo';
import { settingsOn } from '../shop/in-force';
import type { Search } from '../toolpath/ordering/search';
import { costInLength, costInSeconds } from '../toolpath/ordering/stops';
import type { DrawnWork, OperationResult } from './drawn';
import { wayThrough } from './fillings';
import { ORDERED, type OrderedGo, type SearchedSoFar, searchLonger } from './ordered';
import { type OperationTimes, timesOf } from './run-times';

/** An operation as it is run. */
export type OperationRun = {
  readonly operation: Operation;
  readonly goes: readonly OrderedGo[];
  readonly drawn: readonly DrawnWork[];
  /** Where the machine stands before it. */
  readonly from: Point;
  /** Whether it is run in the order that is kept of it. */
  readonly isKeptOrder: boolean;
  /** The way moved without working from one thing to the next, in mm. */
  readonly travelMm: number;
  /** Null where its speed, or the machine, is not known. */
  readonly times: OperationTimes | null;
};

/** A job as it is run: the operations that are on and have something to do, in their order. */
export type JobRun = {
  readonly operations: readonly OperationRun[];
  /** Seconds of those whose time is known. */
  readonly seconds: number;
  /** Names of those whose time is not. */
  readonly unknown: readonly string[];
};

/** Where the machine stands to begin with: the corner of the sheet at which its 0, 0 is. */
export function homeOf({ machine, sheet: { width, height } }: Pick<Job, 'machine' | 'sheet'>): Point {
  const origin = machine?.origin ?? 'lower left';
  if (origin === 'middle') return { x: width / 2, y: height / 2 };
  return { x: origin.endsWith('right') ? width : 0, y: origin.startsWith('upper') ? height : 0 };
}

/** What moving without work costs on the machine of a job, and what tells that apart: the seconds it takes, or the length where there is no machine. */
function costOf({ machine }: Pick<Job, 'machine'>): { readonly cost: Search['cost']; readonly costKey: string } {
  if (!machine) return { cost: costInLength, costKey: '' };
  const slowest = Math.min(machine.acceleration.x, machine.acceleration.y);
  return { cost: costInSeconds(machine.idleSpeed, slowest), costKey: `${machine.idleSpeed},${slowest}` };
}

/** Better and better orders of an operation, from the one in which a job is run; nothing where it runs nothing. */
export function* longerOrders(
  job: Job,
  run: JobRun,
  results: readonly OperationResult[],
  operationId: string,
): Generator<SearchedSoFar, void> {
  const own = run.operations.find((o) => o.operation.id === operationId);
  const goes = results.find((o) => o.operation.id === operationId)?.goes;
  if (own && goes) {
    const { operation, from } = own;
    yield* searchLonger({ operation, goes, from, cost: costOf(job).cost }, own.goes);
  }
}

type RunContext = { readonly job: Job; readonly how: Search['how']; readonly memory: Memory };

/** A job as it is run; yields the share done. */
export function* runSteps(
  results: readonly OperationResult[],
  { job, how, memory }: RunContext,
): Generator<number, JobRun> {
  const running = results.filter((o) => o.operation.on && o.goes.length > 0);
  const { cost, costKey } = costOf(job);
  const operations: OperationRun[] = [];
  let from = homeOf(job);
  let tool = '';
  for (const result of running) {
    const { operation, goes, goesKey } = result;
    const steps = memory.steps(ORDERED, { operation, goes, goesKey, from, cost, costKey, how });
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield (operations.length + step.value) / running.length;
    const settings = settingsOn(operation, job.sheet);
    const isChanged = tool !== '' && settings.tool !== '' && settings.tool !== tool;
    tool = settings.tool || tool;
    const { goes: ordered, isKept } = step.value;
    const drawn = ordered.flatMap((go) => go.drawn);
    operations.push({
      operation,
      goes: ordered,
      drawn,
      from,
      isKeptOrder: isKept,
      travelMm: wayThrough(drawn, memory),
      times: timesOf(ordered, { job, operation, settings, from, isChanged, memory }),
    });
    from = ordered[ordered.length - 1]?.to ?? from;
  }
  return {
    operations,
    seconds: operations.reduce((sum, o) => sum + (o.times?.seconds ?? 0), 0),
    unknown: operations.filter((o) => !o.times).map((o) => o.operation.name),
  };
}
