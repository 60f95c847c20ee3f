/** The list of typefaces: families of those that ship and those brought in, notes about them, and what is asked of them. */
import { expect, test } from 'vitest';
import { facesAbout } from '../../src/core/lettering/about';
import { SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import type { FaceAbout } from '../../src/core/schema/face-about';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { isSvgFont } from '../../src/faces/bring-in';
import { cameInWords } from '../../src/faces/bring-in-faces';
import { marksOf } from '../../src/faces/face-marks';
import { faceIn, familiesOf, type ListedFace, listedFaces, markKey } from '../../src/faces/faces';
import { nearestFaces } from '../../src/faces/nearest';
import { meets, type TriedWords } from '../../src/faces/trials';
import { fontOf, SQUARE } from '../support/font';

async function about(more: Partial<FaceAbout> = {}): Promise<FaceAbout> {
  const described = await facesAbout(fontOf({ glyphs: [{ char: 'A', contours: [SQUARE] }] }));
  if (!described.ok) throw new Error(described.sentence);
  return { ...(described.faces[0] as FaceAbout), ...more };
}
const content = 'a'.repeat(64);
const kept = (faces: FaceAbout[]) => [{ content, name: 'scribe.ttc', addedAt: '2030-01-01T00:00:00Z', faces }];

test('families are put together by name, the plain style first, the others from light to heavy', async () => {
  const style = (number: number, name: string, weight: number, italic = false) =>
    about({ number, family: 'Scribe', style: name, weight, italic });
  const faces = listedFaces({
    typefaces: kept([
      await style(0, 'Black', 900),
      await style(1, 'Italic', 400, true),
      await style(2, 'Regular', 400),
      await style(3, 'Thin', 100),
      await about({ number: 4, family: 'poppins', style: 'Light', weight: 300 }),
    ]),
    marks: [],
  });
  expect(faces).toHaveLength(SHIPPED_FACES.length + 5);
  const families = familiesOf(faces);
  expect(families).toHaveLength(SHIPPED_FACES.length + 1);
  const scribe = families.find((f) => f.family === 'Scribe');
  expect(scribe?.faces.map((f) => f.style)).toEqual(['Regular', 'Thin', 'Italic', 'Black']);
  // A family that ships and one that was brought in under its name are one.
  expect(families.find((f) => f.family === 'Poppins')?.faces).toHaveLength(2);
  expect(families.map((f) => f.family)).toEqual([...families.map((f) => f.family)].sort((a, b) => a.localeCompare(b)));
});

test('words find their face by content and number, or by the family of one that ships', async () => {
  const faces = listedFaces({ typefaces: kept([await about({ number: 0 }), await about({ number: 1 })]), marks: [] });
  const named = { ...faceOfFamily('Trial'), content, number: 1 };
  expect(faceIn(faces, named)?.key).toBe(`${content}#1`);
  expect(faceIn(faces, { ...named, content: 'b'.repeat(64) })).toBeUndefined();
  expect(faceIn(faces, faceOfFamily('pacifico '))?.family).toBe('Pacifico');
  expect(faceIn(faces, faceOfFamily('Trial'))).toBeUndefined();
  expect([markKey(named), markKey(faceOfFamily('Pacifico'))]).toEqual([`${content}#1`, 'Pacifico']);
});

test('what is noted of a face goes before what it says of itself', async () => {
  const mark = { favourite: true, look: 'serif' as const, usedAt: '2030-01-02T00:00:00Z' };
  const faces = listedFaces({
    typefaces: kept([await about({ look: 'plain' })]),
    marks: [
      { face: `${content}#0`, ...mark },
      { face: 'Poppins', favourite: true, look: null, usedAt: null },
    ],
  });
  expect(faces[0]).toMatchObject(mark);
  expect(faces.find((f) => f.family === 'Poppins')).toMatchObject({ favourite: true, look: 'plain' });
  expect(faces.find((f) => f.family === 'Fredoka')).toMatchObject({ favourite: false, look: 'rounded', usedAt: null });
});

const WORDS = { leastMm: 2 } as TriedWords;
const face = (isLine = false) => ({ isLine }) as ListedFace;
const trial = { pieces: 1, islands: 0, thinnestMm: null, missing: [], broken: [] };

test('marks say what matters most, with its figure', () => {
  const said = (more: object, isLine = false) =>
    marksOf(face(isLine), { ...trial, ...more }, WORDS, 'mm').map(({ words, tone }) => `${words} (${tone})`);
  expect(said({})).toEqual(['one piece (good)', 'no islands (good)']);
  expect(said({ pieces: 9, islands: 1 })).toEqual(['9 pieces (plain)', '1 island (plain)']);
  expect(said({ thinnestMm: 0.8, islands: 3 })[0]).toBe('thin: 0.8 mm (caution)');
  expect(said({ missing: ['漢', '字'] })).toEqual(['has no 漢 字 (caution)']);
  expect(said({ broken: ['Q'] })).toEqual(['Q broken (caution)']);
  expect(said({ pieces: 0 }, true)).toEqual([]);
});

test('what is asked of a face', () => {
  const does = (ask: Parameters<typeof meets>[2][number], more: object, isLine = false) =>
    meets(face(isLine), { ...trial, ...more }, [ask]);
  expect([does('one piece', {}), does('one piece', { pieces: 2 }), does('one piece', { pieces: 0 }, true)]).toEqual([
    true,
    false,
    false,
  ]);
  expect([does('no islands', {}), does('no islands', { islands: 1 })]).toEqual([true, false]);
  expect([does('thick enough', {}), does('thick enough', { thinnestMm: 1 })]).toEqual([true, false]);
  expect([does('every character', {}), does('every character', { missing: ['x'] })]).toEqual([true, false]);
  expect(does('every character', { broken: ['x'] })).toBe(false);
  expect(meets(face(), { ...trial, islands: 1 }, ['one piece', 'no islands'])).toBe(false);
  expect(meets(face(), { ...trial, islands: 1 }, [])).toBe(true);
});

test('for a face that is not there the nearest are offered: its family, then its build, then weight and slant', async () => {
  const style = (number: number, name: string, weight: number, italic = false) =>
    about({ number, family: 'Scribe', style: name, weight, italic, look: 'hand' });
  const faces = listedFaces({
    typefaces: kept([
      await style(0, 'Regular', 400),
      await style(1, 'Bold', 700),
      await style(2, 'Bold Italic', 700, true),
    ]),
    marks: [],
  });
  const near = (face: string, more: object = {}) =>
    nearestFaces({ ...faceOfFamily(face), ...more }, faces, 3).map((f) => [f.family, f.style].join(' '));
  // Another file of that name: the style that was meant comes first, and no family twice.
  expect(near('Scribe', { content: 'c'.repeat(64), weight: 700 })[0]).toBe('Scribe Bold');
  expect(near('scribe', { weight: 700, italic: true })[0]).toBe('Scribe Bold Italic');
  expect(new Set(near('Scribe').map((name) => name.split(' ')[0])).size).toBe(3);
  expect(near('Old Town Stencil')[0]).toMatch(/^Saira Stencil One/);
  expect(near('Hershey Sans Light')[0]).toMatch(/^Hershey Sans/);
  expect(near('Brushwork Script').every((name) => /Script|Pacifico|Sacramento/.test(name))).toBe(true);
  expect(nearestFaces(faceOfFamily('Anything'), faces, 3)).toHaveLength(3);
});

test('an SVG file is a typeface where it is a font, and a drawing where it has one', () => {
  const font = '<defs><font id="f"><font-face font-family="F"/><glyph unicode="a" d="M0 0V9"/></font></defs>';
  expect(isSvgFont(`<svg>${font}</svg>`)).toBe(true);
  expect(isSvgFont(`<svg:svg>${font.replaceAll('font', 'svg:font')}</svg:svg>`)).toBe(true);
  expect(isSvgFont(`<svg>${font}<path d="M0 0h9"/></svg>`)).toBe(false);
  expect(isSvgFont(`<svg><text>a</text>${font}</svg>`)).toBe(false);
  expect(isSvgFont('<svg><path d="M0 0h9"/></svg>')).toBe(false);
  expect(isSvgFont('<svg font="x"/>')).toBe(false);
});

test('what came of files in one sentence', () => {
  const added = { file: 'a.ttf', outcome: 'added' as const, families: ['A'], notes: [] };
  const refused = { file: 'b.ttf', outcome: 'refused' as const, sentence: 'No.' };
  expect(cameInWords([added])).toBe('1 typeface file brought in.');
  expect(cameInWords([added, added, { ...added, outcome: 'known' }, refused])).toBe(
    '2 typeface files brought in. 1 was here already. 1 could not be brought in.',
  );
  expect(cameInWords([])).toBe('Nothing was brought in.');
});
