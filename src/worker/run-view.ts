/** What the bench shows of a job as it is run: how long it takes, and the order. */
import type { Job } from '../core/document/schema';
import type { Box } from '../core/geometry/point';
import { partsOfGo } from '../core/job/drawn';
import { type Price, priceOfRun } from '../core/job/price';
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
  /** Whether it is the order that is kept in the document. */
  readonly isKeptOrder: boolean;
};

/** A job as it is run. */
export type RunView = {
  readonly operations: readonly OperationRunView[];
  readonly seconds: number;
  /** Names of operations whose time is not known. */
  readonly unknown: readonly string[];
  /** What it costs; null where nothing is said to cost anything. */
  readonly price: Price | null;
};

const operationView = ({ operation, travelMm, times, goes, isKeptOrder }: OperationRun): OperationRunView => ({
  id: operation.id,
  travelMm,
  times,
  ends: Float64Array.from(goes.flatMap(({ from, to }) => [from.x, from.y, to.x, to.y])),
  parts: [...new Set(goes.flatMap(({ go }) => partsOfGo(go)))],
  isKeptOrder,
});

/** The view of a job as it is run; its work lies within bounds on the sheet. */
export const runViewOf = (job: Job, workBox: Box, run: JobRun): RunView => ({
  operations: run.operations.map(operationView),
  seconds: run.seconds,
  unknown: run.unknown,
  price: priceOfRun(job, workBox, run),
});
