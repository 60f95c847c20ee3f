/** What was read of a drawing is compared with what is on the sheet; whole turns arrive, and a loss is told. */
import { createHash } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { readFound, writeFound } from '../../src/core/formats/found-file';
import { readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { closedPath, type Path, pathLength } from '../../src/core/geometry/path';
import { arcAbout, line } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { missingOf } from '../../src/core/prepare/closing/arrived';
import { CLOSING_RULES } from '../../src/core/rules/closing';
import type { PartSubject } from '../../src/core/rules/rule';
import { faces, wasmEngine } from '../support/faces';
import { finished } from '../support/generators';
import { type Draft, jobWith, partOf } from '../support/jobs';

const read = (text: string): ReadDrawing => {
  const reading = readDrawing(new TextEncoder().encode(text));
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
};
const dxf = (...tags: (string | number)[]): ReadDrawing =>
  read(['0', 'SECTION', '2', 'ENTITIES', ...tags, '0', 'ENDSEC', '0', 'EOF', ''].join('\n'));
const svg = (body: string): ReadDrawing =>
  read(`<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">${body}</svg>`);

/** A hatch with boundaries of one edge each. */
const hatch = (...edges: (string | number)[][]): ReadDrawing =>
  dxf(
    0,
    'HATCH',
    8,
    'Round',
    10,
    0,
    20,
    0,
    30,
    0,
    2,
    'SOLID',
    70,
    1,
    71,
    0,
    91,
    edges.length,
    ...edges.flatMap((edge) => [92, 1, 93, 1, ...edge, 97, 0]),
  );

const drawn = (found: ReadDrawing, more: Draft = {}) => {
  const text = writeFound(found);
  const id = createHash('sha256').update(text).digest('hex');
  const evaluator = new Evaluator(wasmEngine);
  evaluator.addDrawing(id, text);
  const art = { id: 'art', kind: 'artwork', name: 'plan.dxf', placement: { x: 150, y: 100 }, drawing: id, ...more };
  const job = jobWith([partOf([art])]);
  const result = evaluator.evaluate(job, faces);
  const paths = result.operations.flatMap((o) => o.drawn.flatMap((d) => drawnPaths(d.drawable)));
  const made = finished(makeFiles(job, result, ['svg', 'dxf', 'pdf'], { partIds: null }));
  return { job, result, made, length: paths.reduce((sum, p) => sum + pathLength(p), 0) };
};
const about = (r: number) => expect.closeTo(2 * Math.PI * r, 3);
const SPLIT = 'M90 50A40 40 0 1 1 89.9999 49.99';

describe('a whole turn arrives, and goes out', () => {
  test.each<[string, ReadDrawing, number]>([
    ['a round hatch, one arc of 360°', hatch([72, 2, 10, 50, 20, 50, 40, 30, 50, 0, 51, 360, 73, 1]), 30],
    ['the same clockwise', hatch([72, 2, 10, 50, 20, 50, 40, 30, 50, 0, 51, 360, 73, 0]), 30],
    ['the same from elsewhere', hatch([72, 2, 10, 50, 20, 50, 40, 30, 50, 90, 51, 450, 73, 1]), 30],
    ['a round hatch of an ellipse', hatch([72, 3, 10, 50, 20, 50, 11, 30, 21, 0, 40, 1, 50, 0, 51, 360, 73, 1]), 30],
    ['an arc from 0° to 360°', dxf(0, 'ARC', 8, 'Round', 10, 50, 20, 50, 40, 30, 50, 0, 51, 360), 30],
    [
      'an ellipse as round as a circle',
      dxf(0, 'ELLIPSE', 8, 'Round', 10, 50, 20, 50, 11, 30, 21, 0, 40, 1, 41, 0, 42, 2 * Math.PI),
      30,
    ],
    [
      'a pair of bulges',
      dxf(0, 'LWPOLYLINE', 8, 'Round', 90, 2, 70, 1, 10, 20, 20, 50, 42, 1, 10, 80, 20, 50, 42, 1),
      30,
    ],
    ['an arc of SVG that nearly closes', svg(`<path fill="none" stroke="#000" d="${SPLIT}"/>`), 40],
    ['an arc of 350°', dxf(0, 'ARC', 8, 'Round', 10, 50, 20, 50, 40, 30, 50, 10, 51, 360), (30 * 350) / 360],
  ])('%s', (_, found, r) => {
    const { made, result, length } = drawn(found);
    expect(length).toEqual(r === 40 ? expect.closeTo(2 * Math.PI * 40, 1) : about(r));
    expect(result.findings.map((f) => f.code)).not.toContain('not-arrived');
    expect(made.refused).toEqual([]);
    expect(made.files).toHaveLength(3);
    // Our own files of it are as long.
    for (const { name, bytes } of made.files.slice(0, 2)) {
      const back = readDrawing(bytes);
      if (!back.ok) throw new Error(back.sentence);
      const again = back.found.shapes.flatMap((s) => s.paths).reduce((sum, p) => sum + pathLength(p), 0);
      expect(again, name).toBeCloseTo(length, 2);
    }
  });

  test('two round hatches, one in the other, are a ring', () => {
    const ring = hatch(
      [72, 2, 10, 50, 20, 50, 40, 30, 50, 0, 51, 360, 73, 1],
      [72, 2, 10, 50, 20, 50, 40, 12, 50, 0, 51, 360, 73, 1],
    );
    const { result } = drawn(ring);
    const area = result.parts[0]?.outlines.reduce((sum, o) => sum + o.area, 0);
    expect(area).toBeCloseTo(Math.PI * (900 - 144), 1);
  });

  test('is kept with a drawing in pieces, since path data has no whole turn', () => {
    const turn = closedPath([arcAbout(0, 0, 30, 0, 2 * Math.PI)]);
    const found = { ...svg('<path d="M0 0h1v1z"/>') };
    const kept = readFound(writeFound({ ...found, shapes: found.shapes.map((s) => ({ ...s, paths: [turn] })) }));
    expect(kept?.shapes[0]?.paths[0]?.segments).toHaveLength(4);
  });
});

describe('what did not arrive', () => {
  const square = (x: number, side = 10): Path =>
    closedPath([
      line(x, 0, x + side, 0),
      line(x + side, 0, x + side, side),
      line(x + side, side, x, side),
      line(x, side, x, 0),
    ]);
  const open: Path = { closed: false, segments: [line(0, 30, 40, 30), line(40, 30, 50, 35)] };
  const all = [square(0), square(20), open];
  const missing = (outlines: readonly Path[], openPaths: readonly Path[]) =>
    missingOf(all, { outlines, openPaths }, 0.02, 0.05);

  test('is counted and measured: an outline, a line, all of it', () => {
    expect(missing([square(0), square(20)], [open])).toMatchObject({ paths: 0, mm: 0 });
    expect(missing([square(0)], [open])).toMatchObject({ paths: 1, mm: 40, box: { minX: 20, maxX: 30 } });
    expect(missing([square(0), square(20)], [])).toMatchObject({
      paths: 1,
      mm: expect.closeTo(40 + Math.hypot(10, 5), 9),
    });
    expect(missing([], []).paths).toBe(3);
    // A part of one is a loss too.
    const half: Path = { closed: false, segments: square(0).segments.slice(0, 2) };
    expect(missing([square(20)], [open, half])).toMatchObject({ paths: 1, mm: 40 });
  });

  test('is not what lies in a shape that was welded, nor near enough, nor shorter than is looked for; what lies elsewhere is', () => {
    expect(missing([square(-5, 40)], [open]).paths).toBe(0);
    expect(missing([square(0.01), square(20)], [open]).paths).toBe(0);
    expect(missing([square(0.1, 9.8), square(20)], [open]).paths).toBe(1);
    expect(missingOf([square(0, 0.04)], { outlines: [], openPaths: [] }, 0.02, 0.05).paths).toBe(0);
  });

  test('nothing of drawings as they are: gaps closed, doubles, specks, tees, curves fitted anew', () => {
    const body = [
      '<g fill="none" stroke="#000"><path d="M10 10h30v20h-29.8M10 30v-19.9"/><path d="M10 10h30"/><circle cx="70" cy="30" r="12"/>',
      '<circle cx="70" cy="30" r="12"/><path d="M5 60l0.01 0"/><path d="M50 70L90 70M70 70.2L70 90"/>',
      `<path d="M10 80${Array.from({ length: 60 }, (_, i) => `L${10 + i / 2} ${80 + 3 * Math.sin(i / 6)}`).join('')}"/></g>`,
      '<path d="M60 50h20v10h-20zM65 52h20v10h-20z" fill="#000"/><path fill="#000" fill-rule="evenodd" d="M0 92h9v8h-9zM2 94h5v4h-5z"/>',
    ].join('');
    for (const close of [{}, { gap: 0.5 }, { gap: 0.5, refit: 0.1, doubles: 0.05 }, { doubles: 0, specks: 0 }])
      expect(drawn(svg(body), { close }).result.findings.map((f) => f.code)).not.toContain('not-arrived');
  });
});

test('a loss is a fault that names the drawing, how much is missing and where, whatever is done to the part', () => {
  const found = svg('<g fill="none" stroke="#000"><path d="M10 10h30v20h-30z"/><path d="M60 60h20"/></g>');
  const rule = CLOSING_RULES.find((r) => r.code === 'not-arrived');
  for (const operation of ['cut', 'engrave']) {
    const { job, result } = drawn(found);
    const part = { ...job.parts[0], work: [{ what: 'outline', operation }] } as Job['parts'][number];
    const [ready] = result.parts;
    const member = ready?.members[0];
    if (!ready || !member?.closing) throw new Error('no drawing');
    const box = { minX: -5, minY: -5, maxX: 15, maxY: -5 };
    const lossy = { ...member, closing: { ...member.closing, missing: { paths: 2, mm: 20, box } } };
    const about = {
      part,
      ready: { ...ready, handMade: null, members: [lossy] },
      isCut: operation === 'cut',
      length: (mm: number) => `${mm} mm`,
    };
    const [loss, ...more] = rule?.find(about as unknown as PartSubject) ?? [];
    expect(more).toEqual([]);
    expect(loss?.sentence).toBe(
      '2 lines of “plan.dxf”, 20 mm long, did not arrive whole on the sheet: look the drawing over before you cut it.',
    );
    // About the middle of the drawing, which lies where the member is placed.
    expect(loss?.box).toEqual({ minX: 144, minY: 94, maxX: 166, maxY: 96 });
  }
});
