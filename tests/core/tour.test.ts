/** The order in which pieces are drawn: each once, from either end, and no turn or move makes the way between them shorter. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Strokes } from '../../src/core/geometry/strokes';
import { inTour, tourOf, travelOf } from '../../src/core/toolpath/hatch/tour';
import { chance } from '../support/random';

type Piece = readonly [x0: number, y0: number, x1: number, y1: number];
const endsOf = (pieces: readonly Piece[]) => Float64Array.from(pieces.flat());
const place = fc.integer({ min: 0, max: 40 });
const pieces = (most: number) => fc.array(fc.tuple(place, place, place, place), { minLength: 1, maxLength: most });

/** The way between pieces in an order, by its own reckoning: [piece, drawn backwards]. */
const wayOf = (list: readonly Piece[], order: readonly (readonly [number, boolean])[]): number => {
  let sum = 0;
  for (let i = 1; i < order.length; i++) {
    const [a, b] = [order[i - 1], order[i]] as [readonly [number, boolean], readonly [number, boolean]];
    const [p, q] = [list[a[0]], list[b[0]]] as [Piece, Piece];
    const [ex, ey] = a[1] ? [p[0], p[1]] : [p[2], p[3]];
    const [sx, sy] = b[1] ? [q[2], q[3]] : [q[0], q[1]];
    sum += Math.hypot(ex - sx, ey - sy);
  }
  return sum;
};
const readable = (order: Int32Array) =>
  [...order].map((o): readonly [number, boolean] => (o < 0 ? [-1 - o, true] : [o, false]));

test('every piece comes once, and the way between them is what it says', () => {
  fc.assert(
    fc.property(pieces(40), (list) => {
      const order = tourOf(endsOf(list));
      const seen = readable(order);
      expect(seen.map(([p]) => p).sort((a, b) => a - b)).toEqual(list.map((_, i) => i));
      expect(travelOf(endsOf(list), order)).toBeCloseTo(wayOf(list, seen), 9);
    }),
  );
});

/** The shortest way there is, all orders and directions tried. */
function shortest(list: readonly Piece[]): number {
  let best = Infinity;
  const go = (order: (readonly [number, boolean])[], left: readonly number[], way: number) => {
    if (way >= best) return;
    if (left.length === 0) best = way;
    for (const p of left)
      for (const back of [false, true]) {
        const next = [...order.slice(-1), [p, back] as const];
        go(
          next,
          left.filter((q) => q !== p),
          way + wayOf(list, next),
        );
      }
  };
  go(
    [],
    list.map((_, i) => i),
    0,
  );
  return best;
}

test('of few pieces the way is hardly longer than the shortest there is', () => {
  const next = chance(5);
  let [ours, least] = [0, 0];
  for (let round = 0; round < 60; round++) {
    const list = Array.from(
      { length: 4 + (round % 3) },
      () => [1, 2, 3, 4].map(() => Math.floor(40 * next())) as unknown as Piece,
    );
    ours += travelOf(endsOf(list), tourOf(endsOf(list)));
    least += shortest(list);
  }
  expect(ours).toBeGreaterThanOrEqual(least - 1e-6);
  expect(ours / least).toBeLessThan(1.06);
});

test('pieces in a row, whichever way each of them lies, are gone along without a way back', () => {
  const row: Piece[] = Array.from({ length: 30 }, (_, i) =>
    i % 3 === 0 ? [10 * i + 8, 0, 10 * i, 0] : [10 * i, 0, 10 * i + 8, 0],
  );
  const order = tourOf(endsOf(row));
  expect(travelOf(endsOf(row), order)).toBeCloseTo(29 * 2, 9);
  expect(readable(order).map(([p, back]) => back === (p % 3 === 0))).toEqual(Array(30).fill(true));
});

test('a detour that the nearest next makes is taken out by turning a stretch round', () => {
  // From 0 the nearest next goes to 2, on to the right, and has to come back for what lies left of where it began.
  const points: readonly Piece[] = [
    [3, 0, 3, 0],
    [-4, 0, -4, 0],
    [10, 0, 10, 0],
    [17, 0, 17, 0],
    [24, 0, 24, 0],
    [-11, 0, -11, 0],
  ];
  expect(travelOf(endsOf(points), tourOf(endsOf(points)))).toBeCloseTo(35, 9);
});

describe('strokes in groups', () => {
  const strokes = (...lines: readonly (readonly number[])[]): Strokes => ({
    xy: Float64Array.from(lines.flat()),
    start: Int32Array.from([0, ...lines.map((_, i) => lines.slice(0, i + 1).flat().length / 2)]),
  });

  test('go together; one that is begun at its end is drawn backwards, points and all', () => {
    const given = strokes([0, 0, 5, 0], [5, 1, 0, 1], [20, 9, 14, 3, 6, 1]);
    const made = inTour(given, Int32Array.from([0, 2, 3]));
    expect([...made.start]).toEqual([0, 2, 4, 7]);
    expect([...made.xy]).toEqual([0, 0, 5, 0, 5, 1, 0, 1, 6, 1, 14, 3, 20, 9]);
  });

  test('of none there are none', () => {
    expect(inTour(strokes(), Int32Array.from([0])).xy).toHaveLength(0);
  });
});
