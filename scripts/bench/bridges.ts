/**
 * Speed of automatic bridging: looking for the places and putting the bridges in exactly, against the bare polygon clipper
 * that is told the places: the plate without the letters, and the same strips put back.
 */
import { diskFaces } from '../../src/cli/typefaces';
import { pinnedBridge } from '../../src/core/commands/bridges';
import { checkJob } from '../../src/core/document/read';
import type { Job, Part, StepOf } from '../../src/core/document/schema';
import { GRID_DIGITS } from '../../src/core/geometry/boolean/engine';
import { closedPath, type Path } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { stepIn } from '../../src/core/kinds/steps';
import { bridgeIslands } from '../../src/core/prepare/bridges/bridges';
import type { Bridge, BridgeSetting } from '../../src/core/prepare/bridges/notes';
import { without } from '../../src/core/prepare/without';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { clipper, polygonsOf, readOut, toPaths } from './clipper';
import { median } from './median';

const TEXT = [
  'Beds of the upper garden are shared',
  'by all who dug them: please do not',
  'pick from boards marked with a band.',
  'Good compost goes to the bin by the',
  'big gate, and broken pots to the barrow.',
  'Do shut the doors, and be good to bees,',
  'toads, and birds.',
].join('\n');
const CAPITAL_MM = 30;
const FLATTEN_MM = 0.01;
const WIDTH_MM = 1200;
const HEIGHT_MM = 600;

/** A bridge as a rectangle that reaches a little into the stock at both ends, as one would draw it by hand. */
function stripOf({ from, to, width }: Bridge): Path {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const half = width / 2;
  const corner = (p: { x: number; y: number }, v: number, u: number) => ({
    x: p.x + v * dx - u * dy,
    y: p.y + v * dy + u * dx,
  });
  const corners = [corner(from, -1, half), corner(from, -1, -half), corner(to, 1, -half), corner(to, 1, half)];
  return closedPath(
    corners.map((p, i) => {
      const q = corners[(i + 1) % 4] as typeof p;
      return line(p.x, p.y, q.x, q.y);
    }),
  );
}

function barePlate(rim: Float64Array, letters: readonly Float64Array[], strips: readonly Float64Array[]): void {
  const plate = toPaths([rim]);
  const words = toPaths(letters);
  const cut = clipper.DifferenceD(plate, words, clipper.FillRule.NonZero, GRID_DIGITS);
  const added = toPaths(strips);
  const held = clipper.UnionD(cut, added, clipper.FillRule.NonZero, GRID_DIGITS);
  if (readOut(held) === 0) throw new Error('nothing was computed');
  for (const paths of [held, added, cut, words, plate]) paths.delete();
}

function plateJob(family: string): Job {
  const read = checkJob({
    format: 1,
    sheet: { width: WIDTH_MM, height: HEIGHT_MM, leastWidth: 1.5 },
    parts: [
      {
        id: 'plate',
        keep: 'outside',
        members: [
          {
            id: 'words',
            kind: 'lettering',
            placement: { x: 40, y: 520 },
            text: TEXT,
            face: family,
            size: { by: 'capital', mm: CAPITAL_MM },
          },
        ],
        steps: [{ kind: 'weld' }, { kind: 'bridge', width: 3 }],
      },
    ],
  });
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
}

async function bridgeFigures(family: string): Promise<void> {
  const job = plateJob(family);
  const faces = await diskFaces([family].map(faceOfFamily), null);
  const [part] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
  const notes = part?.bridged;
  if (!part || !notes || notes.bridges.length < 50) throw new Error('no bridges');
  const rim = closedPath([
    line(0, 0, WIDTH_MM, 0),
    line(WIDTH_MM, 0, WIDTH_MM, HEIGHT_MM),
    line(WIDTH_MM, HEIGHT_MM, 0, HEIGHT_MM),
    line(0, HEIGHT_MM, 0, 0),
  ]);
  const setting: BridgeSetting = {
    stockInside: false,
    frames: part.frames,
    step: stepIn(job.parts[0] as Part, 'bridge') as StepOf<'bridge'>,
    leastMm: 1.5,
    thicknessMm: null,
    rims: [rim],
  };
  const [rimPolygon] = polygonsOf([rim], FLATTEN_MM) as [Float64Array];
  const letters = polygonsOf(
    part.bare.map((o) => o.path),
    FLATTEN_MM,
  );
  const strips = polygonsOf(notes.bridges.map(stripOf), FLATTEN_MM);
  const nothing = () => 0;
  const bare = () => median(15, nothing, () => barePlate(rimPolygon, letters, strips));
  const ours = () => median(15, nothing, () => without(wasmEngine, rim, [bridgeIslands(part.bare, setting).shape]));
  const rounds = [1, 2, 3].map(() => ({ bare: bare(), ours: ours() }));
  const sum = (key: 'bare' | 'ours') => rounds.reduce((total, round) => total + round[key], 0) / rounds.length;
  figure({
    name: `Automatic bridging of a plate of ${TEXT.replace(/\s/g, '').length} letters (${notes.bridges.length} bridges) against the bare clipper's difference and union, ${family}`,
    value: sum('ours') / sum('bare'),
    digits: 2,
    aim: { most: 5 },
    note: `${sum('ours').toFixed(1)} ms against ${sum('bare').toFixed(1)} ms`,
  });
}

/** A bridge dragged along its gap: the whole document evaluated after every move, against the first time. */
async function dragFigures(family: string): Promise<void> {
  const job = plateJob(family);
  const faces = await diskFaces([family].map(faceOfFamily), null);
  const first = median(
    5,
    () => new Evaluator(wasmEngine),
    (evaluator) => evaluator.evaluate(job, faces),
  );
  const evaluator = new Evaluator(wasmEngine);
  const bridges = evaluator.evaluate(job, faces).parts[0]?.bridged?.bridges ?? [];
  const bridge = bridges[Math.floor(bridges.length / 2)];
  if (!bridge) throw new Error('no bridges');
  let x = bridge.own.x;
  const dragged = median(
    21,
    () => {
      x += 0.002;
      const next = structuredClone(job);
      const step = stepIn(next.parts[0] as Part, 'bridge') as StepOf<'bridge'>;
      const placed = pinnedBridge(step, bridge, bridges);
      if (placed) Object.assign(placed, { x, turn: null });
      return next;
    },
    (next) => evaluator.evaluate(next, faces),
  );
  figure({
    name: `A bridge dragged on the same plate: every move against the first evaluation, ${family}`,
    value: dragged / first,
    digits: 3,
    aim: { most: 0.25 },
    note: `${dragged.toFixed(1)} ms a move`,
  });
}

for (const family of ['Archivo Black', 'Poppins', 'Pacifico']) {
  await bridgeFigures(family);
  await dragFigures(family);
}
