/** What the bench shows of a job as it is run: how long it takes, and the order. */
import { partsOfGo } from '../core/job/drawn';
import type { JobRun, OperationRun } from '../core/job/run';
import type { OperationTimes } from '../core/job/run-times';

/** An operation as it is run. */
export type OperationRunView = {
  readonly id: string;
  readonly travelMm: number;
  readonly times: OperationTimes | null;
  /** Of each thing that is run in one go where it begins and ends: x, y, x, y. */
  readonly ends: Float64Array;
  /** The parts it works on, in the order in which they are begun. */
  readonly parts: readonly string[];
};

/** A job as it is run. */
export type RunView = {
  readonly operations: readonly OperationRunView[];
  readonly seconds: number;
  /** Names of operations whose time is not known. */
  readonly unknown: readonly string[];
};

const operationView = ({ operation, travelMm, times, goes }: OperationRun): OperationRunView => ({
  id: operation.id,
  travelMm,
  times,
  ends: Float64Array.from(goes.flatMap(({ from, to }) => [from.x, from.y, to.x, to.y])),
  parts: [...new Set(goes.flatMap(({ go }) => partsOfGo(go)))],
});

/** The view of a job as it is run. */
export const runViewOf = ({ operations, seconds, unknown }: JobRun): RunView => ({
  operations: operations.map(operationView),
  seconds,
  unknown,
});
