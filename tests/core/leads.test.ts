/** Where cuts begin and end: shapes by hand, and signs whose ways in are judged by distances of the test's own. */
import { describe, expect, test } from 'vitest';
import { setKerfSide, setLead } from '../../src/core/commands/operations';
import type { Job } from '../../src/core/document/schema';
import { flattenPath, type Path, pathLength } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { pointAt, type Segment, tangentAt } from '../../src/core/geometry/segment';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { finished } from '../../src/core/memo';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';
import { chance } from '../support/random';

const CUT = { id: 'cut', name: 'Cut', kind: 'cut' };
const WORK = { work: [{ what: 'outline', operation: 'cut' }] };
const job = (parts: Draft[], lead: Parameters<typeof setLead>[2], sheet: Draft = {}, kerf: number | null = 1): Job =>
  setLead(
    setKerfSide(
      jobWith(parts, { operations: [CUT], sheet: { width: 800, height: 500, kerf, ...sheet } }),
      'cut',
      'beside',
    ),
    'cut',
    lead,
  );
const plate = (more: Draft = {}, hole = 20) =>
  partOf([rectangle('r', 100, 60), rectangle('h', hole, hole, { role: 'punch' })], {
    ...WORK,
    placement: { x: 200, y: 200 },
    ...more,
  });
const evaluate = (asked: Job) => new Evaluator(wasmEngine).evaluate(asked, faces);
const cutsOf = (result: JobResult): Path[] =>
  finished(result.run('full'))
    .operations.flatMap((o) => o.drawn)
    .flatMap(({ drawable: d }) => (d.kind === 'polyline' && 'segments' in d.geometry ? [d.geometry] : []));
const startOf = ({ segments: [s] }: Path): Point => pointAt(s as Segment, 0);
const endOf = ({ segments }: Path): Point => pointAt(segments[segments.length - 1] as Segment, 1);
const away = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
const ARC = { shape: 'arc', in: 5 } as const;

describe('a plate with a hole', () => {
  const both = cutsOf(evaluate(job([plate()], ARC)));
  const [hole, rim] = both as [Path, Path];

  test('begins in scrap: within the hole, and outside below the plate in the middle', () => {
    expect(both).toHaveLength(2);
    const inHole = startOf(hole);
    expect(Math.abs(inHole.x - 200)).toBeLessThan(9.5);
    expect(Math.abs(inHole.y - 200)).toBeLessThan(9.5);
    const below = startOf(rim);
    expect(below.y).toBeLessThan(200 - 30 - 0.5);
    // In the middle of the lower edge, as long as the way in to its left.
    expect(Math.abs(below.x - 200)).toBeLessThan(5);
  });

  test('an arc touches the outline it runs into, and goes the way that leads', () => {
    for (const path of both) {
      const [arc, next] = path.segments as [Segment, Segment];
      expect(arc.kind).toBe('arc');
      const [a, b] = [tangentAt(arc, 1), tangentAt(next, 0)];
      expect(a.x * b.x + a.y * b.y).toBeCloseTo(1, 9);
    }
  });

  test('goes all round, on as far as asked, and out', () => {
    const plain = pathLength(rim) - 5;
    const [, more] = cutsOf(evaluate(job([plate()], { ...ARC, out: 3, over: 2 }))) as [Path, Path];
    expect(pathLength(more)).toBeCloseTo(plain + 5 + 2 + 3, 6);
    expect(plain).toBeCloseTo(2 * (100 + 60) + Math.PI, 6);
    expect(endOf(rim).y).toBeCloseTo(169.5, 6);
    expect(endOf(more).y).toBeLessThan(169);
  });

  test.each([{ over: 2 }, { over: 3, out: 2, shape: 'line' as const }, { over: -3 }])(
    'its file is given out: %j is asked, and no line gone along twice by mistake',
    (lead) => {
      const asked = job([plate()], { ...ARC, ...lead });
      const made = finished(makeFiles(asked, evaluate(asked), ['dxf', 'svg'], { partIds: null }));
      expect(made.refused).toEqual([]);
      expect(made.files).toHaveLength(2);
    },
  );

  test('stops before where that is asked', () => {
    const [, short] = cutsOf(evaluate(job([plate()], { ...ARC, over: -4 }))) as [Path, Path];
    expect(pathLength(short)).toBeCloseTo(pathLength(rim) - 4, 6);
    expect(away(endOf(short), pointAt(short.segments[0] as Segment, 1))).toBeCloseTo(4, 6);
  });

  test('by a line it comes at half a right angle', () => {
    for (const path of cutsOf(evaluate(job([plate()], { shape: 'line', in: 5 })))) {
      const [way, next] = path.segments as [Segment, Segment];
      const [a, b] = [tangentAt(way, 1), tangentAt(next, 0)];
      expect(a.x * b.x + a.y * b.y).toBeCloseTo(Math.SQRT1_2, 9);
    }
  });

  test('without a length it is as long as the thickness asks', () => {
    const long = (thickness: number | null) => {
      const [, path] = cutsOf(evaluate(job([plate()], { shape: 'line' }, { thickness }))) as [Path, Path];
      return pathLength({ segments: path.segments.slice(0, 1), closed: false });
    };
    expect([null, 1, 10].map(long).map((mm) => Number(mm.toFixed(6)))).toEqual([2, 2.2, 13]);
  });

  test('cut out of a sheet that stays it begins inside', () => {
    const part = partOf([rectangle('r', 100, 60)], { ...WORK, keep: 'outside', placement: { x: 200, y: 200 } });
    const [path] = cutsOf(evaluate(job([part], ARC))) as [Path];
    const { x, y } = startOf(path);
    expect(Math.abs(x - 200)).toBeLessThan(50);
    expect(y).toBeGreaterThan(170.5);
    expect(y).toBeLessThan(230);
  });

  test('a hole to screw it on by has room: the lead-in is as long as fits', () => {
    const screw = partOf(
      [
        rectangle('r', 100, 60),
        { id: 'h', kind: 'ellipse', role: 'punch', placement: { x: 0, y: 0 }, width: 8, height: 8 },
      ],
      { ...WORK, placement: { x: 200, y: 200 } },
    );
    const result = evaluate(job([screw], { shape: 'arc' }, { thickness: 3 }, 1.2));
    expect(result.findings.filter((f) => f.code === 'no-room-for-lead')).toEqual([]);
    const [way] = (cutsOf(result)[0] as Path).segments as [Segment];
    expect(pathLength({ segments: [way], closed: false })).toBeGreaterThan(2);
    expect(away(pointAt(way, 0), { x: 200, y: 200 })).toBeLessThan(4 - 0.6 - 0.25);
  });

  test('where there is no room it begins on the outline, which is found', () => {
    const result = evaluate(job([plate({}, 2.5)], { ...ARC, in: 30 }));
    expect(cutsOf(result)).toHaveLength(1);
    expect(result.findings.filter((f) => f.code === 'no-room-for-lead').map((f) => f.partId)).toEqual(['part']);
  });

  test('never off the sheet, never across another part', () => {
    // Along the lower edge of the sheet there is no room below; another part stands close on its right.
    const low = plate({ placement: { x: 60, y: 32 } });
    const near = partOf([rectangle('r', 40, 60)], { ...WORK, id: 'near', placement: { x: 133, y: 32 } });
    const result = evaluate(job([low, near], ARC));
    expect(cutsOf(result)).toHaveLength(3);
    for (const path of cutsOf(result)) {
      const { x, y } = startOf(path);
      expect(y).toBeGreaterThan(0);
      expect(x > 110 && x < 113).toBe(false);
    }
  });

  test('moved and turned it is the same', () => {
    const turned = job([plate({ placement: { x: 400, y: 250, turn: 90 } })], ARC);
    for (const path of cutsOf(evaluate(turned))) expect(pathLength(path)).toBeGreaterThan(70);
    expect(cutsOf(evaluate(turned))).toHaveLength(2);
    expect(cutsOf(evaluate(turned))).toEqual(cutsOf(evaluate(turned)));
  });

  test('a mark has none, nor a machine that keeps beside the outlines by itself', () => {
    expect(cutsOf(evaluate(setKerfSide(job([plate()], ARC), 'cut', 'machine')))).toEqual([]);
    const marked = jobWith([plate()], { operations: [{ id: 'cut', name: 'Mark', kind: 'mark', lead: ARC }] });
    expect(cutsOf(evaluate(marked))).toEqual([]);
  });
});

type Chord = readonly [Point, Point];
/** How far a point is from what chords wind around; 0 within it. */
function distanceTo({ x, y }: Point, chords: readonly Chord[]): number {
  let [winding, least] = [0, Infinity];
  for (const [p, q] of chords) {
    const [dx, dy] = [q.x - p.x, q.y - p.y];
    const side = dx * (y - p.y) - dy * (x - p.x);
    if (p.y <= y && q.y > y && side > 0) winding++;
    else if (p.y > y && q.y <= y && side < 0) winding--;
    const t = Math.min(1, Math.max(0, ((x - p.x) * dx + (y - p.y) * dy) / (dx * dx + dy * dy || 1)));
    least = Math.min(least, Math.hypot(p.x + t * dx - x, p.y + t * dy - y));
  }
  return winding !== 0 ? 0 : least;
}

test('signs in every typeface: each closed cut has one way in or is found, and no way touches what is kept', {
  tags: 'slow',
}, () => {
  const next = chance(6);
  const words = ['Quince', 'Oak & Elm', 'Bay 4', 'Gate 8'];
  FAMILIES.forEach((family, i) => {
    const kerf = [0.2, 1.2, 2][i % 3] as number;
    const part = (id: string, x: number) =>
      partOf(
        [lettering(words[(i + x) % words.length] as string, family, { size: { by: 'capital', mm: 25 + 20 * next() } })],
        {
          ...WORK,
          id,
          steps: [{ kind: 'weld' }],
          placement: { x: 260 + 5 * x, y: 150 + 120 * x, turn: 40 * next() },
        },
      );
    const asked = job(
      [part('a', 0), part('b', 1)],
      { shape: i % 2 === 0 ? 'arc' : 'line', out: 1 },
      { thickness: 1 + (i % 4) },
      kerf,
    );
    const result = evaluate(asked);
    const closed = result.operations.flatMap((o) => o.drawn).filter((d) => d.drawable.kind === 'outline').length;
    const led = cutsOf(result);
    expect(result.findings.filter((f) => f.code === 'no-room-for-lead').length, family).toBe(Math.min(closed, 30));
    expect(led.length, family).toBeGreaterThan(closed);
    const kept = result.parts.map((p) =>
      p.outlines.flatMap((o) => {
        const points = flattenPath(o.path, 0.002);
        return points.map((p0, k): Chord => [p0, points[(k + 1) % points.length] as Point]);
      }),
    );
    for (const path of led) {
      const ends = [path.segments[0] as Segment, path.segments[path.segments.length - 1] as Segment];
      for (const s of ends)
        for (let k = 0; k <= 40; k++) {
          const p = pointAt(s, k / 40);
          expect(Math.min(p.x, p.y, 800 - p.x, 500 - p.y), family).toBeGreaterThanOrEqual(0);
          for (const chords of kept) expect(distanceTo(p, chords), family).toBeGreaterThanOrEqual(kerf / 2 - 0.015);
        }
      const pierced = Math.min(...kept.map((chords) => distanceTo(startOf(path), chords)));
      expect(pierced, family).toBeGreaterThan(kerf / 2 + 0.2);
    }
  });
});
