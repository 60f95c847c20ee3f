/** Ink by rows: against the winding of points, of chords as of their polygons, of several one over the other. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  chordsOf,
  type InkRows,
  moveRows,
  rowsOfChords,
  rowsOfPolygons,
  uniteRows,
} from '../../src/core/geometry/ink-rows';
import { applyMatrix, compose, type Point, rotation, translation } from '../../src/core/geometry/point';
import { windingNumber } from '../support/area';

const STEP = 0.5;
const place = fc.integer({ min: -400, max: 400 }).map((v) => v / 37);
const point = fc.record({ x: place, y: place });
const polygons = fc.array(fc.array(point, { minLength: 3, maxLength: 40 }), { minLength: 1, maxLength: 4 });

const isInked = ({ first, rows }: InkRows, k: number, x: number): boolean => {
  const row = rows[k - first] ?? [];
  return row.some((from, i) => i % 2 === 0 && from <= x && x < (row[i + 1] as number));
};
const ROWS = Array.from({ length: 50 }, (_, i) => i - 25);
/** Places that lie on no edge but by chance. */
const COLUMNS = Array.from({ length: 40 }, (_, i) => -11.7 + i * 0.5913);

test('a place is ink where polygons wind round it', () => {
  fc.assert(
    fc.property(polygons, (shape) => {
      const rows = rowsOfPolygons(shape, STEP);
      for (const k of ROWS)
        for (const x of COLUMNS) {
          const inside = shape.reduce((sum, ring) => sum + windingNumber(ring, x, (k + 0.5) * STEP), 0) !== 0;
          expect(isInked(rows, k, x)).toBe(inside);
        }
    }),
    { numRuns: 40 },
  );
});

test('chords that are moved come to what their polygons moved come to, but for what is left out', () => {
  fc.assert(
    fc.property(polygons, fc.integer({ min: 0, max: 359 }), point, place, (shape, degrees, by, low) => {
      const m = compose(rotation(degrees), translation(by.x, by.y));
      const within = [low, low + 4] as const;
      const moved = shape.map((ring) => ring.map((p): Point => applyMatrix(m, p)));
      const chords = chordsOf(shape);
      expect(rowsOfChords(chords, m, { step: STEP, within, upTo: Infinity })).toEqual(
        rowsOfPolygons(moved, STEP, within),
      );
      // Ink that begins farther on may be missing, and where ink ends there may be.
      const upTo = 2;
      const [some, all] = [rowsOfChords(chords, m, { step: STEP, within, upTo }), rowsOfPolygons(moved, STEP, within)];
      for (const k of ROWS)
        for (const x of COLUMNS.filter((x) => x < upTo)) expect(isInked(some, k, x)).toBe(isInked(all, k, x));
    }),
  );
});

test('several, each moved, are ink where any of them is', () => {
  fc.assert(
    fc.property(
      fc.array(polygons, { minLength: 1, maxLength: 4 }),
      fc.array(place, { minLength: 4, maxLength: 4 }),
      (shapes, moves) => {
        const each = shapes.map((shape) => rowsOfPolygons(shape, STEP));
        const united = uniteRows(each, moves);
        const moved = each.map((rows, i) => moveRows(rows, moves[i] as number));
        for (const k of ROWS)
          for (const x of COLUMNS) expect(isInked(united, k, x)).toBe(moved.some((rows) => isInked(rows, k, x)));
      },
    ),
    { numRuns: 40 },
  );
});

test('rows of many strokes are in order', () => {
  const strokes = Array.from({ length: 300 }, (_, i): Point[] => {
    const x = ((i * 7919) % 300) * 2;
    return [
      { x, y: 0 },
      { x: x + 1, y: 0 },
      { x: x + 1, y: 2 },
      { x, y: 2 },
    ];
  });
  const { rows } = rowsOfPolygons(strokes, STEP);
  expect(rows).toHaveLength(4);
  for (const row of rows) expect(row).toEqual(Array.from({ length: 600 }, (_, i) => (i >> 1) * 2 + (i % 2)));
});

test('no polygons are no ink', () => {
  expect(rowsOfPolygons([], STEP).rows).toEqual([]);
  expect(rowsOfChords(chordsOf([]), translation(0, 0), { step: STEP, within: [-9, 9], upTo: 9 }).rows).toEqual([]);
  expect(uniteRows([]).rows).toEqual([]);
  expect(uniteRows([{ first: 0, rows: [] }]).rows).toEqual([]);
});
