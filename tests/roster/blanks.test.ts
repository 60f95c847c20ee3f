/** Names on blanks at fixed places: each fitted to its blank and in its middle, whatever its steps add, in their order. */
import { describe, expect, test } from 'vitest';
import { editBlanks, leaveOutBlank, movePlace, setPlaces } from '../../src/core/commands/layout';
import { editRows, setCell } from '../../src/core/commands/roster';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { type Box, EMPTY_BOX, uniteBoxes } from '../../src/core/geometry/point';
import { offBlank, rowsOnBlanks } from '../../src/core/job/blanks';
import { Evaluator } from '../../src/core/job/evaluate';
import { laidRows } from '../../src/core/job/laid-rows';
import { jobOfSheet, placesOn, sheetFindings, sheetsLaid } from '../../src/core/job/laid-sheets';
import { finished } from '../../src/core/memo';
import { allBlanks, type Blanks, layoutSchema, type RowLayout } from '../../src/core/schema/layout';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { rosterOfNames } from '../support/names';

const filling = { today: '2026-11-30' };
const means = () => ({ evaluator: new Evaluator(wasmEngine), faces });
const NAMES = ['Io', 'Rowan', 'Marigold and Thyme', 'Ivy', 'Jean-Luc'];

const onBlanks = (blanks: Draft, more: Draft = {}): Job =>
  jobWith(
    [
      partOf([lettering('‹Name›', 'Pacifico', { size: { by: 'capital', mm: 12 } })], {
        steps: [{ kind: 'weld' }, { kind: 'thicken', by: 1 }],
        placement: { x: 31, y: 17, turn: 5 },
        locked: true,
        ...more,
      }),
    ],
    { roster: rosterOfNames(NAMES), layout: { way: 'blanks', blanks }, sheet: { width: 300, height: 200 } },
  );
const blanksOf = (job: Job): Blanks => (job.layout as RowLayout).blanks;
function laid(job: Job) {
  const layout = job.layout as RowLayout;
  const found = finished(laidRows(job, { filling, layout }, means()));
  return { job: setPlaces(job, found.places), found };
}
/** Bounds of what lies at each place of a sheet. */
function boxesOn(job: Job, sheet: number): Box[] {
  const result = new Evaluator(wasmEngine).evaluate(jobOfSheet(job, sheet, filling), faces);
  return placesOn(job, sheet).map((_, nth) =>
    result.parts.reduce((box, part) => (part.id.startsWith(`n${nth}-`) ? uniteBoxes(box, part.size) : box), EMPTY_BOX),
  );
}
const middleOf = (box: Box) => [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];

describe.for([
  ['lying along', { columns: 2, rows: 2, width: 50, height: 14, across: 60, down: 20, x: 40, y: 20 }],
  ['up', { columns: 3, rows: 1, width: 14, height: 60, across: 20, down: 70, x: 20, y: 50, turn: 90 }],
  ['turned over, round', { columns: 4, rows: 1, width: 40, height: 40, shape: 'ellipse', across: 45, turn: 180 }],
  ['down', { columns: 9, rows: 1, width: 12, height: 44, across: 14, down: 70, x: 20, y: 50, turn: 270, inset: 1 }],
] as [string, Draft][])('%s', ([, blanks]) => {
  test.for(['smaller', 'fill', 'as-set'] as const)('%s: in the middle of its blank, as large as was asked', (size) => {
    const { job } = laid(onBlanks({ ...blanks, size }));
    const settings = blanksOf(job);
    const all = allBlanks(settings, job.sheet.height);
    const boxes = Array.from({ length: sheetsLaid(job) }, (_, sheet) => boxesOn(job, sheet)).flat();
    expect(boxes).toHaveLength(NAMES.length);
    const scales = job.layout?.places.map((p) => p.scale) ?? [];
    boxes.forEach((box, i) => {
      const blank = all[i % all.length];
      const [x, y] = middleOf(box);
      expect(Math.hypot((x ?? NaN) - (blank?.x ?? NaN), (y ?? NaN) - (blank?.y ?? NaN))).toBeLessThan(0.01);
      const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
      const [roomW, roomH] = [settings.width - 2 * settings.inset, settings.height - 2 * settings.inset];
      const reach = settings.shape === 'ellipse' ? Math.hypot(w / roomW, h / roomH) : Math.max(w / roomW, h / roomH);
      if (size !== 'as-set') expect(reach).toBeLessThan(1.0005);
      if (size === 'fill') expect(reach).toBeGreaterThan(0.9995);
      if (size === 'as-set') expect(scales[i]).toBe(1);
      if (size === 'smaller' && scales[i] !== 1) {
        expect(scales[i]).toBeLessThan(1);
        expect(reach).toBeGreaterThan(0.9995);
      }
    });
    expect(scales.some((scale) => scale !== 1)).toBe(size !== 'as-set');
    const off = finished(sheetFindings(job, filling, means())).filter(({ sentence }) => /blank/.test(sentence));
    expect(off.length > 0).toBe(size === 'as-set');
  });
});

test('blanks that are left out stay empty, copies follow each other, a full jig begins the next sheet', () => {
  const plain = onBlanks({ columns: 2, rows: 2, across: 100, down: 60, leftOut: [1, 3] });
  const job = editRows(plain, ['r1'], (row) => {
    row.copies = 2;
  });
  const without = editRows(job, ['r0'], (row) => {
    row.out = true;
  });
  const { found } = laid(without);
  expect(found.places.map((p) => `${p.row}/${p.copy} on ${p.sheet}`)).toEqual([
    'r1/0 on 0',
    'r1/1 on 0',
    'r2/0 on 1',
    'r3/0 on 1',
    'r4/0 on 2',
  ]);
  expect(found).toMatchObject({ sheets: 3, tooLarge: [] });
  expect(found.needed).toBeCloseTo(5 / 6, 9);
  // The same place on each sheet.
  expect(allBlanks(blanksOf(job), 200).map(({ x, y }) => [x, y])).toEqual([
    [40, 180],
    [140, 180],
    [40, 120],
    [140, 120],
  ]);
});

test('without a blank, or without room on it, nothing is laid; one without words takes none', () => {
  expect(laid(onBlanks({ columns: 1, rows: 1, leftOut: [0] })).found).toMatchObject({ places: [], sheets: 0 });
  expect(laid(onBlanks({ width: 10, height: 10, inset: 5 })).found).toMatchObject({ places: [], sheets: 0 });
  const empty = setCell(onBlanks({}), 'r1', 0, '');
  expect(laid(empty).found.places.map((p) => p.row)).toEqual(['r0', 'r2', 'r3', 'r4']);
});

test('what is moved off its blank, and what lies on one that was left out since, is found by its name', () => {
  const { job } = laid(onBlanks({ columns: 2, rows: 3, across: 100, down: 60 }));
  const [first] = job.layout?.places ?? [];
  if (!first) throw new Error('nothing was laid');
  const said = (of: Job) => finished(sheetFindings(of, filling, means())).map(({ sentence }) => sentence);
  expect(said(job)).toEqual([]);
  expect(said(movePlace(job, first, 25, 0))).toEqual(['“Io” reaches over its blank.']);
  expect(said(movePlace(job, first, 50, 0))).toEqual(['“Io” lies on no blank.']);
  const left: Job = { ...job, layout: { ...(job.layout as RowLayout), blanks: { ...blanksOf(job), leftOut: [0] } } };
  expect(said(left)).toEqual(['“Io” lies on no blank.']);
});

test('what becomes too thin by being made smaller is found by its name, and nothing of those that stay as they are', () => {
  const job = onBlanks(
    { columns: 2, rows: 3, width: 30, height: 14, across: 100, down: 60 },
    { steps: [{ kind: 'weld' }] },
  );
  const { job: on } = laid({ ...job, sheet: { ...job.sheet, leastWidth: 0.9 } });
  const said = finished(sheetFindings(on, filling, means())).map(({ sentence }) => sentence);
  expect(said.filter((s) => s.startsWith('“Marigold and Thyme”, made smaller: ')).length).toBeGreaterThan(0);
  expect(said.filter((s) => s.includes('“Io”'))).toEqual([]);
});

test('corners count on round blanks', () => {
  const round = layoutSchema.parse({
    blanks: { shape: 'ellipse', width: 20, height: 20, columns: 1, rows: 1, x: 50, y: 50 },
  }).blanks;
  const box = (half: number): Box => ({ minX: 50 - half, maxX: 50 + half, minY: 50 - half, maxY: 50 + half });
  expect(offBlank(box(7), round, 100)).toBeNull();
  expect(offBlank(box(7.2), round, 100)).toBe('over');
  expect(offBlank(box(7.2), { ...round, shape: 'rectangle' }, 100)).toBeNull();
});

test('rows are told as they are fitted', () => {
  const job = onBlanks({});
  const steps = rowsOnBlanks(job, { filling, layout: job.layout as RowLayout }, means());
  const done = new Set<number>();
  for (let step = steps.next(); !step.done; step = steps.next()) done.add(step.value.done);
  expect([...done]).toEqual([0, 1, 2, 3, 4]);
});

test('a document with blanks is read as it was written', () => {
  const { job } = laid(onBlanks({ turn: 90, leftOut: [2], shape: 'ellipse' }));
  const read = checkJob(JSON.parse(JSON.stringify(job)));
  expect(read.ok && read.job.layout).toEqual(job.layout);
  const odd = checkJob({ ...job, layout: { ...job.layout, blanks: { turn: 45 } } });
  expect(odd.ok).toBe(false);
});

test('a blank is left out and taken in; more columns leave out the same ones', () => {
  const leftOutOf = (job: Job) => job.layout?.blanks.leftOut;
  const job = onBlanks({ columns: 3, rows: 2 });
  const without = leaveOutBlank(leaveOutBlank(leaveOutBlank(job, 4, true), 1, true), 1, true);
  expect(leftOutOf(without)).toEqual([1, 4]);
  expect(leftOutOf(leaveOutBlank(without, 4, false))).toEqual([1]);
  expect(leftOutOf(editBlanks(without, { columns: 5 }))).toEqual([1, 6]);
  expect(leftOutOf(editBlanks(without, { rows: 1 }))).toEqual([1]);
  expect(leftOutOf(editBlanks(without, { columns: 1 }))).toEqual([]);
  expect(editBlanks(without, { width: 33 }).layout?.blanks).toMatchObject({ width: 33, columns: 3, leftOut: [1, 4] });
  const { layout: _, ...plain } = job;
  expect(leaveOutBlank({ ...plain, layout: null }, 1, true).layout).toBeNull();
});
