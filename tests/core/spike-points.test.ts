/** Points of spikes are thin by intent: only a spike that is thin along its sides is found. */
import { expect, test } from 'vitest';
import { type Draft, jobWith, partOf } from '../support/jobs';
import { evaluator } from '../support/stencils';

const thinIn = (spike: Draft, more: Draft[] = []) => {
  const job = jobWith(
    [partOf([{ id: 'spike', kind: 'spike', placement: { x: 50, y: 150 }, height: 80, point: 20, ...spike }, ...more])],
    { sheet: { width: 300, height: 200, leastWidth: 2 } },
  );
  return evaluator.evaluate(job, () => ({ sentence: 'none' })).findings.filter((f) => f.code === 'thin');
};

test('the point of a wide spike is no finding, however long, turned or standing in a bar', () => {
  expect(thinIn({ width: 5 })).toEqual([]);
  expect(thinIn({ width: 2.1, point: 70 })).toEqual([]);
  expect(thinIn({ width: 5, placement: { x: 80, y: 90, turn: 33 } })).toEqual([]);
  expect(
    thinIn({ width: 5 }, [{ id: 'bar', kind: 'bar', placement: { x: 50, y: 150 }, width: 60, height: 6 }]),
  ).toEqual([]);
});

test('a spike that is thin along its sides is found, and so is a bar as thin', () => {
  expect(thinIn({ width: 1.6 })).toHaveLength(1);
  expect(thinIn({ width: 1.6, point: 1 })).toHaveLength(1);
  const bar = { id: 'bar', kind: 'bar', placement: { x: 50, y: 150 }, width: 60, height: 1.2 };
  expect(thinIn({ width: 5 }, [bar])[0]?.sentence).toContain('bar');
});
