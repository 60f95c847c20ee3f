/** Parts so near that the cut of one takes stock of the other: what is found, where, and what is not. */
import { describe, expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const plate = (id: string, x: number, more: Draft = {}): Draft =>
  partOf([{ id: 'shape', kind: 'rectangle', placement: { x, y: 60 }, width: 40, height: 20 }], {
    id,
    name: id,
    ...more,
  });
/** What is found of plates 40 mm wide, so far apart, by cuts that run on this side. */
const found = (parts: Draft[], operations: Draft[], kerf: number | null = 0.4) =>
  evaluator
    .evaluate(jobWith(parts, { operations, sheet: { width: 400, height: 200, kerf } }), faces)
    .findings.filter((f) => f.code === 'cuts-near');
const cutting = (kerfSide: string, id = 'cut'): Draft => ({ id, name: id, kind: 'cut', kerfSide });
const two = (apart: number, more: Draft = {}) => [plate('A', 60), plate('B', 100 + apart, more)];

describe('two plates', () => {
  test('nearer than the kerf are found where they are nearest, farther ones are not', () => {
    const [near, ...others] = found(two(0.1), [cutting('beside')]);
    expect(others).toEqual([]);
    expect(near?.sentence).toBe(
      '“A” is 0.1 mm from “B”, of which its cut takes stock: the kerf reaches 0.4 mm from the outline.',
    );
    expect(near?.box?.minX).toBeCloseTo(80 - 0.4, 6);
    expect(found(two(0.38), [cutting('beside')])).toHaveLength(1);
    expect(found(two(0.395), [cutting('beside')])).toEqual([]);
  });

  test('what both cuts take on their outlines is as it was asked for', () => {
    expect(found(two(0), [cutting('line')])).toEqual([]);
    expect(found(two(0.1), [cutting('line')])).toEqual([]);
  });

  test('a cut beside its outlines takes of one whose own runs on them, as far as that leaves it', () => {
    const by = { work: [{ what: 'outline', operation: 'on' }] };
    const operations = [cutting('beside'), cutting('line', 'on')];
    expect(found(two(0.15, by), operations)).toHaveLength(1);
    expect(found(two(0.25, by), operations)).toEqual([]);
  });

  test('nothing is taken without a kerf, by what is no cut, or of what is only engraved', () => {
    expect(found(two(0.1), [cutting('beside')], null)).toEqual([]);
    expect(found(two(0.1), [{ ...cutting('beside'), on: false }])).toEqual([]);
    const engraved = { work: [{ what: 'fill', operation: 'engrave' }] };
    const operations = [cutting('beside'), { id: 'engrave', name: 'Engrave', kind: 'engrave' }];
    expect(found(two(0.1, engraved), operations)).toEqual([]);
  });

  test('those that cross are told as that alone', () => {
    expect(found(two(-5), [cutting('beside')])).toEqual([]);
  });
});

test('a row of letters by themselves: each pair once', () => {
  const parts = ['l', 'l', 'l'].map((text, i) =>
    partOf([lettering(text, 'Archivo Black')], { id: `p${i}`, name: `p${i}`, placement: { x: 60 + 20 * i, y: 60 } }),
  );
  const width = evaluator.evaluate(jobWith(parts, {}), faces).parts[0]?.box;
  const step = (width?.maxX ?? 0) - (width?.minX ?? 0) + 0.2;
  const near = parts.map((part, i) => ({ ...part, placement: { x: 60 + step * i, y: 60 } }));
  expect(found(near, [cutting('beside')])).toHaveLength(2);
});
