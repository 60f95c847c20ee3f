/** Outlines grown one by one and remembered: as all together, whatever was grown before, and only what is new. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { ClipEngine } from '../../src/core/geometry/boolean/engine';
import { offsetRegion } from '../../src/core/geometry/offset/offset';
import { type Path, regionArea, transformPath } from '../../src/core/geometry/path';
import { compose, rotation, translation } from '../../src/core/geometry/point';
import { Memo } from '../../src/core/memo';
import { type OffsetBy, offsetOutlines } from '../../src/core/prepare/offset-outlines';
import { measureOutlines, type Outline, transformOutlines } from '../../src/core/prepare/outline';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { weldLettering } from '../../src/core/prepare/weld';
import { set, wasmEngine } from '../support/faces';

const outlinesOf = (paths: readonly Path[]): Outline[] =>
  measureOutlines(paths.map((path, label) => ({ path, labels: path.segments.map(() => label) })));
const at = (path: Path, x: number, y: number, turn = 0): Path =>
  transformPath(path, compose(rotation(turn), translation(x, y)));
const hole = (path: Path): Path => transformPath(path, { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 });
const words = (text: string): Outline[] =>
  transformOutlines(
    weldLettering(wasmEngine, set('Pacifico', text), {
      weld: true,
      matrix: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
      memory: new Memo(),
    }),
    translation(100, 50),
  );

/** The engine, and how often it was asked. */
const counting = (): { readonly engine: ClipEngine; asked: number } => {
  const told = {
    asked: 0,
    engine: {
      ...wasmEngine,
      clip: (...input: Parameters<ClipEngine['clip']>) => {
        told.asked++;
        return wasmEngine.clip(...input);
      },
    },
  };
  return told;
};

const plainly = (outlines: readonly Outline[], offset: OffsetBy): Outline[] =>
  measureOutlines(offsetRegion(wasmEngine, outlines, offset));
const areas = (outlines: readonly Outline[]): number[] => outlines.map((o) => o.area).sort((a, b) => a - b);

describe('outlines grown', () => {
  const ring = [roundedRectangle(20, 20, 3), hole(ellipsePath(6, 5))];

  test.each([0.4, 2.5, 4, -0.7, -3, 0])('each by itself comes to what all together do: by %d', (by) => {
    // A ring with an island, one near it that it grows into, and one far off.
    const shape = outlinesOf([
      ...ring,
      ellipsePath(2, 2),
      at(roundedRectangle(12, 8, 1), 20, 0, 20),
      at(roundedRectangle(9, 9, 0), 80, 30, 45),
    ]);
    for (const corners of ['round', 'mitre', 'square'] as const) {
      const [made, wanted] = [
        offsetOutlines(wasmEngine, shape, { by, corners }, new Memo()),
        plainly(shape, { by, corners }),
      ];
      expect(made).toHaveLength(wanted.length);
      areas(made).forEach((area, i) => {
        expect(area).toBeCloseTo(areas(wanted)[i] as number, 4);
      });
      expect(new Set(made.flatMap((o) => o.labels))).toEqual(new Set(wanted.flatMap((o) => o.labels)));
      expect(made.map((o) => o.depth).sort()).toEqual(wanted.map((o) => o.depth).sort());
    }
  });

  test('words, as all together, from the highest down', () => {
    const shape = words('Alder Lane\nby the gate');
    const [made, wanted] = [0.3, 0.3].map((by, i) =>
      i === 0
        ? offsetOutlines(wasmEngine, shape, { by, corners: 'round' }, new Memo())
        : plainly(shape, { by, corners: 'round' }),
    ) as [Outline[], Outline[]];
    expect(made.map((o) => o.box.maxY.toFixed(3))).toEqual(wanted.map((o) => o.box.maxY.toFixed(3)));
    made.forEach((o, i) => {
      const other = wanted[i] as Outline;
      expect(o.area).toBeCloseTo(other.area, 3);
      expect([...new Set(o.labels)].sort()).toEqual([...new Set(other.labels)].sort());
      expect(o.depth).toBe(other.depth);
    });
  });

  test('holes and outlines by distances of their own', () => {
    const shape = outlinesOf([...ring, at(roundedRectangle(9, 9, 0), 80, 30)]);
    const offset: OffsetBy = { by: 1, corners: 'round', outerBy: (i) => (i === 0 ? 1 : -1), holeBy: () => 2 };
    expect(areas(offsetOutlines(wasmEngine, shape, offset, new Memo()))).toEqual(
      areas(plainly(shape, offset)).map((a) => expect.closeTo(a, 4)),
    );
  });

  test('nothing, and what shrinks to nothing', () => {
    expect(offsetOutlines(wasmEngine, [], { by: 1, corners: 'round' }, new Memo())).toEqual([]);
    expect(offsetOutlines(wasmEngine, outlinesOf(ring), { by: -30, corners: 'round' }, new Memo())).toEqual([]);
  });

  test('the same again is found, wherever it lies; one that changed is made alone', () => {
    const memory = new Memo();
    const far = (x: number, size = 9) => at(roundedRectangle(size, 9, 1), x, 0);
    const shape = outlinesOf([far(0), far(40, 8), far(80, 7), far(120, 6)]);
    const told = counting();
    const grow = (outlines: readonly Outline[]) =>
      offsetOutlines(told.engine, outlines, { by: 0.5, corners: 'round' }, memory);
    grow(shape);
    const each = told.asked / 4;
    expect(each).toBeGreaterThan(0);
    told.asked = 0;
    grow(shape);
    expect(told.asked).toBe(0);
    // Moved by what no rounding tells.
    const moved = grow(transformOutlines(shape, translation(1000.125, -7)));
    expect(told.asked).toBe(0);
    expect(moved.map((o) => o.box.minX)).toEqual(grow(shape).map((o) => expect.closeTo(o.box.minX + 1000.125, 6)));
    grow(outlinesOf([far(0), far(40, 8.5), far(80, 7), far(120, 6)]));
    expect(told.asked).toBe(each);
    // Another distance, and other corners, are other results.
    told.asked = 0;
    offsetOutlines(told.engine, shape, { by: 0.6, corners: 'round' }, memory);
    offsetOutlines(told.engine, shape, { by: 0.5, corners: 'mitre' }, memory);
    expect(told.asked).toBe(8 * each);
  });

  test('what was grown before changes nothing, to the last digit', () => {
    const place = fc.integer({ min: 0, max: 40 });
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 4 }), (places) => {
        const memory = new Memo();
        const shapeAt = (x: number, y: number) =>
          outlinesOf([
            at(ellipsePath(7.3, 4.1), x / 7, y / 3, 17),
            at(roundedRectangle(5, 3, 0.7), 60 + x / 9, y / 11, 5),
          ]);
        for (const [x, y] of places) offsetOutlines(wasmEngine, shapeAt(x, y), { by: 0.4, corners: 'round' }, memory);
        const [x, y] = places[0] as [number, number];
        const [warm, cold] = [memory, new Memo()].map((m) =>
          offsetOutlines(wasmEngine, shapeAt(x, y), { by: 0.4, corners: 'round' }, m),
        );
        expect(warm).toEqual(cold);
      }),
      { numRuns: 30 },
    );
  });

  test('grown and shrunk back a word keeps its area', () => {
    const shape = words('Ale');
    const memory = new Memo();
    const back = offsetOutlines(
      wasmEngine,
      offsetOutlines(wasmEngine, shape, { by: 0.1, corners: 'round' }, memory),
      { by: -0.1, corners: 'round' },
      memory,
    );
    const [before, after] = [shape, back].map((list) => regionArea(list.map((o) => o.path))) as [number, number];
    expect(after).toBeGreaterThanOrEqual(before - 0.05);
    expect(after).toBeLessThan(1.01 * before);
  });
});
