/** A file looked at before it is brought in. */
import { describe, expect, test } from 'vitest';
import { linesWithin, withoutClips } from '../../src/core/formats/clip';
import { readFound } from '../../src/core/formats/found-file';
import { readDrawing } from '../../src/core/formats/read';
import { pathArea, pathLength } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import { rectanglePath } from '../../src/core/prepare/shape';
import { lookAt } from '../../src/worker/reading';
import { wasmEngine } from '../support/faces';

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
