/** A file looked at before it is brought in. */
import { describe, expect, test } from 'vitest';
import { checkJob } from '../../src/core/document/read';
import { linesWithin, withoutClips } from '../../src/core/formats/clip';
import { readFound } from '../../src/core/formats/found-file';
import { readDrawing } from '../../src/core/formats/read';
import { pathArea, pathLength } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import { broughtParts } from '../../src/core/job/bring-in';
import { rectanglePath } from '../../src/core/prepare/shape';
import { lookAt } from '../../src/worker/reading';
import { wasmEngine } from '../support/faces';
import { jobWith } from '../support/jobs';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const svg = (body: string): Uint8Array =>
  bytesOf(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">${body}</svg>`);
const look = (bytes: Uint8Array) =>
  lookAt(
    bytes,
    () => {},
    async () => wasmEngine,
  );

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
    const region = [rectanglePath(20, 20, 0)];
    const across = linesWithin(
      { closed: false, segments: [line(-30, 0, 30, 0), line(30, 0, 30, 5), line(30, 5, -30, 5)] },
      region,
    );
    expect(across.map(pathLength)).toEqual([expect.closeTo(20, 9), expect.closeTo(20, 9)]);
    const whole = rectanglePath(5, 5, 1);
    expect(linesWithin(whole, region)).toEqual([whole]);
    const cut = linesWithin(rectanglePath(30, 5, 0), region);
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
