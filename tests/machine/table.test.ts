/** What lies on the table after cuts: by squares whose pieces are known, and by chance against shapes put together otherwise. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closedPath, type Path } from '../../src/core/geometry/path';
import { arcAbout, line } from '../../src/core/geometry/segment';
import { type CutLine, type Table, tableAfter } from '../../src/machine/table';
import { scriptEngine, wasmEngine } from '../support/faces';

const STOCK = { minX: 0, minY: 0, maxX: 200, maxY: 100 };
const square = (x: number, y: number, side: number, clockwise = false): Path => {
  const corners = [
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ] as [number, number][];
  const way = clockwise ? [...corners].reverse() : corners;
  return closedPath(
    way.map(([x0, y0], i) => {
      const [x1, y1] = way[(i + 1) % 4] as [number, number];
      return line(x0, y0, x1, y1);
    }),
  );
};
const circle = (x: number, y: number, r: number): Path =>
  closedPath([0, 1, 2, 3].map((k) => arcAbout(x, y, r, (k * Math.PI) / 2, Math.PI / 2)));
const open = (...points: [number, number][]): Path => ({
  closed: false,
  segments: points.slice(1).map(([x1, y1], i) => {
    const [x0, y0] = points[i] as [number, number];
    return line(x0, y0, x1, y1);
  }),
});
const cut = (path: Path, widthMm = 0.2): CutLine => ({ path, at: { x: 0, y: 0 }, widthMm });
const after = (...cuts: CutLine[]): Table => tableAfter(wasmEngine, STOCK, cuts);
/** Areas of pieces, the smallest first, with the cut after which each is free. */
const seen = ({ pieces }: Table) =>
  [...pieces].sort((a, b) => a.areaMm2 - b.areaMm2).map((p) => [Number(p.areaMm2.toFixed(2)), p.freeAfter]);

describe('pieces', () => {
  test('without a cut the stock lies there', () => {
    expect(seen(after())).toEqual([[20000, null]]);
  });

  test('a square falls out, half the width of the cut smaller all round, whichever way it is cut', () => {
    for (const clockwise of [false, true])
      expect(seen(after(cut(square(20, 20, 40, clockwise))))).toEqual([
        [1584.04, 0],
        // The corners outside are round.
        [Number((20000 - 40.2 ** 2 + 0.01 * (4 - Math.PI)).toFixed(2)), null],
      ]);
  });

  test('a ring is free after its hole, if that is cut first; its hole after the ring is a cut in a loose piece', () => {
    const [outer, inner] = [cut(circle(100, 50, 30)), cut(circle(100, 50, 10))];
    const first = after(inner, outer);
    expect(first.pieces.map((p) => p.freeAfter).sort()).toEqual([0, 1, null]);
    expect(first.loose).toEqual([]);
    const late = after(outer, inner);
    // All of it is free at once; then it is cut while it lies loose.
    expect(late.pieces.map((p) => p.freeAfter).sort()).toEqual([0, 0, null]);
    expect(late.loose).toEqual([1]);
  });

  test('a gap holds a piece; one narrower than the cut does not', () => {
    const gapped = (gap: number) => after(cut(open([20 + gap, 20], [60, 20], [60, 60], [20, 60], [20, 20])));
    expect(gapped(1).pieces.map((p) => p.freeAfter)).toEqual([null]);
    expect(gapped(0.15).pieces).toHaveLength(2);
  });

  test('several cuts that meet free what lies between them, after the last', () => {
    const sides = [
      open([20, 20], [60, 20]),
      open([60, 20], [60, 60]),
      open([60, 60], [20, 60]),
      open([20, 60], [20, 20]),
    ];
    expect(seen(after(...sides.map((s) => cut(s))))[0]).toEqual([1584.04, 3]);
  });

  test('cut across, the stock is in two; both lie at its edge', () => {
    expect(seen(after(cut(open([100, -5], [100, 105]), 1)))).toEqual([
      [9950, null],
      [9950, null],
    ]);
  });

  test('a point takes a disc; two cuts along each other take no more than one', () => {
    const [piece] = after({ path: null, at: { x: 50, y: 50 }, widthMm: 10 }).pieces;
    expect(piece?.areaMm2).toBeCloseTo(20000 - 25 * Math.PI, 0);
    const [twice] = seen(after(cut(square(20, 20, 40)), cut(square(20, 20, 40, true))));
    expect(twice?.[0]).toBe(1584.04);
    expect(twice?.[1]).not.toBeNull();
  });

  test('a line of no width parts the stock', () => {
    expect(after(cut(square(20, 20, 40), 0)).pieces).toHaveLength(2);
  });

  test('places are found in pieces, and none in what is cut away', () => {
    const table = after(cut(circle(100, 50, 10), 2), cut(circle(100, 50, 30), 2));
    const at = (x: number) => {
      const i = table.pieceAt({ x, y: 50 });
      return i === null ? null : Math.round(table.pieces[i]?.areaMm2 ?? 0);
    };
    expect(at(100)).toBe(254);
    expect(at(110)).toBeNull();
    expect(at(120)).toBeGreaterThan(2000);
    expect(at(5)).toBeGreaterThan(10_000);
    expect(table.pieceAt({ x: -5, y: 50 })).toBeNull();
  });
});

test('discs by chance: as many pieces as lie apart, each of its size, in both engines', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          x: fc.integer({ min: 1, max: 9 }),
          y: fc.integer({ min: 1, max: 4 }),
          r: fc.integer({ min: 2, max: 9 }),
        }),
        {
          maxLength: 12,
        },
      ),
      fc.double({ min: 0.05, max: 1.5, noNaN: true }),
      (asked, width) => {
        const places = new Map(asked.map((d) => [`${d.x},${d.y}`, d]));
        const discs = [...places.values()];
        const cuts = discs.map(({ x, y, r }) => cut(circle(20 * x, 20 * y, r), width));
        for (const engine of [wasmEngine, scriptEngine]) {
          const { pieces, loose } = tableAfter(engine, STOCK, cuts);
          expect(pieces).toHaveLength(discs.length + 1);
          expect(loose).toEqual([]);
          const areas = pieces
            .filter((p) => p.freeAfter !== null)
            .map((p) => p.areaMm2)
            .sort((a, b) => a - b);
          const wanted = discs.map(({ r }) => Math.PI * (r - width / 2) ** 2).sort((a, b) => a - b);
          areas.forEach((area, i) => {
            const r = Math.sqrt((wanted[i] as number) / Math.PI);
            expect(Math.abs(area - (wanted[i] as number))).toBeLessThan(2 * Math.PI * r * 0.04 + 0.01);
          });
        }
      },
    ),
    { numRuns: 40 },
  );
});
