/** The first layout against the plainest way there is to make it; and corners left out of shapes. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { firstLayout } from '../../src/core/nesting/first';
import { type Fitting, type NestShape, type Problem, prepareNesting } from '../../src/core/nesting/problem';
import { flatRing, thinned } from '../../src/core/nesting/raster';

const wavy = fc
  .record({
    r: fc.double({ min: 2, max: 22, noNaN: true }),
    waves: fc.integer({ min: 0, max: 9 }),
    depth: fc.double({ min: 0, max: 0.6, noNaN: true }),
    corners: fc.integer({ min: 3, max: 160 }),
    flat: fc.double({ min: 0.1, max: 1, noNaN: true }),
  })
  .map(({ r, waves, depth, corners, flat }) =>
    flatRing(
      Array.from({ length: corners }, (_, i) => {
        const angle = (2 * Math.PI * i) / corners;
        const reach = r * (1 + depth * Math.cos(waves * angle));
        return { x: reach * Math.cos(angle), y: flat * reach * Math.sin(angle) };
      }),
    ),
  );

/** Places cell by cell: the largest box first, each at the lowest, then leftmost place, in the turn that ends lowest. */
function plainly({ items, masks, grid }: Problem) {
  const cellsOf = ({ height, runs, firstRun }: Fitting): [number, number][] => {
    const cells: [number, number][] = [];
    for (let row = 0; row < height; row++)
      for (let i = firstRun[row] as number; i < (firstRun[row + 1] as number); i++)
        for (let x = runs[2 * i] as number; x <= (runs[2 * i + 1] as number); x++) cells.push([x, row]);
    return cells;
  };
  const sheets: Set<number>[] = [];
  const box = (i: number) => {
    const mask = masks[items[i]?.masks[0] ?? -1];
    return mask ? mask.width * mask.height : 0;
  };
  const places: unknown[] = items.map(() => null);
  const order = items.map((_, i) => i).sort((a, b) => box(b) - box(a) || a - b);
  for (const index of order) {
    const turns = (items[index]?.masks ?? []).map((id) => masks[id] as Fitting);
    for (let sheet = 0; turns.length > 0 && places[index] === null; sheet++) {
      const taken = sheets[sheet] ?? new Set<number>();
      sheets[sheet] = taken;
      let best: { top: number; cells: [number, number][]; place: { mask: number; x: number; y: number } } | null = null;
      for (const mask of turns) {
        const cells = cellsOf(mask);
        const fits = (x: number, y: number) => cells.every(([cx, cy]) => !taken.has((y + cy) * grid.width + x + cx));
        search: for (let y = 0; y <= mask.mostY; y++)
          for (let x = 0; x <= mask.mostX; x++) {
            if (!fits(x, y)) continue;
            const top = y + mask.height;
            if (!best || top < best.top) best = { top, cells, place: { mask: mask.id, x, y } };
            break search;
          }
      }
      if (!best) continue;
      for (const [cx, cy] of best.cells) taken.add((best.place.y + cy) * grid.width + best.place.x + cx);
      places[index] = { ...best.place, sheet };
    }
  }
  return places;
}

test('each shape lies where the plainest search would lay it', () => {
  fc.assert(
    fc.property(
      fc.array(wavy, { minLength: 1, maxLength: 14 }),
      fc.constantFrom([0], [0, 180], [0, 90, 180, 270], [0, 45]),
      fc.boolean(),
      (rings, turns, usesHoles) => {
        const shapes: NestShape[] = rings.map((ring, i) => ({ id: `${i}`, areas: [[ring]], copies: 2, group: null }));
        const problem = prepareNesting(shapes, {
          width: 130,
          height: 90,
          spacing: 2,
          margin: 5,
          turns,
          usesHoles,
          offCut: null,
          lying: [],
        });
        expect(firstLayout(problem).next().value?.places).toEqual(plainly(problem));
      },
    ),
    { numRuns: 40 },
  );
});

test('a corner left out lies within what is allowed of the line that is left; those kept are corners of the ring', () => {
  fc.assert(
    fc.property(wavy, fc.double({ min: 0.001, max: 3, noNaN: true }), (ring, stray) => {
      const left = thinned(ring, stray);
      const corners = (of: Float64Array) =>
        Array.from({ length: of.length / 2 }, (_, i) => ({ x: of[2 * i] as number, y: of[2 * i + 1] as number }));
      const [all, kept] = [corners(ring), corners(left)];
      expect(kept[0]).toEqual(all[0]);
      let at = -1;
      const places = kept.map((corner) => {
        at = all.findIndex((c, i) => i > at && c.x === corner.x && c.y === corner.y);
        return at;
      });
      expect(Math.min(...places)).toBe(0);
      places.forEach((from, i) => {
        const [a, to] = [all[from], places[i + 1] ?? all.length];
        const b = all[to % all.length];
        if (!a || !b) throw new Error('no such corner');
        const [dx, dy] = [b.x - a.x, b.y - a.y];
        for (const { x, y } of all.slice(from + 1, to)) {
          const t = Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
          expect(Math.hypot(x - a.x - t * dx, y - a.y - t * dy)).toBeLessThan(stray * (1 + 1e-9));
        }
      });
    }),
    { numRuns: 300 },
  );
  const straight = flatRing(Array.from({ length: 100 }, (_, i) => ({ x: i < 50 ? i : 99 - i, y: i < 50 ? 0 : 5 })));
  expect([...thinned(straight, 1e-6)]).toEqual([0, 0, 49, 0, 49, 5, 0, 5]);
});
