/** Things that come on a plate. */
import { describe, expect, test } from 'vitest';
import { addOnPlate, isPlate } from '../../src/core/commands/on-plate';
import type { Job, Part } from '../../src/core/document/schema';
import type { Box } from '../../src/core/geometry/point';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const BOX: Box = { minX: 40, minY: 60, maxX: 160, maxY: 100 };
const around = { beside: 'part', boxes: new Map([['part', BOX]]), capHeightOf: () => undefined };
const rectangle: Draft = { id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 120, height: 40 };
const plate = (more: Draft = {}, job: Draft = {}) =>
  jobWith(
    [partOf([rectangle], { placement: { x: 100, y: 80 }, work: [{ what: 'outline', operation: 'cut' }], ...more })],
    job,
  );
const last = (job: Job) => job.parts[job.parts.length - 1] as Part;
const work = (part: Part) => part.work.map((w) => `${w.what} ${w.operation}`);

describe('on a plate that is cut', () => {
  test('words are engraved in its middle, no larger than it has room for, and go along with it', () => {
    const { job, partId, memberId } = addOnPlate(plate(), 'lettering', 'part', around);
    const part = last(job);
    expect(part.id).toBe(partId);
    expect(part.members[0]?.id).toBe(memberId);
    expect(work(part)).toEqual(['fill engrave']);
    expect(part.along).toBe('part');
    const [words] = part.members;
    expect(words).toMatchObject({ kind: 'lettering', size: { by: 'capital', mm: 13 } });
    // Its place counts from the plate’s; capitals stand about its middle.
    expect(part.placement.x).toBeCloseTo(0, 6);
    expect(part.placement.y).toBeCloseTo(-0.375 * 13, 6);
  });

  test.each([
    ['one-line lettering', 'outline mark'],
    ['heart', 'fill engrave'],
    ['rectangle', 'outline cut'],
    ['ellipse', 'outline cut'],
  ] as const)('%s: %s', (kind, done) => {
    expect(work(last(addOnPlate(plate(), kind, 'part', around).job))).toEqual([done]);
  });

  test.each([
    [['mark', 'cut'], 'outline mark'],
    [['score', 'cut'], 'outline score'],
    [['cut'], 'outline cut'],
  ])('with nothing but %j words are given to what there is', (kinds, done) => {
    const operations = (kinds as string[]).map((kind) => ({ id: kind, name: kind, kind }));
    expect(work(last(addOnPlate(plate({}, { operations }), 'lettering', 'part', around).job))).toEqual([done]);
  });
});

test.each([
  ['laser', 'fill engrave'],
  ['plasma', 'outline mark'],
  ['water jet', 'outline score'],
] as const)('a %s does what it can: %s', (kind, done) => {
  const machine = { ...machineSchema.parse({ name: 'M', kind }), id: 'm' };
  expect(work(last(addOnPlate({ ...plate(), machine }, 'lettering', 'part', around).job))).toEqual([done]);
});

test('on a plate that is not cut words are as new ones are', () => {
  const marked = plate({ work: [{ what: 'outline', operation: 'mark' }] });
  expect(work(last(addOnPlate(marked, 'lettering', 'part', around).job))).toEqual(['outline cut']);
});

test('on nothing nothing comes', () => {
  const job = plate();
  for (const [id, boxes] of [
    ['gone', around.boxes],
    ['part', new Map()],
  ] as const)
    expect(addOnPlate(job, 'lettering', id, { ...around, boxes })).toEqual({ job, partId: null, memberId: null });
});

test('a plate is a shape or a drawing that stays, without words', () => {
  const is = (members: Draft[], more: Draft = {}) => isPlate(jobWith([partOf(members, more)]).parts[0] as Part);
  expect(is([rectangle])).toBe(true);
  expect(is([rectangle, { ...rectangle, id: 'h', role: 'punch' }])).toBe(true);
  expect(is([rectangle], { keep: 'outside' })).toBe(false);
  expect(is([rectangle], { reference: true })).toBe(false);
  expect(is([rectangle, lettering('Lane')])).toBe(false);
  expect(is([{ id: 'h', kind: 'heart', placement: { x: 0, y: 0 }, width: 20, height: 20 }])).toBe(false);
});
