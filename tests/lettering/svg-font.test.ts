/** SVG fonts: outlines and one line, ligatures, pairs, and what is broken in them. */
import { expect, test } from 'vitest';
import { PLAIN_SHAPING, type Typeface } from '../../src/core/lettering/face';
import { loadTypeface } from '../../src/core/lettering/typeface';

const font = (inside: string, more = '') =>
  `<svg xmlns="http://www.w3.org/2000/svg"><defs><font horiz-adv-x="500"><font-face font-family="Scribe" units-per-em="1000" ascent="800" descent="-200" ${more}/>${inside}</font></defs></svg>`;
async function faceOf(markup: string): Promise<Typeface> {
  const load = await loadTypeface(new TextEncoder().encode(markup));
  if (!load.ok) throw new Error(load.sentence);
  return load.typeface;
}
const advances = (face: Typeface, text: string, ligatures = true) =>
  face.shape(text, 'ltr', { ligatures, features: [] }).map((g) => g.advance);

test('strokes stay open, and outlines are closed', async () => {
  const lines = await faceOf(font('<glyph unicode="l" d="M10 0 V700"/><glyph unicode="H" d="M0 0V650M0 300H90"/>'));
  expect(lines).toMatchObject({ family: 'Scribe', isSingleStroke: true, capHeight: 650, ascent: 800, descent: -200 });
  expect(lines.outline(1)).toEqual([{ closed: false, segments: [expect.objectContaining({ y1: 700 })] }]);
  const filled = await faceOf(
    font('<glyph unicode="l" d="M0 0V700H50V0Z"/><glyph unicode="i" d="M0 0V9H9"/><glyph unicode="o" d="M0 0V9H9z"/>'),
  );
  expect(filled.isSingleStroke).toBe(false);
  expect(filled.outline(2)).toMatchObject([{ closed: true, segments: { length: 3 } }]);
});

test('ligatures, pairs and advances', async () => {
  const face = await faceOf(
    font(
      '<glyph unicode="f" horiz-adv-x="300" glyph-name="eff" d="M0 0V9"/><glyph unicode="i" d="M0 0V9"/><glyph unicode="fi" horiz-adv-x="700" d="M0 0V9"/><glyph unicode="V" d="M0 0V9"/><hkern u1="V" u2="i" k="40"/><hkern g1="eff" u2="V" k="-7"/>',
    ),
  );
  expect(advances(face, 'fi')).toEqual([700]);
  expect(advances(face, 'fi', false)).toEqual([300, 500]);
  expect(advances(face, 'Vi')).toEqual([460, 500]);
  expect(advances(face, 'fV')).toEqual([307, 500]);
  expect(face.shape('ox', 'ltr', PLAIN_SHAPING).map((g) => g.glyph)).toEqual([0, 0]);
});

test('a broken glyph costs that glyph; broken markup what comes after it', async () => {
  const face = await faceOf(
    font('<glyph unicode="a" d="M0 0V9"/><glyph unicode="b" d="M0 0 L nonsense"/><glyph unicode="c" d="M0 0H1e9"/>'),
  );
  expect([1, 2, 3].map((glyph) => face.isBroken(glyph))).toEqual([false, true, true]);
  const cut = await faceOf(`${font('<glyph unicode="a" d="M0 0V9"/>').slice(0, -20)}<<<`);
  expect(cut.characters()).toEqual([97]);
});

test('what a font says of itself that can’t be is not believed', async () => {
  const odd = await faceOf(
    font('<glyph unicode="a" d="M0 0V9"/>', 'slope="400" font-weight="9000" font-style="oblique"'),
  );
  expect(odd).toMatchObject({ slantDeg: 0, weight: 400, italic: true });
  const none = await loadTypeface(new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"><font/></svg>'));
  expect(none).toEqual({ ok: false, sentence: 'The typeface file holds no characters, or is damaged.' });
});
