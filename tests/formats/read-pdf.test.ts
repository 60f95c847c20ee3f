/** Pages of PDF files put together by hand: what each draws, in mm. Figures from the published reference. */
import { deflateSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readPixels } from '../../src/core/formats/pixels';
import { openDrawing, readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing, Reading } from '../../src/core/formats/read-drawing';
import { pathBox } from '../../src/core/geometry/path';
import { pathData } from '../../src/core/geometry/path-data';
import { LIMITS } from '../../src/core/limits';
import { picturePages, previewFile } from '../../src/worker/reading';
import { wasmEngine } from '../support/faces';
import { type PdfPage, pdfOf, stream } from '../support/pdf';

async function reading(bytes: Uint8Array, page = 0): Promise<Reading> {
  const opened = await openDrawing(bytes);
  if (!opened.ok) return opened;
  const read = await opened.read(page, () => {});
  await opened.close();
  return read;
}
async function read(page: string | PdfPage, more: Parameters<typeof pdfOf>[1] = {}): Promise<ReadDrawing> {
  const done = await reading(pdfOf([typeof page === 'string' ? { content: page } : page], more));
  if (!done.ok) throw new Error(done.sentence);
  return done.found;
}
/** Path data of all shapes, in inches. */
const inches = (found: ReadDrawing) =>
  found.shapes.map((s) =>
    pathData(
      s.paths.map((p) => scaledToInches(p)),
      null,
      3,
    ),
  );
const scaledToInches = (p: ReadDrawing['shapes'][number]['paths'][number]) => ({
  ...p,
  segments: p.segments.map(
    (s) =>
      Object.fromEntries(
        Object.entries(s).map(([k, v]) => [k, typeof v === 'number' && k !== 'sweep' ? v / 25.4 : v]),
      ) as typeof s,
  ),
});
const kinds = (found: ReadDrawing) => Object.fromEntries(found.unread.map((u) => [u.kind, u.count]));

const APPEND = Array.prototype.push;
test('reading one leaves lists as quick as they were', async () => {
  await read('0 0 m 72 0 l S');
  expect(Array.prototype.push).toBe(APPEND);
});

describe('pictures on a page', () => {
  /** Four columns and two rows of grey: dark, light, dark, light, then all middling. */
  const GREY = 'BI /W 4 /H 2 /CS /G /BPC 8 /F /AHx ID 00ff00ff80808080> EI';
  const image = (dictionary: string, hex: string) =>
    `<</Type/XObject/Subtype/Image/Filter/ASCIIHexDecode${dictionary}/Length ${hex.length}>>\nstream\n${hex}\nendstream`;

  test('come with their pixels, and lie where they lie', async () => {
    const found = await read(`q 36 0 0 18 18 36 cm ${GREY} Q`);
    expect(found.unread).toEqual([]);
    const [picture] = found.pictures;
    expect(picture?.raster).toMatchObject({ width: 4, height: 2 });
    const { channels, data } = picture?.raster ?? { channels: 0, data: [] };
    expect([...data].filter((_, i) => i % channels === 0)).toEqual([0, 255, 0, 255, 128, 128, 128, 128]);
    const { a, b, c, d, e, f } = picture?.matrix ?? {};
    const mm = (points: number) => expect.closeTo((points * 25.4) / 72, 6);
    expect([a, b, c, d, e, f]).toEqual([mm(9), 0, 0, mm(9), mm(36), mm(45)]);
  });

  test('by name, of colours, turned and mirrored', async () => {
    const objects = [image('/Width 2/Height 1/ColorSpace/DeviceRGB/BitsPerComponent 8', 'ff000000ff00>')];
    const page = (matrix: string) => ({
      content: `q ${matrix} cm /Pic Do Q`,
      more: '/Resources<</XObject<</Pic 10 0 R>>>>',
    });
    const turned = await read(page('0 20 -10 0 40 10'), { objects });
    expect(turned.pictures[0]?.raster).toMatchObject({
      width: 2,
      height: 1,
      channels: 3,
      data: Uint8Array.from([255, 0, 0, 0, 255, 0]),
    });
    expect(turned.pictures[0]?.matrix.b).toBeCloseTo((10 * 25.4) / 72, 6);
    const mirrored = await read(page('-20 0 0 10 40 10'), { objects });
    expect(mirrored.pictures[0]?.matrix.a).toBeCloseTo((-10 * 25.4) / 72, 6);
  });

  test('of bits are black and white', async () => {
    const found = await read('q 20 0 0 10 0 0 cm BI /W 2 /H 1 /CS /G /BPC 1 /F /AHx ID 40> EI Q');
    const { channels, data } = found.pictures[0]?.raster ?? { channels: 1, data: [] };
    expect([...data].filter((_, i) => i % channels === 0)).toEqual([0, 255]);
  });

  test('that are stretched or slanted are told of, those switched off are not there', async () => {
    const stretched = await read(`q 36 0 0 36 0 0 cm ${GREY} Q q 36 0 9 18 0 0 cm ${GREY} Q`);
    expect([stretched.pictures, kinds(stretched)]).toEqual([[], { 'pictures that are stretched or slanted': 2 }]);
  });

  test('beyond as many as lie on a sheet are counted', async () => {
    const many = await read(`q 36 0 0 18 0 0 cm ${GREY} Q `.repeat(LIMITS.placedPictures + 2));
    expect([many.pictures.length, kinds(many)]).toEqual([LIMITS.placedPictures, { pictures: 2 }]);
  });

  test('are looked at as PNG files; a page of nothing else is one that can be brought in', async () => {
    const bytes = pdfOf([{ content: `q 36 0 0 18 18 36 cm ${GREY} Q` }]);
    const looked = await previewFile(bytes, { page: 0, progress: () => {} }, async () => wasmEngine);
    if (!looked.ok) throw new Error(looked.sentence);
    expect(looked.pictures).toMatchObject([{ columns: 4, rows: 2, placement: { turn: 0, mirror: false } }]);
    expect(readPixels(looked.pictures[0]?.pixels ?? new Uint8Array())).toMatchObject({ width: 4, height: 2 });
    expect(looked.box.maxX - looked.box.minX).toBeCloseTo(12.7, 6);
  });
});

describe('what a page draws', () => {
  test('lines, curves and rectangles, stroked, filled and both, in mm and y upwards', async () => {
    const found = await read('0 0 m 72 0 l 72 72 l S 0 0 36 36 re f 9 9 m 18 9 27 18 27 27 c b');
    expect(inches(found)).toEqual([
      'M0 0L1 0L1 1',
      'M0 0L0.5 0L0.5 0.5L0 0.5Z',
      'M0.125 0.125C0.25 0.125 0.375 0.25 0.375 0.375Z',
    ]);
    expect(found.shapes.map((s) => [s.fill !== null, s.stroke !== null])).toEqual([
      [false, true],
      [true, false],
      [true, true],
    ]);
    expect(found.page).toEqual({ width: expect.closeTo(25.4, 6), height: expect.closeTo(25.4, 6) });
    expect(found.claim).toMatchObject({ stated: true, mmPerUnit: expect.closeTo(25.4 / 72, 9) });
  });

  test('colours of every kind, and rules', async () => {
    const found = await read('1 0 0 rg 0 0 9 9 re f* 0 0 1 RG 0 0 m 9 9 l S 0 g 0 0 9 9 re f 0 1 1 0 k 0 0 9 9 re f');
    expect(found.shapes.map((s) => s.fill?.rule)).toEqual(['evenodd', undefined, 'nonzero', 'nonzero']);
    expect(found.shapes.map((s) => s.fill?.colour ?? s.stroke?.colour).slice(0, 3)).toEqual([
      '#ff0000',
      '#0000ff',
      '#000000',
    ]);
    expect(found.shapes[3]?.fill?.colour).toMatch(/^#[d-f]/);
  });

  test('states are kept and come back; lines have their width, ends, dashes at the scale they are drawn', async () => {
    const found = await read('q 2 0 0 2 36 0 cm 3 w 1 J 2 j 5 M [4 2] 1 d 0 0 m 9 0 l S Q 0 0 m 9 0 l S');
    expect(inches(found)).toEqual(['M0.5 0L0.75 0', 'M0 0L0.125 0']);
    const [wide, plain] = found.shapes.map((s) => s.stroke);
    const mm = (points: number) => expect.closeTo((points * 25.4) / 72, 6);
    expect(wide).toMatchObject({ widthMm: mm(6), cap: 'round', join: 'bevel', miter: 5, dashOffsetMm: mm(2) });
    expect(wide?.dashesMm).toEqual([mm(8), mm(4)]);
    expect(plain).toMatchObject({ widthMm: mm(1), cap: 'butt', dashesMm: [] });
    const set = {
      content: '/G gs 0 0 m 9 0 l S',
      more: '/Resources<</ExtGState<</G<</LW 7/LC 2/LJ 1/ML 3/D[[1] 0]/CA 1>>>>>>',
    };
    expect((await read(set)).shapes[0]?.stroke).toMatchObject({
      widthMm: mm(7),
      cap: 'square',
      join: 'round',
      miter: 3,
    });
  });

  test('what nothing is painted with is not there', async () => {
    const clear = { content: '/G gs 0 0 9 9 re B', more: '/Resources<</ExtGState<</G<</CA 0/ca 0>>>>>>' };
    expect((await read(clear)).shapes).toEqual([]);
    expect((await read('0 0 9 9 re n')).shapes).toEqual([]);
    expect(kinds(await read('1 J 9 9 m 9 9 l S'))).toEqual({ points: 1 });
  });

  test('pages are as they are shown: turned, moved, in larger units', async () => {
    const turned = (turn: number) =>
      read({ content: '10 20 m 46 20 l S', more: `/MediaBox[10 20 82 164]/Rotate ${turn}` });
    expect((await turned(0)).page).toEqual({ width: expect.closeTo(25.4, 6), height: expect.closeTo(50.8, 6) });
    expect(inches(await turned(0))).toEqual(['M0 0L0.5 0']);
    expect(inches(await turned(90))).toEqual(['M0 1L0 0.5']);
    expect((await turned(90)).page).toEqual({ width: expect.closeTo(50.8, 6), height: expect.closeTo(25.4, 6) });
    expect(inches(await turned(180))).toEqual(['M1 2L0.5 2']);
    expect(inches(await turned(270))).toEqual(['M2 0L2 0.5']);
    expect(inches(await read({ content: '0 0 m 36 0 l S', more: '/UserUnit 2' }))).toEqual(['M0 0L1 0']);
  });
});

describe('clips', () => {
  test('hold for what comes after them, until the state comes back', async () => {
    const found = await read('q 0 0 36 36 re W n 0 0 72 72 re f Q 0 0 72 72 re f');
    expect(found.shapes.map((s) => s.clips.length)).toEqual([1, 0]);
    const seen = await previewFile(
      pdfOf([{ content: 'q 0 0 36 36 re W n 0 0 72 72 re f Q' }]),
      { page: 0, progress: () => {} },
      async () => wasmEngine,
    );
    expect(seen.ok && seen.box.maxX).toBeCloseTo(12.7, 6);
  });

  test('what a frame holds whole is as it was', async () => {
    const bytes = pdfOf([{ content: 'q 0 0 72 72 re W n 9 9 m 18 9 27 18 27 27 c S Q' }]);
    const seen = await previewFile(bytes, { page: 0, progress: () => {} }, async () => wasmEngine);
    expect(seen.ok && seen.groups[0]?.d).toMatch(/^M[\d. ]+C[\d. ]+$/);
  });

  test('forms are drawn where they are put, within their box', async () => {
    const form = stream('0 0 72 72 re f', '/Type/XObject/Subtype/Form/BBox[0 0 36 36]/Matrix[1 0 0 1 18 0]');
    const found = await read(
      { content: 'q .5 0 0 .5 0 0 cm /F Do Q', more: '/Resources<</XObject<</F 10 0 R>>>>' },
      { objects: [form] },
    );
    expect(inches(found)).toEqual(['M0.125 0L0.625 0L0.625 0.5L0.125 0.5Z']);
    expect(found.shapes[0]?.clips).toHaveLength(1);
  });
});

describe('layers', () => {
  const LAYERS = ['<</Type/OCG/Name(Cut)>>', '<</Type/OCG/Name(Notes)>>', '<</Type/OCMD/OCGs[10 0 R]>>'];
  const catalog = '/OCProperties<</OCGs[10 0 R 11 0 R]/D<</ON[10 0 R]/OFF[11 0 R]>>>>';
  const more = '/Resources<</Properties<</A 10 0 R/B 11 0 R/C 12 0 R>>>>';

  test('are groups by name; those that are off are told and not read', async () => {
    const content =
      '/OC /A BDC 0 0 m 9 9 l S /Span BMC 0 0 m 9 0 l S EMC EMC /OC /B BDC 0 0 m 5 5 l S EMC 0 0 m 1 1 l S';
    const found = await read({ content, more }, { objects: LAYERS, catalog });
    expect(found.groups.map((g) => g.name)).toEqual(['Cut', '']);
    expect(found.shapes.map((s) => found.groups[s.group]?.name)).toEqual(['Cut', 'Cut', '']);
    expect(kinds(found)).toEqual({ 'shapes that are switched off': 1 });
  });

  test('sets of layers go by their first', async () => {
    const found = await read({ content: '/OC /C BDC 0 0 m 9 9 l S EMC', more }, { objects: LAYERS, catalog });
    expect(found.groups.map((g) => g.name)).toEqual(['Cut']);
  });
});

describe('words', () => {
  const font = '<</Type/Font/Subtype/Type1/BaseFont/Helvetica-Bold>>';
  const more = '/Resources<</Font<</F 10 0 R>>>>';

  test('in a typeface that is not in the file are to be set anew', async () => {
    const content = 'BT /F 20 Tf 1 0 0 rg 9 18 Td (Gate) Tj 0 -30 Td [(two)-400(words)] TJ ET';
    const found = await read({ content, more }, { objects: [font] });
    expect(found.texts.map((t) => [t.text, t.face, t.bold])).toEqual([
      ['Gate', 'Helvetica', true],
      ['two words', 'Helvetica', true],
    ]);
    const [gate, two] = found.texts;
    expect(gate?.matrix).toMatchObject({
      e: expect.closeTo((9 * 25.4) / 72, 6),
      f: expect.closeTo((18 * 25.4) / 72, 6),
    });
    expect(two?.matrix.f).toBeCloseTo((-12 * 25.4) / 72, 6);
    expect(found.groups[0]).toMatchObject({ colour: '#ff0000', filled: true });
  });

  test('that are not shown, as under a scan, are told', async () => {
    const content = 'BT /F 20 Tf 3 Tr (hidden) Tj ET';
    expect(kinds(await read({ content, more }, { objects: [font] }))).toEqual({ 'words that are not shown': 1 });
  });

  test('in letters drawn by operators are these, one after the other', async () => {
    const objects = [
      '<</Type/Font/Subtype/Type3/FontBBox[0 0 1000 1000]/FontMatrix[.001 0 0 .001 0 0]/CharProcs<</a 11 0 R>>/Encoding<</Type/Encoding/Differences[97/a]>>/FirstChar 97/LastChar 97/Widths[1000]/Resources<<>>>>',
      stream('1000 0 0 0 500 500 d1 0 0 500 500 re f'),
    ];
    const found = await read({ content: 'BT /F 36 Tf 0 0 Td (aa) Tj ET', more }, { objects });
    expect(inches(found)).toEqual(['M0 0L0.25 0L0.25 0.25L0 0.25Z', 'M0.5 0L0.75 0L0.75 0.25L0.5 0.25Z']);
    const set = async (content: string) => inches(await read({ content, more }, { objects }));
    // Half as wide, a quarter of an inch apart; lifted; with less between them; upside down.
    expect(await set('BT /F 36 Tf 50 Tz 18 Tc (aa) Tj ET')).toEqual([
      'M0 0L0.125 0L0.125 0.25L0 0.25Z',
      'M0.375 0L0.5 0L0.5 0.25L0.375 0.25Z',
    ]);
    expect(await set('BT /F 36 Tf 9 Ts [(a)500(a)] TJ ET')).toEqual([
      'M0 0.125L0.25 0.125L0.25 0.375L0 0.375Z',
      'M0.25 0.125L0.5 0.125L0.5 0.375L0.25 0.375Z',
    ]);
    expect(await set('BT /F -36 Tf 1 0 0 1 36 36 Tm (a) Tj ET')).toEqual(['M0.5 0.5L0.25 0.5L0.25 0.25L0.5 0.25Z']);
    expect(await set('BT /F 36 Tf 20 TL 0 36 Td (a) Tj T* (a) Tj ET')).toEqual([
      'M0 0.5L0.25 0.5L0.25 0.75L0 0.75Z',
      'M0 0.222L0.25 0.222L0.25 0.472L0 0.472Z',
    ]);
  });
});

describe('what is not read', () => {
  test('is told by kind', async () => {
    const objects = [
      stream('\xff', '/Type/XObject/Subtype/Image/Width 1/Height 1/ColorSpace/DeviceGray/BitsPerComponent 8'),
      '<</ShadingType 2/ColorSpace/DeviceGray/Coords[0 0 9 9]/Function<</FunctionType 2/Domain[0 1]/C0[0]/C1[1]/N 1>>>>',
    ];
    const more = '/Resources<</XObject<</I 10 0 R>>/Shading<</S 11 0 R>>>>';
    const found = await read({ content: '9 0 0 9 0 0 cm /I Do /S sh', more }, { objects });
    expect([kinds(found), found.pictures.length]).toEqual([{ 'shades of colour': 1 }, 1]);
  });

  test('what is read more simply than it looks is told', async () => {
    const more = '/Resources<</ExtGState<</G<</ca .5>>>>>>';
    expect(kinds(await read({ content: '/G gs 0 0 9 9 re f 0 0 m 9 9 l S', more }))).toEqual({
      'see-through colours, read as full ones': 1,
    });
    expect(
      kinds(await read('q 1 0 0 .2 0 0 cm 0 0 m 9 9 l S 0 0 9 9 re f Q q 0 3 -3 0 0 0 cm 0 0 m 9 9 l S Q')),
    ).toEqual({
      'lines wider one way than the other, read as of one width': 1,
    });
  });

  test('masks are not drawn themselves', async () => {
    const objects = [
      stream('1 g 0 0 36 36 re f', '/Type/XObject/Subtype/Form/BBox[0 0 72 72]/Group<</S/Transparency/CS/DeviceGray>>'),
    ];
    const more = '/Resources<</ExtGState<</G<</SMask<</S/Luminosity/G 10 0 R>>>>>>>>';
    const found = await read({ content: '/G gs 0 0 72 72 re f', more }, { objects });
    expect(found.shapes).toHaveLength(1);
    expect(kinds(found)).toEqual({ 'soft masks': 1 });
  });
});

describe('pages', () => {
  const three = pdfOf([{ content: '0 0 m 9 0 l S' }, { content: '' }, { content: '0 0 36 36 re f' }]);

  test('are read one by one; one with nothing on it leaves the others to be chosen', async () => {
    const seen = await Promise.all(
      [0, 1, 2].map((page) => previewFile(three, { page, progress: () => {} }, async () => wasmEngine)),
    );
    expect(seen.map((s) => s.ok && [s.pages, s.page, s.groups.length])).toEqual([
      [3, 0, 1],
      [3, 1, 0],
      [3, 2, 1],
    ]);
    expect(
      await previewFile(pdfOf([{ content: '' }]), { page: 0, progress: () => {} }, async () => wasmEngine),
    ).toEqual({
      ok: false,
      sentence: 'There is no drawing in this file.',
    });
  });

  test('have small pictures, of a stretch of them', async () => {
    const pictures: unknown[] = [];
    await picturePages(three, { from: 1, to: 9 }, (picture) => pictures.push(picture));
    expect(pictures).toMatchObject([
      { page: 1, filled: '', lines: '' },
      { page: 2, filled: expect.stringMatching(/^M0 0L/), lines: '', width: expect.closeTo(25.4, 6) },
    ]);
  });

  test('a file with pages is none that is one drawing', () => {
    expect(readDrawing(three)).toEqual({ ok: false, sentence: 'This file has pages, which are read one by one.' });
  });
});

describe('files that mean harm', () => {
  test('broken ones are answered with a sentence', async () => {
    for (const text of ['%PDF-1.7\n', '%PDF-1.7\ntrailer<</Root 1 0 R>>', '%PDF-'])
      expect(await reading(new TextEncoder().encode(text)), text).toEqual({
        ok: false,
        sentence: 'This PDF is damaged and can’t be read.',
      });
  });

  test('a form that draws itself, and letters that do, come to an end', async () => {
    const form = stream(
      '0 0 9 9 re f /F Do',
      '/Type/XObject/Subtype/Form/BBox[0 0 72 72]/Resources<</XObject<</F 10 0 R>>>>',
    );
    const done = await reading(
      pdfOf([{ content: '/F Do', more: '/Resources<</XObject<</F 10 0 R>>>>' }], { objects: [form] }),
    );
    expect(done.ok ? done.found.shapes.length : 0).toBeLessThan(1_000);
  });

  test('letters made of letters made of letters come to an end', async () => {
    const limits = LIMITS as { pageOperators: number };
    const most = limits.pageOperators;
    limits.pageOperators = 1_000;
    try {
      // Each of eight faces draws four letters of the next.
      const faces = Array.from({ length: 8 }, (_, i) => [
        `<</Type/Font/Subtype/Type3/FontBBox[0 0 1000 1000]/FontMatrix[.001 0 0 .001 0 0]/CharProcs<</a ${11 + 2 * i} 0 R>>/Encoding<</Type/Encoding/Differences[97/a]>>/FirstChar 97/LastChar 97/Widths[1000]/Resources<<${i < 7 ? `/Font<</F ${12 + 2 * i} 0 R>>` : ''}>>>>`,
        stream(i < 7 ? '1000 0 d0 BT /F 300 Tf (aaaa) Tj ET' : '1000 0 d0 0 0 500 500 re f'),
      ]).flat();
      const found = await read(
        { content: 'BT /F 36 Tf (aaaa) Tj ET', more: '/Resources<</Font<</F 10 0 R>>>>' },
        { objects: faces },
      );
      expect(found.shapes.length).toBeLessThan(2_000);
      expect(found.notes.join()).toContain('far too many others');
    } finally {
      limits.pageOperators = most;
    }
  });

  test('more than can be kept is left out, and said', async () => {
    const limits = LIMITS as { drawnSegments: number };
    const most = limits.drawnSegments;
    limits.drawnSegments = 50;
    try {
      const found = await read('0 0 m 9 9 l S '.repeat(60));
      expect(found.shapes).toHaveLength(50);
      expect(found.notes.join()).toContain('more than 50 lines and curves');
    } finally {
      limits.drawnSegments = most;
    }
  });

  test('a small stream that unpacks to very much is cut off, not waited for', async () => {
    const limits = LIMITS as { pageOperators: number };
    const most = limits.pageOperators;
    limits.pageOperators = 5_000;
    try {
      const bomb = deflateSync(Buffer.from('0 0 m 9 9 l S\n'.repeat(200_000))).toString('latin1');
      const found = await read(
        { content: '/B Do', more: '/Resources<</XObject<</B 10 0 R>>>>' },
        { objects: [stream(bomb, '/Filter/FlateDecode/Type/XObject/Subtype/Form/BBox[0 0 72 72]')] },
      );
      expect(found.notes).toEqual(['The page draws more than 5,000 things; what comes after them was left out.']);
      expect(found.shapes.length).toBeGreaterThan(4_900);
    } finally {
      limits.pageOperators = most;
    }
  });

  test('spoiled anywhere, they are answered', async () => {
    const whole = pdfOf([{ content: 'q 0 0 36 36 re W n 0 0 m 72 0 l 72 72 l S Q BT /F 9 Tf (a) Tj ET 0 0 9 9 re f' }]);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 }),
        fc.nat(whole.length),
        async (changes, cut) => {
          const spoiled = whole.slice(0, cut % 3 === 0 ? cut : whole.length);
          for (const [at, value] of changes) if (at < spoiled.length) spoiled[at] = value;
          const done = await reading(spoiled);
          if (!done.ok) expect(done.sentence).toMatch(/^[A-Z].*\.$/);
          else
            for (const p of done.found.shapes.flatMap((s) => s.paths))
              expect(Number.isFinite(pathBox(p).maxX)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
});
