/** @module-tag slow */

import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { distinctNames } from '../../src/core/formats/drawing';
import { nearestColourIndex } from '../../src/core/formats/dxf-colour';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { workBy } from '../../src/core/kinds/works';
import {
  checkPdf,
  folder,
  inkCount,
  pdfInfo,
  type ReadDxf,
  readDxf,
  renderDxf,
  renderPdf,
  renderSvg,
  strayPixels,
} from '../support/checkers';
import { faces, wasmEngine } from '../support/faces';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';
import { inFull } from '../support/scale';

const evaluator = new Evaluator(wasmEngine);
const out = folder();
const VERSIONS = ['R12', '2000', '2007'] as const;
/** Pixels per millimetre of the compared pictures, and lines that cover whole pixels at that scale. */
const PX = 10;
const LINE_MM = 0.2;

/** Bounds in files agree with the document this closely. */
const BOX_MM = 0.01;

type Written = {
  svg: string;
  pdf: string;
  dxf: Record<(typeof VERSIONS)[number], string>;
  width: number;
  height: number;
};

function write(name: string, job: Job, versions: readonly (typeof VERSIONS)[number][] = VERSIONS): Written {
  const drawing = drawingOf(job, evaluator.evaluate(job, faces));
  if (!drawing) throw new Error(`${name} is empty`);
  const save = (suffix: string, bytes: Uint8Array) => {
    const file = path.join(out, `${name}${suffix}`);
    writeFileSync(file, bytes);
    return file;
  };
  return {
    width: drawing.width,
    height: drawing.height,
    svg: save('.svg', writeFile(drawing, 'svg', job.export)),
    pdf: save('.pdf', writeFile(drawing, 'pdf', job.export)),
    dxf: Object.fromEntries(
      versions.map((dxf) => [dxf, save(`.${dxf}.dxf`, writeFile(drawing, 'dxf', { ...job.export, dxf }))]),
    ) as Written['dxf'],
  };
}

/** Every outline of every part given to a cut, drawn on the whole sheet. */
const asOutlines = (job: Job): Job => ({
  ...job,
  parts: job.parts.map((p) => ({ ...p, work: [workBy('outline', 'cut')] })),
  colourKey: { ...job.colourKey, cut: '#000000' },
  export: { ...job.export, page: 'sheet', lineWidth: LINE_MM },
});

const jobs = demoJobs();
const turned = jobWith(
  [
    partOf([
      lettering('Äläx\nfly', 'Sacramento', {
        placement: { x: 150, y: 90, turn: 37, mirror: true },
        size: { by: 'width', mm: 120 },
      }),
    ]),
  ],
  {},
);
const all = new Map<string, Job>([...jobs, ['turned', turned]]);
const written = new Map([...all].map(([name, job]) => [name, write(name, job)]));
const outlines = new Map([...all].map(([name, job]) => [name, write(`${name}-outlines`, asOutlines(job), ['2007'])]));

const dxfFiles = [...written.values(), ...outlines.values()].flatMap((w) => Object.values(w.dxf));
const readings = new Map(readDxf(dxfFiles).map((r, i) => [dxfFiles[i] as string, r]));
const reading = (file: string) => readings.get(file) as ReadDxf;

/** Those that are also drawn by other programs, which takes long: every third, or all. */
const DRAWN = [...all.keys()].filter((_, i) => inFull || i % 5 === 0);

describe.each([...all.keys()])('%s', (name) => {
  const w = written.get(name) as Written;
  const job = all.get(name) as Job;

  test.each(VERSIONS)('DXF %s passes the audit with nothing to fix, outlines closed, lines open', (version) => {
    const read = reading(w.dxf[version]);
    expect(read.errors).toEqual([]);
    expect(read.fixes).toEqual([]);
    expect(read.version).toBe({ R12: 'AC1009', '2000': 'AC1015', '2007': 'AC1021' }[version]);
    expect(read.entities.length).toBeGreaterThan(0);
    const polyline = version === 'R12' ? 'POLYLINE' : 'LWPOLYLINE';
    const lines = new Set(
      job.parts.flatMap((p) =>
        p.work
          .filter((one) => ['centerline', 'dots', 'hatch'].includes(one.what))
          .map((one) => job.operations.find((o) => o.id === one.operation)?.name),
      ),
    );
    // What a pen or tool follows is open, dots are circles; anything else is a closed outline.
    expect(
      read.entities.every((e) =>
        lines.has(e.layer)
          ? e.type === 'CIRCLE' || (e.type === polyline && !e.closed)
          : e.closed && e.type === polyline,
      ),
    ).toBe(true);
    for (const e of read.entities) expect(read.layers).toHaveProperty(e.layer);
  });

  test('PDF passes qpdf and has the page of the work', () => {
    expect(checkPdf(w.pdf)).toContain('No syntax or stream encoding errors');
    const size = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(pdfInfo(w.pdf));
    expect(Number(size?.[1])).toBeCloseTo((w.width * 72) / 25.4, 1);
    expect(Number(size?.[2])).toBeCloseTo((w.height * 72) / 25.4, 1);
  });

  test('bounds in the DXF agree with the document to 0.01 mm', () => {
    const result = evaluator.evaluate(job, faces);
    const { workBox } = result;
    const read = reading(w.dxf['2007']);
    const xs = read.entities.flatMap((e) => e.points.map((p) => p[0]));
    const ys = read.entities.flatMap((e) => e.points.map((p) => p[1]));
    const min = (v: number[]) => v.reduce((a, b) => Math.min(a, b), Infinity);
    const max = (v: number[]) => v.reduce((a, b) => Math.max(a, b), -Infinity);
    expect(Math.abs(max(xs) - min(xs) - (workBox.maxX - workBox.minX))).toBeLessThan(BOX_MM);
    expect(Math.abs(max(ys) - min(ys) - (workBox.maxY - workBox.minY))).toBeLessThan(BOX_MM);
    const [low, high] = read.extents;
    expect(high[0] - low[0]).toBeCloseTo(workBox.maxX - workBox.minX, 6);
    expect(high[1] - low[1]).toBeCloseTo(workBox.maxY - workBox.minY, 6);
    const svg = readFileSync(w.svg, 'utf8');
    expect(Number(/width="([\d.]+)mm"/.exec(svg)?.[1])).toBeCloseTo(w.width, 4);
    expect(Number(/height="([\d.]+)mm"/.exec(svg)?.[1])).toBeCloseTo(w.height, 4);
  });

  test.runIf(DRAWN.includes(name))('the three draw the same lines, but for a band of one pixel', () => {
    const o = outlines.get(name) as Written;
    const [width, height] = [Math.round(o.width * PX), Math.round(o.height * PX)];
    const svg = renderSvg(o.svg, width, height);
    const pdf = renderPdf(o.pdf, width, height);
    const dxf = renderDxf(
      reading(o.dxf['2007']),
      o.dxf['2007'],
      { width: o.width, height: o.height, line: LINE_MM },
      width,
      height,
    );
    expect(inkCount(svg)).toBeGreaterThan(1000);
    expect(strayPixels(svg, pdf)).toBe(0);
    expect(strayPixels(svg, dxf)).toBe(0);
    expect(strayPixels(pdf, dxf)).toBe(0);
  });
});

test('filled areas are the same in SVG and PDF', () => {
  const job = { ...(jobs.get('bench-plaque') as Job) };
  const filled: Job = {
    ...job,
    colourKey: { ...job.colourKey, engrave: '#000000' },
    export: { ...job.export, page: 'sheet', lineWidth: LINE_MM },
  };
  const w = write('filled', filled);
  const [width, height] = [w.width * PX, w.height * PX];
  expect(strayPixels(renderSvg(w.svg, width, height), renderPdf(w.pdf, width, height))).toBe(0);
});

test('a ruler of 100 mm measures 100 mm in each', () => {
  const tick = (x: number, long: number) => ({
    id: `t${x}`,
    kind: 'rectangle',
    placement: { x: 50 + x, y: 50 + long / 2 },
    width: 0.5,
    height: long,
  });
  const parts = [
    partOf([{ id: 'edge', kind: 'rectangle', placement: { x: 100, y: 50 }, width: 100, height: 20 }], { id: 'edge' }),
    ...Array.from({ length: 9 }, (_, i) => partOf([tick((i + 1) * 10, 6)], { id: `tick-${i}` })),
  ];
  const w = write('ruler', jobWith(parts, { export: { lineWidth: LINE_MM } }));
  expect([w.width, w.height]).toEqual([100, 20]);
  const svg = readFileSync(w.svg, 'utf8');
  expect(svg).toContain('width="100mm" height="20mm" viewBox="0 0 100 20"');
  expect(pdfInfo(w.pdf)).toMatch(/Page size:\s+283\.465 x 56\.6929 pts/);
  // The ticks as drawn by programs that know nothing of each other, along a row that only they cross.
  for (const ink of [renderSvg(w.svg, 100 * PX, 20 * PX), renderPdf(w.pdf, 100 * PX, 20 * PX)]) {
    const row = ink.dark.slice((20 - 13) * PX * ink.width, ((20 - 13) * PX + 1) * ink.width);
    const dark = [...row].flatMap((on, x) => (on ? [x] : []));
    for (let tick = 1; tick <= 9; tick++) {
      const near = dark.filter((x) => Math.abs(x + 0.5 - tick * 10 * PX) < 2 * PX);
      const middle = (Math.min(...near) + Math.max(...near) + 1) / 2;
      expect(Math.abs(middle - tick * 10 * PX)).toBeLessThanOrEqual(1);
    }
  }
  for (const [version, read] of VERSIONS.map(
    (v, i) => [v, readDxf(VERSIONS.map((x) => w.dxf[x]))[i] as ReadDxf] as const,
  )) {
    const edge = read.entities.filter((e) => Math.max(...e.points.map((p) => p[0])) > 99);
    expect(edge, version).toHaveLength(1);
    const xs = (edge[0]?.points ?? []).map((p) => p[0]);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(100, 9);
    if (version !== 'R12') expect(read.units).toBe(4);
    const ticks = read.entities
      .filter((e) => e !== edge[0])
      .map((e) => (Math.min(...e.points.map((p) => p[0])) + Math.max(...e.points.map((p) => p[0]))) / 2);
    for (const [i, x] of ticks.sort((a, b) => a - b).entries()) expect(x).toBeCloseTo((i + 1) * 10, 9);
  }
});

test('operations keep their order, names and colours', () => {
  const w = written.get('bench-plaque') as Written;
  const svg = readFileSync(w.svg, 'utf8');
  expect([...svg.matchAll(/<g id="([^"]+)"/g)].map((m) => m[1])).toEqual(['Engrave', 'Score', 'Cut']);
  expect([...svg.matchAll(/<g [^>]*stroke="([^"]+)"/g)].map((m) => m[1])).toEqual(['#B26417', '#248B88', '#1A26AF']);
  // How its area is scanned is written into each of them.
  expect(svg).toContain('data-scan-interval-mm="0.1"');
  expect(readFileSync(w.dxf['2007'], 'utf8')).toContain('Engrave: areas are scanned in lines 0.1 mm apart');
  expect(pdfInfo(w.pdf)).toMatch(
    /Subject:\s+Engrave: areas are scanned in lines 0\.1 mm apart, 0 degrees from level\./,
  );
  const dxf = reading(w.dxf['2007']);
  expect([...new Set(dxf.entities.map((e) => e.layer))]).toEqual(['Engrave', 'Score', 'Cut']);
  expect(dxf.layers.Cut?.[1]).toBe(0x1a26af);
});

test('names that no file likes are made fit, and stay apart', () => {
  const operations = [
    { id: 'a', name: 'Schnitt außen <1>', kind: 'cut' },
    { id: 'b', name: 'Schnitt außen /1/', kind: 'score' },
    { id: 'c', name: '1 "&\'\u0007', kind: 'mark' },
  ];
  const work = operations.map((o) => ({ what: 'outline', operation: o.id }));
  const w = write('names', jobWith([partOf([lettering('H')], { work })], { operations, title: '<&"\u0007漢' }));
  const [r12, r2000, r2007] = readDxf(VERSIONS.map((v) => w.dxf[v])) as [ReadDxf, ReadDxf, ReadDxf];
  for (const read of [r12, r2000, r2007]) {
    expect([...read.errors, ...read.fixes]).toEqual([]);
    expect(new Set(read.entities.map((e) => e.layer)).size).toBe(3);
  }
  expect(Object.keys(r2007.layers)).toContain('Schnitt außen -1-');
  expect(renderSvg(w.svg, 100, 100).width).toBe(100);
  checkPdf(w.pdf);
});

test('pages of many metres keep their size', () => {
  const wide = { id: 'wide', kind: 'rectangle', placement: { x: 6000, y: 500 }, width: 11_000, height: 400 };
  const w = write('wide', jobWith([partOf([wide])], { sheet: { width: 12_000, height: 1000 } }));
  expect(readFileSync(w.pdf, 'latin1')).toContain('/UserUnit 3');
  checkPdf(w.pdf);
  expect(readFileSync(w.svg, 'utf8')).toContain('width="11000mm"');
});

test('a closer tolerance gives more, smaller arcs', () => {
  const job = jobs.get('bed-markers') as Job;
  const files = [0.2, 0.02, 0.002].map((arcTolerance) => {
    const closer: Job = { ...job, export: { ...job.export, arcTolerance, dxf: '2007' } };
    const file = path.join(out, `tolerance-${arcTolerance}.dxf`);
    const drawing = drawingOf(closer, evaluator.evaluate(closer, faces));
    if (drawing) writeFileSync(file, writeFile(drawing, 'dxf', closer.export));
    return file;
  });
  const [coarse = 0, middle = 0, fine = 0] = readDxf(files).map(({ entities }) =>
    entities.reduce((sum, e) => sum + e.pieces, 0),
  );
  expect(middle).toBeGreaterThan(coarse);
  expect(fine).toBeGreaterThan(middle);
});

test('numbered colours', () => {
  expect(['#FF0000', '#FFFF00', '#00FF00', '#00FFFF', '#0000FF', '#FF00FF', '#000000'].map(nearestColourIndex)).toEqual(
    [1, 2, 3, 4, 5, 6, 7],
  );
});

test('distinct names', () => {
  expect(distinctNames(['Cut', 'cut', 'Cut', 'x'])).toEqual(['Cut', 'cut 2', 'Cut 3', 'x']);
});
