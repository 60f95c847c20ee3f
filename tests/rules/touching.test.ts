/** Gaps that are none are told as what they are, with what to do. */
import { expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, partOf } from '../support/jobs';

const square = (id: string, x: number, y = 60) => ({
  id,
  kind: 'rectangle',
  placement: { x, y },
  width: 20,
  height: 20,
});
const tight = (apart: number) => {
  const members = [square('a', 50), square('b', 70 + apart, 60 + apart)];
  const job = jobWith([partOf(members)], { sheet: { width: 300, height: 200, kerf: 0.5 } });
  const { findings } = new Evaluator(wasmEngine).evaluate(job, faces);
  return findings.filter((f) => f.code === 'tight').map((f) => f.sentence);
};

test('a gap has its width; edges that touch are to be welded or spaced', () => {
  expect(tight(0.2)[0]).toMatch(/^The gap .* is 0\.2\d? mm wide; the kerf is 0\.5 mm\.$/);
  const [sentence] = tight(0.002);
  expect(sentence).toMatch(/^Edges touch .* weld what is to be one, space what is not\.$/);
});
