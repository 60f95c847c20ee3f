/**
 * Speed of a sign with every step on: words closed up, welded, thickened, tied, strength looked at, for an edit a border too. Against the
 * bare clipper's union, offset and union with the ties of the same outlines, flattened; and one letter changed against all of it. In
 * typefaces that ship, and in ones that do not where those are installed (npm run verify installs them).
 */
import { readFileSync } from 'node:fs';
import { GRID_DIGITS } from '../../src/core/geometry/boolean/engine';
import { flattenPath } from '../../src/core/geometry/path';
import { Evaluator } from '../../src/core/job/evaluate';
import type { Typeface } from '../../src/core/lettering/face';
import { layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import { loadTypeface } from '../../src/core/lettering/typeface';
import type { FaceLookup } from '../../src/core/prepare/prepared';
import { spec, typeface, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
import { tiesOf } from '../../tests/support/notes';
import { STATIC_FACES, UNSEEN_FACES } from '../../tests/support/typefaces';
import { clipper, readOut, toPaths } from './clipper';
import { middle } from './median';

const TEXT = 'Alder Lane Community\nGarden and workshop\nopen from 8 to 6 all summer';
const SIZE = { by: 'capital', mm: 30 } as const;
const THICKEN_MM = 0.3;
const TIE_MM = 2;
const BORDER_MM = 6;
/** The least safe width: that strength is looked at by. */
const LEAST_MM = 1.5;
const CLOSE_UP = { overlap: 1, words: false, lines: false } as const;
/** How far flattened outlines stray. */
const FLAT_MM = 0.005;
const ROUNDS = 7;
const LETTERS = TEXT.replace(/\s/g, '').length;

async function heldOut(name: string): Promise<[string, Typeface] | null> {
  const found = [...STATIC_FACES, ...UNSEEN_FACES].find((f) => f.name === name);
  if (!found) return null;
  const bytes = new Uint8Array(readFileSync(found.file));
  const load = await loadTypeface(bytes);
  if (!load.ok) throw new Error(load.sentence);
  return [name, load.typeface];
}

const words = (text: string) =>
  lettering(text, 'any', { size: SIZE, placement: { x: 400, y: 300 }, closeUp: CLOSE_UP });

/** Words that hang together, and, where asked for, a backing around them. */
const sign = (text: string, backed: boolean) =>
  jobWith(
    [
      partOf([words(text)], {
        id: 'words',
        steps: [{ kind: 'weld' }, { kind: 'thicken', by: THICKEN_MM }, { kind: 'tie', width: TIE_MM, overlap: 1 }],
      }),
      ...(backed
        ? [
            partOf([{ id: 'copy', kind: 'copy', of: 'words', follows: true, placement: { x: 0, y: 0 } }], {
              id: 'backing',
              steps: [{ kind: 'weld' }, { kind: 'border', distance: BORDER_MM }],
            }),
          ]
        : []),
    ],
    { sheet: { width: 900, height: 500, leastWidth: LEAST_MM } },
  );

const timed = (run: () => unknown): number => {
  const began = performance.now();
  run();
  return performance.now() - began;
};

function wholeFigure(name: string, face: Typeface): void {
  const lookUp: FaceLookup = () => ({ typeface: face });
  const job = sign(TEXT, false);
  const polygons = letterPaths(
    layoutLettering(spec(TEXT, { size: SIZE, align: 'centre', closeUp: { ...CLOSE_UP, joints: 'overlap' } }), face),
  ).map((path) => Float64Array.from(flattenPath(path, FLAT_MM).flatMap((p) => [p.x, p.y, 0])));
  const [part] = new Evaluator(wasmEngine).evaluate(job, lookUp).parts;
  const strips = tiesOf(part).map((tie) =>
    Float64Array.from(flattenPath(tie.path, FLAT_MM).flatMap((p) => [p.x, p.y, 0])),
  );
  const bare = () => {
    const outlines = toPaths(polygons);
    const welded = clipper.UnionSelfD(outlines, clipper.FillRule.NonZero, GRID_DIGITS);
    const thick = clipper.InflatePathsD(
      welded,
      THICKEN_MM,
      clipper.JoinType.Round,
      clipper.EndType.Polygon,
      2,
      GRID_DIGITS,
      FLAT_MM,
    );
    const ties = toPaths(strips);
    const tied = clipper.UnionD(thick, ties, clipper.FillRule.NonZero, GRID_DIGITS);
    if (readOut(tied) === 0) throw new Error('nothing was computed');
    for (const held of [tied, ties, thick, welded, outlines]) held.delete();
  };
  const times = { bare: [] as number[], whole: [] as number[] };
  for (let round = -2; round < ROUNDS; round++) {
    const now = { bare: timed(bare), whole: timed(() => new Evaluator(wasmEngine).evaluate(job, lookUp)) };
    if (round < 0) continue;
    times.bare.push(now.bare);
    times.whole.push(now.whole);
  }
  figure({
    name: `Sign of ${LETTERS} letters closed up, tied, thickened, against the bare clipper, ${name}`,
    value: middle(times.whole) / middle(times.bare),
    digits: 2,
    aim: { most: 3 },
    note: `${middle(times.whole).toFixed(0)} ms against ${middle(times.bare).toFixed(0)} ms`,
  });
}

function changedFigure(name: string, face: Typeface): void {
  const lookUp: FaceLookup = () => ({ typeface: face });
  const first = sign(TEXT, true);
  const edited = ['Gardem', 'Garlen', 'Gorden', 'Warden', 'Garten'].map((word) =>
    sign(TEXT.replace('Garden', word), true),
  );
  const times = { first: [] as number[], second: [] as number[] };
  for (let round = -1; round < ROUNDS - 2; round++) {
    const evaluator = new Evaluator(wasmEngine);
    const now = {
      first: timed(() => evaluator.evaluate(first, lookUp)),
      second: edited.map((job) => timed(() => evaluator.evaluate(job, lookUp))),
    };
    if (round < 0) continue;
    times.first.push(now.first);
    times.second.push(...now.second);
  }
  figure({
    name: `One letter changed in that sign with a backing, against all of it, ${name}`,
    value: middle(times.second) / middle(times.first),
    digits: 2,
    aim: { most: 0.25 },
    note: `${middle(times.second).toFixed(0)} ms against ${middle(times.first).toFixed(0)} ms`,
  });
}

const faces: (readonly [string, Typeface])[] = ['Libre Baskerville', 'Pacifico'].map((family) => [
  family,
  typeface(family),
]);
for (const name of ['playfair-display', 'lobster', 'bitter']) {
  const face = await heldOut(name);
  if (face) faces.push(face);
}
for (const [name, face] of faces) wholeFigure(name, face);
for (const [name, face] of faces) changedFigure(name, face);
