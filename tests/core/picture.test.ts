/** The picture of a job for lists. */
import { expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { pictureOf, pictureSchema } from '../../src/core/job/picture';
import { finished } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, partOf } from '../support/jobs';

const pictured = (parts: ReturnType<typeof partOf>[]) => {
  const job = jobWith(parts);
  return finished(pictureOf(job, new Evaluator(wasmEngine).evaluate(job, faces)));
};

test('says where the work lies, y downwards; nothing of none', () => {
  const bar = { id: 'r', kind: 'rectangle', placement: { x: 50, y: 40 }, width: 20, height: 10 };
  const picture = pictured([partOf([bar])]);
  expect(picture).toMatchObject({ width: 300, height: 200, work: { x: 40, y: 155, width: 20, height: 10 } });
  expect(pictureSchema.safeParse(picture).success).toBe(true);
  expect(pictured([])).toEqual({ width: 300, height: 200, shapes: [] });
  // One that was kept before it was said is still a picture.
  expect(pictureSchema.safeParse({ width: 1, height: 1, shapes: [] }).success).toBe(true);
});
