/** Lines with a typeface, size and spacing of their own, set under one another as one lettering. */
import { describe, expect, test } from 'vitest';
import { regionBox } from '../../src/core/geometry/path';
import { boxWidth, IDENTITY } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { faceOfLetter, type Layout, layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import type { LetteringSpec } from '../../src/core/lettering/spec';
import { weldLettering } from '../../src/core/prepare/weld';
import { faceOfFamily, type OwnLine } from '../../src/core/schema/lettering';
import { faces, spec, typeface, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const own = (line: number, more: Partial<OwnLine> & { family?: string } = {}): OwnLine => {
  const { family, ...rest } = more;
  const face = family ? { ...faceOfFamily(family), features: {} } : null;
  return { line, face, scale: 1, letterSpacing: null, lineSpacing: null, ...rest };
};

const setIn = (family: string, text: string, lines: OwnLine[], more: Partial<LetteringSpec> = {}): Layout =>
  layoutLettering({ ...spec(text, more), lines }, typeface(family), undefined, {
    ofLine: (line) => typeface(lines.find((l) => l.line === line)?.face?.face ?? family),
  });

/** Outlines of the letters of one line, from its baseline. */
const lineBox = (layout: Layout, line: number) => {
  const box = regionBox(letterPaths({ ...layout, letters: layout.letters.filter((l) => l.line === line) }));
  const baseline = layout.baselines[line] ?? 0;
  return { minX: box.minX, maxX: box.maxX, minY: box.minY - baseline, maxY: box.maxY - baseline };
};

describe('a line with a typeface of its own', () => {
  test.each([
    ['Pacifico', 'Poppins', 1],
    ['Libre Baskerville', 'EMS Readability', 0.4],
    ['Hershey Sans', 'Sacramento', 2.5],
  ])('is as large in %s above %s as set by itself', (above, below, scale) => {
    const text = 'Seedlings\nsow in March';
    const layout = setIn(above, text, [own(1, { family: below, scale })]);
    const alone = layoutLettering(spec('sow in March', { size: { by: 'capital', mm: 20 * scale } }), typeface(below));
    const box = lineBox(layout, 1);
    for (const side of ['minX', 'maxX', 'minY', 'maxY'] as const) expect(box[side]).toBeCloseTo(alone.box[side], 9);
    expect(
      layout.letters
        .filter((l) => l.line === 1)
        .every((l) => faceOfLetter(layout, l).family === typeface(below).family),
    ).toBe(true);
  });

  test('keeps its distance by the heights of both', () => {
    const [a, b] = [typeface('Pacifico'), typeface('Poppins')];
    const height = (f: typeof a) => ((f.ascent - f.descent + f.lineGap) * 20) / f.capHeight;
    const layout = setIn('Pacifico', 'Seedlings\nsow', [own(1, { family: 'Poppins', scale: 0.5, lineSpacing: 1.5 })]);
    expect(layout.baselines[1]).toBeCloseTo(-1.5 * (0.8 * 0.5 * height(b) + 0.2 * height(a)), 9);
  });

  test('has its own spacing, as a share of its own capitals', () => {
    const plain = setIn('Poppins', 'Oak\nAsh', [own(1, { scale: 0.5 })]);
    const spaced = setIn('Poppins', 'Oak\nAsh', [own(1, { scale: 0.5, letterSpacing: 0.3 })]);
    expect(boxWidth(lineBox(spaced, 1)) - boxWidth(lineBox(plain, 1))).toBeCloseTo(2 * 0.3 * 10, 9);
    expect(lineBox(spaced, 0)).toEqual(lineBox(plain, 0));
  });

  test('has its own features, and leaves those of the words', () => {
    const features = { liga: 0 };
    const words = setIn('Libre Baskerville', 'fi\nfi', [own(1, { family: 'Libre Baskerville' })], { features });
    const alone = layoutLettering(spec('fi'), typeface('Libre Baskerville'));
    const count = (line: number) => words.letters.filter((l) => l.line === line).length;
    expect([count(0), count(1)]).toEqual([2, alone.letters.length]);
  });

  test('is closed up as much as when set by itself, and lines are made equally wide', () => {
    const closeUp = { overlap: 0.6, words: false, lines: false };
    const closed = setIn('Poppins', 'Oak\nWillow', [own(1, { family: 'Archivo Black', scale: 0.5 })], { closeUp });
    const alone = layoutLettering(
      spec('Willow', { size: { by: 'capital', mm: 10 }, closeUp }),
      typeface('Archivo Black'),
    );
    expect(boxWidth(lineBox(closed, 1))).toBeCloseTo(boxWidth(alone.box), 3);
    for (const evenLines of ['spacing', 'size', 'both'] as const) {
      const even = setIn('Poppins', 'Oak\nWillow', [own(0, { family: 'Archivo Black', scale: 0.5 })], { evenLines });
      expect(boxWidth(lineBox(even, 0))).toBeCloseTo(boxWidth(lineBox(even, 1)), 4);
    }
  });

  test('is sized with the rest where the widest line is given', () => {
    const layout = setIn('Poppins', 'Oak\nWillow', [own(1, { family: 'Pacifico', scale: 2 })], {
      size: { by: 'width', mm: 120 },
    });
    expect(boxWidth(layout.box)).toBeCloseTo(120, 9);
  });

  test('says of its own face what that lacks', () => {
    const layout = setIn('Poppins', 'Бук\nБук', [own(1, { family: 'Pacifico' })]);
    expect(layout.missing).toEqual([...'Бук'].map((text) => ({ text, line: 0 })));
  });
});

test('lines of one-line faces are drawn, those of outlines welded, in one lettering', () => {
  const layout = setIn('Pacifico', 'Seed\nsow\nBed', [own(1, { family: 'Hershey Sans' })]);
  const outlines = weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY });
  const named = new Set(outlines.flatMap((o) => o.labels).map((label) => layout.letters[label]?.line));
  expect([...named].sort()).toEqual([0, 2]);
  const job = jobWith([
    partOf([
      lettering('Seed\nsow\nBed', 'Pacifico', { lines: [{ line: 1, face: { face: 'Hershey Sans' }, scale: 0.5 }] }),
    ]),
  ]);
  const part = new Evaluator(wasmEngine).evaluate(job, faces).parts[0];
  const member = part?.members[0];
  expect(member?.openPaths.length).toBeGreaterThan(2);
  expect(member?.outlines.length).toBeGreaterThan(2);
});

test('a typeface of a line that is not there is named, and the words are kept', () => {
  const job = jobWith([
    partOf([lettering('Seed\nsow', 'Pacifico', { lines: [{ line: 1, face: { face: 'Nowhere Sans' } }] })]),
  ]);
  const { findings } = new Evaluator(wasmEngine).evaluate(job, faces);
  expect(findings.map((f) => f.sentence).join(' ')).toContain('Nowhere Sans can’t be used');
});

test('letters of the same glyph number in two faces are not taken for one another', () => {
  const layout = setIn('Poppins', 'oo\noo', [own(1, { family: 'Archivo Black' })]);
  const outlines = weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY });
  const widths = outlines.filter((o) => o.depth === 0).map((o) => o.box.maxX - o.box.minX);
  expect(new Set(widths.map((w) => w.toFixed(3))).size).toBe(2);
});
