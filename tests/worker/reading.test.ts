/** A file looked at before it is brought in. */
import { describe, expect, test } from 'vitest';
import { checkJob } from '../../src/core/document/read';
import { linesWithin, withoutClips } from '../../src/core/formats/clip';
import { readFound } from '../../src/core/formats/found-file';
import { readDrawing } from '../../src/core/formats/read';
import { pathArea, pathLength } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import { broughtParts } from '../../src/core/job/bring-in';
import { roundedRectangle } from '../../src/core/prepare/shape';
import { previewFile } from '../../src/worker/reading';
import { wasmEngine } from '../support/faces';
import { jobWith } from '../support/jobs';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const svg = (body: string): Uint8Array =>
  bytesOf(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">${body}</svg>`);
const look = (bytes: Uint8Array) => previewFile(bytes, { page: 0, progress: () => {} }, async () => wasmEngine);

describe('a look at a file', () => {
  test('groups with their shapes and words, sizes, bounds, and the drawing to keep', async () => {
    const seen = await look(
      svg(
        '<g id="Rim" fill="none" stroke="#f00"><rect width="10" height="20"/><path d="M0 0h5"/></g><text y="30">Beans</text>',
      ),
    );
    if (!seen.ok) throw new Error(seen.sentence);
    expect(seen.groups.map(({ name, shapes, words }) => [name, shapes, words])).toEqual([
      ['Rim', 2, 0],
      ['', 0, 1],
    ]);
    expect(seen.groups[0]?.d).toMatch(/^M0 60/);
    expect(seen.box).toMatchObject({ minX: expect.closeTo(0, 9), maxX: expect.closeTo(10, 9) });
    expect(seen.sizes[0]).toMatchObject({ factor: 1, unit: 'millimetres' });
    expect(readFound(seen.drawing)?.shapes).toHaveLength(2);
  });

  test('what looks alike is drawn once, and all of it comes along', async () => {
    const seen = await look(
      svg('<g fill="none" stroke="#f00"><path d="M0 0h5"/><path d="M0 0h5"/><path d="M0 9h5"/></g>'),
    );
    if (!seen.ok) throw new Error(seen.sentence);
    expect(seen.groups[0]).toMatchObject({ shapes: 3, d: 'M0 60L5 60M0 51L5 51' });
    expect(seen.undrawn).toBe(0);
    expect(readFound(seen.drawing)?.shapes).toHaveLength(3);
  });

  test('a file without outlines says what it holds instead', async () => {
    expect(await look(svg('<image href="a.png"/>'))).toEqual({
      ok: false,
      sentence: 'There are no outlines in this file. It holds 1 pictures.',
    });
    expect(await look(svg(''))).toEqual({ ok: false, sentence: 'There is no drawing in this file.' });
    expect((await look(new Uint8Array(0))).ok).toBe(false);
  });
});

describe('clips', () => {
  const clipped = (defs: string, body: string) => {
    const reading = readDrawing(svg(`<defs>${defs}</defs>${body}`));
    if (!reading.ok) throw new Error(reading.sentence);
    return withoutClips(reading.found, wasmEngine);
  };
  const area = (found: ReturnType<typeof clipped>) =>
    found.shapes.reduce((sum, s) => sum + Math.abs(s.paths.reduce((a, p) => a + pathArea(p), 0)), 0);

  test('what is filled is cut to the clip, and to the clip of the clip', () => {
    const circle = '<clipPath id="a"><circle cx="20" cy="20" r="10"/></clipPath>';
    expect(area(clipped(circle, '<rect width="20" height="60" clip-path="url(#a)"/>'))).toBeCloseTo(Math.PI * 50, 3);
    const both = `${circle}<clipPath id="b" clip-path="url(#a)"><rect x="0" y="0" width="100" height="20"/></clipPath>`;
    const twice = clipped(both, '<rect width="20" height="60" clip-path="url(#b)"/>');
    expect(area(twice)).toBeCloseTo(Math.PI * 25, 3);
    // Round edges stay arcs.
    expect(twice.shapes[0]?.paths[0]?.segments.some((s) => s.kind === 'arc')).toBe(true);
    expect(clipped(circle, '<rect x="60" width="9" height="9" clip-path="url(#a)"/>').shapes).toHaveLength(0);
  });

  test('lines are cut where they cross it; one that is not cut stays closed', () => {
    const region = [roundedRectangle(20, 20, 0)];
    const across = linesWithin(
      { closed: false, segments: [line(-30, 0, 30, 0), line(30, 0, 30, 5), line(30, 5, -30, 5)] },
      region,
    );
    expect(across.map(pathLength)).toEqual([expect.closeTo(20, 9), expect.closeTo(20, 9)]);
    const whole = roundedRectangle(5, 5, 1);
    expect(linesWithin(whole, region)).toEqual([whole]);
    const cut = linesWithin(roundedRectangle(30, 5, 0), region);
    expect(cut.map((p) => [p.closed, pathLength(p)])).toEqual([
      [false, expect.closeTo(20, 9)],
      [false, expect.closeTo(20, 9)],
    ]);
  });
});

describe('a drawing of words only', () => {
  const words = svg(
    '<text id="a" x="10" y="20" font-size="10">Beans</text><text x="10" y="40" font-size="10">Peas</text>',
  );

  test('is one: its words are shown, with nothing else and bounds of nothing', async () => {
    const seen = await look(words);
    if (!seen.ok) throw new Error(seen.sentence);
    expect(seen.texts.map((t) => t.text)).toEqual(['Beans', 'Peas']);
    expect(seen.groups.reduce((sum, g) => sum + g.words, 0)).toBe(2);
    expect(seen.groups.every((g) => g.shapes === 0 && g.d === '')).toBe(true);
    expect(seen.box.maxX).toBeLessThan(seen.box.minX);
    expect(seen.sizes.length).toBeGreaterThan(0);
  });

  test('becomes lettering, each where it stands, and no drawing', async () => {
    const seen = await look(words);
    if (!seen.ok) throw new Error(seen.sentence);
    const job = jobWith([]);
    let n = 0;
    const parts = broughtParts(
      job,
      {
        name: 'words.svg',
        drawing: 'a'.repeat(64),
        original: null,
        groups: seen.groups,
        texts: seen.texts,
        box: seen.box,
      },
      { factor: 2, operations: seen.groups.map(() => 'cut'), at: { x: 150, y: 100 } },
      (stem) => `${stem}-${++n}`,
    );
    const members = parts.flatMap((p) => p.members);
    expect(members.map((m) => (m.kind === 'lettering' ? m.text : m.kind))).toEqual(['Beans', 'Peas']);
    const [beans, peas] = members;
    expect(beans?.kind === 'lettering' && beans.size).toEqual({ by: 'capital', mm: 14 });
    expect((beans?.placement.y ?? 0) - (peas?.placement.y ?? 0)).toBeCloseTo(40, 6);
    expect(checkJob({ ...job, parts })).toMatchObject({ ok: true });
  });

  test('whose words are empty is none', async () => {
    expect(await look(svg('<text> </text>'))).toMatchObject({ ok: false });
  });
});

describe('what a look shows', () => {
  const drawn = '<path d="M0 0h90.123456v50h-90.123456z"/><path fill="none" stroke="red" d="M0 0h5"/>';

  test('each group with its shapes, in figures as fine as its size tells apart', async () => {
    const seen = await look(svg(drawn));
    if (!seen.ok) throw new Error(seen.sentence);
    expect(seen.groups.map((g) => [g.shapes, g.words, g.colour])).toEqual([
      [1, 0, '#000000'],
      [1, 0, '#ff0000'],
    ]);
    // Ninety millimetres across: a thousandth.
    expect(seen.groups[0]?.d).toContain('90.123 ');
    expect(seen.box).toMatchObject({ minX: 0, maxX: expect.closeTo(90.123456, 5) });
    const small = await look(svg('<path d="M0 0h.0123456v.01z"/>'));
    expect(small.ok && small.groups[0]?.d).toMatch(/0\.012346/);
    const large = await look(
      bytesOf(
        '<svg xmlns="http://www.w3.org/2000/svg" width="9m" height="9m" viewBox="0 0 9000 9000"><path d="M0 0h8000.6v50z"/></svg>'.replaceAll(
          '9m',
          '9000mm',
        ),
      ),
    );
    expect(large.ok && large.groups[0]?.d).toMatch(/8000\.6/);
  });

  test('sizes of a screen for what is drawn for one, else not', async () => {
    const units = async (bytes: Uint8Array) => {
      const seen = await look(bytes);
      return seen.ok ? seen.sizes.length : 0;
    };
    const dxf = bytesOf('0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n0\nENDSEC\n0\nEOF\n');
    expect([await units(svg(drawn)), await units(dxf)]).toEqual([7, 4]);
  });

  test('the engine is asked for only where there is something to clip, and what is clipped is', async () => {
    let asked = 0;
    const clipping = (bytes: Uint8Array) =>
      previewFile(bytes, { page: 0, progress: () => {} }, async () => {
        asked++;
        return wasmEngine;
      });
    await clipping(svg(drawn));
    expect(asked).toBe(0);
    const clipped = await clipping(
      svg('<clipPath id="c"><rect width="10" height="10"/></clipPath><path clip-path="url(#c)" d="M0 0h50v50h-50z"/>'),
    );
    expect(asked).toBe(1);
    expect(clipped.ok && [clipped.box.maxX - clipped.box.minX, clipped.box.maxY - clipped.box.minY]).toEqual([
      expect.closeTo(10, 3),
      expect.closeTo(10, 3),
    ]);
  });

  test('a file with nothing to draw says what it holds, and why', async () => {
    const held = await look(svg('<image href="x.png"/><image href="y.png"/>'));
    expect(held).toEqual({ ok: false, sentence: 'There are no outlines in this file. It holds 2 pictures.' });
    expect(await look(svg(''))).toEqual({ ok: false, sentence: 'There is no drawing in this file.' });
    const broken = await look(svg('&a;'));
    expect(broken.ok ? '' : broken.sentence).toMatch(/^There is no drawing in this file\. The file is damaged/);
  });
});
