/** Pieces of a path that are shorter than files tell places apart may be there or not. */
import { expect, test } from 'vitest';
import { itemDifference, type Wanted } from '../../src/core/formats/read-back/compare';
import { strayingKept } from '../../src/core/formats/read-back/follows';
import { writtenFormat } from '../../src/core/formats/written';
import type { Path } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';

const along = (...places: readonly (readonly [number, number])[]): Path => ({
  closed: false,
  segments: places.slice(1).map(([x1, y1], i) => {
    const [x0, y0] = places[i] as readonly [number, number];
    return line(x0, y0, x1, y1);
  }),
});
const read = (...places: readonly (readonly [number, number])[]) => ({
  x: places[0]?.[0] ?? 0,
  y: places[0]?.[1] ?? 0,
  closed: false,
  pieces: places.slice(1).map(([x, y]) => ({ kind: 'line' as const, x, y })),
});

test('a piece of ten nanometres that a reader dropped is none that is missing', () => {
  const meant = along([0, 0], [6, 6], [6.00001, 6], [6.2, 5.9]);
  expect(strayingKept(meant, read([0, 0], [6, 6], [6.2, 5.9]))).toBeNull();
  // Where it is there it is gone along.
  expect(strayingKept(meant, read([0, 0], [6, 6], [6.00001, 6], [6.2, 5.9]))).toBeNull();
  // At the end, and at the start.
  expect(strayingKept(along([0, 0], [6, 6], [6.00001, 6]), read([0, 0], [6, 6]))).toBeNull();
  expect(strayingKept(along([0, 0], [0.00001, 0], [6, 6]), read([0, 0], [6, 6]))).toBeNull();
});

test('a piece that can be told is missed', () => {
  expect(strayingKept(along([0, 0], [6, 6], [6.01, 6], [6.2, 5.9]), read([0, 0], [6, 6], [6.2, 5.9]))).not.toBeNull();
  expect(strayingKept(along([0, 0], [6, 6], [6.01, 6]), read([0, 0], [6, 6]))).not.toBeNull();
});

test('a line shorter than a step of the grid may come out as a point, where it is', () => {
  const { keeps } = writtenFormat('hpgl');
  const of = { name: 'Mark', tolerance: 0.02 } as Wanted['of'];
  const wanted = (length: number): Wanted => ({
    layer: 0,
    of,
    kind: 'path',
    filled: false,
    paths: [along([10.001, 5.002], [10.001 + length, 5.002])],
  });
  const dot = (x: number) => ({ kind: 'dot' as const, layer: 0, x, y: 5, r: null });
  expect(itemDifference(wanted(0.008), dot(10), keeps)).toBeNull();
  expect(itemDifference(wanted(0.03), dot(10), keeps)).toBe('is a dot');
  expect(itemDifference(wanted(0.008), dot(10.025), keeps)).toBe('is a dot');
  expect(itemDifference(wanted(0.008), dot(10), writtenFormat('svg').keeps)).toBe('is a dot');
});
