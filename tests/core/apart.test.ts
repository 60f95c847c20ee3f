/** Boxes gathered where they meet. */
import { expect, test } from 'vitest';
import { meetingBoxes } from '../../src/core/geometry/apart';

test('boxes gather where they meet, through others too', () => {
  const box = (minX: number, maxX: number, minY = 0, maxY = 1) => ({ minX, maxX, minY, maxY });
  expect(meetingBoxes([box(0, 2), box(5, 7), box(1, 3), box(2.5, 4)], 0)).toEqual([[0, 2, 3], [1]]);
  expect(meetingBoxes([box(0, 2), box(0, 2, 5, 6)], 0)).toEqual([[0], [1]]);
  expect(meetingBoxes([box(0, 1), box(1.05, 2)], 0.1)).toEqual([[0, 1]]);
  expect(meetingBoxes([], 0)).toEqual([]);
});
