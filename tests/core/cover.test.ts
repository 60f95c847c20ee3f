/** What lines that fill cover, and what a tool reaches: against a raster, shapely, and by hand. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import type { FillTool, StepOf } from '../../src/core/document/schema';
import { uniteLabelled } from '../../src/core/geometry/boolean/union';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import { strokePaths } from '../../src/core/geometry/strokes';
import { newStep } from '../../src/core/kinds/steps';
import { layoutLettering } from '../../src/core/lettering/layout';
import { LIMITS } from '../../src/core/limits';
import { measureOutlines, type Outline } from '../../src/core/prepare/outline';
import { type PartHatch, partHatch } from '../../src/core/toolpath/hatch/part-hatch';
import { rowStep, tipRoom } from '../../src/core/toolpath/hatch/tip-room';
import { widthOf } from '../../src/core/toolpath/hatch/tool';
import { folder } from '../support/checkers';
import { FAMILIES, rawOutlines, spec, typeface, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { finished } from '../support/generators';
import { count, distances, fillMask, type Raster, strokeMask } from '../support/raster';
import { inFull, sample } from '../support/scale';

type HatchStep = StepOf<'hatch'>;

const outlinesOf = (family: string, text: string, capitalMm: number): Outline[] => {
  const face = typeface(family);
  const layout = layoutLettering(spec(text, { size: { by: 'capital', mm: capitalMm } }), face);
  return measureOutlines(uniteLabelled(wasmEngine, [rawOutlines(layout, face)], 0.002));
};
const stepWith = (more: Partial<HatchStep>): HatchStep => ({
  ...newStep('hatch', { capHeightMm: 20, leastWidthMm: null, kerfMm: null }),
  ...more,
});
const pen = (tip: number): FillTool => ({ shape: 'line', tip, angle: 60, depth: 0.5 });
const filled = (outlines: readonly Outline[], step: HatchStep): PartHatch =>
  finished(
    partHatch(wasmEngine, outlines, {
      origin: { x: 0, y: 0 },
      step,
      room: finished(tipRoom(wasmEngine, outlines, widthOf(step.tool))),
    }),
  );
const drawn = (f: PartHatch): Path[] => [
  ...strokePaths(f.strokes),
  ...f.rings,
  ...strokePaths(f.overMissed),
  ...f.edge,
];

const PIXEL_MM = 0.01;
const FLATTEN_MM = 0.002;
const WORDS = ['Sage', 'Quince', '&48', 'WOK', 'bdpq', 'Rye'];
const OVERLAPS = [0.1, 0.3, 0.5, 0.7];
const ANGLES = [0, 30, 45, 90, -20];
const STYLES: readonly Partial<HatchStep>[] = [
  { style: 'parallel', outline: 'last' },
  { style: 'parallel', outline: 'none', fillMissed: true },
  { style: 'crossed', outline: 'first' },
  { style: 'rings', fillMissed: true },
];
const CAPITAL_MM = 4;
const TIPS = [0.2, 0.3, 0.5];

/** A shape on a raster, and what a tip could cover of it; the same for all ways to fill it. */
function rasterised(outlines: readonly Outline[], tip: number) {
  const edge = tip + 0.1;
  const box = outlines.reduce(
    (b, { box: o }) => ({
      x0: Math.min(b.x0, o.minX),
      y0: Math.min(b.y0, o.minY),
      x1: Math.max(b.x1, o.maxX),
      y1: Math.max(b.y1, o.maxY),
    }),
    { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity },
  );
  const raster: Raster = {
    width: Math.ceil((box.x1 - box.x0 + 2 * edge) / PIXEL_MM),
    height: Math.ceil((box.y1 - box.y0 + 2 * edge) / PIXEL_MM),
    minX: box.x0 - edge,
    minY: box.y0 - edge,
    size: PIXEL_MM,
  };
  const letter = fillMask(
    raster,
    outlines.map((o) => flattenPath(o.path, 0.0005)),
  );
  // Where the tip fits in whole, grown again. A pixel of doubt is given to it.
  const room = distances(raster, letter, 0).map((d) => (d >= tip / 2 + PIXEL_MM ? 1 : 0));
  const could = distances(raster, Uint8Array.from(room), 1).map((d) => (d <= tip / 2 - PIXEL_MM ? 1 : 0));
  return { raster, letter, could, away: distances(raster, letter, 1), area: count(letter) };
}

/** What the raster finds of a filled shape. */
function judged({ raster, letter, could, away, area }: ReturnType<typeof rasterised>, fill: PartHatch) {
  const tip = new Uint8Array(letter.length);
  for (const p of drawn(fill)) {
    const points = flattenPath(p, 0.0005);
    points.forEach((a, i) => {
      const b = points[i + 1] ?? (p.closed ? points[0] : undefined);
      if (b) strokeMask(raster, tip, a, b, fill.widthMm / 2);
    });
  }
  let [covered, spill, left] = [0, 0, 0];
  const missed = new Uint8Array(letter.length);
  for (let i = 0; i < tip.length; i++) {
    if (tip[i]) spill = Math.max(spill, away[i] as number);
    if (tip[i] && letter[i]) covered++;
    if (letter[i] && !tip[i] && could[i]) {
      missed[i] = 1;
      left++;
    }
  }
  const deepest = left > 0 ? distances(raster, missed, 0).reduce((most, d) => Math.max(most, d), 0) : 0;
  return {
    covered: covered / area,
    /** Width of the largest disc in what is missed though it could be reached. */
    missedWide: Math.max(0, 2 * deepest - 2 * PIXEL_MM),
    spill: Math.max(0, spill - PIXEL_MM),
  };
}

test('cover is what a raster finds, nothing in reach is missed, nothing spilled', { tags: 'slow' }, () => {
  const shapes = FAMILIES.flatMap((family) =>
    WORDS.map((word, w) => ({ family, word, tip: TIPS[w % TIPS.length] as number })),
  );
  const ways = OVERLAPS.flatMap((overlap) =>
    ANGLES.flatMap((angle) => STYLES.map((style) => ({ ...style, overlap, angle }))),
  );
  const worst = { covered: 0, missed: 0, spill: 0 };
  const wrong: string[] = [];
  let fillings = 0;
  // A few shapes, each filled in a few ways; the steps are prime to the lists, so that all of them have a turn.
  shapes.forEach(({ family, word, tip }, n) => {
    if (!inFull && n % 23 !== 0) return;
    const outlines = outlinesOf(family, word, CAPITAL_MM);
    const shape = rasterised(outlines, tip);
    const room = finished(tipRoom(wasmEngine, outlines, tip));
    ways.forEach((way, k) => {
      if (!inFull && (k + n) % 17 !== 0) return;
      const fill = finished(
        partHatch(wasmEngine, outlines, { origin: { x: 0, y: 0 }, step: stepWith({ ...way, tool: pen(tip) }), room }),
      );
      const found = judged(shape, fill);
      const off = Math.abs(fill.cover.covered / fill.cover.area - found.covered);
      fillings++;
      worst.covered = Math.max(worst.covered, off);
      worst.missed = Math.max(worst.missed, found.missedWide / tip);
      worst.spill = Math.max(worst.spill, found.spill);
      if (off > 0.002 || found.missedWide > tip || found.spill > 0.02)
        wrong.push(JSON.stringify({ family, word, tip, ...way, ...found, off }));
    });
  });
  const note = `${fillings} fillings at ${PIXEL_MM} mm`;
  figure({
    name: 'cover of filled letters against a raster: farthest apart, %',
    value: 100 * worst.covered,
    digits: 3,
    aim: { most: 0.2 },
    note,
  });
  figure({
    name: 'filled letters on a raster: widest place missed in reach, tips',
    value: worst.missed,
    digits: 2,
    aim: { most: 1 },
    note,
  });
  figure({
    name: 'filled letters on a raster: farthest spill',
    value: worst.spill,
    digits: 3,
    unit: 'mm',
    aim: { most: 0.02 },
    note,
  });
  expect(wrong).toEqual([]);
});

test('reach is what shrinking and growing by shapely leaves', { tags: 'slow' }, () => {
  const cases = FAMILIES.slice(0, sample(2, FAMILIES.length)).flatMap((family) =>
    WORDS.slice(0, sample(1, WORDS.length)).flatMap((word) =>
      [0.5, 1, 2].map((width) => ({ family, word, width, outlines: outlinesOf(family, word, 12) })),
    ),
  );
  // Where a stroke is just as wide as the tip, a micrometre decides whether all of it is reached: the judge is asked for a tip as
  // much narrower and wider as curves are flattened by.
  const asked = cases.flatMap(({ width, outlines }) => {
    const rings = outlines.map((o) => flattenPath(o.path, 0.0005).map((p) => [p.x, p.y]));
    return [-FLATTEN_MM, 0, FLATTEN_MM].map((more) => ({ width: width + more, rings }));
  });
  const file = path.join(folder(), 'cases.json');
  writeFileSync(file, JSON.stringify(asked));
  const found = JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/core/check_fill.py', file], { encoding: 'utf8', maxBuffer: 1 << 28 }),
  ) as [number, number][];
  let [worst, edge] = [0, 0];
  cases.forEach(({ width, outlines, family, word }, i) => {
    const opened = [0, 1, 2].map((k) => found[3 * i + k] as [number, number]);
    const area = opened[1]?.[1] as number;
    const [most, least] = [Math.max(...opened.map((o) => o[0])), Math.min(...opened.map((o) => o[0]))];
    const { reach } = filled(outlines, stepWith({ tool: pen(width) }));
    const ours = reach.areaMm2 - reach.missedMm2;
    const off = Math.max(0, ours - most, least - ours) / area;
    if ((most - least) / area > 0.005) edge++;
    worst = Math.max(worst, off);
    expect(off, `${family} ${word} ${width}`).toBeLessThan(0.005);
  });
  figure({
    name: 'reach of a tip against shapely: farthest apart, % of the area',
    value: 100 * worst,
    digits: 3,
    aim: { most: 0.5 },
    note: `${cases.length} words; in ${edge} of them 2 µm of the tip change more than 0.5 %`,
  });
});

const box = (x: number, y: number, w: number, h: number): Path => ({
  closed: true,
  segments: [
    { kind: 'line', x0: x, y0: y, x1: x + w, y1: y },
    { kind: 'line', x0: x + w, y0: y, x1: x + w, y1: y + h },
    { kind: 'line', x0: x + w, y0: y + h, x1: x, y1: y + h },
    { kind: 'line', x0: x, y0: y + h, x1: x, y1: y },
  ],
});
const plain = (p: Path): Outline[] => measureOutlines([{ path: p, labels: p.segments.map(() => 0) }]);

describe('where rounding leaves threads, and rings have two outlines around them', () => {
  test.each([
    ['Sacramento', 'Rye', 0.5, { style: 'parallel' }],
    ['Pacifico', 'bdpq', 0.3, { style: 'rings', overlap: 0.7 }],
  ] as const)('%s %s under a tip of %d mm spills nothing', { tags: 'slow' }, (family, word, tip, more) => {
    const outlines = outlinesOf(family, word, CAPITAL_MM);
    const fill = filled(outlines, stepWith({ ...more, tool: pen(tip) }));
    expect(fill.cover.spilled).toBeLessThan(0.05);
    expect(judged(rasterised(outlines, tip), fill).spill).toBeLessThan(0.02);
  });
});

test('a stroke that is missed all round is filled, wherever its edge begins', { tags: 'slow' }, () => {
  const outlines = outlinesOf('Libre Baskerville', '&48', CAPITAL_MM);
  const fill = filled(outlines, stepWith({ outline: 'none', angle: 90, fillMissed: true, tool: pen(0.5) }));
  expect(fill.cover.places).toEqual([]);
  expect(judged(rasterised(outlines, 0.5), fill).missedWide).toBeLessThan(0.5);
});

describe('by hand', () => {
  test('how wide a tool works', () => {
    expect(widthOf({ shape: 'cone', tip: 0.2, angle: 60, depth: 1 })).toBeCloseTo(0.2 + 2 * Math.tan(Math.PI / 6), 12);
    expect(widthOf({ shape: 'cone', tip: 0.2, angle: 60, depth: 2 })).toBeGreaterThan(
      widthOf({ shape: 'cone', tip: 0.2, angle: 60, depth: 1 }),
    );
    expect(widthOf({ shape: 'round', tip: 2, angle: 60, depth: 0.5 })).toBeCloseTo(2 * Math.sqrt(0.75), 12);
    expect(widthOf({ shape: 'round', tip: 2, angle: 60, depth: 3 })).toBe(2);
    expect(widthOf({ shape: 'flat', tip: 2, angle: 60, depth: 3 })).toBe(2);
  });

  test('a round tip leaves the corners of a square', () => {
    const fill = filled(plain(box(0, 0, 20, 10)), stepWith({ tool: pen(2), angle: 0 }));
    const corners = 4 - Math.PI;
    expect(fill.reach.missedMm2).toBeCloseTo(corners, 1);
    expect(fill.cover.covered).toBeCloseTo(200 - corners, 1);
    expect(fill.cover.missed).toBeCloseTo(0, 2);
    expect(fill.cover.spilled).toBeLessThan(0.01);
    expect(fill.cover.places).toEqual([]);
    // Half a tip inside all round; lines 1.4 mm apart.
    expect(fill.edge[0]?.segments.every((s) => s.x0 > 0.999 && s.x0 < 19.001 && s.y0 > 0.999 && s.y0 < 9.001)).toBe(
      true,
    );
    expect(fill.lineCount).toBe(6);
    expect(fill.strips).toBe(1);
  });

  test('deeper with a cone means standing further off the line', () => {
    const at = (depth: number) => {
      const fill = filled(plain(box(0, 0, 20, 10)), stepWith({ tool: { shape: 'cone', tip: 0.2, angle: 90, depth } }));
      return Math.min(...(fill.edge[0]?.segments.map((s) => s.y0) ?? []));
    };
    expect(at(0.5)).toBeCloseTo(0.6, 6);
    expect(at(1)).toBeCloseTo(1.1, 6);
  });

  test('a bar that no line meets is missed, and the rest fills it', () => {
    // Lines at 0, 1, 2 … mm; the middle of the tip may stand from 2.45 to 2.55 mm.
    const step = stepWith({ tool: pen(1), overlap: 0, angle: 0, outline: 'none' });
    const bar = plain(box(0, 1.95, 20, 1.1));
    const bare = filled(bar, step);
    expect(bare.lineCount).toBe(0);
    expect(bare.cover.covered).toBe(0);
    expect(bare.cover.places).toHaveLength(1);
    expect(Math.abs((bare.cover.places[0]?.areaMm2 ?? 0) - (22 - (4 - Math.PI) / 4))).toBeLessThan(0.1);
    const whole = filled(bar, { ...step, fillMissed: true });
    expect(whole.cover.places).toEqual([]);
    expect(whole.cover.missed).toBeLessThan(0.05);
    expect(whole.drawnMm).toBeLessThan(45);
  });

  test('with room between the lines nothing counts as missed', () => {
    const fill = filled(
      plain(box(0, 0, 20, 10)),
      stepWith({ tool: pen(0.5), overlap: -2, angle: 0, outline: 'none', fillMissed: true }),
    );
    expect(fill.spacingMm).toBeCloseTo(1.5, 9);
    expect(fill.cover.places).toEqual([]);
    expect(fill.cover.covered / fill.cover.area).toBeLessThan(0.5);
  });

  test('a tip wider than everything fits nowhere', () => {
    const fill = filled(plain(box(0, 0, 20, 10)), stepWith({ tool: pen(11) }));
    expect([fill.lineCount, fill.edge.length, fill.reached.length]).toEqual([0, 0, 0]);
    expect(fill.reach.missedMm2).toBeCloseTo(200, 6);
  });

  test('no more rows are looked at than there is room for, and never lower ones than a tip needs', () => {
    const huge = plain(box(0, 0, 20_000, 20_000));
    expect(Math.hypot(20_000, 20_000) / rowStep(0.01, huge)).toBeLessThanOrEqual(LIMITS.coverRows + 1e-6);
    expect(rowStep(0.6, plain(box(0, 0, 10, 10)))).toBeCloseTo(0.05, 12);
    expect(rowStep(60, plain(box(0, 0, 100, 100)))).toBeLessThanOrEqual(0.1);
  });

  test('a sign without a pass along its edge, with all its missed places filled, lets others in all the while', {
    tags: 'slow',
  }, () => {
    const rows = plain(box(0, 0, 400, 300));
    const step = stepWith({ tool: pen(1), overlap: 0, angle: 37, outline: 'none', fillMissed: true });
    const steps = partHatch(wasmEngine, rows, {
      origin: { x: 0, y: 0 },
      step,
      room: finished(tipRoom(wasmEngine, rows, 1)),
    });
    const shares: number[] = [];
    let last = steps.next();
    for (; !last.done; last = steps.next()) shares.push(last.value);
    expect(shares.length).toBeGreaterThan(20);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBeLessThanOrEqual(1);
    expect(last.value.cover.places).toEqual([]);
  });

  test('no more lines than there is room for', { tags: 'slow' }, () => {
    const fill = filled(plain(box(0, 0, 4, 2)), stepWith({ tool: pen(0.01), overlap: 0.95, angle: 0 }));
    expect(fill.tooMany).toBeNull();
    const many = filled(plain(box(0, 0, 2000, 1000)), stepWith({ tool: pen(0.01), overlap: 0.95, angle: 0 }));
    expect(many.tooMany).toBeGreaterThan(1_000_000);
    expect(many.strokes.xy).toHaveLength(0);
  });
});
