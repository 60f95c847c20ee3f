/** Rows of a hatch against shapely; strips, their links and their order; rings. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { uniteLabelled } from '../../src/core/geometry/boolean/union';
import { closedPath, flattenPath, type Path, pathLength } from '../../src/core/geometry/path';
import { arcAbout, line } from '../../src/core/geometry/segment';
import { countStrokes, lengthsOf, STILL_MM, strokePaths } from '../../src/core/geometry/strokes';
import { windingAt } from '../../src/core/geometry/winding';
import { Evaluator } from '../../src/core/job/evaluate';
import { layoutLettering } from '../../src/core/lettering/layout';
import { measureOutlines } from '../../src/core/prepare/outline';
import { type Polygons, pointInPolygons, polygonsOf, turnBy } from '../../src/core/toolpath/hatch/polygons';
import { ringsOf } from '../../src/core/toolpath/hatch/rings';
import { rowHeight, scanlinesOf } from '../../src/core/toolpath/hatch/scanlines';
import { spread } from '../../src/core/toolpath/hatch/spread';
import { stripsOf } from '../../src/core/toolpath/hatch/strips';
import { tourOf, travelOf } from '../../src/core/toolpath/hatch/tour';
import { anyPart, SHEET } from '../support/any-part';
import { folder } from '../support/checkers';
import { FAMILIES, faces, rawOutlines, spec, typeface, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { finished } from '../support/generators';
import { jobWith } from '../support/jobs';
import { chance } from '../support/random';
import { sample } from '../support/scale';
import { longTwoOpt } from '../support/two-opt';

type Ring = readonly (readonly [number, number])[];

const ringPath = (ring: Ring): Path =>
  closedPath(ring.map(([x, y], i) => line(x, y, ...(ring[(i + 1) % ring.length] as readonly [number, number]))));
const square = (x: number, y: number, size: number, hole = false): Ring => {
  const ring: Ring = [
    [x, y],
    [x + size, y],
    [x + size, y + size],
    [x, y + size],
  ];
  return hole ? [...ring].reverse() : ring;
};
const linesOf = (rings: readonly Ring[], spacing: number, angle: number, phase: number) => {
  const turn = turnBy(angle);
  const rows = scanlinesOf(polygonsOf(rings.map(ringPath), 0.001, turn), spacing, phase);
  const out: [number, number, number, number][] = [];
  for (let k = 0; k < rows.count; k++)
    for (let i = rows.start[k] as number; i + 1 < (rows.start[k + 1] as number); i += 2) {
      const y = rowHeight(rows, k);
      const at = (x: number) => [turn.cos * x - turn.sin * y, turn.sin * x + turn.cos * y] as const;
      out.push([...at(rows.x[i] as number), ...at(rows.x[i + 1] as number)]);
    }
  return out;
};

/** Shapes that are hard on a scanline, by themselves. */
const HARD: readonly { rings: readonly Ring[]; spacing: number; angle: number; phase: number }[] = [
  // Edges that lie on a line; corners that touch; a hole that touches the rim in a corner.
  { rings: [square(0, 0, 10)], spacing: 1, angle: 0, phase: 0 },
  { rings: [square(0, 0, 10)], spacing: 1, angle: 90, phase: 0 },
  { rings: [square(0, 0, 5), square(5, 5, 5)], spacing: 1, angle: 0, phase: 0 },
  { rings: [square(0, 0, 5), square(5, 5, 5)], spacing: 0.7, angle: 45, phase: 0 },
  {
    rings: [
      square(0, 0, 10),
      [
        [0, 5],
        [4, 7],
        [4, 3],
      ],
    ],
    spacing: 1,
    angle: 0,
    phase: 0,
  },
  { rings: [square(0, 0, 10), square(3, 3, 4, true), square(4, 4, 2)], spacing: 1, angle: 0, phase: 0 },
  // A point that just touches a line, from below and from above; a sliver; a step of two levels.
  {
    rings: [
      [
        [0, 0],
        [4, 0],
        [2, 3],
      ],
    ],
    spacing: 3,
    angle: 0,
    phase: 0,
  },
  {
    rings: [
      [
        [0, 3],
        [2, 0],
        [4, 3],
      ],
    ],
    spacing: 3,
    angle: 0,
    phase: 0,
  },
  {
    rings: [
      [
        [0, 0],
        [100, 0.02],
        [0, 0.04],
      ],
    ],
    spacing: 0.01,
    angle: 0,
    phase: 0.003,
  },
  {
    rings: [
      [
        [0, 0],
        [8, 0],
        [8, 2],
        [5, 2],
        [5, 4],
        [0, 4],
      ],
    ],
    spacing: 2,
    angle: 0,
    phase: 0,
  },
];

test('lines are those that clipping each with the shape gives', { tags: 'slow' }, () => {
  const next = chance(31);
  const evaluator = new Evaluator(wasmEngine);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)] as T;
  const random = Array.from({ length: sample(80, 500) - HARD.length }, () => {
    const job = jobWith([anyPart(next)], { sheet: { width: SHEET[0], height: SHEET[1] } });
    const part = evaluator.evaluate(job, faces).parts[0];
    const rings = (part?.outlines ?? []).map((o) =>
      flattenPath(o.path, 0.01).map(({ x, y }): [number, number] => [x, y]),
    );
    return {
      rings,
      spacing: pick([1, 2, 0.7, 5, 10]),
      angle: pick([0, 0, 90, 45, -30, 180, 360 * next()]),
      phase: pick([0, 0, 0.3]),
    };
  });
  const cases = [...HARD, ...random].map((c) => ({ ...c, lines: linesOf(c.rings, c.spacing, c.angle, c.phase) }));
  expect(cases.reduce((sum, c) => sum + c.lines.length, 0)).toBeGreaterThan(20 * cases.length);
  const file = path.join(folder(), 'cases.json');
  writeFileSync(file, JSON.stringify(cases));
  const found = JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/core/check_fill.py', file], { encoding: 'utf8', maxBuffer: 1 << 28 }),
  ) as (number | null)[];
  const wrong = found.flatMap((d, i) => (d === null || d > 0.001 ? [`${i}: ${d}`] : []));
  expect(wrong).toEqual([]);
  figure({
    name: `lines of ${cases.length} shapes against clipping by shapely: farthest ends`,
    value: Math.max(...found.map((d) => d ?? Infinity)),
    digits: 6,
    unit: 'mm',
    aim: { most: 0.001 },
  });
});

const inside = (rings: readonly Path[], x: number, y: number): boolean =>
  rings.reduce((sum, p) => sum + windingAt(p, x, y), 0) !== 0;

const RING: readonly Path[] = [
  closedPath([0, 1, 2, 3].map((k) => arcAbout(0, 0, 20, (k * Math.PI) / 2, Math.PI / 2))),
  closedPath([0, 1, 2, 3].map((k) => arcAbout(3, 1, 8, (-k * Math.PI) / 2, -Math.PI / 2))),
];
const hatchOf = (paths: readonly Path[], spacing: number, linked: boolean, least = 0) => {
  const polygons: Polygons = polygonsOf(paths, 0.001, turnBy(0));
  const rows = scanlinesOf(polygons, spacing, 0);
  return { rows, hatch: stripsOf(rows, polygons, least, linked) };
};

describe('strips', () => {
  test('take every line once, and links stay in the shape', { tags: 'slow' }, () => {
    const { rows, hatch } = hatchOf(RING, 0.5, true);
    const lengths = Array.from(
      { length: rows.x.length / 2 },
      (_, i) => (rows.x[2 * i + 1] as number) - (rows.x[2 * i] as number),
    );
    // Where a corner lies on a row there is a line of no length, which is not drawn.
    expect(hatch.lineCount).toBe(lengths.filter((l) => l >= STILL_MM).length);
    expect(countStrokes(hatch.strokes)).toBe(hatch.strips.length - 1);
    // Above the hole, below it and on both sides of it.
    expect(countStrokes(hatch.strokes)).toBeLessThan(8);
    const wide = offset(RING, 0.002);
    for (const { segments } of strokePaths(hatch.strokes))
      for (const s of segments)
        for (const t of [0, 0.25, 0.5, 0.75, 1])
          expect(inside(wide, s.x0 + t * (s.x1 - s.x0), s.y0 + t * (s.y1 - s.y0))).toBe(true);
  });

  test('without links every line is set down by itself, in the order of the strips', () => {
    const linked = hatchOf(RING, 0.5, true);
    const { hatch } = hatchOf(RING, 0.5, false);
    expect(countStrokes(hatch.strokes)).toBe(hatch.lineCount);
    expect(hatch.lineCount).toBe(linked.hatch.lineCount);
    expect(hatch.strips.length).toBe(linked.hatch.strips.length);
    const all = linked.rows.x.reduce((sum, x, i) => sum + (i % 2 === 1 ? x : -x), 0);
    expect(lengthsOf(hatch.strokes).drawn).toBeCloseTo(all, 6);
  });

  test('lines shorter than asked are left out', () => {
    const { rows, hatch } = hatchOf(RING, 0.5, false, 14);
    const long = Array.from(
      { length: rows.x.length / 2 },
      (_, i) => (rows.x[2 * i + 1] as number) - (rows.x[2 * i] as number),
    ).filter((l) => l >= 14);
    expect(hatch.lineCount).toBe(long.length);
    expect(long.length).toBeLessThan(rows.x.length / 2);
  });

  test('corners that lie on lines break no strip', () => {
    const { hatch } = hatchOf([ringPath(square(0, 0, 10))], 1, true);
    expect(hatch.lineCount).toBe(11);
    expect(countStrokes(hatch.strokes)).toBe(1);
  });
});

const offset = (paths: readonly Path[], by: number): Path[] =>
  paths.map((p) => {
    const [s] = p.segments;
    if (s?.kind !== 'arc') throw new Error('circles only');
    const r = Math.hypot(s.x0 - s.cx, s.y0 - s.cy) + Math.sign(s.sweep) * by;
    return closedPath(
      [0, 1, 2, 3].map((k) =>
        arcAbout(s.cx, s.cy, r, (Math.sign(s.sweep) * k * Math.PI) / 2, (Math.sign(s.sweep) * Math.PI) / 2),
      ),
    );
  });

describe('the order of strips', () => {
  const ends = (points: readonly number[]) => Float64Array.from(points);
  test('every piece comes once', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 100, noNaN: true }), { minLength: 0, maxLength: 240 }),
        (numbers) => {
          const pieces = ends(numbers.slice(0, numbers.length - (numbers.length % 4)));
          const order = [...tourOf(pieces)].map((o) => (o < 0 ? -1 - o : o));
          expect(order.sort((a, b) => a - b)).toEqual(Array.from({ length: pieces.length / 4 }, (_, i) => i));
        },
      ),
    );
  });

  test('pieces in a row are drawn one after the other, each from its nearer end', () => {
    const pieces = ends([10, 0, 11, 0, 3, 0, 2, 0, 0, 0, 1, 0, 5, 0, 4, 0, 6, 0, 9, 0]);
    const order = tourOf(pieces);
    expect(travelOf(pieces, order)).toBeCloseTo(4, 9);
    expect([...order]).toEqual([2, -2, -4, 4, 0]);
  });
});

test('little way is made between strips, against a 2-opt that takes its time', { tags: 'slow' }, () => {
  const words = [
    'Hummingbirds',
    'WORKSHOP',
    'Sage',
    'Quince & Rye',
    'Alder Lane',
    'bdpq 48',
    'Rosemary',
    'OPEN',
    'thyme',
    'Greenhouse',
  ];
  const next = chance(5);
  let worst = 0;
  const told: string[] = [];
  words.slice(0, sample(4, words.length)).forEach((word, i) => {
    const family = FAMILIES[(5 * i) % FAMILIES.length] as string;
    const face = typeface(family);
    const layout = layoutLettering(spec(word, { size: { by: 'capital', mm: 20 } }), face);
    const paths = uniteLabelled(wasmEngine, [rawOutlines(layout, face)], 0.005).map((o) => o.path);
    const { hatch } = hatchOf(paths, 0.5 + 0.2 * i, true);
    const { xy, start } = hatch.strokes;
    const pieces = Float64Array.from(
      Array.from({ length: countStrokes(hatch.strokes) }, (_, k) => {
        const [a, b] = [start[k] as number, (start[k + 1] as number) - 1];
        return [xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1]] as number[];
      }).flat(),
    );
    const ours = travelOf(pieces, tourOf(pieces));
    const theirs = longTwoOpt(pieces, next, sample(200, 1000));
    told.push(`${word} ${hatch.lineCount} lines, ${countStrokes(hatch.strokes)} strips`);
    worst = Math.max(worst, ours / theirs);
    expect(ours / theirs, `${family} ${word}`).toBeLessThan(1.2);
  });
  figure({
    name: 'way between strips against a long 2-opt: the longest of ten',
    value: worst,
    digits: 2,
    aim: { most: 1.2 },
    note: told.join('; '),
  });
});

test('points are in polygons or not, whatever band they lie in', () => {
  const isInside = pointInPolygons(polygonsOf(RING, 0.01, turnBy(0)));
  const next = chance(3);
  let asked = 0;
  for (let i = 0; i < 3_000; i++) {
    const [x, y] = [50 * next() - 25, 50 * next() - 25];
    const [out, hole] = [Math.hypot(x, y), Math.hypot(x - 3, y - 1)];
    if (Math.abs(out - 20) < 0.02 || Math.abs(hole - 8) < 0.02) continue;
    asked++;
    expect(isInside(x, y), `${x}, ${y}`).toBe(out < 20 && hole > 8);
  }
  expect(asked).toBeGreaterThan(2_900);
  expect(pointInPolygons(polygonsOf([], 0.01, turnBy(0)))(0, 0)).toBe(false);
});

test('points are spread along their longest way', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: Math.PI, noNaN: true }), fc.integer({ min: 3, max: 40 }), (angle, n) => {
      const points = Array.from({ length: n }, (_, i) => ({ x: 5 + i * Math.cos(angle), y: i * Math.sin(angle) - 2 }));
      const { axis, along } = spread(points);
      expect(Math.abs(axis.x * Math.sin(angle) - axis.y * Math.cos(angle))).toBeLessThan(1e-6);
      const ways = points.map(along);
      expect(Math.max(...ways) - Math.min(...ways)).toBeCloseTo(n - 1, 6);
    }),
  );
});

describe('rings', () => {
  const round = measureOutlines([{ path: RING[0] as Path, labels: [0, 0, 0, 0] }]);
  test('of a disc run from its middle to its edge in one go', () => {
    const { paths, rings, isCutShort: left } = finished(ringsOf(wasmEngine, round, 2, 100));
    expect(left).toBe(false);
    expect(rings).toBe(10);
    expect(paths).toHaveLength(1);
    const [all] = paths as [Path];
    expect(all.closed).toBe(false);
    const circles = Array.from({ length: 10 }, (_, k) => 2 * Math.PI * (20 - 2 * k)).reduce((a, b) => a + b, 0);
    expect(pathLength(all)).toBeCloseTo(circles + 9 * 2, 1);
    const end = all.segments.at(-1);
    expect(Math.hypot(end?.x1 ?? 0, end?.y1 ?? 0)).toBeCloseTo(20, 3);
  });

  test('are none when there would be more than asked', () => {
    expect(finished(ringsOf(wasmEngine, round, 2, 5)).isCutShort).toBe(true);
  });
});
