/** Typeface files of every kind: the same face comes out of each, and what is none is told in words. */
import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { compress } from 'woff2-encoder';
import { facesAbout } from '../../src/core/lettering/about';
import { PLAIN_SHAPING, type Typeface } from '../../src/core/lettering/face';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { collectionOf, fontOf, SQUARE, woffOf } from '../support/font';

const A = { char: 'A', contours: [SQUARE] };
const plain = fontOf({ glyphs: [A] });

async function loaded(file: Uint8Array, number = 0): Promise<Typeface> {
  const load = await loadTypeface(file, { number, axes: {} });
  if (!load.ok) throw new Error(load.sentence);
  return load.typeface;
}
const refusal = async (file: Uint8Array): Promise<string> => {
  const load = await loadTypeface(file);
  return load.ok ? 'read' : load.sentence;
};
const all = (face: Typeface) => face.glyphs().map((glyph) => face.outline(glyph));

test('a face is the same out of every container', async () => {
  const shipped = new Uint8Array(readFileSync('public/typefaces/poppins.ttf'));
  const face = await loaded(shipped);
  for (const file of [woffOf(shipped), collectionOf([shipped])]) expect(all(await loaded(file))).toEqual(all(face));
  const packed = await loaded(await compress(shipped));
  expect(all(packed)).toEqual(all(face));
  expect(packed.shape('Alder fi', 'ltr', PLAIN_SHAPING)).toEqual(face.shape('Alder fi', 'ltr', PLAIN_SHAPING));
});

test('a table of a WOFF file that would come to more than it says is cut off there', async () => {
  // The outline of A lies behind where the table is cut; what is left is read.
  const face = await loaded(
    woffOf(fontOf({ glyphs: [A, { char: 'B', contours: [SQUARE] }], tables: { note: new Uint8Array(50_000) } }), {
      glyf: 60,
    }),
  );
  expect(face.shape('AB', 'ltr', PLAIN_SHAPING).map((g) => g.glyph)).toEqual([1, 2]);
  expect(face.outline(2)).toEqual([]);
});

test('each face of a collection is told by its number', async () => {
  const bold = fontOf({ glyphs: [{ ...A, advance: 900 }], weight: 700, names: { 2: 'Bold' } });
  const file = collectionOf([plain, bold]);
  expect((await loaded(file, 1)).shape('A', 'ltr', PLAIN_SHAPING)[0]?.advance).toBe(900);
  expect((await facesAbout(file)) as object).toMatchObject({
    faces: [
      { number: 0, style: 'Regular', weight: 400 },
      { number: 1, style: 'Bold', weight: 700 },
    ],
  });
  expect(await loadTypeface(file, { number: 2, axes: {} })).toMatchObject({
    sentence: expect.stringContaining('fewer'),
  });
});

test('a face of a collection that is broken costs that face', async () => {
  const file = collectionOf([plain, fontOf({ glyphs: [A], tables: { glyf: null } })]);
  expect(await facesAbout(file)).toMatchObject({
    ok: true,
    faces: [{ number: 0 }],
    notes: ['The typeface file holds no outlines, or is damaged.'],
  });
});

test.each([
  ['nothing', '', /not a typeface we can read/],
  ['words', 'Alder Lane', /not a typeface we can read/],
  ['a Type 1 face', '%!PS-AdobeFont-1.0', /Ask for the same face as OTF/],
  ['a bitmap face', 'STARTFONT 2.1', /no outlines: there is nothing to cut along/],
  ['a packed folder', 'PK\x03\x04', /Unpack it/],
  ['a drawing', '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0"/></svg>', /holds no font/],
  ['half a WOFF file', 'wOFF\0\x01\0\0\0\0\0\0\0\x09', /breaks off, or is damaged/],
  ['half a WOFF2 file', 'wOF2\0\x01\0\0\0\0\0\0\0\x09\0\0\0\0\x09\0', /breaks off, or is damaged/],
  ['half a collection', 'ttcf\0\x01\0\0\0\0\0\x01', /no outlines, or is damaged/],
  ['an empty collection', 'ttcf\0\x01\0\0\0\0\0\0', /holds no face/],
])('%s is answered with a sentence', async (_name, text, sentence) => {
  expect(await refusal(Uint8Array.from(text, (c) => c.charCodeAt(0)))).toMatch(sentence);
});

test('faces of pictures and of colours alone say what they are', async () => {
  const without = (more: Record<string, Uint8Array | null>) =>
    refusal(fontOf({ glyphs: [A], tables: { glyf: null, loca: null, ...more } }));
  expect(await without({ EBDT: new Uint8Array(4) })).toMatch(/pictures of its letters \(bitmaps\)/);
  expect(await without({ CBDT: new Uint8Array(4) })).toMatch(/coloured pictures of its letters only/);
  expect(await without({ 'SVG ': new Uint8Array(4) })).toMatch(/coloured pictures/);
  expect(await without({})).toMatch(/no outlines, or is damaged/);
  expect(await refusal(fontOf({ glyphs: [] }))).toMatch(/holds no characters/);
});
