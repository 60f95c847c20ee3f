/** One-line faces: what ships, how they are set, and that they stay open lines all the way to the file. */

import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { boxHeight, boxWidth } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf } from '../../src/core/job/export';
import { PLAIN_SHAPING } from '../../src/core/lettering/face';
import { layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { faces, LINE_FAMILIES, scriptEngine, spec, typeface } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const LATIN_1 = [...Array(0x100).keys()]
  .filter((c) => (c >= 0x20 && c < 0x7f) || (c >= 0xa0 && c !== 0xad))
  .map((c) => String.fromCharCode(c));

describe.each(LINE_FAMILIES)('%s', (family) => {
  const face = typeface(family);

  test('has all of Latin-1, every sign but the spaces with lines, and none of them closed', () => {
    expect(face.isSingleStroke).toBe(true);
    for (const character of LATIN_1) {
      const [glyph] = face.shape(character, 'ltr', PLAIN_SHAPING);
      expect(glyph?.glyph, character).toBeGreaterThan(0);
      const lines = face.outline(glyph?.glyph ?? 0);
      if (character.trim() !== '') expect(lines.length, character).toBeGreaterThan(0);
      for (const line of lines) {
        expect(line.closed).toBe(false);
        for (const s of line.segments) expect(Number.isFinite(s.x1 + s.y1)).toBe(true);
      }
    }
  });

  test('is set by the height of a flat capital', () => {
    const layout = layoutLettering(spec('H', { size: { by: 'capital', mm: 12 } }), face);
    expect(boxHeight(layout.box)).toBeCloseTo(12, 6);
  });
});

test('what the converter makes is what is kept', { tags: 'slow' }, () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'line-faces-'));
  execFileSync('node_modules/.bin/tsx', ['scripts/line-faces.ts', folder]);
  for (const file of ['hershey-sans', 'ems-allure', 'hershey-gothic'])
    for (const end of ['.json', '.LICENSE.txt'])
      expect(readFileSync(path.join(folder, file + end), 'utf8')).toBe(
        readFileSync(`public/typefaces/${file}${end}`, 'utf8'),
      );
});

test('characters with marks, and such as are not there', () => {
  const face = typeface('EMS Readability');
  const composed = layoutLettering(spec('é'), face);
  const parted = layoutLettering(spec('e\u0301'), face);
  expect(letterPaths(parted)).toEqual(letterPaths(composed));
  expect(layoutLettering(spec('漢'), face).missing).toEqual([{ text: '漢', line: 0 }]);
});

test('spacing and alignment are those of any lettering; closing up does nothing', () => {
  const face = typeface('Hershey Sans');
  const plain = layoutLettering(spec('AB\nWIDER', { align: 'right' }), face);
  const ends = plain.lines.map((l) => l.box.maxX);
  expect(ends[0]).toBeCloseTo(ends[1] as number, 6);
  const spaced = layoutLettering(spec('AB', { letterSpacing: 1 }), face);
  expect(boxWidth(spaced.box) - boxWidth(layoutLettering(spec('AB'), face).box)).toBeCloseTo(20, 6);
  const closed = layoutLettering(spec('AB', { closeUp: { overlap: 1, words: true, lines: true } }), face);
  expect(closed.box).toEqual(layoutLettering(spec('AB'), face).box);
});

test('marked as open lines, moved and turned with the part, in the headless result too', () => {
  const words = lettering('AL-07', 'Hershey Sans', { size: { by: 'capital', mm: 6 } });
  const read = jobWith([partOf([words], { work: [{ what: 'outline', operation: 'mark' }] })]);
  const result = new Evaluator(scriptEngine).evaluate(read, faces);
  const [prepared] = result.parts;
  expect(prepared?.outlines).toEqual([]);
  expect(prepared?.openPaths.length).toBeGreaterThan(4);
  const layers = drawingOf(read, result)?.layers ?? [];
  expect(layers.map((l) => l.name)).toEqual(['Mark']);
  for (const d of layers[0]?.drawn ?? []) {
    expect(d.kind).toBe('polyline');
    expect(drawnPaths(d).every((p) => !p.closed)).toBe(true);
  }
  expect(layers[0]?.tolerance).toBe(0.127);
});

test('files that only begin like one give a sentence', async () => {
  for (const text of ['{', '{}', '{"lineFace":1}', '{"lineFace":1,"family":"x","glyphs":{"a":[1,[[[0,0],[1]]]]}}']) {
    const loaded = await loadTypeface(new TextEncoder().encode(text));
    expect(loaded.ok).toBe(false);
    if (!loaded.ok) expect(loaded.sentence).toMatch(/\.$/);
  }
});
