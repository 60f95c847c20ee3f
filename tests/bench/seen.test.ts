/** What commands ask of what was computed. */
import { expect, test } from 'vitest';
import { cornersOf, measureOf, ownMiddle } from '../../src/bench/seen';
import { openJob } from '../support/bench';
import { rectangle, viewed } from '../support/commands';
import { jobWith, lettering, partOf } from '../support/jobs';

test('first values are made from the largest capital, or a third of the height', () => {
  const job = jobWith(
    [
      partOf([lettering('Lane'), { ...lettering('Lane', 'Poppins', { size: { by: 'capital', mm: 40 } }), id: 'b' }]),
      partOf([rectangle('r', 50, { height: 30 })], { id: 'shape' }),
    ],
    { sheet: { width: 300, height: 200, leastWidth: 1.5, kerf: 0.2 } },
  );
  const view = viewed(job);
  expect(measureOf(job, view.parts[0])).toEqual({ capHeightMm: 40, leastWidthMm: 1.5, kerfMm: 0.2 });
  expect(measureOf(job, view.parts[1])?.capHeightMm).toBeCloseTo(10, 6);
  expect(measureOf(job, undefined).capHeightMm).toBe(10);
});

test('the corners of a box after a matrix, counter-clockwise from the lower left', () => {
  const box = { minX: 1, minY: 2, maxX: 4, maxY: 6 };
  expect(cornersOf(box, { a: 0, b: 1, c: -1, d: 0, e: 10, f: 0 })).toEqual([
    { x: 8, y: 1 },
    { x: 8, y: 4 },
    { x: 4, y: 4 },
    { x: 4, y: 1 },
  ]);
});

test('the middle of a part is told in its own coordinates; of nothing it is its origin', () => {
  openJob(
    jobWith([
      partOf([rectangle('r', 50)], { placement: { x: 9, y: 9, turn: 30 } }),
      partOf([lettering(' ')], { id: 'empty' }),
    ]),
  );
  expect(ownMiddle('part').x).toBeCloseTo(50, 9);
  expect(ownMiddle('part').y).toBeCloseTo(100, 9);
  expect([ownMiddle('empty'), ownMiddle('gone')]).toEqual([
    { x: 0, y: 0 },
    { x: 0, y: 0 },
  ]);
});
