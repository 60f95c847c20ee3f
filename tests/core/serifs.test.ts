/** Serifs: shapes by hand, faces with and without them, and letters read as those of a sans once they are left out. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { flattenPath, type Path, pathBox, pathLength, transformPath } from '../../src/core/geometry/path';
import { boxHeight, boxWidth, compose, type Point, rotation, scaling } from '../../src/core/geometry/point';
import { cubic, line } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { loadTypeface } from '../../src/core/lettering/typeface';
import type { FaceLookup } from '../../src/core/prepare/prepared';
import { withSerifLines } from '../../src/core/toolpath/centerline/serif-lines';
import { serifReach, withoutSerifs } from '../../src/core/toolpath/centerline/serifs';
import { letterOf } from '../support/cover';
import { FAMILIES, faces, typeface, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';
import { polygon } from '../support/shapes';
import { type Labelled, STATIC_FACES, UNSEEN_FACES } from '../support/typefaces';

const CAPITAL = 100;
const MOST = 24;

/** A stem 10 wide and 100 high with feet and heads 34 wide and 6 thick. */
const SLAB = polygon(
  [0, 0],
  [34, 0],
  [34, 6],
  [22, 6],
  [22, 94],
  [34, 94],
  [34, 100],
  [0, 100],
  [0, 94],
  [12, 94],
  [12, 6],
  [0, 6],
);

/** The same stem with one flag to the left, in a bracket, and a plain foot. */
const FLAG: Path = {
  closed: true,
  segments: [
    line(12, 0, 22, 0),
    line(22, 0, 22, 100),
    line(22, 100, 0, 100),
    line(0, 100, 0, 96),
    cubic(0, 96, 8, 96, 12, 92, 12, 84),
    line(12, 84, 12, 0),
  ],
};

const cornersOf = ({ segments }: Path): string[] => segments.map((s) => `${s.x0.toFixed(2)},${s.y0.toFixed(2)}`).sort();

describe('shapes', () => {
  test('a stem with two feet and two heads is a bar without them, each of which is a stroke from tip to tip', () => {
    const { region, serifs } = withoutSerifs([SLAB], MOST, CAPITAL);
    const box = pathBox(region[0] as Path);
    expect([box.minX, box.minY, box.maxX, box.maxY].map((v) => v.toFixed(3))).toEqual([
      '12.000',
      '0.000',
      '22.000',
      '100.000',
    ]);
    expect(serifs.map((s) => [s.isWhole, s.height.toFixed(2)])).toEqual([
      [true, '6.00'],
      [true, '6.00'],
    ]);
    const ends = serifs.flatMap(({ points: [a, , b] }) => [a, b].map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`));
    expect(ends.sort()).toEqual(['0.0,3.0', '0.0,97.0', '34.0,3.0', '34.0,97.0']);
  });

  test('a flag on one side is cut straight on, whatever its bracket; its stroke ends at the side of the stem', () => {
    const { region, serifs } = withoutSerifs([FLAG], MOST, CAPITAL);
    const box = pathBox(region[0] as Path);
    // Outlines are looked at in points, 0.4 apart.
    expect(Math.abs(box.minX - 12)).toBeLessThan(0.01);
    expect(cornersOf(region[0] as Path)).toContain(`${box.minX.toFixed(2)},100.00`);
    expect(serifs).toMatchObject([{ isWhole: false }]);
    expect(serifs[0]?.points[0].x).toBeCloseTo(0, 1);
    expect(serifs[0]?.points[2].x).toBeCloseTo(12, 1);
  });

  test('turned and mirrored shapes have theirs turned and mirrored', () => {
    for (const m of [rotation(33), scaling(-1, 1), compose(rotation(200), scaling(1, 1))]) {
      const turned = transformPath(SLAB, m, m.a * m.d - m.b * m.c < 0);
      expect(withoutSerifs([turned], MOST, CAPITAL).serifs).toHaveLength(2);
    }
  });

  test('crossbars, arms and noses are none: the stem goes on behind them, or they are long', () => {
    const cross = polygon(
      [12, 0],
      [22, 0],
      [22, 60],
      [34, 60],
      [34, 68],
      [22, 68],
      [22, 100],
      [12, 100],
      [12, 68],
      [0, 68],
      [0, 60],
      [12, 60],
    );
    const ell = polygon([0, 0], [60, 0], [60, 8], [10, 8], [10, 100], [0, 100]);
    const bar = polygon([0, 0], [10, 0], [10, 100], [0, 100]);
    for (const shape of [cross, ell, bar])
      expect(withoutSerifs([shape], MOST, CAPITAL)).toEqual({ region: [shape], serifs: [] });
  });

  test('nothing, a dot and next to nothing have none', () => {
    expect(withoutSerifs([], MOST, CAPITAL).serifs).toEqual([]);
    for (const k of [1e-6, 1, 1e3])
      expect(withoutSerifs([polygon([0, 0], [k, 0], [k, k], [0, k])], MOST, CAPITAL).serifs).toEqual([]);
  });

  test('the line of a stem ends on a foot, and turns into a flag in a corner', () => {
    const stem: Path = { closed: false, segments: [line(17, 0, 17, 100)] };
    const slab = withSerifLines([stem], withoutSerifs([SLAB], MOST, CAPITAL).serifs, 10, false);
    expect(slab).toHaveLength(3);
    expect(slab.map(pathLength).map((l) => l.toFixed(1))).toEqual(['94.0', '34.0', '34.0']);
    const flag = withSerifLines([stem], withoutSerifs([FLAG], MOST, CAPITAL).serifs, 10, false);
    expect(flag).toHaveLength(1);
    expect(boxWidth(pathBox(flag[0] as Path))).toBeCloseTo(17, 0);
    // One that stops short of the end of its stem is led on to it.
    const short: Path = { closed: false, segments: [line(17, 5, 17, 95)] };
    const led = withSerifLines([short], withoutSerifs([SLAB], MOST, CAPITAL).serifs, 10, true);
    expect(led.map(pathLength).map((l) => l.toFixed(1))).toEqual(['94.0', '34.0', '34.0']);
  });
});

const reachOf = (face: Parameters<typeof letterOf>[0]) => serifReach(letterOf(face, 'H', CAPITAL), CAPITAL);

test('of the shipped faces only those with serifs have them', () => {
  const serifed = FAMILIES.filter((family) => reachOf(typeface(family)) !== null);
  expect(serifed).toEqual(['Alfa Slab One', 'Libre Baskerville']);
});

const others = [...STATIC_FACES, ...UNSEEN_FACES];
const loaded = async ({ file }: Labelled) => {
  const load = await loadTypeface(new Uint8Array(readFileSync(file)));
  if (!load.ok) throw new Error(load.sentence);
  return load.typeface;
};

test.skipIf(others.length === 0)('nor have others that do not ship, but for those labelled so', async () => {
  const wrong: string[] = [];
  for (const face of others.filter((f) => ['plain', 'narrow', 'rounded', 'script', 'hand', 'stencil'].includes(f.look)))
    if (reachOf(await loaded(face)) !== null) wrong.push(face.name);
  expect(wrong).toEqual([]);
});

/** The lines of a character, capitals CAPITAL mm high. */
function linesOf(character: string, face: string, lookup: FaceLookup, step: Record<string, unknown>): readonly Path[] {
  const words = lettering(character, face, { size: { by: 'capital', mm: CAPITAL } });
  const job = jobWith([
    partOf([words], {
      steps: [{ kind: 'weld' }, { kind: 'centerline', joined: false, ...step }],
      work: [{ what: 'centerline', operation: 'mark' }],
    }),
  ]);
  return new Evaluator(wasmEngine).evaluate(job, lookup).parts[0]?.linework.centerline?.paths ?? [];
}

/** How far a line strays from the straight line between its ends. */
function strays(path: Path): number {
  const points = flattenPath(path, 0.01);
  const [a, b] = [points[0] as Point, points[points.length - 1] as Point];
  const size = Math.hypot(b.x - a.x, b.y - a.y);
  return Math.max(...points.map((p) => Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / size));
}

const SERIFED = others.filter(({ name }) =>
  ['playfair-display', 'lora', 'bitter', 'spectral', 'crimson-text', 'roboto-slab', 'merriweather'].includes(name),
);

describe.skipIf(SERIFED.length === 0).each(SERIFED)('$name, its serifs left out', (face) => {
  test('I, H and l are the strokes of a sans, straight and as high as the letter', async () => {
    const answer = { typeface: await loaded(face) };
    const lines = (c: string) => linesOf(c, face.name, () => answer, { serifs: 'left' });
    const [eye, ...more] = lines('I');
    expect(more).toEqual([]);
    expect(strays(eye as Path)).toBeLessThan(0.6);
    expect(Math.abs(boxHeight(pathBox(eye as Path)) - CAPITAL)).toBeLessThan(3);
    expect(lines('H')).toHaveLength(3);
    for (const path of lines('H')) expect(strays(path)).toBeLessThan(1.5);
    // A spur at the head of an l may be a short stroke of its own.
    const [ell, ...spurs] = [...lines('l')].sort((a, b) => pathLength(b) - pathLength(a));
    expect(strays(ell as Path)).toBeLessThan(1.5);
    for (const spur of spurs) expect(pathLength(spur)).toBeLessThan(12);
  });

  test('as strokes, I has its stem and one from tip to tip at either end', async () => {
    const answer = { typeface: await loaded(face) };
    const lines = linesOf('I', face.name, () => answer, { serifs: 'drawn' });
    expect(lines).toHaveLength(3);
    const [stem, ...feet] = [...lines].sort((a, b) => boxHeight(pathBox(b)) - boxHeight(pathBox(a)));
    for (const foot of feet) {
      expect(boxHeight(pathBox(foot))).toBeLessThan(4);
      expect(boxWidth(pathBox(foot))).toBeGreaterThan(2 * boxWidth(pathBox(stem as Path)));
    }
  });
});

test('one evaluator tells the two choices apart', () => {
  const lines = (serifs: string) => linesOf('I', 'Libre Baskerville', faces, { serifs });
  expect([lines('drawn').length, lines('left').length, lines('drawn').length]).toEqual([3, 1, 3]);
});
