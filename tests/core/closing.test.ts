/** Loose lines closed: examples, and outlines broken at random that must be restored. */
import { describe, expect, test } from 'vitest';
import { repeatsAmong } from '../../src/core/geometry/doubles';
import {
  flattenPath,
  isContinuous,
  type Path,
  pathArea,
  reversePath,
  transformPath,
} from '../../src/core/geometry/path';
import { scaling, translation } from '../../src/core/geometry/point';
import { arcAbout, line, transformSegment as transformed } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { type ClosingSettings, closeLines, type LooseLine } from '../../src/core/prepare/closing/closing';
import { refitPath } from '../../src/core/prepare/closing/refit';
import { regionOf } from '../../src/core/prepare/closing/region';
import { shapePath } from '../../src/core/prepare/shape';
import { breakUp, placesOn } from '../support/broken';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { jobWith, lettering, partOf } from '../support/jobs';
import { farthest, type Polyline } from '../support/polyline-distance';
import { type Chance, chance } from '../support/random';
import { sample } from '../support/scale';

const evaluator = new Evaluator(wasmEngine);
const SETTINGS: ClosingSettings = { gap: 0, findUpTo: 2, doubles: 0.02, specks: 0.05, answers: [] };
const lines = (...segments: readonly (readonly [number, number, number, number])[]): LooseLine[] =>
  segments.map(([a, b, c, d], i) => ({ key: `${i}.0`, path: { segments: [line(a, b, c, d)], closed: false } }));

const box = (x: number): Path => ({
  closed: true,
  segments: [line(x, 0, x + 10, 0), line(x + 10, 0, x + 10, 10), line(x + 10, 10, x, 10), line(x, 10, x, 0)],
});
const moved = (path: Path, dx: number, dy: number): Path => transformPath(path, translation(dx, dy));
const scaledBox = (k: number): Path => transformPath(moved(box(0), -5, -5), scaling(k));

describe('closing', () => {
  test('lines that meet are one outline, whichever way they run', () => {
    const { loops, open, gaps } = closeLines(
      lines([0, 0, 10, 0], [10, 10, 10, 0], [0, 10, 10, 10], [0, 10, 0, 0]),
      SETTINGS,
    );
    expect(loops).toHaveLength(1);
    expect(Math.abs(pathArea(loops[0] as Path))).toBeCloseTo(100, 9);
    expect([open.length, gaps.length]).toEqual([0, 0]);
  });

  test('a gap is found with its size, and closed only when it was accepted', () => {
    const broken = lines([0, 0, 10, 0], [10, 0, 10, 10], [10, 10, 0, 10], [0, 10, 0, 0.3]);
    const found = closeLines(broken, SETTINGS);
    expect(found.loops).toHaveLength(0);
    expect(found.gaps).toEqual([
      expect.objectContaining({ sizeMm: expect.closeTo(0.3, 9), state: 'sure', how: 'extend' }),
    ]);
    const closed = closeLines(broken, { ...SETTINGS, gap: 0.5 });
    expect(closed.gaps[0]?.state).toBe('closed');
    expect(Math.abs(pathArea(closed.loops[0] as Path))).toBeCloseTo(100, 9);
    expect((closed.loops[0] as Path).segments).toHaveLength(4);
    const answered = closeLines(broken, { ...SETTINGS, answers: [{ gap: found.gaps[0]?.key ?? '', how: 'close' }] });
    expect(answered.loops).toHaveLength(1);
    const left = closeLines(broken, {
      ...SETTINGS,
      gap: 0.5,
      answers: [{ gap: found.gaps[0]?.key ?? '', how: 'leave' }],
    });
    expect([left.loops.length, left.gaps[0]?.state]).toEqual([0, 'left']);
  });

  test('ends that overshoot are cut back to the corner', () => {
    const { loops } = closeLines(lines([-0.3, 0, 10.2, 0], [10, -0.1, 10, 10], [10, 10, 0, 10], [0, 10, 0, -0.2]), {
      ...SETTINGS,
      gap: 0.5,
    });
    expect(loops).toHaveLength(1);
    expect(Math.abs(pathArea(loops[0] as Path))).toBeCloseTo(100, 9);
  });

  test('what is drawn twice is cut once: the same, reversed, in part, and across a joint', () => {
    const square = lines([0, 0, 10, 0], [10, 0, 10, 10], [10, 10, 0, 10], [0, 10, 0, 0]);
    const extra = lines([0, 0, 10, 0], [10, 10, 10, 0], [3, 10, 7, 10.005], [0, 9, 0, 6]).map((l, i) => ({
      ...l,
      key: `x${i}.0`,
    }));
    const { loops, open, doubled } = closeLines([...square, ...extra], SETTINGS);
    expect(doubled).toBe(4);
    expect(loops).toHaveLength(1);
    expect(open).toHaveLength(0);
    // What reaches beyond the corner is left.
    const beyond = closeLines(lines([0, 0, 10, 0], [6, 0, 14, 0]), SETTINGS);
    expect(beyond.open.flatMap((p) => p.segments)).toHaveLength(2);
    expect(beyond.open).toHaveLength(1);
  });

  test('outlines of the file stay whole; a loose line along one goes', () => {
    const along = closeLines(
      [{ key: '0.0', path: box(0) }, ...lines([-5, 0, 15, 0]).map((l) => ({ ...l, key: '1.0' }))],
      SETTINGS,
    );
    expect(along.loops).toHaveLength(1);
    expect(along.open).toHaveLength(2);
    expect(
      closeLines(
        [box(0), box(10)].map((path, i) => ({ key: `${i}.0`, path })),
        SETTINGS,
      ).loops,
    ).toHaveLength(2);
  });

  test('an outline drawn again is found, whatever it starts at and way it runs; shared edges are counted', () => {
    expect(repeatsAmong([[box(0)], [box(10)], [reversePath(box(0))]], 0.02)).toEqual({
      again: new Set([2]),
      shared: 1,
    });
    // A cell all of whose edges others share is no repeat.
    const cells = [0, 1, 2].flatMap((x) => [0, 1, 2].map((y) => [moved(box(10 * x), 0, 10 * y)]));
    expect(repeatsAmong(cells, 0.02)).toEqual({ again: new Set(), shared: 12 });
    const round = (from: number): Path => {
      const arcs = [0, 1, 2].map((k) => arcAbout(0, 0, 10, from + k * 2.0943951023931953, 2.0943951023931953));
      return { closed: true, segments: arcs };
    };
    expect(repeatsAmong([[round(0)], [round(1)]], 0.02).again).toEqual(new Set([1]));
    // The rim of a ring by itself is a part of the ring, whichever comes first.
    const hole = moved(box(0), 0, 0);
    const ring = [scaledBox(3), hole];
    expect(repeatsAmong([[scaledBox(3)], ring], 0.02).again).toEqual(new Set([0]));
    expect(repeatsAmong([], 0.02)).toEqual({ again: new Set(), shared: 0 });
  });

  test('short segments beside long ones are no doubles', () => {
    const nib = {
      closed: true,
      segments: [line(0, 0, 10, 0), line(10, 0, 10.01, 0.01), line(10.01, 0.01, 5, 6), line(5, 6, 0, 0)],
    };
    expect(closeLines([{ key: '0.0', path: nib }], SETTINGS).loops[0]?.segments).toHaveLength(4);
    const loose = nib.segments.map((segment, i) => ({ key: `${i}.0`, path: { closed: false, segments: [segment] } }));
    expect(closeLines(loose, SETTINGS).loops[0]?.segments).toHaveLength(4);
  });

  test('three ends in one place are asked', () => {
    const fork = lines([0, 0, 10, 0], [10, 0, 15, 8], [10, 0, 15, -8]);
    const { gaps, loops } = closeLines(fork, { ...SETTINGS, gap: 1 });
    expect(loops).toHaveLength(0);
    expect(gaps).toHaveLength(3);
    expect(new Set(gaps.map((g) => g.state))).toEqual(new Set(['asked']));
    const answered = closeLines(fork, { ...SETTINGS, answers: [{ gap: gaps[0]?.key ?? '', how: 'close' }] });
    expect(answered.gaps.filter((g) => g.state === 'asked')).toHaveLength(0);
    expect(answered.open).toHaveLength(2);
  });

  test('two partners nearly as near are asked', () => {
    const { gaps } = closeLines(lines([0, 0, 10, 0], [10.4, 0.1, 20, 0.1], [10.4, -0.15, 30, -0.15]), {
      ...SETTINGS,
      gap: 1,
    });
    expect(gaps.some((g) => g.state === 'closed')).toBe(false);
    expect(gaps.some((g) => g.state === 'asked')).toBe(true);
  });

  test('an end that overshoots the middle of a line is cut back to it, one that stops short is run on', () => {
    const frame = lines([0, 0, 20, 0], [20, 0, 20, 10], [20, 10, 0, 10], [0, 10, 0, 0]);
    const bar = lines([10, -0.3, 10, 9.8]).map((l) => ({ ...l, key: 'bar.0' }));
    const { open, tees, loops } = closeLines([...frame, ...bar], { ...SETTINGS, gap: 0.5 });
    expect([loops.length, tees]).toEqual([1, 2]);
    expect(open[0]?.segments).toEqual([
      { kind: 'line', x0: 10, y0: expect.closeTo(0, 9), x1: 10, y1: expect.closeTo(10, 9) },
    ]);
    // Nothing is moved before it was accepted, nor farther than that.
    expect(closeLines([...frame, ...bar], SETTINGS).tees).toBe(0);
    expect(closeLines([...frame, ...bar], { ...SETTINGS, gap: 0.25 }).tees).toBe(1);
  });

  test('nothing at all, points, and one closed outline', () => {
    expect(closeLines([], SETTINGS)).toEqual({ loops: [], open: [], gaps: [], doubled: 0, specks: 0, tees: 0 });
    expect(closeLines(lines([1, 1, 1, 1]), SETTINGS).open).toHaveLength(0);
    const circle = shapePath({
      kind: 'ellipse',
      id: 'e',
      role: 'join',
      placement: { x: 0, y: 0, turn: 0, mirror: false },
      width: 8,
      height: 8,
    });
    expect(closeLines([{ key: '0.0', path: circle }], SETTINGS).loops).toEqual([circle]);
  });
});

describe('outlines put together', () => {
  const square = (x: number, y: number, size: number): Path => ({
    closed: true,
    segments: [
      line(x, y, x + size, y),
      line(x + size, y, x + size, y + size),
      line(x + size, y + size, x, y + size),
      line(x, y + size, x, y),
    ],
  });
  const areaOf = (paths: readonly Path[]) =>
    regionOf(
      wasmEngine,
      paths.map((p) => ({ paths: [p], rule: 'nonzero' as const })),
    ).reduce((sum, p) => sum + pathArea(p), 0);

  test('an outline in an outline is a hole, one in that is stock again; those that cross are welded', () => {
    expect(areaOf([square(0, 0, 10), square(2, 2, 6), square(4, 4, 2)])).toBeCloseTo(100 - 36 + 4, 9);
    expect(areaOf([square(0, 0, 10), square(5, 5, 10)])).toBeCloseTo(175, 6);
    expect(areaOf([square(0, 0, 20), square(2, 2, 4), square(4, 4, 4)])).toBeCloseTo(400 - 28, 6);
  });

  test('an area keeps its own rule', () => {
    const rings = [square(0, 0, 10), square(2, 2, 6)];
    const sum = (rule: 'nonzero' | 'evenodd') =>
      regionOf(wasmEngine, [{ paths: rings, rule }]).reduce((s, p) => s + pathArea(p), 0);
    expect(sum('nonzero')).toBeCloseTo(100, 6);
    expect(sum('evenodd')).toBeCloseTo(64, 6);
  });
});

/** The outlines of a letter, 60 mm tall, in one of the shipped typefaces. */
function letterOutlines(next: Chance): readonly Path[] {
  const face = FAMILIES[Math.floor(next() * FAMILIES.length)] as string;
  const letter = 'BGJMRSaegkqs&83'[Math.floor(next() * 15)] as string;
  const job = jobWith([partOf([lettering(letter, face, { size: { by: 'capital', mm: 60 } })])]);
  return evaluator.evaluate(job, faces).parts[0]?.outlines.map((o) => o.path) ?? [];
}

/** A handful of shapes, apart from each other, some with holes. */
function outlinesFrom(next: Chance): Path[] {
  const place = { x: 0, y: 0, turn: 0, mirror: false };
  const base = { id: 's', role: 'join' as const, placement: place };
  const size = () => 24 + 40 * next();
  const make = (k: number): Path => {
    const [w, h] = [size(), size()];
    switch (k % 6) {
      case 0:
        return shapePath({ ...base, kind: 'rectangle', width: w, height: h, corner: 0 });
      case 1:
        return shapePath({ ...base, kind: 'rectangle', width: w, height: h, corner: 6 });
      case 2:
        return shapePath({ ...base, kind: 'ellipse', width: w, height: next() < 0.5 ? w : h });
      case 3:
        return shapePath({ ...base, kind: 'heart', width: w, height: h });
      case 4:
        return shapePath({ ...base, kind: 'polygon', width: w, sides: 3 + Math.floor(next() * 6) });
      default:
        return shapePath({ ...base, kind: 'star', width: Math.max(40, w), points: 5, inner: 0.5 });
    }
  };
  return Array.from({ length: 1 + Math.floor(next() * 4) }, (_, i) => i).flatMap((i): Path[] => {
    const paths = next() < 0.35 ? letterOutlines(next) : [make(Math.floor(next() * 6))];
    const angle = next() * 2 * Math.PI;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    return paths.map((path) => ({
      closed: true,
      segments: path.segments.flatMap((seg) => transformed(seg, { a: c, b: s, c: -s, d: c, e: 600 * i, f: 0 })),
    }));
  });
}

test('broken outlines are restored, and no join that is wrong is called sure', { tags: 'slow' }, () => {
  const cases = sample(25, 1000);
  let restored = 0;
  let wrong = 0;
  const failed: number[] = [];
  for (let seed = 0; seed < cases; seed++) {
    const next = chance(1000 + seed);
    const good = outlinesFrom(next);
    const { lines: broken, gapMm } = breakUp(good, next);
    const result = closeLines(broken, { ...SETTINGS, findUpTo: 0.8, gap: 0.8 });
    const apart = placesOn(good);
    wrong += result.gaps.filter(
      (g) => (g.state === 'closed' || g.state === 'sure') && apart(g.from, g.to) > 1.5,
    ).length;
    const drawn = (paths: readonly Path[]): Polyline[] =>
      paths.map((p) => {
        const points = flattenPath(p, 0.002).map((q): [number, number] => [q.x, q.y]);
        return [...points, points[0] as [number, number]];
      });
    const area = (paths: readonly Path[]) => paths.reduce((sum, p) => sum + Math.abs(pathArea(p)), 0);
    const within = Math.max(farthest(drawn(good), drawn(result.loops)), farthest(drawn(result.loops), drawn(good)));
    const isWhole =
      result.loops.length === good.length &&
      within <= Math.max(0.03, gapMm) &&
      Math.abs(area(good) - area(result.loops)) <= 0.002 * area(good);
    if (isWhole) restored++;
    else failed.push(seed);
  }
  figure({
    name: 'Broken outlines fully restored',
    value: (100 * restored) / cases,
    digits: 1,
    unit: '%',
    note: `${cases} cases; not: ${failed.slice(0, 10).join(', ')}`,
  });
  expect(wrong).toBe(0);
  expect(restored / cases, failed.join()).toBeGreaterThanOrEqual(0.995);
});

describe('facets', () => {
  const facets = (n: number, at: (u: number) => readonly [number, number], closed: boolean): Path => {
    const points = Array.from({ length: n + 1 }, (_, i) => at(i / n));
    return {
      closed,
      segments: points
        .slice(1)
        .map((p, i) =>
          line(
            points[i]?.[0] as number,
            points[i]?.[1] as number,
            i === n - 1 && closed ? (points[0]?.[0] as number) : p[0],
            i === n - 1 && closed ? (points[0]?.[1] as number) : p[1],
          ),
        ),
    };
  };
  const round = (u: number): readonly [number, number] => [
    20 * Math.cos(2 * Math.PI * u),
    20 * Math.sin(2 * Math.PI * u),
  ];

  test('a faceted circle is a circle, an octagon stays one', () => {
    const circle = refitPath(facets(180, round, true), 0.02);
    expect(circle.segments.map((s) => s.kind)).toEqual(['arc', 'arc', 'arc', 'arc']);
    expect(Math.abs(pathArea(circle))).toBeCloseTo(Math.PI * 400, 6);
    const octagon = facets(8, round, true);
    expect(refitPath(octagon, 5)).toBe(octagon);
    // Facets deeper than the tolerance are meant.
    const coarse = facets(24, round, true);
    expect(refitPath(coarse, 0.05)).toBe(coarse);
  });

  test('a plate with faceted corners has four arcs and four straights', () => {
    const plate = shapePath({
      kind: 'rectangle',
      id: 'p',
      role: 'join',
      placement: { x: 0, y: 0, turn: 0, mirror: false },
      width: 80,
      height: 50,
      corner: 8,
    });
    const points = flattenPath(plate, 0.004);
    const faceted: Path = {
      closed: true,
      segments: points.map((p, i) =>
        line(
          p.x,
          p.y,
          (points[(i + 1) % points.length] as typeof p).x,
          (points[(i + 1) % points.length] as typeof p).y,
        ),
      ),
    };
    expect(faceted.segments.length).toBeGreaterThan(80);
    const fitted = refitPath(faceted, 0.02);
    expect(fitted.segments.map((s) => s.kind).sort()).toEqual([...Array(4).fill('arc'), ...Array(4).fill('line')]);
    expect(pathArea(fitted)).toBeCloseTo(pathArea(plate), 0);
  });

  test('any smooth bend comes back within the tolerance, with far fewer nodes', () => {
    const next = chance(5);
    for (let k = 0; k < sample(20, 300); k++) {
      const [a, b, c, d] = [next(), next(), next(), next()] as [number, number, number, number];
      const wave = facets(200, (u) => [80 * u, 12 * a * Math.sin(6 * b * u + 3 * c) + 8 * d * u * u], false);
      const fitted = refitPath(wave, 0.05);
      expect(fitted.segments.length).toBeLessThan(60);
      const drawn = (p: Path): Polyline[] => [flattenPath(p, 0.001).map((q) => [q.x, q.y])];
      expect(Math.max(farthest(drawn(wave), drawn(fitted)), farthest(drawn(fitted), drawn(wave)))).toBeLessThan(0.06);
      expect(isContinuous(fitted)).toBe(true);
    }
  });
});
