/** Cuts beside what is kept: judged by shapely from the file that is written, and by shapes whose lines are known. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { setKerfSide } from '../../src/core/commands/operations';
import { typeSetting } from '../../src/core/commands/shop';
import type { Job } from '../../src/core/document/schema';
import { flattenPath, pathArea, pathBox } from '../../src/core/geometry/path';
import { boxHeight, boxWidth } from '../../src/core/geometry/point';
import { asCut } from '../../src/core/job/as-cut';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { finished } from '../../src/core/memo';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';
import { chance } from '../support/random';

const inFull = process.env.NEEDLEFILE_VERIFY === '1';
const SIGNS = inFull ? 300 : 12;
/** What stays may differ by this, in mm. */
const MOST_MM = 0.02;

const CUT = { id: 'cut', name: 'Cut', kind: 'cut' };
const WORK = { work: [{ what: 'outline', operation: 'cut' }] };
const evaluate = (job: Job) => new Evaluator(wasmEngine).evaluate(job, faces);
const beside = (
  parts: Draft[],
  kerf: number | null,
  how: 'line' | 'beside' | 'machine' = 'beside',
  more: Draft = {},
): Job =>
  setKerfSide(jobWith(parts, { operations: [CUT], sheet: { width: 2000, height: 1000, kerf }, ...more }), 'cut', how);
const plate = (more: Draft = {}) =>
  partOf([rectangle('r', 100, 60), rectangle('h', 20, 10, { role: 'punch' })], {
    ...WORK,
    placement: { x: 200, y: 200 },
    ...more,
  });
const outlinesOf = (job: Job) =>
  finished(evaluate(job).run('full'))
    .operations.flatMap((o) => o.drawn)
    .flatMap(({ drawable: d }) => (d.kind === 'outline' ? [d] : []));
const sizes = (job: Job) =>
  outlinesOf(job).map(({ path: p }) => [boxWidth(pathBox(p)), boxHeight(pathBox(p)), Math.sign(pathArea(p))]);

describe('a plate with a hole', () => {
  test('is run along outside, its hole inside, the hole first; on the outlines where that is asked', () => {
    expect(sizes(beside([plate()], 2))).toEqual([
      [18, 8, -1],
      [102, 62, 1],
    ]);
    expect(sizes(beside([plate()], 2, 'line'))).toEqual([
      [20, 10, -1],
      [100, 60, 1],
    ]);
    expect(sizes(beside([plate()], null))).toEqual(sizes(beside([plate()], null, 'line')));
  });

  test('cut out of a sheet that stays it is the other way round', () => {
    const [hole, rim] = sizes(beside([plate({ keep: 'outside' })], 2)) as [number[], number[]];
    expect(hole.slice(0, 2)).toEqual([22, 12]);
    expect(rim.slice(0, 2)).toEqual([98, 58]);
  });

  test('turned, mirrored and moved it is the same', () => {
    const turned = { placement: { x: 300, y: 300, turn: 30, mirror: true } };
    const areas = (job: Job) => outlinesOf(job).map((d) => Math.abs(pathArea(d.path)));
    const [plain, other] = [areas(beside([plate()], 1.2)), areas(beside([plate(turned)], 1.2))];
    plain.forEach((area, i) => {
      expect(other[i]).toBeCloseTo(area, 3);
    });
  });

  test('the length is that of the lines that are run', () => {
    const [operation] = evaluate(beside([plate()], 2)).operations;
    // Corners of the edge are rounded by half the kerf, those of the hole are sharp.
    expect(operation?.lengthMm).toBeCloseTo(2 * (100 + 60) + 2 * Math.PI + 2 * (18 + 8), 3);
  });

  test('a hole that the beam does not fit into is not run along', () => {
    expect(sizes(beside([plate()], 11))).toHaveLength(1);
  });

  test('left to the machine, the lines stay, and layers say on which side, holes first', () => {
    const job = beside(
      [plate(), plate({ id: 'stencil', keep: 'outside', placement: { x: 500, y: 200 } })],
      2,
      'machine',
    );
    const drawing = drawingOf(job, evaluate(job));
    expect(drawing?.layers.map((l) => [l.name, l.drawn.length])).toEqual([
      ['Cut inside', 2],
      ['Cut outside', 2],
    ]);
    const widths = drawing?.layers.map((l) => l.drawn.map((d) => Math.round(boxWidth(d.box))).sort((a, b) => a - b));
    expect(widths).toEqual([
      [20, 100],
      [20, 100],
    ]);
  });

  test('as cut it has its size', () => {
    const area = (how: 'line' | 'beside' | 'machine') => {
      const job = beside([plate()], 2, how);
      return finished(asCut(wasmEngine, job, evaluate(job)))[0]?.areaMm2;
    };
    expect(area('line')).toBeCloseTo(98 * 58 - 22 * 12 + (4 - Math.PI), 1);
    for (const how of ['beside', 'machine'] as const)
      expect(area(how)).toBeCloseTo(100 * 60 - 20 * 10 + (4 - Math.PI), 1);
  });
});

describe('one outline on another side than the rest', () => {
  // On the hole's right edge, in heights of the rectangle; on the rim's.
  const hole = { letter: 'h:0', x: 1, y: 0 };
  const rim = { letter: 'r:0', x: 50 / 60, y: 0 };
  const sided = (...sides: Draft[]) => beside([plate({ sides })], 2);
  test('on it, or on its other side; the rest as before', () => {
    expect(sizes(sided({ ...hole, side: 'line' }))).toEqual([
      [20, 10, -1],
      [102, 62, 1],
    ]);
    expect(sizes(sided({ ...hole, side: 'other' }))[0]?.slice(0, 2)).toEqual([22, 12]);
    expect(sizes(sided({ ...rim, side: 'line' }))).toEqual([
      [18, 8, -1],
      [100, 60, 1],
    ]);
    expect(sizes(sided({ ...rim, side: 'other' }))[1]?.slice(0, 2)).toEqual([98, 58]);
  });
  test('of several said of one the last holds; one of a letter that is gone says nothing', () => {
    expect(sizes(sided({ ...hole, side: 'other' }, { ...hole, side: 'line' }))[0]?.[0]).toBe(20);
    expect(sizes(sided({ ...hole, letter: 'gone:0', side: 'line' }))[0]?.[0]).toBe(18);
  });
  test('turned and mirrored it goes along', () => {
    const turned = beside(
      [plate({ sides: [{ ...hole, side: 'line' }], placement: { x: 300, y: 300, turn: 90, mirror: true } })],
      2,
    );
    expect(sizes(turned)[0]?.slice(0, 2)).toEqual([expect.closeTo(10, 6), expect.closeTo(20, 6)]);
  });
  test('left to the machine, its layer says so', () => {
    const layers = (side: string) => {
      const job = beside([plate({ sides: [{ ...hole, side }] })], 2, 'machine');
      return drawingOf(job, evaluate(job))?.layers.map((l) => [l.name, l.drawn.length]);
    };
    expect(layers('line')).toEqual([
      ['Cut', 1],
      ['Cut outside', 1],
    ]);
    expect(layers('other')).toEqual([['Cut outside', 2]]);
  });
});

test('a kerf typed for the cut holds before that of the stock: in lines, as cut, and in what is found', () => {
  const job = typeSetting(beside([plate({ id: 'part' })], 1), 'cut', 'kerf', 3);
  expect(sizes(job)).toEqual([
    [17, 7, -1],
    [103, 63, 1],
  ]);
  const area = finished(asCut(wasmEngine, job, evaluate(job)))[0]?.areaMm2;
  // Corners into which a wider cut does not get.
  expect(area).toBeCloseTo(100 * 60 - 20 * 10 + (4 - Math.PI) * 1.5 ** 2, 1);
  const holes = (asked: Job) =>
    evaluate(asked).findings.flatMap((f) => (f.code === 'hole-under-kerf' ? [f.sentence] : []));
  expect(holes(job)).toEqual([]);
  expect(holes(typeSetting(job, 'cut', 'kerf', 12))).toEqual([
    'A hole is 10 mm wide and a cut takes 12 mm: it is not cut.',
  ]);
  const on = setKerfSide(typeSetting(job, 'cut', 'kerf', 12), 'cut', 'line');
  expect(holes(on)).toEqual(['A hole is 10 mm wide and a cut takes 12 mm: it comes out larger.']);
});

test('the sheet that is left when something is cut out of it has its size too', () => {
  const part = plate({ keep: 'outside' });
  const left = (how: 'line' | 'beside') => {
    const job = beside([part], 2, how);
    return finished(asCut(wasmEngine, job, evaluate(job))).reduce((sum, p) => sum + p.areaMm2, 0);
  };
  const whole = 2000 * 1000 - (100 * 60 - 20 * 10);
  expect(left('beside')).toBeCloseTo(whole + (4 - Math.PI), 0);
  expect(left('line')).toBeCloseTo(whole - 2 * (100 + 60) - 2 * (20 + 10) + 4 - Math.PI, 0);
});

test('an opening of a stencil that is narrower than the cut is found, and not cut', () => {
  const part = partOf([rectangle('a', 40, 20), rectangle('b', 30, 1.5, { placement: { x: 0, y: 30 } })], {
    ...WORK,
    keep: 'outside',
    placement: { x: 200, y: 200 },
  });
  const found = (kerf: number) => evaluate(beside([part], kerf)).findings.filter((f) => f.code === 'narrower-than-cut');
  expect(found(1)).toEqual([]);
  expect(found(2).map((f) => [f.severity, f.sentence])).toEqual([
    ['fault', 'A part without a name has an opening narrower than the cut: Cut leaves it out.'],
  ]);
  expect(outlinesOf(beside([part], 2))).toHaveLength(1);
});

test('two parts are run in one order, what lies inside first', () => {
  const inner = partOf([rectangle('r', 10, 6)], { ...WORK, id: 'inner', placement: { x: 160, y: 200 } });
  const job = beside([plate(), inner], 1);
  const drawn = finished(evaluate(job).run('full')).operations.flatMap((o) =>
    o.drawn.map((d) => [d.partId, boxWidth(d.drawable.box)]),
  );
  expect(drawn.map(([id]) => id).sort()).toEqual(['inner', 'part', 'part']);
  expect(drawn[2]).toEqual(['part', 101]);
});

test('what stays is the drawing closed by the beam, from the file', { tags: 'slow' }, () => {
  const next = chance(25);
  const folder = mkdtempSync(path.join(tmpdir(), 'needlefile-kerf-'));
  const words = ['Quince', 'Oak & Elm', 'Bay 4', 'Åse', 'Rye', 'Gate 8'];
  const kerfs = [0.1, 0.2, 0.5, 1.2, 3];
  const cases = Array.from({ length: SIGNS }, (_, i) => i).flatMap((i) => {
    const family = FAMILIES[Math.floor(next() * FAMILIES.length)] as string;
    const kerf = kerfs[i % kerfs.length] as number;
    const keep = i % 3 === 2 ? 'outside' : 'inside';
    const text = words[Math.floor(next() * words.length)] as string;
    const size = { by: 'capital', mm: 15 + 50 * next() };
    const steps: Draft[] = [{ kind: 'weld' }, ...(i % 4 === 1 ? [{ kind: 'border', distance: 4 }] : [])];
    const part = partOf([lettering(text, family, { size })], {
      ...WORK,
      steps,
      keep,
      placement: { x: 600, y: 400, turn: 360 * next(), mirror: next() < 0.3 },
    });
    const job = beside([part], kerf, 'beside', { export: { page: 'sheet', arcTolerance: 0.001 } });
    const result = evaluate(job);
    const dxf = path.join(folder, `${i}.dxf`);
    const drawing = drawingOf(job, result);
    if (!drawing) {
      // All of it is narrower than the cut, which is found.
      expect(result.findings.some((f) => f.code === 'narrower-than-cut')).toBe(true);
      return [];
    }
    writeFileSync(dxf, writeFile(drawing, 'dxf', job.export));
    const rings = result.parts[0]?.outlines.map((o) => flattenPath(o.path, 0.001).map(({ x, y }) => [x, y]));
    return [{ dxf, kerf, kept: keep, rings, said: `${text} in ${family}, ${kerf} mm, ${keep}` }];
  });
  const file = path.join(folder, 'cases.json');
  writeFileSync(file, JSON.stringify(cases));
  const found = JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/core/check_kerf.py', file], { encoding: 'utf8', maxBuffer: 1 << 28 }),
  ) as [number, number][];
  figure({
    name: 'signs cut beside their outlines: most that what stays differs from the drawing closed by the beam',
    value: Math.max(...found.map(([mm]) => mm)),
    digits: 4,
    unit: 'mm',
    aim: { most: MOST_MM },
    note: `${cases.length} signs, kerf 0.1 to 3 mm, by shapely from the DXF`,
  });
  cases.forEach(({ said }, i) => {
    expect(found[i]?.[0], said).toBeLessThan(MOST_MM);
  });
});
