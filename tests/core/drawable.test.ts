/** What is drawn: lengths, bounds and set-downs of each kind, moved, and what is unsound about it. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  type Drawable,
  dot,
  drawnBox,
  drawnLength,
  drawnPaths,
  filledArea,
  isHatch,
  isSound,
  moveDrawable,
  polyline,
  polylines,
  setDowns,
} from '../../src/core/geometry/drawable';
import { closedPath, type Path, pathArea, pathBox } from '../../src/core/geometry/path';
import { compose, EMPTY_BOX, type Matrix, type Point, rotation, translation } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { StrokeBuilder } from '../../src/core/geometry/strokes';
import { area as areaOf, outline as outlineOf } from '../support/drawables';

const packStrokes = (lines: readonly (readonly Point[])[]) => {
  const builder = new StrokeBuilder();
  for (const points of lines) {
    for (const { x, y } of points) builder.add(x, y);
    builder.lift();
  }
  return builder.done();
};
const square = closedPath([line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 10), line(0, 10, 0, 0)]);
const open: Path = { closed: false, segments: [line(0, 0, 3, 4), line(3, 4, 3, 9)] };
const outline = outlineOf(square);
const area = areaOf(square);
const packed = polylines(
  packStrokes([
    [
      { x: 0, y: 0 },
      { x: 6, y: 8 },
    ],
    [
      { x: 0, y: 1 },
      { x: 0, y: 3 },
      { x: 2, y: 3 },
    ],
  ]),
)[0] as Drawable;
const circle = dot({ x: 5, y: 6 }, 2);
const point = dot({ x: 5, y: 6 }, null);
const all: readonly Drawable[] = [outline, polyline(open), packed, circle, point, area];

test('each kind says how long it is, how often the tool is set down, and what it fills', () => {
  expect(all.map(drawnLength)).toEqual([40, 10, 14, expect.closeTo(4 * Math.PI, 12), 0, 0]);
  expect(all.map(setDowns)).toEqual([1, 1, 2, 1, 1, 0]);
  expect(all.map(filledArea)).toEqual([0, 0, 0, 0, 0, 100]);
  expect(all.map((d) => drawnPaths(d).length)).toEqual([1, 1, 2, 0, 0, 1]);
  expect(all.map(isHatch)).toEqual([false, false, true, false, false, false]);
});

test('bounds are those of all together; of nothing there are none', () => {
  expect(drawnBox([polyline(open), circle])).toEqual({ minX: 0, minY: 0, maxX: 7, maxY: 9 });
  expect(point.box).toEqual({ minX: 5, minY: 6, maxX: 5, maxY: 6 });
  expect(drawnBox([])).toEqual(EMPTY_BOX);
  expect(polylines(packStrokes([]))).toEqual([]);
});

describe('moved', () => {
  const mirror: Matrix = { a: -1, b: 0, c: 0, d: 1, e: 50, f: 3 };

  test('it is as long, as often set down and as sound as before, whatever the motion', () => {
    const motion = fc.tuple(
      fc.double({ min: -500, max: 500, noNaN: true }),
      fc.double({ min: -500, max: 500, noNaN: true }),
      fc.double({ min: -180, max: 180, noNaN: true }),
      fc.boolean(),
    );
    fc.assert(
      fc.property(motion, fc.constantFrom(...all), ([x, y, turn, isMirrored], d) => {
        const m = compose(translation(x, y), compose(rotation(turn), isMirrored ? mirror : rotation(0)));
        const after = moveDrawable(d, m);
        expect(drawnLength(after)).toBeCloseTo(drawnLength(d), 7);
        expect([setDowns(after), filledArea(after), isSound(after)]).toEqual([setDowns(d), filledArea(d), true]);
        const box = drawnPaths(after).reduce(
          (b, p) =>
            drawnBox([
              { kind: 'polyline', geometry: p, box: pathBox(p) },
              { ...point, box: b },
            ]),
          EMPTY_BOX,
        );
        if (d.kind !== 'dot')
          for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
            expect(after.box[side]).toBeCloseTo(box[side], 7);
      }),
    );
  });

  test('closed paths of what is mirrored run the other way, so that stock stays on its side; open ones keep their start', () => {
    for (const d of [outline, area])
      expect(pathArea(drawnPaths(moveDrawable(d, mirror))[0] as Path)).toBeCloseTo(
        pathArea(drawnPaths(d)[0] as Path),
        9,
      );
    expect(drawnPaths(moveDrawable(polyline(open), mirror))[0]?.segments[0]).toMatchObject({
      x0: 50,
      y0: 3,
      x1: 47,
      y1: 7,
    });
    expect(moveDrawable(circle, mirror)).toEqual(dot({ x: 45, y: 9 }, 2));
  });

  test('not at all, it is the same object', () => {
    for (const d of all) expect(moveDrawable(d, translation(0, 0))).toBe(d);
  });
});

describe('unsound is', () => {
  test.each<[string, Drawable]>([
    ['a gap between segments', polyline({ closed: false, segments: [line(0, 0, 1, 0), line(1, 0.00001, 2, 0)] })],
    ['an outline that is open', { ...outline, path: { ...square, closed: false } }],
    ['an outline that does not close', { ...outline, path: closedPath(square.segments.slice(0, 3)) }],
    ['an area with such a path', { ...area, paths: [square, closedPath(square.segments.slice(0, 3))] }],
    ['a number that is none', polyline({ closed: false, segments: [line(0, 0, Number.NaN, 0)] })],
    ['a number without end', polyline({ closed: false, segments: [line(0, 0, Number.POSITIVE_INFINITY, 0)] })],
    ['a path of nothing', polyline({ closed: false, segments: [] })],
    ['a dot nowhere', dot({ x: Number.NaN, y: 0 }, 1)],
    ['a dot of no size', dot({ x: 0, y: 0 }, 0)],
  ])('%s', (_name, d) => {
    expect(isSound(d)).toBe(false);
  });

  test('none of what was made here', () => {
    expect(all.map(isSound)).toEqual(all.map(() => true));
  });
});
