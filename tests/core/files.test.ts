/** What is checked before a file is written and before it is given out, and what its page and figures are. */
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { dxfWriter } from '../../src/core/formats/dxf-write';
import { writtenFormat } from '../../src/core/formats/written';
import { dot, drawnLength, faultOf, polyline, travelThrough } from '../../src/core/geometry/drawable';
import { line } from '../../src/core/geometry/segment';
import type { DrawnWork } from '../../src/core/job/drawn';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { drawingOf } from '../../src/core/job/export';
import { faultyWork, makeFiles } from '../../src/core/job/files';
import { reportOf } from '../../src/core/job/report';
import { runSteps } from '../../src/core/job/run';
import { finished, NO_MEMORY } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const evaluate = (job: Job) => evaluator.evaluate(job, faces);
const ALL = { partIds: null };
const job = jobWith([
  partOf([lettering('Oak')], { id: 'a', name: 'Oak sign' }),
  partOf([lettering('Elm', 'Poppins', { placement: { x: 150, y: 30 } })], { id: 'b', name: 'Elm sign' }),
]);
const good = evaluate(job);

/** A result with something drawn in place of the first thing of a part. */
const withDrawn = (partId: string, drawable: DrawnWork['drawable']): JobResult => ({
  ...good,
  operations: good.operations.map((o) => {
    const first = o.drawn.findIndex((d) => d.partId === partId);
    return { ...o, drawn: o.drawn.map((d, i) => (i === first ? { ...d, drawable } : d)) };
  }),
});
const made = (result: JobResult, scope: { partIds: readonly string[] | null } = ALL) =>
  finished(makeFiles(job, result, ['svg', 'dxf', 'pdf'], scope));

afterEach(() => {
  vi.restoreAllMocks();
});

describe('before anything is written', () => {
  const torn = polyline({ closed: false, segments: [line(0, 0, 1, 0), line(1, 0.25, 2, 0)] });

  test('sound work is written whole', () => {
    expect(faultyWork(job, good, ALL)).toBeNull();
    expect(made(good).files.map((f) => f.name)).toEqual(['trial.svg', 'trial.dxf', 'trial.pdf']);
    expect(made(good).refused).toEqual([]);
  });

  test.each<[string, DrawnWork['drawable'], RegExp]>([
    [
      'a gap',
      torn,
      /^Outline of “Elm sign” for Cut: a line breaks off, and goes on 0\.2500 mm farther at 1\.00, 0\.25 mm\./,
    ],
    [
      'no place',
      dot({ x: Number.NaN, y: 0 }, 1),
      /“Elm sign” for Cut: a line has a place that is nowhere\. That is a fault of this program/,
    ],
    ['no length', dot({ x: 5, y: 5 }, 0), /“Elm sign” for Cut: a line has a piece of no length at 5\.00, 5\.00 mm/],
    ['nothing', polyline({ closed: false, segments: [] }), /“Elm sign” for Cut: a line is empty\./],
    [
      'the same way twice',
      polyline({ closed: false, segments: [line(0, 0, 20, 0), line(20, 0, 5, 0)] }),
      /^Cut would go along 15\.00 mm of “Elm sign” twice\./,
    ],
  ])('%s stops all files with a sentence that names the part', (_, drawable, words) => {
    const result = withDrawn('b', drawable);
    expect(faultyWork(job, result, ALL)).toMatch(words);
    const { files, refused } = made(result);
    expect(files).toEqual([]);
    expect(refused).toEqual([`Nothing is written. ${faultyWork(job, result, ALL)}`]);
    // Of the other part files are written.
    expect(made(result, { partIds: ['a'] }).files).toHaveLength(3);
  });

  test('an operation that is off is not in the way', () => {
    const result = withDrawn('b', torn);
    const operations = result.operations.map((o) => ({ ...o, operation: { ...o.operation, on: false } }));
    const off: JobResult = {
      ...result,
      operations,
      run: (how) => runSteps(operations, { job, how, memory: NO_MEMORY }),
    };
    expect(faultyWork(job, off, ALL)).toBeNull();
    expect(finished(makeFiles(job, off, ['svg'], ALL))).toEqual({ files: [], refused: [] });
  });
});

describe('before it is given out', () => {
  test('a file that is not what is drawn keeps back all of one press, and says why', () => {
    const write = dxfWriter.write;
    vi.spyOn(dxfWriter, 'write').mockImplementation((drawing, settings) =>
      write({ ...drawing, layers: drawing.layers.map((l) => ({ ...l, drawn: l.drawn.slice(1) })) }, settings),
    );
    const { files, refused } = made(good);
    expect(files).toEqual([]);
    expect(refused).toEqual([
      expect.stringMatching(
        /^DXF is not given out: read back, the file is not what is drawn: in “Cut”, path 1 is .* off/,
      ),
    ]);
    expect(finished(makeFiles(job, good, ['svg', 'pdf'], ALL)).files).toHaveLength(2);
  });
});

describe('strokes gone along twice', () => {
  test.each([
    ['Libre Baskerville', { by: 'capital', mm: 40 }, 'BOARDkxn&4'],
    ['Bebas Neue', { by: 'width', mm: 98.6 }, 'BOARD'],
    ['Archivo Black', { by: 'capital', mm: 40 }, 'BOARDkxn&4'],
    ['Caveat', { by: 'capital', mm: 25 }, 'minimum hm'],
  ])('of %s are continuous', (face, size, text) => {
    for (const ends of ['short', 'tip'])
      for (const joined of [true, false]) {
        const drawn = evaluate(
          jobWith([
            partOf([lettering(text, face, { size })], {
              steps: [{ kind: 'weld' }, { kind: 'centerline', ends, retraced: 'twice', joined }],
              work: [{ what: 'centerline', operation: 'mark' }],
            }),
          ]),
        ).operations.flatMap((o) => o.drawn.map((d) => d.drawable));
        expect(drawn.length).toBeGreaterThan(2);
        expect(drawn.map(faultOf)).toEqual(drawn.map(() => null));
      }
  });
});

describe('pages that fit the work', () => {
  const wide = jobWith([partOf([lettering('H')])], { export: { lineWidth: 2 } });
  const result = evaluate(wide);

  test('have room for half of the drawn line in SVG and PDF, and none in DXF, whose corner is the work’s', () => {
    const boxOf = (id: 'svg' | 'dxf' | 'pdf') => {
      const drawing = drawingOf(wide, result, ALL, writtenFormat(id).frame(wide.export));
      const box = drawing?.layers[0]?.drawn[0]?.box;
      return [drawing?.width, drawing?.height, box?.minX, box?.minY].map((n) => Math.round((n ?? 0) * 1e6) / 1e6);
    };
    const [w, h] = [result.workBox.maxX - result.workBox.minX, result.workBox.maxY - result.workBox.minY];
    const round = (n: number) => Math.round(n * 1e6) / 1e6;
    expect(boxOf('dxf')).toEqual([round(w), round(h), 0, 0]);
    for (const id of ['svg', 'pdf'] as const) expect(boxOf(id)).toEqual([round(w + 2), round(h + 2), 1, 1]);
  });

  test('the sheet stays the sheet', () => {
    const onSheet = { ...wide, export: { ...wide.export, page: 'sheet' as const } };
    const drawing = drawingOf(onSheet, result, ALL, writtenFormat('svg').frame(onSheet.export));
    expect([drawing?.width, drawing?.height]).toEqual([300, 200]);
    expect(drawing?.layers[0]?.drawn[0]?.box.minX).toBeCloseTo(result.workBox.minX, 9);
  });

  test.each([
    ['corner', 0, 0],
    ['middle', -0.5, -0.5],
    ['placed', null, null],
  ] as const)('plotter files have 0, 0 at the %s', (plotterOrigin, x, y) => {
    for (const page of ['work', 'sheet'] as const) {
      const job = { ...wide, export: { ...wide.export, page, plotterOrigin } };
      const box = drawingOf(job, result, ALL, writtenFormat('hpgl').frame(job.export))?.layers[0]?.drawn[0]?.box;
      const { minX, minY, maxX, maxY } = result.workBox;
      expect(box?.minX).toBeCloseTo(x === null ? minX : x * (maxX - minX), 9);
      expect(box?.minY).toBeCloseTo(y === null ? minY : y * (maxY - minY), 9);
    }
  });
});

describe('length and travel', () => {
  const hatched = (step: Draft) =>
    jobWith([
      partOf([lettering('BO')], {
        steps: [{ kind: 'weld' }, { kind: 'hatch', tool: { shape: 'round', tip: 1 }, ...step }],
        work: [{ what: 'hatch', operation: 'engrave' }],
      }),
    ]);

  test.each<[string, Draft]>([
    ['rings', { style: 'rings' }],
    ['rows', { outline: 'none' }],
    ['rows, then the edge', { outline: 'last' }],
    ['the edge, then rows', { outline: 'first' }],
    ['rows and strokes over what they miss', { outline: 'last', fillMissed: true, joined: false }],
  ])('of %s count all that is drawn and moved', (_, step) => {
    const filled = hatched(step);
    const result = evaluate(filled);
    const engraved = result.operations.find((o) => o.operation.id === 'engrave');
    const run = finished(result.run('full')).operations.find((o) => o.operation.id === 'engrave');
    const drawn = run?.drawn.map((d) => d.drawable) ?? [];
    const hatch = result.parts[0]?.linework.hatch;
    const [length, travel] = [drawn.reduce((sum, d) => sum + drawnLength(d), 0), travelThrough(drawn)];
    expect(travel).toBeGreaterThan(20);
    for (const told of [hatch, { drawnMm: engraved?.lengthMm, travelMm: run?.travelMm }]) {
      expect(told?.drawnMm).toBeCloseTo(length, 6);
      expect(told?.travelMm).toBeCloseTo(travel, 6);
    }
    const reported = reportOf(filled, result).operations.find((o) => o.id === 'engrave');
    expect(reported?.lengthMm).toBeCloseTo(length, 3);
    expect(reported?.travelMm).toBeCloseTo(travel, 3);
  });

  test('the pass along the edge goes on from where the rows end, and leads to where they begin', () => {
    const travelOf = (outline: string) => evaluate(hatched({ outline })).parts[0]?.linework.hatch?.travelMm ?? 0;
    const none = travelOf('none');
    // Six outlines of two letters: none is farther from the next than across a letter.
    for (const outline of ['first', 'last']) {
      expect(travelOf(outline)).toBeGreaterThan(none);
      expect(travelOf(outline)).toBeLessThan(none + 6 * 45);
    }
  });
});
