/** What is found about traced pictures, and what one press mends of it. */
import { describe, expect, test } from 'vitest';
import { writePixels } from '../../src/core/formats/pixels';
import { closedPath, type Path } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import type { Finding } from '../../src/core/inspect/finding';
import { Evaluator } from '../../src/core/job/evaluate';
import { Memo } from '../../src/core/memo';
import { prepareTrace } from '../../src/core/prepare/trace';
import { mendingOf } from '../../src/core/rules/mend';
import type { Seen } from '../../src/core/rules/rule';
import { looksLikeWords } from '../../src/core/rules/traces';
import { traceSchema } from '../../src/core/schema/picture';
import { type Degraded, pictureOf } from '../support/degraded';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, partOf } from '../support/jobs';

const ID = 'a'.repeat(64);
const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
const NOTHING_SEEN: Seen = {
  middleOf: () => ({ x: 0, y: 0 }),
  capHeightOf: () => 30,
  bridgesOf: () => ({ bridges: [], keys: [], measure }),
};
type P = readonly [number, number];
const polygon = (...points: P[]): Path =>
  closedPath(points.map((p, i) => line(...p, ...(points[(i + 1) % points.length] as P))));
const box = (x: number, y: number, w: number, h: number) => polygon([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const hole = (x: number, y: number, w: number, h: number) => polygon([x, y], [x, y + h], [x + w, y + h], [x + w, y]);

/** What is found of a picture of outlines, 120 × 90 pixels of a mm. */
function found(paths: readonly Path[], more: Draft = {}, how: Degraded = { name: 'clean' }) {
  const raster = pictureOf(paths, 120, 90, how);
  const evaluator = new Evaluator(wasmEngine);
  expect(evaluator.addPicture(ID, writePixels(raster))).toBe(true);
  const member = {
    id: 'm',
    kind: 'trace',
    name: 'scan.png',
    pixels: ID,
    columns: 120,
    rows: 90,
    scale: 1,
    least: 2,
    placement: { x: 150, y: 100 },
    ...more,
  };
  const job = jobWith([partOf([member])]);
  const result = evaluator.evaluate(job, faces);
  return { job, result, codes: result.findings.map((f) => f.code), sentences: result.findings.map((f) => f.sentence) };
}
const FRAME = [box(0, 0, 120, 90), hole(6, 6, 108, 78), box(40, 30, 30, 25)];

test('what runs along the rim is left out and told of, or kept and warned of', () => {
  const left = found(FRAME);
  expect(left.codes).toContain('rim-left-out');
  expect(left.sentences).toContain('A shape runs along the rim of “scan.png” and was taken for background: left out.');
  expect(left.result.parts[0]?.outlines).toHaveLength(1);
  const kept = found(FRAME, { dropRim: false });
  expect(kept.codes).toContain('background-traced');
  expect(kept.codes).not.toContain('rim-left-out');
  expect(kept.result.parts[0]?.outlines).toHaveLength(3);
});

test.each([
  ['rim-left-out', true, 'Keep it'],
  ['background-traced', false, 'Leave it out'],
])('%s is turned round in one press', (code, dropRim, words) => {
  const { job, result } = found(FRAME, { dropRim });
  const finding = result.findings.find((f) => f.code === code) as Finding;
  const mending = mendingOf(job, finding);
  if (!mending || !('run' in mending)) throw new Error('no mend');
  expect(mending.words).toBe(words);
  expect(mending.run(job, NOTHING_SEEN).parts[0]?.members[0]).toMatchObject({ dropRim: !dropRim });
});

test('edges blurred over more than is told at this size are told of; small or sharp ones are not', () => {
  const blurred = { name: 'blurred', blur: 2.5 };
  expect(found([box(40, 30, 30, 25)], {}, blurred).sentences.join()).toMatch(/blurred over \d(\.\d+)? mm at this size/);
  expect(found([box(40, 30, 30, 25)], { scale: 0.05 }, blurred).codes).not.toContain('blurred-edges');
  expect(found([box(40, 30, 30, 25)]).codes).not.toContain('blurred-edges');
});

test('a picture that is not there, or shows nothing, is told of and keeps its place', () => {
  const member = {
    id: 'm',
    kind: 'trace',
    name: 'scan.png',
    pixels: ID,
    columns: 9,
    rows: 9,
    scale: 1,
    placement: { x: 0, y: 0 },
  };
  const gone = new Evaluator(wasmEngine).evaluate(jobWith([partOf([member])]), faces);
  expect(gone.findings.map((f) => f.sentence)).toContain(
    'The picture “scan.png” can’t be used: It is not at hand here. Its place is kept.',
  );
  expect(found([]).sentences).toContain(
    'Nothing can be told apart in the picture “scan.png” by the tones that were asked for.',
  );
});

describe('shapes that could be words', () => {
  const row = (heights: readonly number[], gap = 6) =>
    heights.map((h, i) => ({ minX: i * (10 + gap), maxX: i * (10 + gap) + 10, minY: 0, maxY: h }));

  test('are three or more of like height on one line', () => {
    expect(looksLikeWords(row([20, 20, 20]))).toBe(true);
    expect(looksLikeWords(row([20, 20]))).toBe(false);
    expect(looksLikeWords(row([20, 20, 30, 20]))).toBe(true);
    expect(looksLikeWords(row([20, 30, 45]))).toBe(false);
    expect(looksLikeWords([])).toBe(false);
  });

  test('are near each other, on one line, and no wider than letters', () => {
    expect(looksLikeWords(row([20, 20, 20], 40))).toBe(false);
    expect(looksLikeWords(row([20, 20, 20]).map((b, i) => ({ ...b, minY: 3 * i, maxY: b.maxY + 3 * i })))).toBe(false);
    expect(looksLikeWords([0, 1, 2].map((i) => ({ minX: 100 * i, maxX: 100 * i + 90, minY: 0, maxY: 20 })))).toBe(
      false,
    );
  });

  test('are told of once', () => {
    expect(
      found([box(20, 30, 14, 24), box(40, 30, 14, 24), box(60, 30, 14, 24)]).codes.filter(
        (c) => c === 'could-be-words',
      ),
    ).toHaveLength(1);
    expect(found([box(20, 30, 14, 24)]).codes).not.toContain('could-be-words');
  });
});

test('places that were pressed on are the same places when the picture is cropped', () => {
  const two = [box(20, 20, 30, 25), box(70, 20, 30, 25)];
  const picks = [
    { x: 85, y: 30, belongs: true },
    { x: 60, y: 80, belongs: false },
  ];
  const more = { crop: { left: 60, right: 0, top: 10, bottom: 0 }, tones: { by: 'picked', picks, evenLight: false } };
  const [outline, ...others] = found(two, more).result.parts[0]?.outlines ?? [];
  expect(others).toEqual([]);
  expect(outline?.area).toBeCloseTo(30 * 25, 0);
});

test('another crop, other tones and another size each change what comes of it', () => {
  const raster = pictureOf([box(20, 20, 30, 25), box(70, 20, 30, 25)], 120, 90, { name: 'clean' });
  const evaluator = new Evaluator(wasmEngine);
  evaluator.addPicture(ID, writePixels(raster));
  const outlines = (more: Draft) => {
    const member = {
      id: 'm',
      kind: 'trace',
      pixels: ID,
      columns: 120,
      rows: 90,
      scale: 1,
      least: 2,
      placement: { x: 150, y: 100 },
      ...more,
    };
    return evaluator.evaluate(jobWith([partOf([member])]), faces).parts[0]?.outlines ?? [];
  };
  expect(outlines({})).toHaveLength(2);
  expect(outlines({ crop: { left: 60 } })).toHaveLength(1);
  expect(outlines({ tones: { by: 'light' }, dropRim: false })).toHaveLength(3);
  const area = (list: ReturnType<typeof outlines>) => list.reduce((sum, o) => sum + o.area, 0);
  expect(area(outlines({ scale: 0.5, least: 1 })) / area(outlines({}))).toBeCloseTo(0.25, 3);
});

test('where a trace lies does not matter to tracing it: it is made once', () => {
  const raster = pictureOf([box(20, 20, 30, 25)], 120, 90, { name: 'clean' });
  const memo = new Memo();
  const trace = (more: Draft) => {
    const member = {
      id: 'm',
      kind: 'trace',
      pixels: ID,
      columns: 120,
      rows: 90,
      scale: 1,
      placement: { x: 0, y: 0 },
      ...more,
    };
    return prepareTrace(wasmEngine, raster, traceSchema.parse(member), memo);
  };
  const first = trace({});
  expect(trace({ placement: { x: 50, y: 20, turn: 30 }, name: 'moved' })).toBe(first);
  expect(trace({ least: 3 })).not.toBe(first);
});
