/** Middle lines stay in the ink of their letters: nothing is drawn over bare stock, from letter to letter or within one. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { PLAIN_SHAPING, type Typeface } from '../../src/core/lettering/face';
import { loadTypeface } from '../../src/core/lettering/typeface';
import type { FaceLookup } from '../../src/core/prepare/prepared';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { jobWith, lettering, partOf } from '../support/jobs';
import { STATIC_FACES, UNSEEN_FACES } from '../support/typefaces';

/** In 30 mm capitals: less of a word than this may lie over bare stock, in mm. */
const BARE_MM = 0.3;
const STEP_MM = 0.1;

type Chord = readonly [Point, Point];
const chordsOf = (paths: readonly Path[]): Chord[] =>
  paths.flatMap((path) => {
    const points = flattenPath(path, 0.005);
    return points.map((p, i): Chord => [p, points[(i + 1) % points.length] as Point]);
  });

/** Whether a place lies in what chords wind around, or on one of them. */
function isInked({ x, y }: Point, chords: readonly Chord[]): boolean {
  let winding = 0;
  for (const [p, q] of chords) {
    const side = (q.x - p.x) * (y - p.y) - (q.y - p.y) * (x - p.x);
    if (p.y <= y && q.y > y && side > 0) winding++;
    else if (p.y > y && q.y <= y && side < 0) winding--;
    const length = Math.hypot(q.x - p.x, q.y - p.y);
    const along = ((x - p.x) * (q.x - p.x) + (y - p.y) * (q.y - p.y)) / (length || 1);
    if (along >= 0 && along <= length && Math.abs(side) <= 0.01 * length) return true;
  }
  return winding !== 0;
}

/** Length of the middle lines of a word over bare stock, in mm. */
function bareOf(text: string, face: string, lookup: FaceLookup): number {
  const steps = [{ kind: 'weld' }, { kind: 'centerline' }];
  const job = jobWith([partOf([lettering(text, face)], { steps, work: [{ what: 'centerline', operation: 'mark' }] })]);
  const part = new Evaluator(wasmEngine).evaluate(job, lookup).parts[0];
  const chords = chordsOf(part?.outlines.map((o) => o.path) ?? []);
  let bare = 0;
  for (const path of part?.linework.centerline?.paths ?? []) {
    const points = flattenPath(path, 0.01);
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1] as Point, points[i] as Point];
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      const n = Math.max(1, Math.ceil(length / STEP_MM));
      for (let k = 0; k < n; k++) {
        const t = (k + 0.5) / n;
        if (!isInked({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) }, chords)) bare += length / n;
      }
    }
  }
  return bare;
}

/** Twenty words, with capitals that have gaps beside them, accents, digits and what scripts join. */
const WORDS =
  'HE Quince Gate XYZ Marjoram tilt Kavya Fjord Wax Ruby 4711 Åse Bread Lemon Mill Vine Sage Tool Zoë Hazel'.split(' ');

describe.runIf(process.env.NEEDLEFILE_VERIFY === '1')(
  'sixty faces and more that do not ship, twenty words each',
  () => {
    test('no word has more over bare stock', { timeout: 1_800_000 }, async () => {
      const over: string[] = [];
      let [most, count] = [0, 0];
      for (const { name, file } of [...STATIC_FACES, ...UNSEEN_FACES]) {
        const load = await loadTypeface(new Uint8Array(readFileSync(file)));
        if (!load.ok) throw new Error(load.sentence);
        if (WORDS.some((word) => missing(load.typeface, word))) continue;
        for (const word of WORDS) {
          const bare = bareOf(word, name, () => ({ typeface: load.typeface }));
          count++;
          most = Math.max(most, bare);
          if (bare >= BARE_MM) over.push(`${name} “${word}” ${bare.toFixed(2)}`);
        }
      }
      figure({
        name: 'middle lines of twenty words in faces that do not ship: most of a word over bare stock, mm',
        value: most,
        digits: 2,
        aim: { most: BARE_MM },
        note: `${count} words`,
      });
      expect(count).toBeGreaterThan(60 * WORDS.length);
      expect(over).toEqual([]);
    });
  },
);

/** Whether a face lacks a character of a word. */
const missing = (face: Typeface, word: string): boolean =>
  face.shape(word, 'ltr', PLAIN_SHAPING).some(({ glyph }) => glyph === 0);

test.each(FAMILIES)('of “HE” and “tilt” in %s', (face) => {
  for (const text of ['HE', 'tilt']) expect(bareOf(text, face, faces), text).toBeLessThan(BARE_MM);
});

const others = [...STATIC_FACES, ...UNSEEN_FACES].filter(({ name }) =>
  ['playfair-display', 'cookie', 'satisfy', 'alegreya', 'ultra', 'vollkorn', 'special-elite'].includes(name),
);
test.skipIf(others.length === 0).each(others)(
  'of “HE”, “Quince” and “Fjord” in $name, which does not ship',
  async ({ name, file }) => {
    const load = await loadTypeface(new Uint8Array(readFileSync(file)));
    if (!load.ok) throw new Error(load.sentence);
    for (const text of ['HE', 'Quince', 'Fjord'])
      expect(
        bareOf(text, name, () => ({ typeface: load.typeface })),
        text,
      ).toBeLessThan(BARE_MM);
  },
);
