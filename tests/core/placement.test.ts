/** Parts as one thing: placements as matrices, and what a placed part comes to. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mirrorChosen, moveChosen, sizeChosen, turnChosen } from '../../src/core/commands/chosen';
import type { Job, Placement } from '../../src/core/document/schema';
import { compose, determinant, type Matrix } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { partMatrix, placementFor, placementMatrix, placementOf } from '../../src/core/prepare/placement';
import { partIn, rectangle } from '../support/commands';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const placement = fc.record({
  x: fc.double({ min: -1000, max: 1000, noNaN: true }),
  y: fc.double({ min: -1000, max: 1000, noNaN: true }),
  turn: fc.double({ min: -720, max: 720, noNaN: true }),
  mirror: fc.boolean(),
});
const near = (m: Matrix, n: Matrix, digits = 6) => {
  for (const key of ['a', 'b', 'c', 'd', 'e', 'f'] as const) expect(m[key], key).toBeCloseTo(n[key], digits);
};

test('a placement and its matrix are the same, whichever way it is turned', () => {
  fc.assert(
    fc.property(placement, (p) => {
      const again = placementOf(placementMatrix(p));
      near(placementMatrix(again), placementMatrix(p), 5);
      expect(again.turn).toBeGreaterThanOrEqual(-180);
      expect(again.turn).toBeLessThan(180);
      expect(again.mirror).toBe(p.mirror);
      expect(determinant(placementMatrix(p))).toBeCloseTo(p.mirror ? -1 : 1, 9);
    }),
  );
  for (const turn of [0, 90, -90, 30, -135.5])
    for (const mirror of [false, true])
      expect(placementOf(placementMatrix({ x: 1.25, y: -3, turn, mirror }))).toEqual({ x: 1.25, y: -3, turn, mirror });
  expect(placementOf(placementMatrix({ x: 0, y: 0, turn: 180, mirror: false })).turn).toBe(-180);
  // No zero is negative: a document is the same text however it was come by.
  const zero = placementOf({ a: 1, b: -0, c: 0, d: 1, e: -0, f: -1e-12 });
  for (const v of [zero.x, zero.y, zero.turn]) expect(Object.is(v, 0)).toBe(true);
});

test('a part lies in that which it goes along with, by way of others too', () => {
  const job = jobWith([
    partOf([], { id: 'a', placement: { x: 10, y: 20, turn: 90 } }),
    partOf([], { id: 'b', along: 'a', placement: { x: 5, y: 0, turn: 0, mirror: true } }),
    partOf([], { id: 'c', along: 'b', placement: { x: 1, y: 2, turn: 45 } }),
  ]);
  const [a, b, c] = job.parts.map((p) => p.placement) as [Placement, Placement, Placement];
  near(
    partMatrix(job.parts, partIn(job, 'c')),
    compose(compose(placementMatrix(c), placementMatrix(b)), placementMatrix(a)),
  );
  const wanted = placementMatrix({ x: 7, y: 8, turn: 10, mirror: false });
  const placed = { ...partIn(job, 'c'), placement: placementFor(job.parts, partIn(job, 'c'), wanted) };
  near(partMatrix(job.parts, placed), wanted, 5);
  near(placementMatrix(placementFor(job.parts, partIn(job, 'a'), wanted)), wanted, 5);
  // A draft in which parts lead in a circle, or to nothing, ends somewhere.
  const loose = [{ ...partIn(job, 'a'), along: 'c' }, partIn(job, 'b'), partIn(job, 'c')];
  expect(Number.isFinite(partMatrix(loose, loose[0] as Job['parts'][number]).e)).toBe(true);
  near(partMatrix([], { ...partIn(job, 'b'), along: 'gone' }), placementMatrix(b));
});

describe('a part that is moved, turned and mirrored', () => {
  const STEPS: readonly Draft[][] = [
    [{ kind: 'weld' }],
    [{ kind: 'weld' }, { kind: 'thicken', by: 0.4 }, { kind: 'tie', width: 1.5 }],
    [{ kind: 'weld' }, { kind: 'bar', height: 2 }, { kind: 'border', distance: 3 }],
  ];
  const job = (text: string, steps: Draft[], place: Draft = { x: 60, y: 50 }) =>
    jobWith(
      [
        partOf(
          [
            lettering(text, 'Poppins', { placement: { x: 0, y: 0 }, size: { by: 'capital', mm: 12 } }),
            rectangle('r', 20),
          ],
          {
            steps,
            placement: place,
          },
        ),
      ],
      { sheet: { width: 300, height: 200, leastWidth: 1, kerf: 0.2 } },
    );

  test('is the same motion of its outlines, and nothing is prepared anew', () => {
    const evaluator = new Evaluator(wasmEngine);
    const chosen = { partIds: ['part'], memberId: null };
    fc.assert(
      fc.property(
        fc.constantFrom('Rye', 'Qi', 'B8'),
        fc.constantFrom(...STEPS),
        fc.double({ min: -300, max: 300, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.boolean(),
        (text, steps, by, turn, mirror) => {
          const before = job(text, [...steps]);
          const turned = turnChosen(moveChosen(before, chosen, by, -by / 2), chosen, turn, { x: 10, y: 20 });
          const after = mirror ? mirrorChosen(turned, chosen, 33) : turned;
          const [p, q] = [before, after].map((j) => evaluator.evaluate(j, faces).parts[0]);
          const [from, to] = [before, after].map((j) => partMatrix(j.parts, partIn(j)));
          if (!p || !q || !from || !to) throw new Error('no part');
          expect(q.outlines).toHaveLength(p.outlines.length);
          const det = determinant(from);
          const back = (x: number, y: number) => ({
            x: (from.d * (x - from.e) - from.c * (y - from.f)) / det,
            y: (from.a * (y - from.f) - from.b * (x - from.e)) / det,
          });
          p.outlines.forEach((outline, i) => {
            const other = q.outlines[i];
            // What is mirrored runs the other way round.
            const segments = mirror ? [...(other?.path.segments ?? [])].reverse() : (other?.path.segments ?? []);
            outline.path.segments.forEach((s, k) => {
              const own = back(s.x0, s.y0);
              const x = to.a * own.x + to.c * own.y + to.e;
              const y = to.b * own.x + to.d * own.y + to.f;
              const t = segments[k];
              expect(Math.hypot(x - ((mirror ? t?.x1 : t?.x0) ?? 0), y - ((mirror ? t?.y1 : t?.y0) ?? 0))).toBeLessThan(
                1e-5,
              );
            });
            expect(other?.area).toBeCloseTo(outline.area, 6);
          });
          expect(q.pieces.map((piece) => piece.area)).toEqual(p.pieces.map((piece) => piece.area));
        },
      ),
      { numRuns: 40 },
    );
  });

  test('is prepared once, wherever it lies, and so are those that are like it', () => {
    const evaluator = new Evaluator(wasmEngine);
    let prepared = 0;
    const counting = (...args: Parameters<typeof faces>) => {
      prepared++;
      return faces(...args);
    };
    evaluator.evaluate(job('Rye', STEPS[2] ?? []), counting);
    const first = prepared;
    evaluator.evaluate(job('Rye', STEPS[2] ?? [], { x: 100, y: 9, turn: 77, mirror: true }), counting);
    // Only the question which typeface it is set in is asked again.
    expect(prepared - first).toBe(1);
    expect(first).toBeGreaterThan(1);
  });

  test('out of the sheet is kept by the sheet where it lies', () => {
    const out = (place: Draft) =>
      jobWith([partOf([rectangle('r', 0, { placement: { x: 0, y: 0 } })], { keep: 'outside', placement: place })]);
    const evaluator = new Evaluator(wasmEngine);
    const kept = (j: Job) => evaluator.evaluate(j, faces).parts[0];
    const inside = kept(out({ x: 100, y: 100, turn: 30, mirror: true }));
    expect(inside?.pieces).toHaveLength(1);
    expect(inside?.kept.reduce((sum, o) => sum + o.area, 0)).toBeCloseTo(300 * 200 - 200, 4);
    expect(inside?.kept[0]?.box).toMatchObject({ minX: expect.closeTo(0, 6), maxY: expect.closeTo(200, 6) });
    // Across the rim only half of it is taken off the sheet.
    const across = kept(out({ x: 0, y: 100, turn: 90 }));
    expect(across?.kept.reduce((sum, o) => sum + o.area, 0)).toBeCloseTo(300 * 200 - 100, 4);
    const moved = kept(out({ x: 0, y: 50, turn: 90 }));
    expect(moved?.kept).not.toEqual(across?.kept);
  });
});

describe('an overall width', () => {
  const wide = (text: string, mm: number, steps: Draft[], place: Draft = {}) =>
    jobWith([
      partOf([lettering(text, 'Poppins', { placement: { x: 0, y: 0 }, size: { by: 'capital', mm: 10 } })], {
        steps: [{ kind: 'weld' }, ...steps],
        overallWidth: mm,
        placement: { x: 30, y: 20, ...place },
      }),
    ]);
  const evaluator = new Evaluator(wasmEngine);
  const width = (j: Job) => {
    const [part] = evaluator.evaluate(j, faces).parts;
    return part ? part.ownBox.maxX - part.ownBox.minX : Number.NaN;
  };

  test.each<[string, Draft[]]>([
    ['of words alone', []],
    ['of thickened ones', [{ kind: 'thicken', by: 0.7 }]],
    [
      'of a bar and a border',
      [
        { kind: 'bar', height: 3, beyond: 4 },
        { kind: 'border', distance: 5 },
      ],
    ],
  ])('%s is met to a hundredth of a millimetre, whatever the words are', (_, steps) => {
    for (const text of ['Rye', 'Alder Lane', 'i'])
      for (const mm of [25, 120, 508])
        expect(Math.abs(width(wide(text, mm, steps)) - mm), `${text} ${mm}`).toBeLessThan(0.01);
    expect(Math.abs(width(wide('Rye', 80, steps, { turn: 35, mirror: true })) - 80)).toBeLessThan(0.01);
  });

  test('that no size gives is found, and the nearest is taken', () => {
    const job = wide('Rye', 8, [{ kind: 'border', distance: 5 }]);
    const result = evaluator.evaluate(job, faces);
    expect(result.findings.find((f) => f.code === 'overall-width')?.sentence).toMatch(
      /^“Rye” can’t be 8 mm wide overall: what does not grow with it leaves 1\d(\.\d+)? mm\.$/,
    );
    expect(width(job)).toBeLessThan(12);
    expect(evaluator.evaluate(wide('Rye', 80, []), faces).findings.map((f) => f.code)).not.toContain('overall-width');
    expect(evaluator.evaluate(wide('  ', 80, []), faces).parts[0]?.outlines).toEqual([]);
  });

  test('goes along when the part is sized', () => {
    const job = sizeChosen(
      wide('Rye', 80, [{ kind: 'border', distance: 5 }]),
      { partIds: ['part'], memberId: null },
      {
        factor: 1.5,
        about: {
          x: 0,
          y: 0,
        },
      },
    );
    expect(width(job)).toBeCloseTo(120, 2);
  });
});
