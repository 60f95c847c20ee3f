/**
 * Plotter files against an independent program that knows them: hp2xx's own samples as it draws them and as we read them, and what we
 * write as it draws it. Words are left out of both: it draws them in letters of its own.
 *
 * @module-tag slow
 */
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { readJob } from '../../src/core/document/read';
import type { Drawing, Layer } from '../../src/core/formats/drawing';
import { readHpgl } from '../../src/core/formats/hpgl-read/hpgl-read';
import { hpglWriter } from '../../src/core/formats/hpgl-write';
import { readDrawing } from '../../src/core/formats/read';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { anyDocument, DRAWINGS } from '../support/any-document';
import { folder } from '../support/checkers';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { apartAtMost, farthest, type Polyline } from '../support/polyline-distance';
import { sample } from '../support/scale';

const out = folder();
const SAMPLES = '/usr/share/doc/hp2xx/hp-tests';
const STEPS_PER_MM = 40;

/** What hp2xx draws, by pen in the order it takes them; it moves everything so that the least place is 0, 0. */
function plotted(text: string): { readonly pen: number; readonly lines: Polyline[] }[] {
  const file = path.join(out, 'plotted.plt');
  writeFileSync(file, text, 'latin1');
  const drawn = execFileSync('hp2xx', ['-q', '-t', '-N', '-n', '-m', 'hpgl', '-f', '-', file], {
    encoding: 'latin1',
    stdio: ['ignore', 'pipe', 'ignore'],
    maxBuffer: 1 << 28,
  });
  const pens: { pen: number; lines: [number, number][][] }[] = [];
  let at: [number, number] = [0, 0];
  let line: [number, number][] | null = null;
  for (const [, name, x, y] of drawn.matchAll(/(SP|PU|PD)(-?[\d.]+)?(?:,(-?[\d.]+))?/g)) {
    if (name === 'SP' && Number(x) !== pens.at(-1)?.pen) pens.push({ pen: Number(x), lines: [] });
    if (name === 'PU') line = null;
    if (name === 'SP' || x === undefined || y === undefined) continue;
    const to: [number, number] = [Number(x) / STEPS_PER_MM, Number(y) / STEPS_PER_MM];
    if (name === 'PD') {
      if (!line) {
        line = [at];
        pens.at(-1)?.lines.push(line);
      }
      line.push(to);
    }
    at = to;
  }
  return pens.filter((p) => p.lines.length > 0);
}

const asLine = (p: Path, within: number): Polyline => {
  const points = flattenPath(p, within).map((q): [number, number] => [q.x, q.y]);
  return p.closed && points[0] ? [...points, points[0]] : points;
};
const least = (lines: readonly Polyline[]): [number, number] =>
  lines.flat().reduce<[number, number]>(([x, y], p) => [Math.min(x, p[0]), Math.min(y, p[1])], [Infinity, Infinity]);
const movedBack = (lines: readonly Polyline[], [dx, dy]: readonly [number, number]): Polyline[] =>
  lines.map((line) => line.map(([x, y]): [number, number] => [x - dx, y - dy]));
/** Places between the ends of chords, so that long ones are compared along their whole way. */
const denser = (lines: readonly Polyline[]): Polyline[] =>
  lines.map((line) =>
    line.flatMap((p, i) => {
      const q = line[i + 1];
      return q
        ? [0, 0.25, 0.5, 0.75].map((t): [number, number] => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])])
        : [p];
    }),
  );

/** What hp2xx does otherwise, by choice or because it can't: then only what it draws is looked for in ours, or nothing is compared. */
const OTHERWISE: Readonly<Record<string, 'dashed' | 'nothing'>> = {
  // Lines in dashes, which we read as whole lines that have dashes.
  'inter.hp': 'dashed',
  'lt.hp': 'dashed',
  'pw.hpg': 'dashed',
  'thick.hp': 'dashed',
  // Its fills are off, so that what is only filled is missing.
  'fill.plt': 'dashed',
  // What reaches beyond the paper is cut off there, and here it is not.
  '286x192.5_lh.hpg': 'nothing',
  '286x192.5_qh.hpg': 'nothing',
  '286x192.5_qh2.hpg': 'nothing',
  '286x192.5_qq.hpg': 'nothing',
  'iw.hp': 'nothing',
  // Their size hangs on the plotter.
  'arcs.hp': 'nothing',
  'ew.hpg': 'nothing',
  // Tick marks and symbols are told as not read.
  'cp.hp': 'nothing',
  'symbols.hp': 'nothing',
  'ul.hp': 'nothing',
  // Several sheets of paper, each moved by itself.
  'pages.hp': 'nothing',
  // It ends without a word.
  'fwedges.plt': 'nothing',
  'spectrum.plt': 'nothing',
};

const files = readdirSync(SAMPLES).filter((name) => !/\.eps|readme/.test(name));

describe('samples of another program', () => {
  let worst = 0;
  test.each(files)('%s', (name) => {
    const bytes = new Uint8Array(readFileSync(path.join(SAMPLES, name)));
    expect(readDrawing(bytes), name).toMatchObject({ ok: true });
    const text = Buffer.from(name.endsWith('.gz') ? gunzipSync(bytes) : bytes)
      .toString('latin1')
      // biome-ignore lint/suspicious/noControlCharactersInRegex: labels end so
      .replace(/LB[^\x03]*(?:\x03|$)/g, '');
    const reading = readHpgl(text);
    if (!reading.ok) throw new Error(reading.sentence);
    const otherwise = OTHERWISE[name.replace(/\.gz$/, '')];
    if (otherwise === 'nothing') return;
    const ours = reading.found.shapes.flatMap((s) => s.paths.map((p) => asLine(p, 0.002)));
    // A pen set down without moving is told as a point.
    const theirs = plotted(text)
      .flatMap((p) => p.lines)
      .filter((line) => line.some(([x, y]) => Math.hypot(x - (line[0]?.[0] ?? 0), y - (line[0]?.[1] ?? 0)) > 0.02));
    const here = movedBack(ours, least(ours));
    const there = movedBack(theirs, least(theirs));
    const off = Math.max(farthest(denser(there), here), otherwise === 'dashed' ? 0 : farthest(denser(here), there));
    worst = Math.max(worst, off);
    // It draws arcs as chords of five degrees.
    expect(off).toBeLessThan(0.06);
  });

  test('are compared in a figure', () => {
    figure({
      name: 'Lines of another program’s plotter files, as it draws them and as they are read here, apart at most',
      value: worst,
      digits: 3,
      unit: 'mm',
      aim: { most: 0.06 },
    });
  });
});

/** Lines of a layer as the document has them, exact but for chords much finer than the tolerance. */
const linesOf = ({ drawn }: Layer): Polyline[] =>
  drawn.flatMap((d): Polyline[] => {
    if (d.kind !== 'dot') return drawnPaths(d).map((p) => asLine(p, 0.001));
    const r = d.r ?? 0;
    const around = Array.from({ length: r > 0 ? 129 : 1 }, (_, i) => (2 * Math.PI * i) / 128);
    return [around.map((a): [number, number] => [d.at.x + r * Math.cos(a), d.at.y + r * Math.sin(a)])];
  });

describe('what is written', () => {
  const DOCUMENTS = sample(16, 200);
  let worst = 0;
  test.each(Array.from({ length: Math.ceil(DOCUMENTS / 8) }, (_, k) => 8 * k))(
    'documents by chance from %i on',
    {
      timeout: 600_000,
    },
    (from) => {
      for (let i = from; i < Math.min(from + 8, DOCUMENTS); i++) {
        const read = readJob(JSON.stringify(anyDocument(i, 20_271_128)));
        if (!read.ok) throw new Error(read.sentences.join(' '));
        const { job } = read;
        const evaluator = new Evaluator(wasmEngine);
        for (const [id, text] of DRAWINGS) evaluator.addDrawing(id, text);
        const frame = hpglWriter.frame({ ...job.export, plotterOrigin: 'corner' });
        const drawing: Drawing | null = drawingOf(job, evaluator.evaluate(job, faces), { partIds: null }, frame);
        if (!drawing) continue;
        const text = Buffer.from(writeFile(drawing, 'hpgl', job.export)).toString('latin1');
        const numbers = [...text.matchAll(/(?:PU|PD|,)(-?\d+),(-?\d+)/g)];
        expect(numbers.length).toBeGreaterThan(0);
        const steps = numbers.map(([, x, y]) => [Number(x), Number(y)] as const);
        const isFlat = [0, 1].some((k) => new Set(steps.map((step) => step[k])).size === 1);
        // It draws nothing that has no height or no width.
        if (isFlat) continue;
        const drawn = plotted(text);
        expect(
          drawn.map((p) => p.pen),
          `${i}: pens in order`,
        ).toEqual(drawing.layers.map((l) => l.pen));
        const least40 = [...text.matchAll(/P[UD]([-\d,]+);/g)]
          .flatMap(([, list = '']) => list.split(',').map(Number))
          .reduce<[number, number]>(
            ([x, y], n, k) => (k % 2 === 0 ? [Math.min(x, n), y] : [x, Math.min(y, n)]),
            [Infinity, Infinity],
          );
        drawing.layers.forEach((layer, k) => {
          const there = movedBack(drawn[k]?.lines ?? [], [-least40[0] / STEPS_PER_MM, -least40[1] / STEPS_PER_MM]);
          const off = apartAtMost(denser(there), denser(linesOf(layer))) - layer.tolerance;
          worst = Math.max(worst, off);
          expect(off, `${i} ${layer.name}`).toBeLessThan(0.02);
        });
      }
    },
  );

  test('stays on its lines', () => {
    figure({
      name: `Plotter files of ${DOCUMENTS} documents by chance, drawn by another program, off the document beyond the tolerance of their operation, at most`,
      value: Math.max(0, worst),
      digits: 4,
      unit: 'mm',
      aim: { most: 0.02 },
    });
    expect(worst).toBeLessThan(0.02);
  });
});
