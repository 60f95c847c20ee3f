import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { regionBox } from '../../src/core/geometry/path';
import { boxHeight, boxWidth, IDENTITY } from '../../src/core/geometry/point';
import { SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import { layoutLettering } from '../../src/core/lettering/layout';
import { pickFace } from '../../src/core/lettering/pick';
import { visualRuns } from '../../src/core/lettering/runs';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { Memo } from '../../src/core/memo';
import { weldLettering } from '../../src/core/prepare/weld';
import { FAMILIES, rawOutlines, set, spec, typeface, wasmEngine } from '../support/faces';

const outlinesOf = (family: string, text: string, letterSpacing = 0) =>
  weldLettering(wasmEngine, set(family, text, { letterSpacing }), {
    weld: true,
    matrix: IDENTITY,
    memory: new Memo(),
  });

describe('size', () => {
  test.each(FAMILIES)('%s by capital height and by width comes out exactly so', (family) => {
    const h = set(family, 'H', { size: { by: 'capital', mm: 37.5 } });
    expect(boxHeight(regionBox(rawOutlines(h, typeface(family))))).toBeCloseTo(37.5, 6);
    const wide = set(family, 'Alder Lane\nGarden', { size: { by: 'width', mm: 123.4 } });
    expect(boxWidth(regionBox(rawOutlines(wide, typeface(family))))).toBeCloseTo(123.4, 6);
    expect(boxWidth(wide.box)).toBeCloseTo(123.4, 6);
  });

  test('the reported bounds are those of the outlines', () => {
    for (const align of ['left', 'centre', 'right'] as const) {
      const layout = set('Pacifico', 'Jay\nfly away', { align });
      const box = regionBox(rawOutlines(layout, typeface('Pacifico')));
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(layout.box[side]).toBeCloseTo(box[side], 6);
    }
  });
});

test('lines align by what is drawn', () => {
  const lineBoxes = (align: 'left' | 'centre' | 'right') => {
    const layout = set('Libre Baskerville', 'Wool\nA', { align });
    return [0, 1].map((line) =>
      regionBox(
        rawOutlines(
          { ...layout, letters: layout.letters.filter((l) => l.line === line) },
          typeface('Libre Baskerville'),
        ),
      ),
    );
  };
  const [l0, l1] = lineBoxes('left');
  expect(l0?.minX).toBeCloseTo(0, 6);
  expect(l1?.minX).toBeCloseTo(0, 6);
  const [c0, c1] = lineBoxes('centre');
  expect((c0?.minX ?? 1) + (c0?.maxX ?? 1)).toBeCloseTo(0, 6);
  expect((c1?.minX ?? 1) + (c1?.maxX ?? 1)).toBeCloseTo(0, 6);
  const [r0, r1] = lineBoxes('right');
  expect(r0?.maxX).toBeCloseTo(0, 6);
  expect(r1?.maxX).toBeCloseTo(0, 6);
});

describe('shaping', () => {
  test('connected scripts connect', () => {
    for (const [family, word] of [
      ['Pacifico', 'lemon'],
      ['Dancing Script', 'hello'],
      ['Sacramento', 'lamb'],
    ] as const)
      expect(
        outlinesOf(family, word).filter((o) => o.depth === 0),
        `${family} ${word}`,
      ).toHaveLength(1);
  });

  test('kerning is applied', () => {
    const pair = boxWidth(set('Libre Baskerville', 'AV').box);
    const single = (c: string) => boxWidth(set('Libre Baskerville', c).box);
    expect(pair).toBeLessThan(single('A') + single('V'));
  });

  test('letter spacing is a share of the capital height and switches ligatures off', () => {
    const tight = set('Archivo Black', 'HHH');
    const loose = set('Archivo Black', 'HHH', { letterSpacing: 0.5 });
    expect(boxWidth(loose.box) - boxWidth(tight.box)).toBeCloseTo(2 * 0.5 * 20, 6);
    const joined = set('Poppins', 'fi').letters.length;
    const apart = set('Poppins', 'fi', { letterSpacing: 0.01 }).letters.length;
    expect(apart).toBe(2);
    expect(joined).toBeLessThanOrEqual(apart);
  });

  test('accented text, composed or not, is the same letters', () => {
    const composed = set('Poppins', 'é\u00fcÅ');
    const apart = set('Poppins', 'e\u0301u\u0308A\u030a');
    expect(composed.missing).toEqual([]);
    expect(boxWidth(apart.box)).toBeCloseTo(boxWidth(composed.box), 3);
    expect(boxHeight(apart.box)).toBeCloseTo(boxHeight(composed.box), 1);
  });

  test('Cyrillic, Greek, Devanagari and Hebrew where the face has them', () => {
    expect(set('Pacifico', 'Привет').missing).toEqual([]);
    expect(set('JetBrains Mono', 'Καλημέρα').missing).toEqual([]);
    expect(set('Poppins', 'नमस्ते').missing).toEqual([]);
    expect(set('Fredoka', 'שלום').missing).toEqual([]);
  });

  test('right-to-left words run from right to left, figures in them do not', () => {
    const layout = set('Fredoka', 'שלום');
    const xs = layout.letters.map((l) => l.x);
    const starts = layout.letters.map((l) => l.start);
    expect([...xs].sort((a, b) => a - b)).toEqual(xs);
    expect(starts).toEqual([3, 2, 1, 0]);
    const mixed = set('Fredoka', 'שלום 42');
    expect(mixed.letters.map((l) => l.text).join('')).toBe('42םולש');
  });

  test('a letter knows the characters it stands for', () => {
    const layout = set('Archivo Black', 'Ab\ncd');
    expect(layout.letters.map((l) => [l.text, l.start, l.end, l.line])).toEqual([
      ['A', 0, 1, 0],
      ['b', 1, 2, 0],
      ['c', 3, 4, 1],
      ['d', 4, 5, 1],
    ]);
  });
});

describe('what a face lacks', () => {
  test('is named once each and drawn as nothing', () => {
    const layout = set('Bebas Neue', 'A漢字漢 B😀');
    expect(layout.missing.map((m) => m.text)).toEqual(['漢', '字', '😀']);
    expect(layout.letters.map((l) => l.text).join('')).toBe('AB');
  });

  test('spaces, tabs and control characters are not missed', () => {
    expect(set('Bebas Neue', 'A\tB\u00a0C\u200b\u0007').missing).toEqual([]);
    expect(set('Bebas Neue', '\ud800').letters).toEqual([]);
  });
});

test('nothing to draw gives an empty layout', () => {
  for (const text of ['', ' ', '\n\n', '\u200b']) {
    const layout = set('Poppins', text);
    expect(layout.letters).toEqual([]);
    expect(boxWidth(layout.box)).toBe(0);
  }
});

test('runs: direction and script', () => {
  expect(visualRuns('abc')).toEqual([{ start: 0, end: 3, direction: 'ltr' }]);
  expect(visualRuns('abc שלום def').map((r) => r.direction)).toEqual(['ltr', 'rtl', 'ltr']);
  expect(visualRuns('abcПривет').map((r) => [r.start, r.end])).toEqual([
    [0, 3],
    [3, 9],
  ]);
  expect(visualRuns('')).toEqual([]);
});

describe('typeface files', () => {
  const bytes = new Uint8Array(readFileSync('public/typefaces/poppins.ttf'));

  test.each(SHIPPED_FACES)('$file is shipped with its licence and its family name', async ({ file, family }) => {
    const loaded = await loadTypeface(new Uint8Array(readFileSync(`public/typefaces/${file}`)));
    if (!loaded.ok) throw new Error(loaded.sentence);
    expect(loaded.typeface.family).toBe(family);
    const licence = readFileSync(`public/typefaces/${file.replace(/\.(ttf|json)$/, '.LICENSE.txt')}`, 'utf8');
    expect(licence).toMatch(/SIL OPEN FONT LICENSE|Hershey Fonts may be used by anyone for\s+any purpose/);
  });

  test('bad files give a sentence', async () => {
    for (const bad of [
      new Uint8Array(0),
      new Uint8Array(500),
      new TextEncoder().encode('<svg xmlns="…"/> not a face'),
      bytes.slice(0, 64),
    ]) {
      const loaded = await loadTypeface(bad);
      expect(loaded.ok).toBe(false);
      if (!loaded.ok) expect(loaded.sentence).toMatch(/\.$/);
    }
  });

  test('a damaged file does not throw', async () => {
    const damaged = bytes.slice();
    for (let i = 300; i < damaged.length; i += 97) damaged[i] = 255;
    const loaded = await loadTypeface(damaged);
    if (loaded.ok) expect(() => layoutLettering(spec('Abc'), loaded.typeface)).not.toThrow();
  });
});

test('the nearest weight and slant of a family is picked', () => {
  const among = [
    { family: 'Lane', weight: 400, italic: false },
    { family: 'Lane', weight: 700, italic: false },
    { family: 'Lane', weight: 400, italic: true },
    { family: 'Other', weight: 500, italic: false },
  ];
  const pick = (weight: number | null, italic = false, face = 'lane') => pickFace({ face, weight, italic }, among);
  expect(pick(null)).toBe(among[0]);
  expect(pick(650)).toBe(among[1]);
  expect(pick(null, true)).toBe(among[2]);
  expect(pick(null, false, 'Nowhere')).toBeNull();
});
