/**
 * Speed of what is done to cuts of a plate of 200 letters, beside their outlines, with lead-ins and tabs, against the bare offset of
 * clipper2-wasm of the same outlines as polygons. Ours is what an evaluation takes longer by than that of the same plate cut on its
 * outlines, all else at hand.
 */
import { setTabs } from '../../src/core/commands/cut-places';
import { setKerfSide, setLead } from '../../src/core/commands/operations';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { GRID_DIGITS } from '../../src/core/geometry/boolean/engine';
import { Evaluator } from '../../src/core/job/evaluate';
import { faces, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
import { clipper, polygonsOf, readOut, toPaths } from './clipper';
import { middle } from './median';

const KERF_MM = 1;
/** As finely as our offset looks at curves, and as finely as it refits them. */
const FLATTEN_MM = 0.002;
const ROUNDS = 7;
const TEXT = Array.from({ length: 10 }, () => 'Gate sign Alder Lane no 7').join('\n');

const plain = jobWith(
  [
    partOf([lettering(TEXT, 'Archivo Black', { size: { by: 'capital', mm: 20 } })], {
      placement: { x: 900, y: 900 },
      steps: [{ kind: 'weld' }],
      work: [{ what: 'outline', operation: 'cut' }],
    }),
  ],
  {
    operations: [{ id: 'cut', name: 'Cut', kind: 'cut' }],
    sheet: { width: 2000, height: 1000, kerf: KERF_MM, thickness: 2 },
  },
);
if (!checkJob(plain).ok) throw new Error('the job is none');
const beside = setKerfSide(plain, 'cut', 'beside');
const led = setLead(beside, 'cut', { shape: 'arc' });
const tabbed = setTabs(led, 'cut', { width: 1 });

const middleOf = (once: () => number): number => middle(Array.from({ length: ROUNDS }, once));

/** How much longer an evaluation takes than the one before it, of which all is at hand, in ms. */
const timeOf = (job: Job): number =>
  middleOf(() => {
    const evaluator = new Evaluator(wasmEngine);
    evaluator.evaluate(plain, faces);
    const again = performance.now();
    evaluator.evaluate({ ...plain }, faces);
    const idle = performance.now() - again;
    const began = performance.now();
    evaluator.evaluate(job, faces);
    return performance.now() - began - idle;
  });

const outlines = new Evaluator(wasmEngine).evaluate(plain, faces).parts[0]?.outlines ?? [];
const polygons = polygonsOf(
  outlines.map((o) => o.path),
  FLATTEN_MM,
);
const bare = middleOf(() => {
  const began = performance.now();
  const paths = toPaths(polygons);
  const { Round } = clipper.JoinType;
  const grown = clipper.InflatePathsD(paths, KERF_MM / 2, Round, clipper.EndType.Polygon, 2, GRID_DIGITS, FLATTEN_MM);
  readOut(grown);
  const took = performance.now() - began;
  grown.delete();
  paths.delete();
  return took;
});

for (const [name, job, aim] of [
  ['a plate of 200 letters cut beside its outlines', beside, 3],
  ['the same with lead-ins', led, 3],
  ['the same with lead-ins and tabs', tabbed, 3],
] as const) {
  const took = timeOf(job);
  figure({
    name,
    value: took / bare,
    digits: 2,
    unit: '×',
    aim: { most: aim },
    note: `${outlines.length} outlines; ${took.toFixed(0)} ms against ${bare.toFixed(0)} ms of clipper2-wasm’s bare offset`,
  });
}
