/** Figures of several runs as one. */
import { expect, test } from 'vitest';
import { ofRuns } from '../../scripts/lib/runs.mjs';

const figure = (name: string, value: number, note?: string) => ({ name, value, digits: 2, ...(note && { note }) });

test('the median, with the least and the most of the runs beside what it says', () => {
  const runs = [figure('a', 3, 'third'), figure('b', 7), figure('a', 1), figure('a', 2, 'second'), figure('b', 5)];
  expect(ofRuns(runs)).toEqual([
    { name: 'a', value: 2, digits: 2, note: '1.00 to 3.00 in 3 runs; second' },
    { name: 'b', value: 5, digits: 2, note: '5.00 to 7.00 in 2 runs' },
  ]);
});

test('a single run stays as it is; nothing is nothing', () => {
  expect(ofRuns([figure('a', 3, 'only')])).toEqual([figure('a', 3, 'only')]);
  expect(ofRuns([])).toEqual([]);
});
