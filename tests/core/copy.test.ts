import { expect, test } from 'vitest';
import { boxCentre, boxWidth } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { LIMITS } from '../../src/core/limits';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const fresh = () => new Evaluator(wasmEngine);
const copyOf = (of: string, more: Draft = {}): Draft => ({
  id: 'copy',
  kind: 'copy',
  of,
  placement: { x: 200, y: 40 },
  ...more,
});
const words = (text: string, more: Draft = {}) => partOf([lettering(text, 'Pacifico')], { id: 'words', ...more });
const area = (part: { outlines: readonly { area: number }[] } | undefined) =>
  (part?.outlines ?? []).reduce((sum, o) => sum + o.area, 0);

test('a copy is the other part\u2019s shape in its own place, turned, mirrored and scaled', () => {
  const placement = { x: 80, y: 60, turn: 30, mirror: true };
  const job = jobWith([words('Lane'), partOf([copyOf('words', { placement, scale: 0.5 })], { id: 'second' })]);
  const [first, second] = fresh().evaluate(job, faces).parts;
  expect(area(second)).toBeCloseTo(area(first) / 4, 6);
  expect(second?.outlines).toHaveLength(first?.outlines.length ?? 0);
  expect(boxCentre(second?.members[0]?.ownBox ?? { minX: 1, minY: 1, maxX: 1, maxY: 1 })).toEqual({
    x: expect.closeTo(0, 9),
    y: expect.closeTo(0, 9),
  });
  expect(second?.outlines.filter((o) => o.depth === 0).every((o) => o.area > 0)).toBe(true);
});

test('it follows new words, and only what hangs on them is computed anew', () => {
  const evaluator = fresh();
  const job = (text: string) =>
    jobWith([words(text), partOf([copyOf('words')], { id: 'second' }), partOf([lettering('O')], { id: 'third' })]);
  const before = evaluator.evaluate(job('Lane'), faces);
  const after = evaluator.evaluate(job('Lanes'), faces);
  expect(area(after.parts[1])).toBeCloseTo(area(after.parts[0]), 9);
  expect(area(after.parts[1])).toBeGreaterThan(area(before.parts[1]));
  expect(after.parts[2]).toBe(before.parts[2]);
  expect(evaluator.evaluate(job('Lane'), faces).parts[1]?.own).toBe(before.parts[1]?.own);
});

test('a copy of a hidden part, of a later part, and of a copy', () => {
  const job = jobWith([
    partOf([copyOf('second', { scale: 2 })], { id: 'first' }),
    partOf([copyOf('words')], { id: 'second' }),
    words('i', { hidden: true }),
  ]);
  const [first, second] = fresh().evaluate(job, faces).parts;
  expect(boxWidth(first?.box ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 })).toBeCloseTo(
    2 * boxWidth(second?.box ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 }),
    6,
  );
});

test('a copy may be cut out of a plate; what overlaps in it is welded', () => {
  const steps = [{ kind: 'weld', on: false }];
  const rim = { id: 'rim', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 200, height: 120 };
  const job = jobWith([
    words('lemon', { steps }),
    partOf([rim, copyOf('words', { role: 'punch', placement: { x: 150, y: 100 } })], { id: 'plate' }),
  ]);
  const [first, plate] = fresh().evaluate(job, faces).parts;
  expect(first?.overlaps).toBe(true);
  const solid = first?.solid.reduce((sum, o) => sum + o.area, 0) ?? 0;
  expect(area(plate)).toBeCloseTo(200 * 120 - solid, 3);
});

test('pieces of a copy are called as in what it copies', () => {
  const sentences = (keep: string) =>
    fresh()
      .evaluate(jobWith([words('i', { hidden: true }), partOf([copyOf('words')], { id: 'copy', keep })]), faces)
      .findings.filter((f) => f.station === 'hold')
      .map((f) => f.sentence);
  expect(sentences('inside')).toEqual(['The dot of i is not attached.']);
  expect(sentences('outside')).toEqual([]);
});

test('copies that are gone, that turn in a circle, or that grow too large are findings; the rest is drawn', {
  tags: 'slow',
}, () => {
  const findings = (parts: Draft[]) => fresh().evaluate(jobWith(parts), faces).findings;
  expect(findings([partOf([copyOf('nobody'), lettering('O')])]).map((f) => f.sentence)).toEqual([
    'The part that \u201cO\u201d copies is no longer there.',
  ]);
  const circle = findings([
    partOf([copyOf('b')], { id: 'a', name: 'A' }),
    partOf([copyOf('a')], { id: 'b', name: 'B' }),
    partOf([copyOf('c')], { id: 'c', name: 'C' }),
  ]);
  expect(circle.map((f) => f.code)).toEqual(['copies-itself', 'copies-itself', 'copies-itself']);
  const doubling = Array.from({ length: 30 }, (_, i) =>
    partOf(
      i === 0
        ? [lettering('bloom', 'Sacramento')]
        : [
            copyOf(`p${i - 1}`, { id: 'x', scale: 0.5 }),
            copyOf(`p${i - 1}`, { id: 'y', scale: 0.5, placement: { x: 200, y: 400 } }),
          ],
      { id: `p${i}` },
    ),
  );
  const result = fresh().evaluate(jobWith(doubling), faces);
  expect(result.findings.some((f) => f.code === 'too-many-segments')).toBe(true);
  const most = Math.max(...result.parts.map((p) => p.outlines.reduce((sum, o) => sum + o.path.segments.length, 0)));
  expect(most).toBeLessThanOrEqual(LIMITS.copiedSegments);
});
