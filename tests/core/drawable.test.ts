/** What is drawn: lengths, bounds and set-downs of each kind, moved, and what is unsound about it. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  type Drawable,
  type DrawableFault,
  dot,
  drawnBox,
  drawnLength,
  drawnPaths,
  faultOf,
  filledArea,
  isHatch,
  moveDrawable,
  polyline,
  polylines,
  setDowns,
  travelThrough,
} from '../../src/core/geometry/drawable';
import { closedPath, joinedExactly, type Path, pathArea, pathBox } from '../../src/core/geometry/path';
import { compose, EMPTY_BOX, type Matrix, type Point, rotation, translation } from '../../src/core/geometry/point';
import { cubic, line } from '../../src/core/geometry/segment';
import { NO_STROKES, StrokeBuilder } from '../../src/core/geometry/strokes';
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
        expect([setDowns(after), filledArea(after), faultOf(after)]).toEqual([setDowns(d), filledArea(d), null]);
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
  const speck = closedPath([line(0, 0, 4e-7, 0), line(4e-7, 0, 0, 0)]);
  const strokesOf = (...points: (readonly [number, number])[]): Drawable => ({
    kind: 'polyline',
    geometry: { xy: Float64Array.from(points.flat()), start: Int32Array.from([0, points.length]) },
    box: EMPTY_BOX,
  });
  test.each<[string, DrawableFault['what'], Drawable]>([
    [
      'a gap between segments',
      'gap',
      polyline({ closed: false, segments: [line(0, 0, 1, 0), line(1, 0.00001, 2, 0)] }),
    ],
    ['an outline that is open', 'open', { ...outline, path: { ...square, closed: false } }],
    ['an outline that does not close', 'gap', { ...outline, path: closedPath(square.segments.slice(0, 3)) }],
    ['an area with such a path', 'gap', { ...area, paths: [square, closedPath(square.segments.slice(0, 3))] }],
    ['an area of nothing', 'empty', { ...area, paths: [] }],
    ['a number that is none', 'not finite', polyline({ closed: false, segments: [line(0, 0, Number.NaN, 0)] })],
    [
      'a number without end',
      'not finite',
      polyline({ closed: false, segments: [line(0, 0, Number.POSITIVE_INFINITY, 0)] }),
    ],
    ['a path of nothing', 'empty', polyline({ closed: false, segments: [] })],
    [
      'a segment of no length',
      'tiny',
      polyline({ closed: false, segments: [line(0, 0, 1, 0), line(1, 0, 1 + 5e-7, 0)] }),
    ],
    ['a curve of no length', 'tiny', polyline({ closed: false, segments: [cubic(1, 1, 1, 1, 1, 1, 1, 1)] })],
    ['an outline that is a speck', 'tiny', { ...outline, path: speck }],
    ['packed lines of none', 'empty', { kind: 'polyline', geometry: NO_STROKES, box: EMPTY_BOX }],
    ['a packed line of one place', 'empty', strokesOf([1, 1])],
    ['a packed line that stands still', 'tiny', strokesOf([1, 1], [2, 2], [2, 2 + 5e-7])],
    ['a packed line to nowhere', 'not finite', strokesOf([1, 1], [2, Number.NaN])],
    ['a dot nowhere', 'not finite', dot({ x: Number.NaN, y: 0 }, 1)],
    ['a dot of endless size', 'not finite', dot({ x: 0, y: 0 }, Number.POSITIVE_INFINITY)],
    ['a dot of no size', 'tiny', dot({ x: 0, y: 0 }, 0)],
  ])('%s', (_name, what, d) => {
    expect(faultOf(d)?.what).toBe(what);
  });

  test('a gap says where it is and how wide', () => {
    const torn = polyline({ closed: false, segments: [line(0, 0, 1, 0), line(1, 0.25, 2, 0)] });
    expect(faultOf(torn)).toEqual({ what: 'gap', at: { x: 1, y: 0.25 }, mm: 0.25 });
  });

  test('none of what was made here, nor a curve that ends where it starts', () => {
    expect(all.map(faultOf)).toEqual(all.map(() => null));
    expect(faultOf(polyline({ closed: false, segments: [cubic(0, 0, 5, 5, -5, 5, 0, 0)] }))).toBeNull();
  });
});

describe('the way between', () => {
  test('goes from where one thing ends to where the next begins, and within packed lines', () => {
    // From the corner of the square, where it ends as it starts, to 0, 0; then from 3, 9 to 0, 0 again.
    expect(travelThrough([outline, polyline(open), packed])).toBeCloseTo(0 + Math.hypot(3, 9) + Math.hypot(6, 7), 12);
    // A circle is begun at its right.
    expect(travelThrough([point, circle])).toBeCloseTo(2, 12);
    // How areas are scanned is the machine's to say.
    expect(travelThrough([point, area, dot({ x: 5, y: 9 }, null)])).toBeCloseTo(3, 12);
    expect(travelThrough([])).toBe(0);
  });

  test('what is known of packed lines is taken', () => {
    expect(travelThrough([packed], () => 7)).toBe(7);
  });
});

describe('segments that meet exactly', () => {
  const at = (x: number): Path => ({ closed: false, segments: [line(0, 0, 5, 0), cubic(5 + x, x, 6, 1, 7, 1, 9, 0)] });

  test('rounding is closed, what is wider stays to be found', () => {
    expect(faultOf(polyline(joinedExactly(at(5e-6))))).toBeNull();
    expect(faultOf(polyline(joinedExactly(at(0.01))))?.what).toBe('gap');
    const closer = joinedExactly(at(0.01), 0.02);
    expect(faultOf(polyline(closer))).toBeNull();
    // The ends of a line stay where they are.
    expect(closer.segments[0]).toEqual(line(0, 0, 5, 0));
    expect(closer.segments[1]).toMatchObject({ x0: 5, y0: 0, x1: 9, y1: 0 });
  });

  test('a closed path is closed, and what has no length goes', () => {
    const torn = closedPath([...square.segments.slice(0, 3), line(0, 10, 1e-6, 0), line(1e-6, 0, 1e-6, 1e-6)]);
    const mended = joinedExactly(torn);
    expect(mended.segments).toHaveLength(4);
    expect(faultOf({ ...outline, path: mended })).toBeNull();
  });

  test('what is so is the same object; what is all too short stays to be found', () => {
    expect(joinedExactly(square)).toBe(square);
    expect(joinedExactly(open)).toBe(open);
    const speck: Path = { closed: false, segments: [line(0, 0, 1e-7, 0)] };
    expect(joinedExactly(speck)).toBe(speck);
  });

  test('a whole turn stays one', () => {
    const turn = closedPath([{ kind: 'arc', x0: 5, y0: 0, x1: 5, y1: 1e-9, cx: 0, cy: 0, sweep: 2 * Math.PI }]);
    expect(drawnLength({ ...outline, path: joinedExactly(turn) })).toBeCloseTo(10 * Math.PI, 6);
  });
});
