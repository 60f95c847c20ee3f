import { expect, test } from 'vitest';
import { newShape } from '../../src/core/commands/defaults';
import type { Shape, Sheet } from '../../src/core/document/schema';
import { mapLengths, SHAPE_LENGTHS } from '../../src/core/document/shapes';
import { isContinuous, pathArea, pathBox } from '../../src/core/geometry/path';
import { boxHeight, boxWidth } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { LIMITS } from '../../src/core/limits';
import { shapePath } from '../../src/core/prepare/shape';
import { countCrossings } from '../support/area';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, partOf } from '../support/jobs';

const sheet = {
  width: 300,
  height: 200,
  material: '',
  thickness: null,
  thicknessAs: null,
  offCut: null,
  leastWidth: null,
  kerf: null,
  process: null,
  refuses: [],
  leastWidthFrom: null,
  kerfFrom: null,
  price: null,
  priced: 'used',
  priceFrom: null,
} satisfies Sheet;
const KINDS = Object.keys(SHAPE_LENGTHS) as (keyof typeof SHAPE_LENGTHS)[];
const made = (shape: Record<string, unknown>): Shape => {
  const [member] = jobWith([partOf([{ id: 's', placement: { x: 0, y: 0 }, ...shape }])]).parts[0]?.members ?? [];
  if (
    !member ||
    member.kind === 'lettering' ||
    member.kind === 'copy' ||
    member.kind === 'artwork' ||
    member.kind === 'path' ||
    member.kind === 'trace'
  )
    throw new Error('no shape');
  return member;
};
const measure = (shape: Shape) => {
  const path = shapePath(shape);
  const box = pathBox(path);
  return { path, area: pathArea(path), width: boxWidth(box), height: boxHeight(box), box };
};

test.each(KINDS)('%s as first made is closed, runs counter-clockwise and does not cross itself', (kind) => {
  const shape = newShape(kind, 's', sheet);
  const { path, area } = measure(shape);
  expect(made(shape)).toEqual(shape);
  expect(isContinuous(path)).toBe(true);
  expect(area).toBeGreaterThan(0);
  expect(countCrossings([path])).toBe(0);
});

test.each(KINDS)('%s twice as large has four times the area', (kind) => {
  const small = { ...newShape(kind, 's', sheet) };
  const large = { ...small };
  mapLengths(large, (mm) => 2 * mm);
  expect(measure(large).area).toBeCloseTo(4 * measure(small).area, 6);
  expect(measure(large).width).toBeCloseTo(2 * measure(small).width, 6);
});

test('sizes and areas are those of the figures', () => {
  const hexagon = measure(made({ kind: 'polygon', width: 20, sides: 6 }));
  expect(hexagon.area).toBeCloseTo(((3 * Math.sqrt(3)) / 2) * 100, 9);
  expect(hexagon.box.maxY).toBeCloseTo(10, 9);
  const star = measure(made({ kind: 'star', width: 20, points: 5, inner: 0.5 }));
  expect(star.area).toBeCloseTo(5 * 10 * 5 * Math.sin(Math.PI / 5), 9);
  expect(star.box.maxY).toBeCloseTo(10, 9);
  const heart = measure(made({ kind: 'heart', width: 40, height: 36 }));
  expect([heart.width, heart.height]).toEqual([expect.closeTo(40, 9), expect.closeTo(36, 9)]);
  const bar = measure(made({ kind: 'bar', width: 50, height: 4, ends: 'round' }));
  expect(bar.area).toBeCloseTo(46 * 4 + Math.PI * 4, 9);
  expect(measure(made({ kind: 'bar', width: 50, height: 4 })).area).toBeCloseTo(200, 9);
  const spike = measure(made({ kind: 'spike', width: 6, height: 80, point: 20 }));
  expect(spike.area).toBeCloseTo(60 * 6 + (20 * 6) / 2, 9);
  expect([spike.box.minY, spike.box.maxY]).toEqual([-80, 0]);
});

test('shapes at their edges stay whole', () => {
  for (const shape of [
    made({ kind: 'spike', width: 6, height: 10, point: 50 }),
    made({ kind: 'bar', width: 4, height: 20, ends: 'round' }),
    made({ kind: 'bar', width: 5, height: 5, ends: 'round' }),
    made({ kind: 'heart', width: 1, height: 100 }),
    made({ kind: 'heart', width: 100, height: 1 }),
    made({ kind: 'polygon', width: 0.01, sides: 3 }),
    made({ kind: 'star', width: 5000, points: LIMITS.shapeCorners, inner: 0.02 }),
    made({ kind: 'rectangle', width: 10, height: 10, corner: 99 }),
  ]) {
    const { path, area } = measure(shape);
    expect(isContinuous(path), shape.kind).toBe(true);
    expect(area, shape.kind).toBeGreaterThan(0);
    expect(countCrossings([path]), shape.kind).toBe(0);
  }
});

test('a rectangle cut out of a rounded one with words joined inside is three members and one part', () => {
  const job = jobWith([
    partOf([
      { id: 'rim', kind: 'rectangle', placement: { x: 100, y: 50 }, width: 120, height: 60, corner: 12 },
      { id: 'window', kind: 'rectangle', role: 'punch', placement: { x: 100, y: 50 }, width: 100, height: 40 },
      { id: 'bar', kind: 'bar', role: 'join', placement: { x: 100, y: 50 }, width: 110, height: 5 },
    ]),
  ]);
  const [part] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
  expect(part?.pieces.map((p) => p.kind)).toEqual(['main']);
  const area = part?.outlines.reduce((sum, o) => sum + o.area, 0);
  // Rim less window, and the stretch of the bar that crosses the window.
  expect(area).toBeCloseTo(120 * 60 - (4 - Math.PI) * 144 - 100 * 40 + 100 * 5, 6);
});
