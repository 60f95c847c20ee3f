/** Going over areas row by row, against counts by hand. */
import { describe, expect, test } from 'vitest';
import { inkRowsOf, uniteRows } from '../../src/core/geometry/ink-rows';
import { closedPath } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import { type AreaMotion, rowsRun } from '../../src/core/motion/area-rows';
import { alike, block } from './blocks';

/** 300 mm/s at 3 m/s²: 15 mm and 0.1 s to get up to speed. */
const motion = (more: Partial<AreaMotion['areas']> = {}, step = 0.1): AreaMotion => ({
  areas: { rows: 'own', way: 'both', runUp: 15, turnSeconds: 0.01, ...more },
  working: alike(300, 3000),
  idle: alike(500, 3000),
  step,
  standsFor: 1,
});
const box = (x: number, y: number, width: number, height: number) => block(x, y, width, height, 0.1);
const seconds = (rows: ReturnType<typeof box>, more: Partial<AreaMotion['areas']> = {}, step = 0.1) =>
  rowsRun(rows, motion(more, step))?.seconds ?? Number.NaN;
/** A row 60 mm wide with both its run-ups. */
const ROW = 60 / 300 + 2 * 0.1;

describe('a block of 100 rows, 60 mm wide', () => {
  const block = box(0, 0, 60, 10);
  test('back and forth: the rows and a turn after each but the last', () => {
    expect(seconds(block)).toBeCloseTo(100 * ROW + 99 * 0.01, 9);
    expect(rowsRun(block, motion())?.rows).toBe(100);
  });
  test('in one direction: back over row and run-ups at idle speed', () => {
    const back = 90 / 500 + 500 / 3000;
    expect(seconds(block, { way: 'one' })).toBeCloseTo(100 * ROW + 99 * (0.01 + back), 9);
  });
  test('without a run-up it gets up to speed within the row', () => {
    expect(seconds(block, { runUp: 0 })).toBeCloseTo(100 * (60 / 300 + 300 / 3000) + 99 * 0.01, 9);
  });
  test('it begins and ends beside the rows', () => {
    const run = rowsRun(block, motion());
    expect(run?.from).toEqual({ x: -15, y: expect.closeTo(0.05, 9) });
    // The hundredth row runs to the left.
    expect(run?.to).toEqual({ x: -15, y: expect.closeTo(9.95, 9) });
  });
});

test('rows without ink are skipped in one move', () => {
  const two = uniteRows([box(0, 0, 60, 10), box(0, 40, 60, 10)]);
  expect(seconds(two)).toBeCloseTo(200 * ROW + 198 * 0.01 + 2 * Math.sqrt(30.1 / 3000), 6);
});

test('rows of two widths: to their own ends, or all to the full width', () => {
  const two = uniteRows([box(0, 0, 60, 10), box(0, 10, 120, 10)]);
  const wide = 120 / 300 + 0.2;
  // The hundredth of the short ones runs to the left, where the wide ones begin too.
  expect(seconds(two)).toBeCloseTo(100 * ROW + 100 * wide + 199 * 0.01, 6);
  expect(seconds(two, { rows: 'full' })).toBeCloseTo(200 * wide + 199 * 0.01, 6);
});

test('where the next row begins farther out, it is drawn out to there or moved to, whichever is quicker', () => {
  const odd = uniteRows([box(0, 0, 60, 9.9), box(0, 9.9, 120, 10.1)]);
  const wide = 120 / 300 + 0.2;
  const [drawnOut, moved] = [60 / 300, 2 * Math.sqrt(60 / 3000)];
  expect(seconds(odd)).toBeCloseTo(99 * ROW + 101 * wide + 199 * 0.01 + Math.min(drawnOut, moved), 6);
});

test('two blocks beside each other on the same rows: the gap is crossed at working speed', () => {
  const beside = uniteRows([box(0, 0, 20, 10), box(100, 0, 20, 10)]);
  expect(seconds(beside)).toBeCloseTo(100 * (120 / 300 + 0.2) + 99 * 0.01, 6);
});

test('a slanted side: each step out or in is drawn out', () => {
  const triangle = inkRowsOf([closedPath([line(0, 0, 100, 0), line(100, 0, 0, 100), line(0, 100, 0, 0)])], 1);
  let by = 0;
  for (let k = 0; k < 100; k++) by += (99.5 - k) / 300 + 0.2;
  // Every other turn is at the slanted side, where the next row begins 1 mm farther in.
  expect(seconds(triangle, {}, 1)).toBeCloseTo(by + 99 * 0.01 + 50 * (1 / 300), 6);
});

test('nothing to go over', () => {
  expect(rowsRun({ first: 0, rows: [] }, motion())).toBeNull();
});
