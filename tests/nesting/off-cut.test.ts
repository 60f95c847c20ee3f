/** Off-cuts: what is left of a sheet, laid on again, and what sticks out of one. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { setPlaces } from '../../src/core/commands/layout';
import type { Job } from '../../src/core/document/schema';
import type { Box } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { laidRows } from '../../src/core/job/laid-rows';
import { jobOfSheet, sheetFindings } from '../../src/core/job/laid-sheets';
import { finished } from '../../src/core/memo';
import { isOnOffCut, leftOver, offCutArea, offCutPath } from '../../src/core/nesting/off-cut';
import type { RowLayout } from '../../src/core/schema/layout';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';
import { rosterOfNames } from '../support/names';

const box = (minX: number, minY: number, maxX: number, maxY: number): Box => ({ minX, minY, maxX, maxY });
const SHEET = { width: 200, height: 100 };
const filling = { today: '' };

describe('what is left', () => {
  test('is above what lies there, with its steps', () => {
    expect(leftOver([box(0, 0, 80, 40), box(80, 0, 200, 60)], SHEET)).toEqual({
      x: 0,
      y: 40,
      corners: [
        [0, 0],
        [80, 0],
        [80, 20],
        [200, 20],
        [200, 60],
        [0, 60],
      ],
      width: 200,
      height: 60,
      mm2: 200 * 60 - 120 * 20,
    });
  });
  test('begins at a whole millimetre', () => {
    expect(leftOver([box(0, 0, 200, 40.2)], SHEET)).toMatchObject({ y: 41, height: 59 });
    expect(leftOver([box(0, 0, 200, 40.0005)], SHEET)).toMatchObject({ y: 40, height: 60 });
  });
  test('is all of an empty sheet, and nothing of a full one', () => {
    expect(leftOver([], SHEET)).toMatchObject({ width: 200, height: 100, mm2: 20_000 });
    expect(leftOver([box(0, 0, 200, 85)], SHEET)).toBeNull();
    expect(leftOver([box(-5, -5, 205, 120)], SHEET)).toBeNull();
  });
  test('is the wider side where something reaches up to the edge', () => {
    expect(leftOver([box(120, 0, 140, 100)], SHEET)).toMatchObject({ x: 0, y: 0, width: 120, height: 100 });
  });
  test('is no comb: narrow gaps are not kept', () => {
    const teeth = Array.from({ length: 10 }, (_, i) => box(20 * i, 0, 20 * i + 12, 50));
    expect(leftOver(teeth, SHEET)?.corners).toHaveLength(4);
  });
  test('never reaches over anything that lies there, whatever lies there', () => {
    const boxes = fc.array(
      fc
        .tuple(
          fc.integer({ min: 0, max: 190 }),
          fc.integer({ min: 0, max: 90 }),
          fc.integer({ min: 1, max: 80 }),
          fc.integer({ min: 1, max: 50 }),
        )
        .map(([x, y, w, h]) => box(x, y, x + w, y + h)),
      { maxLength: 14 },
    );
    fc.assert(
      fc.property(boxes, (taken) => {
        const left = leftOver(taken, SHEET);
        if (!left) return;
        const { corners, width, height } = left;
        expect(left.mm2).toBeLessThanOrEqual(width * height + 1e-9);
        expect(offCutArea(corners)).toBeCloseTo(left.mm2, 6);
        expect(corners.every(([x, y]) => x >= 0 && y >= 0 && x <= width && y <= height)).toBe(true);
        const isOn = (x: number, y: number) => isOnOffCut([offCutPath(squareAt(x - left.x, y - left.y))], corners);
        const inner = (from: number, to: number) => [from + 0.5, (from + to) / 2, to - 0.5];
        for (const b of taken)
          for (const x of inner(b.minX, b.maxX))
            for (const y of inner(b.minY, b.maxY)) if (x < 199 && y < 99) expect(isOn(x, y)).toBe(false);
        // And it is of one piece up to the upper edge.
        expect(isOn(left.x + width / 2, 99.5)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});

/** A square of half a mm about a place. */
const squareAt = (x: number, y: number): [number, number][] => [
  [x - 0.25, y - 0.25],
  [x + 0.25, y - 0.25],
  [x + 0.25, y + 0.25],
  [x - 0.25, y + 0.25],
];
const L_SHAPE: [number, number][] = [
  [0, 0],
  [200, 0],
  [200, 40],
  [60, 40],
  [60, 120],
  [0, 120],
];

test('what lies in the notch of an off-cut sticks out, also where only a corner of the notch lies in it', () => {
  const on = (corners: [number, number][]) => isOnOffCut([offCutPath(corners)], L_SHAPE);
  const plate = (x: number, y: number, w: number, h: number): [number, number][] => [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ];
  expect(on(plate(0, 0, 60, 120))).toBe(true);
  expect(on(plate(10, 5, 180, 30))).toBe(true);
  expect(on(plate(10, 5, 100, 60))).toBe(false);
  expect(on(plate(70, 50, 20, 20))).toBe(false);
  // Its own corners lie on the off-cut, and the corner of the notch within it.
  expect(
    on([
      [10, 100],
      [10, 10],
      [180, 10],
    ]),
  ).toBe(false);
});

const tags = (more: Draft = {}): Job =>
  jobWith([partOf([rectangle('tag', 34, 18)], { name: '‹Name›', placement: { x: 100, y: 60 } })], {
    sheet: { width: 200, height: 120, ...more },
    roster: rosterOfNames(['Ivy', 'Fern', 'Sage', 'Mint', 'Dill', 'Rowan', 'Hazel', 'Briar']),
    layout: { spacing: 2, margin: 3 },
  });
const laid = (job: Job) =>
  finished(
    laidRows(
      job,
      { filling, layout: job.layout as RowLayout, moves: 50 },
      { evaluator: new Evaluator(wasmEngine), faces },
    ),
  );

test('names are laid on an off-cut within its outline and margin; what finds no room is told', () => {
  const job = tags({ offCut: L_SHAPE });
  const found = laid(job);
  expect(found.sheets).toBe(1);
  expect(found.left).toBeNull();
  expect(found.places.length + found.tooLarge.length).toBe(8);
  expect(found.places.length).toBeGreaterThan(5);
  const on = setPlaces(job, found.places);
  const evaluator = new Evaluator(wasmEngine);
  expect(finished(sheetFindings(on, filling, { evaluator, faces }))).toEqual([]);
  const { parts } = evaluator.evaluate(jobOfSheet(on, 0, filling), faces);
  const inner: [number, number][] = [
    [2.999, 2.999],
    [197.001, 2.999],
    [197.001, 37.001],
    [57.001, 37.001],
    [57.001, 117.001],
    [2.999, 117.001],
  ];
  expect(
    parts.every((part) =>
      isOnOffCut(
        part.outlines.map((o) => o.path),
        inner,
      ),
    ),
  ).toBe(true);
  // Laid beside it, it is found.
  const off = finished(sheetFindings(on, filling, { evaluator, faces })).length;
  const [place] = found.places;
  const moved = setPlaces(job, [{ ...(place as NonNullable<typeof place>), x: 60, y: 30, turn: 0 }]);
  expect(off).toBe(0);
  expect(finished(sheetFindings(moved, filling, { evaluator, faces })).map((f) => f.sentence)).toEqual([
    expect.stringMatching(/sticks out of the off-cut\.$/),
  ]);
});

test('what is left of whole sheets is told with room around what lies there', () => {
  const found = laid(tags());
  expect(found.sheets).toBe(1);
  const tops = found.places.map((p) => p.y);
  expect(tops.length).toBe(8);
  expect(found.left?.width).toBeGreaterThan(20);
  expect(found.left?.mm2).toBeLessThan(200 * 120 - 8 * 34 * 18);
  // Half of them fit on what is left.
  const { corners, width, height } = found.left as NonNullable<typeof found.left>;
  const again = laid(tags({ width, height, offCut: corners.length > 4 ? corners : null }));
  expect(again.places.length).toBeGreaterThan(1);
});

test('a line that does not close, and words, stick out too', () => {
  const words = jobWith([partOf([lettering('Rowan', 'Poppins')], { placement: { x: 120, y: 80 } })], {
    sheet: { width: 200, height: 120, offCut: L_SHAPE },
  });
  const codes = new Evaluator(wasmEngine).evaluate(words, faces).findings.map((f) => f.code);
  expect(codes).toContain('off-sheet');
});
