/**
 * Documents by chance over every step, work, member and face, written and read by programs that know nothing of each other: what is
 * drawn is sound, and SVG, DXF in each version, PDF and report agree on it.
 *
 * @module-tag slow
 */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import type { Drawing } from '../../src/core/formats/drawing';
import { readDrawing } from '../../src/core/formats/read';
import { differenceFrom } from '../../src/core/formats/read-back/compare';
import { type FileFormat, writtenFormat } from '../../src/core/formats/written';
import { drawnLength, drawnPaths, faultOf, setDowns } from '../../src/core/geometry/drawable';
import { type Path, pathBox, pathLength } from '../../src/core/geometry/path';
import { boxHeight, boxWidth } from '../../src/core/geometry/point';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { faultyWork, makeFiles } from '../../src/core/job/files';
import { reportOf } from '../../src/core/job/report';
import { anyDocument, DRAWINGS } from '../support/any-document';
import { checkPdf, folder, pdfInfo, type ReadDxf, readDxf } from '../support/checkers';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { finished } from '../support/generators';
import { type Chance, randomWord } from '../support/random';
import { inFull, sample } from '../support/scale';

const DOCUMENTS = sample(12, 400);
const SEED = 20_271_201;
const VERSIONS = ['R12', '2000', '2007'] as const;
/** What numbers in files add to a tolerance, in mm. */
const ROUNDING_MM = 0.002;
/** So many files are read by one call of another program. */
const AT_ONCE = Math.min(20, DOCUMENTS);

/** Words with the shapes that meet, cross and double back most. */
const words = (next: Chance): string =>
  randomWord(next) + (next() < 0.5 ? 'BOARDkxn&4@8Rr'.slice(Math.floor(next() * 8)) : '');

type Tried = { readonly i: number; readonly job: Job; readonly result: JobResult };

function tried(i: number): Tried {
  const read = readJob(JSON.stringify(anyDocument(i, SEED, words)));
  if (!read.ok) throw new Error(`${i}: ${read.sentences.join(' ')}`);
  const evaluator = new Evaluator(wasmEngine);
  for (const [id, text] of DRAWINGS) evaluator.addDrawing(id, text);
  return { i, job: read.job, result: evaluator.evaluate(read.job, faces) };
}

type Measured = { readonly box: readonly number[]; readonly mm: number };

const measured = (p: Path): Measured => {
  const { minX, minY, maxX, maxY } = pathBox(p);
  return { box: [minX, minY, maxX, maxY], mm: pathLength(p) };
};
/** Bounds and length of everything a drawing has, in order, layer by layer; of points they are nothing. */
const wantedOf = (drawing: Drawing) =>
  drawing.layers.flatMap((layer) =>
    layer.drawn.flatMap((d) =>
      d.kind === 'dot'
        ? [
            {
              layer,
              what: { box: [d.box.minX, d.box.minY, d.box.maxX, d.box.maxY], mm: drawnLength(d) },
              segments: 1,
              closed: d.r !== null,
            },
          ]
        : drawnPaths(d).map((p) => ({ layer, what: measured(p), segments: p.segments.length, closed: p.closed })),
    ),
  );

const boxOf = (points: readonly (readonly [number, number])[]): readonly number[] => {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const least = (list: readonly number[]) => list.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (list: readonly number[]) => list.reduce((a, b) => Math.max(a, b), -Infinity);
  return [least(xs), least(ys), most(xs), most(ys)];
};

/** How far bounds are apart at most, in mm. */
const apart = (a: Measured, b: Measured) => Math.max(...a.box.map((v, k) => Math.abs(v - (b.box[k] as number))));

let worst = 0;
let longest = 0;
const out = folder();
const drawnIn = ({ job, result }: Tried, id: FileFormat): Drawing | null =>
  drawingOf(job, result, { partIds: null }, writtenFormat(id).frame(job.export));

function written(one: Tried, id: FileFormat, dxf: (typeof VERSIONS)[number] = '2007') {
  const drawing = drawnIn(one, id);
  if (!drawing) return null;
  const settings = { ...one.job.export, dxf };
  const bytes = writeFile(drawing, id, settings);
  const { readBack, keeps } = writtenFormat(id);
  const difference = differenceFrom(drawing, () => readBack(bytes, settings), {
    keeps,
    lineMm: one.job.export.lineWidth,
  });
  return { drawing, bytes, difference };
}

/** Everything about one document but what ezdxf says; the files it is to be asked about. */
function checkOne(one: Tried): { drawing: Drawing; files: string[] } | null {
  const { i, job, result } = one;
  const drawn = result.operations.filter((o) => o.operation.on).flatMap((o) => o.drawn.map((d) => d.drawable));
  expect(
    drawn.map(faultOf).filter((fault) => fault !== null),
    `${i} is sound`,
  ).toEqual([]);
  expect(faultyWork(job, result, { partIds: null }), String(i)).toBeNull();
  const { files, refused } = finished(makeFiles(job, result, ['svg', 'dxf', 'pdf', 'hpgl'], { partIds: null }));
  expect(refused, String(i)).toEqual([]);
  expect(files.length, String(i)).toBe(drawn.length > 0 ? 4 : 0);
  // The report tells what is drawn.
  const report = reportOf(job, result);
  result.operations.forEach((o, k) => {
    const told = report.operations[k];
    const all = o.drawn.map((d) => d.drawable);
    expect(told?.lengthMm, `${i} ${o.operation.name}`).toBeCloseTo(
      all.reduce((sum, d) => sum + drawnLength(d), 0),
      2,
    );
    expect(told?.paths, `${i} ${o.operation.name}`).toBe(all.reduce((sum, d) => sum + setDowns(d), 0));
  });
  const svg = written(one, 'svg');
  const pdf = written(one, 'pdf');
  if (!svg || !pdf) return null;
  expect([svg.difference, pdf.difference], String(i)).toEqual([null, null]);
  // Our reader of other people's drawings finds the same paths.
  const again = readDrawing(svg.bytes);
  if (!again.ok) throw new Error(again.sentence);
  const lines = wantedOf(svg.drawing).filter(({ what }) => what.mm > 0);
  const found = again.found.shapes.flatMap((s) => s.paths).map(measured);
  expect(found.length, `${i} paths in SVG`).toBe(lines.length);
  found.forEach((f, k) => {
    const wanted = lines[k] as (typeof lines)[number];
    expect(apart(f, wanted.what), `${i} SVG ${k}`).toBeLessThan(ROUNDING_MM);
    expect(Math.abs(f.mm - wanted.what.mm), `${i} SVG ${k}`).toBeLessThan(ROUNDING_MM + 1e-5 * wanted.segments);
  });
  const file = path.join(out, `${i}.pdf`);
  writeFileSync(file, pdf.bytes);
  expect(checkPdf(file), String(i)).toContain('No syntax or stream encoding errors');
  const size = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(pdfInfo(file));
  expect(Number(size?.[1]), String(i)).toBeCloseTo((pdf.drawing.width * 72) / 25.4, 1);
  const box = { w: boxWidth(result.workBox), h: boxHeight(result.workBox) };
  if (job.export.page === 'work') {
    expect(pdf.drawing.width - job.export.lineWidth, String(i)).toBeCloseTo(box.w, 6);
    expect(pdf.drawing.height - job.export.lineWidth, String(i)).toBeCloseTo(box.h, 6);
  }
  const versions = inFull ? VERSIONS : [VERSIONS[i % 3] as (typeof VERSIONS)[number]];
  const dxf = versions.map((version) => {
    const made = written(one, 'dxf', version);
    expect(made?.difference, `${i} DXF ${version}`).toBeNull();
    const name = path.join(out, `${i}.${version}.dxf`);
    writeFileSync(name, made?.bytes ?? '');
    return name;
  });
  return { drawing: drawnIn(one, 'dxf') as Drawing, files: dxf };
}

/** What an independent reader makes of a DXF against the drawing it was written from. */
function checkDxf(i: number, drawing: Drawing, read: ReadDxf): void {
  expect([...read.errors, ...read.fixes], String(i)).toEqual([]);
  const wanted = wantedOf(drawing);
  expect(read.entities.length, `${i} entities`).toBe(wanted.length);
  read.entities.forEach((e, k) => {
    const { layer, what, closed } = wanted[k] as (typeof wanted)[number];
    const found: Measured = { box: boxOf(e.points), mm: e.length };
    if (what.mm > 0) expect(e.closed, `${i} entity ${k}`).toBe(closed);
    const most = layer.tolerance + ROUNDING_MM;
    const off = apart(found, what);
    worst = Math.max(worst, off - layer.tolerance);
    expect(off, `${i} entity ${k}`).toBeLessThan(most);
    longest = Math.max(longest, Math.abs(found.mm - what.mm) - layer.tolerance);
    expect(Math.abs(found.mm - what.mm), `${i} entity ${k}`).toBeLessThan(most);
  });
}

const blocks = Array.from({ length: Math.ceil(DOCUMENTS / AT_ONCE) }, (_, k) => k * AT_ONCE);

describe('documents by chance', () => {
  test.each(blocks)('from %i on are sound, and their files agree', { timeout: 600_000 }, (from) => {
    const asked: { i: number; drawing: Drawing; file: string }[] = [];
    for (let i = from; i < Math.min(from + AT_ONCE, DOCUMENTS); i++) {
      const made = checkOne(tried(i));
      for (const file of made?.files ?? []) asked.push({ i, drawing: (made as { drawing: Drawing }).drawing, file });
    }
    expect(asked.length).toBeGreaterThan(0.8 * AT_ONCE);
    readDxf(asked.map((a) => a.file)).forEach((read, k) => {
      const { i, drawing } = asked[k] as (typeof asked)[number];
      checkDxf(i, drawing, read);
    });
  });

  test('bounds and lengths in DXF stay within the tolerance of their operation', () => {
    figure({
      name: `Bounds of paths in DXF of ${DOCUMENTS} documents by chance, beyond the tolerance of their operation, at most`,
      value: Math.max(0, worst),
      digits: 5,
      unit: 'mm',
      aim: { most: ROUNDING_MM },
    });
    figure({
      name: `The same of their lengths`,
      value: Math.max(0, longest),
      digits: 5,
      unit: 'mm',
      aim: { most: ROUNDING_MM },
    });
    expect(Math.max(worst, longest)).toBeLessThan(ROUNDING_MM);
  });
});
