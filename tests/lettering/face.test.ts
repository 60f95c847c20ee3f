/** What is used of a face: features, forms of single letters, places along axes, and glyphs that are broken. */
import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { facesAbout } from '../../src/core/lettering/about';
import { letterForms } from '../../src/core/lettering/forms';
import { layoutLettering } from '../../src/core/lettering/layout';
import { faceKey } from '../../src/core/lettering/pick';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { scriptEngine, spec, typeface } from '../support/faces';
import { fontOf, SQUARE } from '../support/font';
import { jobWith, lettering, partOf } from '../support/jobs';

const poppins = typeface('Poppins');
const glyphs = (text: string, more: object) =>
  layoutLettering(spec(text, more), poppins).letters.map((l) => l.glyphs.map((g) => g.glyph).join());

test('a feature holds for all words, a form for its letter alone', () => {
  const usual = glyphs('aba', {});
  const all = glyphs('aba', { features: { ss02: 1 } });
  expect(all[0]).not.toBe(usual[0]);
  expect(all).toEqual([all[0], usual[1], all[0]]);
  const form = { tag: 'ss02', value: 1 };
  const one = glyphs('aba', { letters: [{ at: 2, dx: 0, dy: 0, turn: 0, scale: 1, form }] });
  expect(one).toEqual([usual[0], usual[1], all[0]]);
  // On the second line too, where letters are counted in the whole text.
  const below = glyphs('b\naa', { letters: [{ at: 3, dx: 0, dy: 0, turn: 0, scale: 1, form }] });
  expect(below).toEqual([usual[1], usual[0], all[0]]);
});

test('the forms there are for a letter are those that look otherwise', async () => {
  const about = await facesAbout(new Uint8Array(readFileSync('public/typefaces/poppins.ttf')));
  if (!about.ok) throw new Error(about.sentence);
  const features = about.faces[0]?.features ?? [];
  const formsOf = (text: string, at: number, switched = {}) =>
    letterForms(poppins, { text, at, features: switched }, features).map(({ tag, name }) => [tag, name]);
  expect(formsOf('bad', 1)).toEqual([
    ['', 'Usual'],
    ['ss02', 'Double-storey a'],
  ]);
  expect(formsOf('bad', 0)).toEqual([['', 'Usual']]);
  expect(formsOf('bad', 9)).toEqual([['', 'Usual']]);
  // Where it is the usual form already, it is no other.
  expect(formsOf('bad', 1, { ss02: 1 })).toEqual([['', 'Usual']]);
});

test('a broken glyph costs that glyph, and is told', async () => {
  const font = fontOf({
    glyphs: [
      { char: 'A', contours: [SQUARE] },
      { char: 'B', components: [{ glyph: 2 }] },
    ],
  });
  const load = await loadTypeface(font);
  if (!load.ok) throw new Error(load.sentence);
  const job = jobWith([partOf([lettering('ABA', 'Trial')])]);
  const result = new Evaluator(scriptEngine).evaluate(job, () => ({ typeface: load.typeface }));
  expect(result.parts[0]?.outlines).toHaveLength(2);
  expect(result.findings.find((f) => f.code === 'broken-glyphs')?.sentence).toBe(
    'B is broken in the file of Trial and can’t be drawn; the rest of the words is set.',
  );
});

test('faces are told apart by content, number and place, in whatever order axes are named', () => {
  const named = { ...faceOfFamily('Scribe'), content: 'a'.repeat(64) };
  const key = (more: object) => faceKey({ ...named, ...more });
  expect(key({ axes: { wght: 1, opsz: 2 } })).toBe(key({ axes: { opsz: 2, wght: 1 } }));
  expect(
    new Set([key({}), key({ number: 1 }), key({ axes: { wght: 1 } }), key({ content: 'b'.repeat(64) })]).size,
  ).toBe(4);
  expect(key({ content: null })).toBe(key({ content: null, face: ' scribe ' }));
});
