/**
 * Speed of the core, each figure a ratio against something in the same run: the exact weld against the bare polygon
 * clipper it stands on, a second evaluation against a first.
 */
import type { PathsD } from 'clipper2-wasm/dist/clipper2z';
import { diskFaces } from '../../src/cli/typefaces';
import { readJob } from '../../src/core/document/read';
import { GRID_DIGITS } from '../../src/core/geometry/boolean/engine';
import { IDENTITY } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { Memo } from '../../src/core/memo';
import { weldLettering, weldTolerance } from '../../src/core/prepare/weld';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { rawOutlines, set, typeface, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { tiesOf } from '../../tests/support/notes';
import { clipper, polygonsOf, readOut, toPaths } from './clipper';
import { median, middle } from './median';

const RUNS = 25;
const WARM_UP = 5;

const letters = (text: string): number => text.replace(/\s/g, '').length;
/** The clipper by itself: polygons in, union, polygons out as plain numbers. No tags, no curves. */
function bareUnion(polygons: readonly Float64Array[]): number {
  const paths = toPaths(polygons);
  const solution = clipper.UnionSelfD(paths, clipper.FillRule.NonZero, GRID_DIGITS);
  const vertices = readOut(solution);
  solution.delete();
  paths.delete();
  return vertices;
}

const PARAGRAPH = [
  'Take what you need and leave the',
  'rest for those who come after you.',
  'Close the gate behind you, hang up the',
  'tools, and sweep the bench before dark.',
  'Water the beds by the lane when it has',
  'not rained for three days or more, and',
  'come again tomorrow at 8.',
].join('\n');
const WORD = 'Neighbourly!';

function weldFigures(family: string): void {
  const face = typeface(family);
  for (const { text, aim, runs, what } of [
    { text: PARAGRAPH, aim: 1, runs: 25, what: `paragraph of ${letters(PARAGRAPH)} letters` },
    { text: WORD, aim: 1.5, runs: 101, what: `word of ${letters(WORD)} letters` },
  ]) {
    const layout = set(family, text, { size: { by: 'capital', mm: 20 } });
    const tolerance = weldTolerance(layout.capHeightMm);
    const polygons = polygonsOf(rawOutlines(layout, face), tolerance);
    const bare = () => median(runs, () => polygons, bareUnion);
    const exact = () =>
      median(
        runs,
        () => new Memo(),
        (memo) => weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY, memory: memo }),
      );
    // Both by turns, so that neither has the warmer machine.
    const rounds = [1, 2, 3].map(() => ({ bare: bare(), exact: exact() }));
    const sum = (key: 'bare' | 'exact') => rounds.reduce((total, round) => total + round[key], 0) / rounds.length;
    figure({
      name: `Exact weld against the bare clipper, ${what}, ${family}`,
      value: sum('exact') / sum('bare'),
      digits: 2,
      aim: { most: aim },
      note: `${sum('exact').toFixed(2)} ms against ${sum('bare').toFixed(2)} ms`,
    });
  }
}

async function evaluateFigure(family: string): Promise<void> {
  const document = (text: string) => {
    const read = readJob(
      JSON.stringify({
        format: 1,
        sheet: { width: 1200, height: 600 },
        parts: [
          {
            id: 'sign',
            members: [
              {
                id: 'words',
                kind: 'lettering',
                placement: { x: 20, y: 500 },
                text,
                face: family,
                size: { by: 'capital', mm: 20 },
              },
            ],
            work: [{ what: 'outline', operation: 'cut' }],
          },
        ],
      }),
    );
    if (!read.ok) throw new Error(read.sentences.join(' '));
    return read.job;
  };
  const first = document(PARAGRAPH);
  const edited = ['gale', 'gape', 'gave', 'game', 'gaze'].map((word) => document(PARAGRAPH.replace('gate', word)));
  const times: { first: number[]; second: number[] } = { first: [], second: [] };
  for (let i = 0; i < RUNS + WARM_UP; i++) {
    // Nothing is held before a first evaluation, not even glyphs or set lines.
    const faces = await diskFaces([family].map(faceOfFamily), null);
    const evaluator = new Evaluator(wasmEngine);
    const timed = (job: typeof first): number => {
      const began = performance.now();
      evaluator.evaluate(job, faces);
      return performance.now() - began;
    };
    const now = { first: [timed(first)], second: edited.map(timed) };
    if (i < WARM_UP) continue;
    times.first.push(...now.first);
    times.second.push(...now.second);
  }
  const [whole, edit] = [middle(times.first), middle(times.second)];
  figure({
    name: `Second evaluation after changing one letter of ${letters(PARAGRAPH)}, against the first, ${family}`,
    value: edit / whole,
    digits: 3,
    aim: { most: 0.2 },
    note: `${edit.toFixed(2)} ms against ${whole.toFixed(2)} ms`,
  });
}

const SIGN = 'Alder Lane Community\nGarden and workshop\nopen every day from 8 to 6, come in';
const THICKEN_MM = 0.3;
const BORDER_MM = 6;
const TIE_MM = 2;

const signJob = (family: string, thicken: number) => {
  const place = { x: 20, y: 300 };
  const read = readJob(
    JSON.stringify({
      format: 1,
      sheet: { width: 900, height: 400 },
      parts: [
        {
          id: 'words',
          members: [
            {
              id: 'lettering',
              kind: 'lettering',
              placement: place,
              text: SIGN,
              face: family,
              size: { by: 'capital', mm: 30 },
            },
          ],
          steps: [{ kind: 'weld' }, { kind: 'thicken', by: thicken }, { kind: 'tie', width: TIE_MM, overlap: 1 }],
          work: [{ what: 'outline', operation: 'cut' }],
        },
        {
          id: 'backing',
          members: [{ id: 'copy', kind: 'copy', of: 'words', follows: true, placement: { x: 0, y: 0 } }],
          steps: [{ kind: 'weld' }, { kind: 'border', distance: BORDER_MM }],
          work: [{ what: 'outline', operation: 'cut' }],
        },
      ],
    }),
  );
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
};

/** The same union, offsets and ties with the bare clipper, on polygons as fine as ours are: no curves come back. */
function bareSign(letterPolygons: readonly Float64Array[], ties: readonly Float64Array[]): void {
  const grow = (paths: PathsD, by: number): PathsD =>
    clipper.InflatePathsD(paths, by, clipper.JoinType.Round, clipper.EndType.Polygon, 2, GRID_DIGITS, OFFSET_CHORD_MM);
  const letters = toPaths(letterPolygons);
  const welded = clipper.UnionSelfD(letters, clipper.FillRule.NonZero, GRID_DIGITS);
  const thick = grow(welded, THICKEN_MM);
  const strips = toPaths(ties);
  const tied = clipper.UnionD(thick, strips, clipper.FillRule.NonZero, GRID_DIGITS);
  const border = grow(tied, BORDER_MM);
  const vertices = readOut(tied) + readOut(border);
  if (vertices === 0) throw new Error('nothing was computed');
  for (const held of [border, tied, strips, thick, welded, letters]) held.delete();
}

const OFFSET_CHORD_MM = 0.002;

async function signFigures(family: string): Promise<void> {
  const job = signJob(family, THICKEN_MM);
  const faces = await diskFaces([family].map(faceOfFamily), null);
  const face = typeface(family);
  const letterPolygons = polygonsOf(
    rawOutlines(set(family, SIGN, { size: { by: 'capital', mm: 30 } }), face),
    OFFSET_CHORD_MM,
  );
  const ties = polygonsOf(
    tiesOf(new Evaluator(wasmEngine).evaluate(job, faces).parts[0]).map((t) => t.path),
    OFFSET_CHORD_MM,
  );
  const bare = () =>
    median(
      7,
      () => 0,
      () => bareSign(letterPolygons, ties),
    );
  const whole = () =>
    median(
      7,
      () => new Evaluator(wasmEngine),
      (evaluator) => evaluator.evaluate(job, faces),
    );
  const rounds = [1, 2].map(() => ({ bare: bare(), whole: whole() }));
  const sum = (key: 'bare' | 'whole') => rounds.reduce((total, round) => total + round[key], 0) / rounds.length;
  figure({
    name: `Whole sign of ${letters(SIGN)} letters with thickening, ties and border, against the bare clipper's unions and offsets, ${family}`,
    value: sum('whole') / sum('bare'),
    digits: 2,
    aim: { most: 3 },
    note: `${sum('whole').toFixed(0)} ms against ${sum('bare').toFixed(0)} ms`,
  });
  const evaluator = new Evaluator(wasmEngine);
  evaluator.evaluate(job, faces);
  const again = median(
    21,
    () => 0,
    () => evaluator.evaluate(job, faces),
  );
  figure({
    name: `The same sign again, nothing changed, against the first evaluation, ${family}`,
    value: again / sum('whole'),
    digits: 4,
    aim: { most: 0.02 },
    note: `${again.toFixed(2)} ms`,
  });
}

/** Writing the sign as DXF, for which its curves become arcs. */
async function arcFigure(family: string): Promise<void> {
  const job = signJob(family, THICKEN_MM);
  const faces = await diskFaces([family].map(faceOfFamily), null);
  const result = new Evaluator(wasmEngine).evaluate(job, faces);
  const drawing = drawingOf(job, result);
  if (!drawing) throw new Error('nothing is drawn');
  const whole = () =>
    median(
      5,
      () => new Evaluator(wasmEngine),
      (evaluator) => evaluator.evaluate(job, faces),
    );
  const writing = () =>
    median(
      5,
      () => 0,
      () => writeFile(drawing, 'dxf', job.export),
    );
  const rounds = [1, 2].map(() => ({ whole: whole(), writing: writing() }));
  const sum = (key: 'writing' | 'whole') => rounds.reduce((total, round) => total + round[key], 0) / rounds.length;
  figure({
    name: `Writing a sign of ${letters(SIGN)} letters as DXF, against its evaluation, ${family}`,
    value: sum('writing') / sum('whole'),
    digits: 2,
    aim: { most: 0.2 },
    note: `${sum('writing').toFixed(0)} ms against ${sum('whole').toFixed(0)} ms`,
  });
}

for (const family of ['Archivo Black', 'Pacifico']) weldFigures(family);
for (const family of ['Archivo Black', 'Pacifico']) await evaluateFigure(family);
for (const family of ['Archivo Black', 'Pacifico']) await signFigures(family);
for (const family of ['Archivo Black', 'Pacifico', 'Libre Baskerville']) await arcFigure(family);
