/**
 * How long it takes to go over areas row by row. Each row is one run from rest to rest, with the run-up on both sides of its ink; between
 * rows the machine turns, and moves to where the next begins. Rows without ink are skipped in one move.
 */
import { numberAt } from '../geometry/elements';
import type { InkRows } from '../geometry/ink-rows';
import type { Point } from '../geometry/point';
import type { Machine } from '../schema/shop/machine';
import { type Motion, straightSeconds } from './machine-motion';

/** How a machine goes over areas. */
export type AreaMotion = {
  readonly areas: NonNullable<Machine['areas']>;
  /** Along a row, and without working; x is along the rows. */
  readonly working: Motion;
  readonly idle: Motion;
  /** From row to row, in mm. */
  readonly step: number;
  /** How many rows each one stands for: more than 1 where not all are looked at, or they are gone over in several passes. */
  readonly standsFor: number;
};

/** What going over areas comes to. */
export type RowsRun = {
  readonly seconds: number;
  readonly rows: number;
  /** Where it begins and ends, along the rows and across them. */
  readonly from: Point;
  readonly to: Point;
};

/** Going over rows of ink from the lowest to the highest; null where there is no ink. The other way round it takes as long. */
export function rowsRun(
  { first, rows }: InkRows,
  { areas, working, idle, step, standsFor }: AreaMotion,
): RowsRun | null {
  const inked = rows.flatMap((row, k) =>
    row.length > 1 ? [{ k: first + k, left: numberAt(row, 0), right: numberAt(row, row.length - 1) }] : [],
  );
  const [lowest] = inked;
  if (!lowest) return null;
  const wholeLeft = inked.reduce((least, r) => Math.min(least, r.left), Infinity);
  const wholeRight = inked.reduce((most, r) => Math.max(most, r.right), -Infinity);
  let seconds = 0;
  let at = 0;
  let last = lowest.k;
  let from: Point | null = null;
  for (const [n, row] of inked.entries()) {
    const [left, right] = areas.rows === 'full' ? [wholeLeft, wholeRight] : [row.left, row.right];
    const isForward = areas.way === 'one' || n % 2 === 0;
    const [begin, end] = isForward
      ? [left - areas.runUp, right + areas.runUp]
      : [right + areas.runUp, left - areas.runUp];
    const y = (row.k + 0.5) * step;
    if (from === null) from = { x: begin, y };
    else {
      const [dx, dy] = [begin - at, (row.k - last) * step];
      const isNext = row.k === last + 1;
      // To the next row it may as well go on working as far as that is quicker than to stop and move; the step up lies within the turn.
      const across = isNext ? straightSeconds(dx, 0, idle) : straightSeconds(dx, dy, idle);
      const drawnOut = areas.way === 'both' && isNext ? Math.abs(dx) / working.speed : Infinity;
      seconds += isNext ? areas.turnSeconds + Math.min(across, drawnOut) : Math.max(areas.turnSeconds, across);
    }
    seconds += straightSeconds(end - begin, 0, working);
    at = end;
    last = row.k;
  }
  return {
    seconds: standsFor * seconds,
    rows: inked.length,
    from: from as Point,
    to: { x: at, y: (last + 0.5) * step },
  };
}
