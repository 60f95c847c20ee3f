/**
 * How faces are built, against labels given by hand; and whether words come off in one piece, and without islands, against the document
 * evaluated.
 *
 * @module-tag slow
 */
import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { tryFace } from '../../src/core/job/face-trial';
import { facesAbout } from '../../src/core/lettering/about';
import { SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import { type OpenTypeface, openTypeface } from '../../src/core/lettering/typeface';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { jobWith, lettering, partOf } from '../support/jobs';
import { inFull } from '../support/scale';
import { type Labelled, ONE_LINE_FACES, STATIC_FACES, VARIABLE_FACES } from '../support/typefaces';

const bytesOf = (file: string) => new Uint8Array(readFileSync(file));
async function opened({ file }: Pick<Labelled, 'file'>): Promise<OpenTypeface> {
  const open = await openTypeface(bytesOf(file));
  if (!open.ok) throw new Error(`${file}: ${open.sentence}`);
  return open.open;
}

const shipped = SHIPPED_FACES.filter((f) => f.file.endsWith('.ttf')).map(
  ({ family, file, manner }): Labelled => ({ name: family, file: `public/typefaces/${file}`, look: manner }),
);

test('how its letters are built is told of at least 85 of 100 faces', async () => {
  const labelled = inFull ? [...STATIC_FACES, ...VARIABLE_FACES, ...ONE_LINE_FACES] : [...shipped, ...ONE_LINE_FACES];
  const wrong: string[] = [];
  for (const { name, file, look } of labelled) {
    const about = await facesAbout(bytesOf(file));
    const told = about.ok ? about.faces[0]?.look : about.sentence;
    if (told !== look) wrong.push(`${name}: ${told}`);
  }
  const share = wrong.length / labelled.length;
  figure({
    name: 'faces of which it is told wrong how their letters are built',
    value: 100 * share,
    digits: 0,
    unit: '%',
    aim: { most: 15 },
    note: `${labelled.length} faces${wrong.length > 0 ? `; not ${wrong.join(', ')}` : ''}`,
  });
  expect(share).toBeLessThanOrEqual(0.15);
});

const WORDS = [
  'Alder',
  'lane',
  'GARDEN',
  'Seedlings',
  'sow in March',
  'Fig jam',
  'minimum',
  'B8',
  'Öl',
  'Sage & thyme',
  'HILLTOP',
  'll',
  'Tool rack',
  'bean',
  'WXYZ',
  'Apron 4',
  'quilt',
  'i',
  'No. 7',
  'kiln',
];

test('one piece and no islands, as told in the list, are what the document comes to', async () => {
  const tried = inFull ? [...STATIC_FACES, ...VARIABLE_FACES].slice(0, 40) : shipped.slice(0, 4);
  const words = inFull ? WORDS : WORDS.slice(0, 5);
  const evaluator = new Evaluator(wasmEngine);
  for (const labelled of tried) {
    const load = (await opened(labelled)).at({ number: 0, axes: {} });
    if (!load.ok) throw new Error(load.sentence);
    const face = load.typeface;
    for (const text of words) {
      const member = { ...lettering(text), ...faceOfFamily('Tried') };
      const at = (keep: 'inside' | 'outside') => {
        const job = jobWith([partOf([member], { keep, steps: [{ kind: 'weld' }] })]);
        return evaluator.evaluate(job, (named) => (named.face === 'Tried' ? { typeface: face } : faces(named)));
      };
      const words = jobWith([partOf([member])]).parts[0]?.members[0];
      if (words?.kind !== 'lettering') throw new Error('no words');
      const told = tryFace(wasmEngine, face, words, 0);
      const name = `${labelled.name}, ${text}`;
      expect(told.pieces === 1, name).toBe(at('inside').parts[0]?.pieces.length === 1);
      const cutOut = at('outside').parts[0]?.pieces ?? [];
      expect(told.islands === 0, name).toBe(!cutOut.some((piece) => piece.kind === 'island'));
    }
  }
});
