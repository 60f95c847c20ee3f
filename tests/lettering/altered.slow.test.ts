/**
 * Letters that are bridged or thickened: told apart by a plain judge of shapes, bridges alike and apart, and few of them in decorated faces.
 *
 * @module-tag slow
 */
import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { type Path, regionBox, transformPath, transformRegion } from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import type { PartResult } from '../../src/core/job/part-result';
import type { Typeface } from '../../src/core/lettering/face';
import { loadTypeface } from '../../src/core/lettering/typeface';
import type { Outline } from '../../src/core/prepare/outline';
import { wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { LETTERS, nearestTo, PIXELS, type Shape, shapeBetween } from '../support/nearest-shape';
import { inFull } from '../support/scale';
import { DECORATED_FACES, type Labelled, SHIPPED, STATIC_FACES, UNSEEN_FACES } from '../support/typefaces';

const CAP = 40;
const BRIDGE = 3;
const PIXEL_MM = CAP / PIXELS;
/** A fiftieth of a capital to every side. */
const THICKER = 0.8;
const HOLES_OPEN = 1.6;
/** Drawn in loose strokes thinner than a pixel: made thinner by as much as they were made thicker, pixels leave none of them. */
const HATCHED = 'fredericka-the-great';

const FEW = SHIPPED.filter(({ name }) => ['Poppins', 'Bebas Neue'].includes(name));
const JUDGED: readonly (readonly [string, readonly Labelled[]])[] = inFull
  ? [
      ['faces that were looked at on the way', [...SHIPPED, ...STATIC_FACES]],
      ['faces that nothing was set by', UNSEEN_FACES],
    ]
  : [['shipped faces', FEW]];

async function faceOf(file: string): Promise<Typeface> {
  const load = await loadTypeface(new Uint8Array(readFileSync(file)));
  if (!load.ok) throw new Error(load.sentence);
  return load.typeface;
}

/** The alphabet of a face as a part, its letters well apart. */
function partIn(face: Typeface, steps: readonly Draft[], keep: 'inside' | 'outside'): PartResult {
  const known = new Set(face.characters());
  const text = [...LETTERS].filter((c) => known.has(c.codePointAt(0) as number)).join('');
  const words = lettering(text, 'x', { size: { by: 'capital', mm: CAP }, align: 'left', letterSpacing: 1 });
  const part = partOf([words], { keep, steps: [{ kind: 'weld' }, ...steps] });
  const result = new Evaluator(wasmEngine).evaluate(jobWith([part], { sheet: { width: 9000, height: 400 } }), () => ({
    typeface: face,
  }));
  return result.parts[0] as PartResult;
}

/** The outlines of each letter, on a baseline at 0. */
function lettersIn({ frames }: PartResult, outlines: readonly Outline[]): Map<number, Path[]> {
  const byLabel = new Map<number, Path[]>();
  for (const o of outlines) {
    const label = o.labels.find((l) => l >= 0);
    if (label === undefined) continue;
    const moved = transformPath(o.path, translation(0, -(frames[label]?.matrix.f ?? 0)));
    byLabel.set(label, [...(byLabel.get(label) ?? []), moved]);
  }
  return byLabel;
}

type Told = { letters: number; alike: number; wrong: string[] };

/**
 * Letters of a face as they were and as they became, laid on the letters of the face as they were. What was made thicker is made as
 * much thinner first, that a letter is not told by its weight: what closed stays closed.
 */
function readLetters(
  name: string,
  before: PartResult,
  { after, thickerMm, told }: { readonly after: readonly Outline[]; readonly thickerMm: number; readonly told: Told },
): void {
  const texts = before.sources.map(({ text }) => text);
  const was = lettersIn(before, before.outlines);
  const now = lettersIn(before, after);
  const shapes = new Map<number, { readonly shape: Shape; readonly from: number; readonly to: number }>();
  for (const [label, own] of was) {
    const { minX, maxX } = regionBox(own);
    shapes.set(label, { shape: shapeBetween(own, minX, maxX, CAP, texts[label] ?? '', 0), from: minX, to: maxX });
  }
  const judge = [...shapes.values()].map(({ shape }) => shape);
  for (const [label, { shape, from, to }] of shapes) {
    // What the judge takes for another when it is set half a pixel aside, as I and l are in many faces, it can't tell of.
    const aside = [0.5, -0.5].map((by) => {
      const moved = transformRegion(was.get(label) ?? [], translation(by * PIXEL_MM, by * PIXEL_MM));
      return nearestTo(shapeBetween(moved, from, to, CAP, shape.name, 0), judge);
    });
    if (aside.some((read) => read !== shape.name)) {
      told.alike++;
      continue;
    }
    told.letters++;
    const paths = now.get(label) ?? [];
    const { minX, maxX } = regionBox(paths);
    const read = nearestTo(
      shapeBetween(paths, Math.min(from, minX), Math.max(to, maxX), CAP, shape.name, thickerMm),
      judge,
    );
    if (read !== shape.name) told.wrong.push(`${name}: ${shape.name} as ${read}`);
  }
}

test.each(JUDGED)('bridged and thickened letters are read as before: %s', async (which, judged) => {
  const bridged: Told = { letters: 0, alike: 0, wrong: [] };
  const thickened: Told = { letters: 0, alike: 0, wrong: [] };
  for (const { name, file } of judged) {
    const face = await faceOf(file);
    const bare = partIn(face, [], 'outside');
    const stencil = partIn(face, [{ kind: 'bridge', width: BRIDGE, reads: true, small: 'fill' }], 'outside');
    readLetters(name, bare, { after: stencil.outlines, thickerMm: 0, told: bridged });
    if (name === HATCHED) continue;
    const thick = partIn(face, [{ kind: 'thicken', by: THICKER, holesOpen: HOLES_OPEN }], 'inside');
    readLetters(name, bare, { after: thick.outlines, thickerMm: THICKER, told: thickened });
  }
  for (const [how, told, left] of [
    ['Bridged', bridged, ''],
    ['Thickened', thickened, judged.some(({ name }) => name === HATCHED) ? `; ${HATCHED} is left out` : ''],
  ] as const) {
    figure({
      name: `${how} letters that a plain judge of shapes takes for another, and did not before, ${which}`,
      value: (100 * told.wrong.length) / told.letters,
      digits: 2,
      unit: '%',
      aim: { most: 0.5 },
      note: `${told.wrong.length} of ${told.letters}, without ${told.alike} that it takes for another half a pixel aside${left}`,
    });
    if (process.env.NEEDLEFILE_SAYS) console.log(told.wrong.join('\n'));
    expect(told.letters).toBeGreaterThan(38 * judged.length);
    expect(told.wrong.length / told.letters).toBeLessThanOrEqual(0.005);
  }
});

test.skipIf(DECORATED_FACES.length === 0 || !inFull)(
  'decorated letters have at most two bridges on average, and what they have holds',
  async () => {
    let most = 0;
    for (const { name, file } of DECORATED_FACES) {
      const face = await faceOf(file);
      const stencil = partIn(face, [{ kind: 'bridge', width: BRIDGE, reads: true, small: 'ask' }], 'outside');
      const { bridged } = stencil;
      if (!bridged) throw new Error(`${name} has no islands`);
      most = Math.max(most, bridged.bridges.length / stencil.sources.length);
      expect(bridged.islands.filter(({ hangs, trouble }) => !hangs && !trouble)).toEqual([]);
    }
    figure({
      name: 'Bridges a letter in decorated faces, on average in the face with the most',
      value: most,
      digits: 2,
      aim: { most: 2 },
      note: DECORATED_FACES.map(({ name }) => name).join(', '),
    });
    expect(most).toBeLessThanOrEqual(2);
  },
);
