/** Rows of dots: exactly spaced along the line, corners and ends met, none on another unless told. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closedPath, flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { arcAbout, cubic, line, type Segment } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { dotTotals, totalSetDowns } from '../../src/core/job/totals';
import { LIMITS } from '../../src/core/limits';
import { type DotSettings, dotsAlong } from '../../src/core/toolpath/dots/dots';
import { Near } from '../../src/core/toolpath/dots/near';
import { faces, scriptEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const settings = (more: Partial<DotSettings> = {}): DotSettings => ({
  diameter: 1,
  spacing: 3,
  even: true,
  apart: true,
  ...more,
});

const open = (...segments: Segment[]): Path => ({ segments, closed: false });

/** Length along a finely flattened path up to the foot of each point; an own reckoning. */
function lengthsAlong(path: Path, points: readonly Point[]): number[] {
  const flat = flattenPath(path, 1e-7);
  if (path.closed) flat.push(flat[0] as Point);
  return points.map((p) => {
    let [best, at, so] = [Infinity, 0, 0];
    for (let i = 1; i < flat.length; i++) {
      const [a, b] = [flat[i - 1] as Point, flat[i] as Point];
      const size = Math.hypot(b.x - a.x, b.y - a.y);
      const t =
        size > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / size ** 2)) : 0;
      const d = Math.hypot(a.x + t * (b.x - a.x) - p.x, a.y + t * (b.y - a.y) - p.y);
      if (d < best) [best, at] = [d, so + t * size];
      so += size;
    }
    expect(best).toBeLessThan(1e-4);
    return at;
  });
}

const curve = fc
  .tuple(...Array.from({ length: 8 }, () => fc.double({ min: -40, max: 40, noNaN: true })))
  .map(([a, b, c, d, e, f]) =>
    cubic(0, 0, a as number, b as number, (c as number) + 60, d as number, (e as number) + 80, f as number),
  )
  // Curves that do not come near themselves, so that a place on one tells its length.
  .filter((s) => s.ax > 5 && s.bx > s.ax && s.x1 > s.bx + 5 && Math.abs(s.ay) < 30 && Math.abs(s.by) < 30);

describe('along one line', () => {
  test('even: both ends, and the same way from each to the next, within a micrometre', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(curve, fc.double({ min: 1.5, max: 8, noNaN: true }), (s, spacing) => {
        const { dots } = dotsAlong([open(s)], settings({ spacing }));
        const at = lengthsAlong(open(s), dots).sort((a, b) => a - b);
        const whole = at[at.length - 1] as number;
        expect(at[0]).toBeLessThan(1e-3);
        const step = whole / (at.length - 1);
        expect(Math.abs(step - spacing)).toBeLessThanOrEqual(spacing / 2 + 1e-3);
        at.forEach((l, i) => {
          expect(Math.abs(l - i * step)).toBeLessThan(1e-3);
        });
      }),
      { numRuns: 25 },
    );
  });

  test('exact: as typed from the start, the end met all the same', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(curve, fc.double({ min: 1.5, max: 8, noNaN: true }), (s, spacing) => {
        const { dots } = dotsAlong([open(s)], settings({ spacing, even: false }));
        const at = lengthsAlong(open(s), dots).sort((a, b) => a - b);
        at.slice(0, -1).forEach((l, i) => {
          expect(Math.abs(l - i * spacing)).toBeLessThan(1e-3);
        });
        expect(Math.hypot(s.x1 - (dots[1] as Point).x, s.y1 - (dots[1] as Point).y)).toBeLessThan(1e-9);
      }),
      { numRuns: 25 },
    );
  });

  test('corners are met; a circle comes out even', () => {
    const square = closedPath([line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 10), line(0, 10, 0, 0)]);
    const { dots } = dotsAlong([square], settings({ spacing: 2.6 }));
    for (const [x, y] of [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ] as const)
      expect(dots.some((d) => d.x === x && d.y === y)).toBe(true);
    expect(dots).toHaveLength(16);
    const circle = closedPath([0, 1, 2, 3].map((k) => arcAbout(5, 5, 4, (k * Math.PI) / 2, Math.PI / 2)));
    const round = dotsAlong([circle], settings({ spacing: 3 })).dots;
    expect(round).toHaveLength(8);
    const angles = round.map((d) => Math.atan2(d.y - 5, d.x - 5)).sort((a, b) => a - b);
    angles.slice(1).forEach((a, i) => {
      expect(a - (angles[i] as number)).toBeCloseTo(Math.PI / 4, 6);
    });
  });

  test('a line shorter than a dot, one of no length, and one with nothing in it', () => {
    expect(dotsAlong([open(line(0, 0, 0.4, 0))], settings()).dots).toHaveLength(1);
    expect(dotsAlong([open(line(3, 3, 3, 3))], settings()).dots.length).toBeLessThanOrEqual(1);
    expect(dotsAlong([open()], settings()).dots).toEqual([]);
    expect(dotsAlong([], settings()).dots).toEqual([]);
  });
});

describe('where lines meet', () => {
  test('a joint and a crossing have one dot for both', () => {
    const bar = open(line(0, 0, 20, 0));
    const stem = open(line(8, 0, 8, 9));
    const across = open(line(14, -6, 14, 6));
    const { dots, clashes } = dotsAlong([bar, stem, across], settings({ spacing: 2 }));
    expect(dots.filter((d) => Math.hypot(d.x - 8, d.y) < 0.5)).toEqual([{ x: 8, y: 0, fixed: true }]);
    const crossing = dots.filter((d) => Math.hypot(d.x - 14, d.y) < 0.5);
    expect(crossing).toHaveLength(1);
    expect(crossing[0]?.x).toBeCloseTo(14, 9);
    expect(clashes).toEqual([]);
  });

  test('no two are nearer than a diameter, or the place is told', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(...Array.from({ length: 4 }, () => fc.double({ min: 0, max: 30, noNaN: true }))), {
          minLength: 1,
          maxLength: 8,
        }),
        fc.boolean(),
        (ends, apart) => {
          const lines = ends.map(([a, b, c, d]) => open(line(a as number, b as number, c as number, d as number)));
          const made = dotsAlong(lines, settings({ spacing: 1.7, diameter: 1.2, apart }));
          made.dots.forEach((p, i) => {
            for (const q of made.dots.slice(i + 1).filter((d) => Math.hypot(p.x - d.x, p.y - d.y) < 1.2 - 1e-5)) {
              expect(apart).toBe(false);
              expect(made.clashes.some((c) => Math.hypot(c.x - (p.x + q.x) / 2, c.y - (p.y + q.y) / 2) < 1.2)).toBe(
                true,
              );
            }
          });
        },
      ),
      { numRuns: 100 },
    );
  });

  test('more than are made is said, and does not take for ever', { tags: 'slow' }, () => {
    expect(dotsAlong([open(line(0, 0, 90_000, 0))], settings({ spacing: 0.01, diameter: 0.01 }))).toMatchObject({
      dots: [],
      tooMany: true,
    });
    const most = dotsAlong([open(line(0, 0, LIMITS.dots - 1, 0))], settings({ spacing: 1, diameter: 0.5 }));
    expect(most.dots).toHaveLength(LIMITS.dots);
    const many = dotsAlong([open(line(0, 0, LIMITS.dots + 1, 0))], settings({ spacing: 1, diameter: 0.5 }));
    expect(many).toMatchObject({ dots: [], tooMany: true });
  });
});

describe('dots that stand alone', () => {
  const stem = open(line(0, 0, 0, 9));
  const above = { x: 0, y: 9.6 };

  test('one too near to a line stays, and the line gives way', () => {
    const { dots, leftOut, clashes } = dotsAlong([stem], settings(), [above]);
    expect(dots).toContainEqual({ ...above, fixed: true });
    expect(dots.map((d) => d.y).sort((a, b) => a - b)).toEqual([0, 3, 6, 9.6]);
    expect([leftOut, clashes.length]).toEqual([1, 0]);
  });

  test('one too near to a line is told where none is left out', () => {
    const { dots, clashes } = dotsAlong([stem], settings({ apart: false }), [above]);
    expect(dots).toHaveLength(5);
    expect(clashes).toHaveLength(1);
    expect(clashes[0]?.y).toBeCloseTo(9.3, 9);
  });

  test('they count towards how many there may be', () => {
    const many = Array.from({ length: LIMITS.dots + 1 }, (_, i) => ({ x: 20 * i, y: 50 }));
    expect(dotsAlong([stem], settings(), many).tooMany).toBe(true);
  });
});

test('a place beside the border of two buckets is found from the other side of it, however it is rounded', () => {
  // 3.6 less a hair divided by 1.2 is 3, and less 1.2 divided by 1.2 is below 2.
  const near = new Near<Point>(1.2);
  near.add({ x: 2.7, y: 0.5 });
  expect(near.nearest({ x: 3.5999999999999996, y: 0.5 }, 1.2)).toEqual({ x: 2.7, y: 0.5 });
  const upright = new Near<Point>(1.2);
  upright.add({ x: 0.5, y: 2.7 });
  expect(upright.nearest({ x: 0.5, y: 3.5999999999999996 }, 1.2)).toEqual({ x: 0.5, y: 2.7 });
  fc.assert(
    fc.property(fc.integer({ min: -40, max: 40 }), fc.double({ min: 0.01, max: 3, noNaN: true }), (k, size) => {
      for (const x of [k * size, k * size * (1 - 2 ** -53), k * size * (1 + 2 ** -52)]) {
        const places = new Near<Point>(size);
        places.add({ x: x - 0.9 * size, y: 0 });
        expect(places.nearest({ x, y: 0 }, size)).not.toBeNull();
      }
    }),
  );
});

describe('in a job', () => {
  const dotted = (step: Record<string, unknown>, text = 'ANNA') =>
    jobWith([
      partOf([lettering(text, 'Fredoka')], {
        steps: [{ kind: 'weld' }, { kind: 'dots', diameter: 1, spacing: 2, ...step }, { kind: 'centerline' }],
        work: [{ what: 'dots', operation: 'mark' }],
      }),
    ]);
  const marked = (step: Record<string, unknown>, text?: string) => {
    const read = dotted(step, text);
    const result = new Evaluator(scriptEngine).evaluate(read, faces);
    const drawing = drawingOf(read, result);
    return { read, result, drawing, shapes: drawing?.layers[0]?.drawn ?? [] };
  };

  test('circles or points in the files, nothing closed by accident, nothing filled', { tags: 'slow' }, () => {
    const circles = marked({});
    expect(circles.shapes.length).toBeGreaterThan(100);
    expect(circles.shapes.every((s) => s.kind === 'dot' && s.r === 0.5)).toBe(true);
    const points = marked({ as: 'point', along: 'centerline' });
    expect(points.shapes.every((s) => s.kind === 'dot' && s.r === null)).toBe(true);
    if (!points.drawing || !circles.drawing) throw new Error('nothing is drawn');
    const text = (d: typeof points.drawing, format: 'svg' | 'dxf') =>
      new TextDecoder().decode(writeFile(d, format, points.read.export));
    const count = (s: string, what: RegExp) => s.match(what)?.length ?? 0;
    expect(count(text(points.drawing, 'dxf'), /^POINT\r$/gm)).toBe(points.shapes.length);
    expect(count(text(circles.drawing, 'dxf'), /^CIRCLE\r$/gm)).toBe(circles.shapes.length);
    expect(count(text(circles.drawing, 'svg'), /<circle /g)).toBe(circles.shapes.length);
    expect(count(text(points.drawing, 'svg'), /h0"/g)).toBe(points.shapes.length);
  });

  test('counted by size over all parts of an operation, and each a time the tool is set down', () => {
    const ring = (id: string, step: Record<string, unknown>) =>
      partOf([{ id, kind: 'ellipse', placement: { x: 100, y: 100 }, width: 40, height: 40 }], {
        id,
        steps: [{ kind: 'dots', spacing: 4, ...step }],
        work: [{ what: 'dots', operation: 'mark' }],
      });
    const read = jobWith([
      ring('a', { diameter: 2 }),
      ring('b', { diameter: 1.5 }),
      ring('c', { diameter: 2 }),
      ring('d', { diameter: 2, as: 'point' }),
    ]);
    const shapes =
      new Evaluator(scriptEngine).evaluate(read, faces).operations.find((o) => o.operation.id === 'mark')?.drawn ?? [];
    const each = Math.round((40 * Math.PI) / 4);
    expect(dotTotals(shapes)).toEqual([
      { diameterMm: null, count: each },
      { diameterMm: 1.5, count: each },
      { diameterMm: 2, count: 2 * each },
    ]);
    expect(totalSetDowns(shapes)).toBe(4 * each);
  });

  test('one moved by hand onto another is told where it lies, and one that is left out no longer', () => {
    const clashes = (changes: readonly Draft[], apart = true) => {
      const job = jobWith([
        partOf([{ id: 'box', kind: 'rectangle', placement: { x: 100, y: 100 }, width: 40, height: 40 }], {
          steps: [{ kind: 'dots', diameter: 2, spacing: 5, apart, changes }],
          work: [{ what: 'dots', operation: 'mark' }],
        }),
      ]);
      return new Evaluator(scriptEngine).evaluate(job, faces).parts[0]?.linework.dots;
    };
    expect(clashes([])?.clashes).toEqual([]);
    // From the middle of the box, in its heights: the corner at 20 | 20, moved to within 1 mm of the next dot.
    const moved = clashes([{ x: 0.5, y: 0.5, dx: -0.1, dy: 0 }]);
    expect(moved?.clashes).toHaveLength(1);
    expect(moved?.clashes[0]?.x).toBeCloseTo(115.5, 6);
    const removed = clashes([
      { x: 0.5, y: 0.5, dx: -0.1, dy: 0 },
      { x: 0.375, y: 0.5, dx: null, dy: null },
    ]);
    expect(removed?.clashes).toEqual([]);
    expect(removed?.dots).toHaveLength((moved?.dots.length ?? 0) - 1);
  });

  test('moved and left out by hand, kept through another size', () => {
    const before = marked({}).result.parts[0]?.linework.dots?.dots ?? [];
    const gone = before[10] as Point;
    // The first letter’s origin is where the lettering starts.
    const frame = marked({}).result.parts[0]?.frames[0]?.matrix;
    const own = { x: (gone.x - (frame?.e ?? 0)) / 30, y: (gone.y - (frame?.f ?? 0)) / 30 };
    const after = marked({ changes: [{ ...own, dx: null, dy: null }] }).result.parts[0]?.linework.dots;
    expect(after?.dots).toHaveLength(before.length - 1);
    expect(after?.idle).toBe(0);
    const moved = marked({ changes: [{ ...own, dx: 0.05, dy: 0 }] }).result.parts[0]?.linework.dots?.dots ?? [];
    expect(moved).toHaveLength(before.length);
    expect(moved.some((d) => Math.hypot(d.x - gone.x - 1.5, d.y - gone.y) < 1e-6)).toBe(true);
    expect(marked({ changes: [{ x: 90, y: 90, dx: null, dy: null }] }).result.parts[0]?.linework.dots?.idle).toBe(1);
  });
});
