/** Drawings as members of parts: brought in, put together with words, prepared, and our own files read back. */

import { createHash } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { sizeChosen } from '../../src/core/commands/chosen';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { circleAt } from '../../src/core/formats/drawing';
import { readFound, writeFound } from '../../src/core/formats/found-file';
import { readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { sizeChoices } from '../../src/core/formats/size';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { flattenPath, type Path, pathArea, regionBox } from '../../src/core/geometry/path';
import { boxHeight, boxWidth } from '../../src/core/geometry/point';
import { type Brought, broughtParts, likelyOperation } from '../../src/core/job/bring-in';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { outlinesInHand } from '../../src/core/kinds/steps/nodes';
import { LIMITS } from '../../src/core/limits';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';
import { farthest, type Polyline } from '../support/polyline-distance';
import { sample } from '../support/scale';

const read = (text: string | Uint8Array): ReadDrawing => {
  const reading = readDrawing(typeof text === 'string' ? new TextEncoder().encode(text) : text);
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
};
const svg = (body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><g fill="none" stroke="#1A26AF">${body}</g></svg>`;

/** The groups with how many shapes each has. */
const counted = (found: ReadDrawing): Brought['groups'] =>
  found.groups.map((group, i) => ({ ...group, shapes: found.shapes.filter((s) => s.group === i).length }));

/** An evaluator with a drawing at hand, and the drawing's id. */
function withDrawing(found: ReadDrawing) {
  const text = writeFound(found);
  const id = createHash('sha256').update(text).digest('hex');
  const evaluator = new Evaluator(wasmEngine);
  expect(evaluator.addDrawing(id, text)).toBe(true);
  return { evaluator, id };
}

const artwork = (drawing: string, more: object = {}) => ({
  id: 'art',
  kind: 'artwork',
  name: 'emblem.svg',
  placement: { x: 150, y: 100 },
  drawing,
  ...more,
});
const areaOf = (result: JobResult) => result.parts[0]?.outlines.reduce((sum, o) => sum + o.area, 0) ?? 0;
const codes = (result: JobResult) => result.findings.map((f) => f.code);

describe('a drawing in a part', () => {
  const ring = read(svg('<circle cx="50" cy="30" r="20"/><circle cx="50" cy="30" r="12"/>'));

  test('is centred where it is placed, holes by nesting, at any size', () => {
    const { evaluator, id } = withDrawing(ring);
    const result = evaluator.evaluate(jobWith([partOf([artwork(id)])]), faces);
    expect(areaOf(result)).toBeCloseTo(Math.PI * (400 - 144), 6);
    expect(result.parts[0]?.box).toMatchObject({ minX: expect.closeTo(130, 9), maxY: expect.closeTo(120, 9) });
    expect(result.parts[0]?.outlines.flatMap((o) => o.path.segments.map((s) => s.kind))).toEqual(Array(8).fill('arc'));
    const job = jobWith([partOf([artwork(id)])]);
    const sized = sizeChosen(job, { partIds: ['part'], memberId: null }, { factor: 2, about: { x: 150, y: 100 } });
    expect(areaOf(evaluator.evaluate(sized, faces))).toBeCloseTo(4 * Math.PI * (400 - 144), 5);
  });

  test('words are cut out of it, its islands and theirs are bridged, it is thickened and bordered', {
    tags: 'slow',
  }, () => {
    const { evaluator, id } = withDrawing(read(svg('<rect x="1" y="1" width="98" height="58" rx="6"/>')));
    const words = lettering('BO', 'Archivo Black', {
      role: 'punch',
      placement: { x: 150, y: 92 },
      size: { by: 'capital', mm: 20 },
    });
    const loose = evaluator.evaluate(jobWith([partOf([artwork(id), words])]), faces);
    expect(codes(loose).filter((c) => c === 'island')).toHaveLength(3);
    const held = evaluator.evaluate(
      jobWith([
        partOf([artwork(id), words], {
          steps: [
            { kind: 'weld', on: true },
            { kind: 'bridge', width: 2 },
          ],
        }),
      ]),
      faces,
    );
    expect(held.parts[0]?.pieces).toHaveLength(1);
    const emblem = withDrawing(ring);
    const stencil = (steps: object[]) =>
      emblem.evaluator.evaluate(jobWith([partOf([artwork(emblem.id)], { keep: 'outside', steps })]), faces);
    expect(codes(stencil([]))).toContain('island');
    expect(stencil([{ kind: 'bridge', width: 2 }]).parts[0]?.pieces).toHaveLength(1);
    const grown = emblem.evaluator.evaluate(
      jobWith([partOf([artwork(emblem.id)], { steps: [{ kind: 'thicken', by: 1 }] })]),
      faces,
    );
    expect(areaOf(grown)).toBeCloseTo(Math.PI * (441 - 121), 3);
    const border = emblem.evaluator.evaluate(
      jobWith([partOf([artwork(emblem.id)], { steps: [{ kind: 'border', distance: 5 }] })]),
      faces,
    );
    expect(areaOf(border)).toBeCloseTo(Math.PI * 625, 3);
  });

  test('only the groups asked for; a drawing that is not at hand is said and its place kept', () => {
    const two = read(
      '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9"><g fill="none"><rect width="2" height="2" stroke="red"/><rect x="6" y="6" width="3" height="3" stroke="blue"/></g></svg>',
    );
    const { evaluator, id } = withDrawing(two);
    const result = evaluator.evaluate(jobWith([partOf([artwork(id, { groups: [1] })])]), faces);
    expect(areaOf(result)).toBeCloseTo(9, 9);
    // Groups of one drawing keep their places to each other.
    expect(result.parts[0]?.box.minX).toBeCloseTo(151.5, 9);
    const gone = evaluator.evaluate(jobWith([partOf([artwork('0'.repeat(64))])]), faces);
    expect(gone.findings[0]).toMatchObject({ code: 'no-drawing', severity: 'fault' });
  });

  test('gaps are findings with a mend, and open lines go into files as they are, never filled', () => {
    const { evaluator, id } = withDrawing(read(svg('<path d="M10 10H50V40H10V10.4"/><path d="M60 10H90"/>')));
    const open = evaluator.evaluate(jobWith([partOf([artwork(id)])]), faces);
    expect(open.findings.filter((f) => f.code === 'gap')).toEqual([
      expect.objectContaining({
        sentence: 'Gap of 0.4 mm in an outline.',
        mend: { memberId: 'art', gap: expect.any(String) },
      }),
    ]);
    const shapes = open.operations.find((o) => o.operation.kind === 'cut')?.drawn ?? [];
    expect(shapes.map((d) => d.drawable.kind)).toEqual(['polyline', 'polyline']);
    const closed = evaluator.evaluate(jobWith([partOf([artwork(id, { close: { gap: 0.5 } })])]), faces);
    expect(codes(closed)).not.toContain('gap');
    expect(areaOf(closed)).toBeCloseTo(1200, 9);
    const engraved = evaluator.evaluate(
      jobWith([partOf([artwork(id)], { work: [{ what: 'fill', operation: 'engrave', only: null }] })]),
      faces,
    );
    expect(engraved.operations.flatMap((o) => o.drawn)).toHaveLength(0);
    const scored = evaluator.evaluate(
      jobWith([partOf([artwork(id)], { work: [{ what: 'outline', operation: 'score', only: null }] })]),
      faces,
    );
    expect(codes(scored)).not.toContain('gap');
    const file = drawingOf(
      jobWith([partOf([artwork(id)], { work: [{ what: 'outline', operation: 'score', only: null }] })]),
      scored,
    );
    expect(file?.layers[0]?.drawn.every((d) => d.kind === 'polyline' && drawnPaths(d).every((p) => !p.closed))).toBe(
      true,
    );
  });

  test.each([
    ['filled twice', '<rect x="1" y="1" width="20" height="20" fill="red"/>'.repeat(2), 400],
    [
      'filled, and its line by itself',
      '<rect x="1" y="1" width="20" height="20" fill="red"/><rect x="1" y="1" width="20" height="20"/>',
      400,
    ],
    ['three times', '<circle cx="30" cy="30" r="10" fill="red"/>'.repeat(3), Math.PI * 100],
    [
      'a ring and its rim',
      '<circle cx="30" cy="30" r="10"/><path fill="red" fill-rule="evenodd" d="M20 30A10 10 0 0 0 40 30A10 10 0 0 0 20 30ZM25 30A5 5 0 0 0 35 30A5 5 0 0 0 25 30Z"/>',
      Math.PI * 75,
    ],
  ])('a shape that is drawn again is there once: %s', (_, body, area) => {
    const { evaluator, id } = withDrawing(read(svg(body)));
    const result = evaluator.evaluate(jobWith([partOf([artwork(id)])]), faces);
    expect(areaOf(result)).toBeCloseTo(area, 6);
    expect(result.parts[0]?.members[0]?.closing?.repeated).toBeGreaterThan(0);
    const all = evaluator.evaluate(jobWith([partOf([artwork(id, { close: { doubles: 0 } })])]), faces);
    expect(areaOf(all)).toBeCloseTo(area, 6);
  });

  test('an edge that two outlines have in common is told', () => {
    const { evaluator, id } = withDrawing(
      read(svg('<rect width="20" height="20"/><rect x="20" width="20" height="20"/>')),
    );
    const result = evaluator.evaluate(jobWith([partOf([artwork(id)])]), faces);
    expect(areaOf(result)).toBeCloseTo(800, 6);
    expect(result.findings.find((f) => f.code === 'shared-edges')?.sentence).toBe(
      'Two outlines of “emblem.svg” have an edge in common: it is cut twice.',
    );
  });

  test('worked on by hand, its gaps are those of the hand-made lines', () => {
    const { evaluator, id } = withDrawing(read(svg('<path d="M10 10H50V40H10V10.4"/>')));
    const job = jobWith([partOf([artwork(id)])]);
    const [part] = evaluator.evaluate(job, faces).parts;
    const step = part && outlinesInHand(part);
    if (!step) throw new Error('nothing to take in hand');
    const inHand = structuredClone(job);
    inHand.parts[0]?.steps.push(step);
    const byHand = codes(evaluator.evaluate(inHand, faces));
    expect(byHand).toContain('open-lines');
    expect(byHand).not.toContain('gap');
  });

  test('moved it is the same in another place', () => {
    const { evaluator, id } = withDrawing(ring);
    const at = (x: number) =>
      evaluator.evaluate(
        jobWith([partOf([artwork(id, { placement: { x, y: 100 } })], { steps: [{ kind: 'border', distance: 5 }] })]),
        faces,
      );
    const [a, b] = [at(150), at(160)];
    expect(b.parts[0]?.box.minX).toBeCloseTo((a.parts[0]?.box.minX ?? 0) + 10, 9);
    expect(b.parts[0]?.pieces).toEqual(a.parts[0]?.pieces.map((p) => expect.objectContaining({ area: p.area })));
  });
});

test('gaps beyond those named one by one are counted; a document holds no more answers, nor wider gaps, than can be', () => {
  const rows = Array.from({ length: LIMITS.gapsNamed + 3 }, (_, i) => `<path d="M${i * 2} 0h1v1h-1v-.9"/>`).join('');
  const { evaluator, id } = withDrawing(read(svg(rows)));
  const result = evaluator.evaluate(jobWith([partOf([artwork(id)])]), faces);
  expect(codes(result).filter((c) => c === 'gap')).toHaveLength(LIMITS.gapsNamed);
  expect(result.findings.find((f) => f.code === 'more-gaps')?.sentence).toBe('3 more gaps in “emblem.svg”.');
  const check = (close: object) => checkJob({ ...jobWith([]), parts: [partOf([artwork(id, { close })])] }).ok;
  const answers = (n: number) => Array.from({ length: n }, (_, i) => ({ gap: `${i}`, how: 'close' }));
  expect([check({ gap: LIMITS.gapMostMm }), check({ gap: LIMITS.gapMostMm + 1 })]).toEqual([true, false]);
  expect([check({ answers: answers(LIMITS.gapAnswers) }), check({ answers: answers(LIMITS.gapAnswers + 1) })]).toEqual([
    true,
    false,
  ]);
});

describe('bringing in', () => {
  const text = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">
    <rect x="10" y="10" width="80" height="40" fill="none" stroke="#1A26AF"/>
    <path d="M20 30H80" fill="none" stroke="#248b88"/>
    <circle cx="30" cy="20" r="4" fill="#B26417"/>
    <text x="50" y="40" font-size="10" text-anchor="middle" font-family="Example Serif" fill="#B26417">Open daily</text></svg>`;
  const found = read(text);
  const brought: Brought = {
    name: 'shed.svg',
    drawing: 'a'.repeat(64),
    original: null,
    groups: counted(found),
    texts: found.texts,
    box: regionBox(found.shapes.flatMap((s) => s.paths)),
  };
  const job = jobWith([]);
  let n = 0;
  const parts = broughtParts(
    job,
    brought,
    { factor: 2, operations: found.groups.map((g) => likelyOperation(g, job)), at: { x: 150, y: 100 } },
    (stem) => `${stem}-${++n}`,
  );

  test.each([
    ['CUT_OUT', '#123456', false, 'cut'],
    ['Engraving front', '#123456', false, 'engrave'],
    ['fold lines', '#123456', false, 'score'],
    ['scribe', '#123456', false, 'mark'],
    ['Score', '#1A26AF', false, 'score'],
    ['haircut', '#1A26AF', false, 'cut'],
    ['layer 1', '#248B88', false, 'score'],
    ['layer 1', '#123456', true, 'engrave'],
    ['layer 1', '#123456', false, 'cut'],
  ])('layer “%s” in %s, filled %s, goes to %s', (name, colour, filled, to) => {
    const group = { name, colour, filled };
    expect(likelyOperation(group, job, [group, { ...group, filled: !filled }])).toBe(to);
    // Alone in its file, what is filled is as likely to be cut.
    if (name === 'layer 1' && filled) expect(likelyOperation(group, job)).toBe('cut');
  });

  test('one part for each operation, by the colour key; what is filled is filled', () => {
    expect(parts.map((p) => [p.name, p.work])).toEqual([
      ['shed, Engrave', [{ what: 'fill', operation: 'engrave', only: null }]],
      ['shed, Engrave, words', [{ what: 'fill', operation: 'engrave', only: null }]],
      ['shed, Score', [{ what: 'outline', operation: 'score', only: null }]],
      ['shed, Cut', [{ what: 'outline', operation: 'cut', only: null }]],
    ]);
    expect(checkJob({ ...job, parts }).ok).toBe(true);
  });

  test('layers stay apart where that is asked for, each under its own name and in its place', () => {
    const dxf = (layer: string, x: number) => ({ name: layer, colour: '#000000', filled: false, shapes: 1, x });
    const layers = { ...brought, texts: [], groups: [dxf('PROFILE', 0), dxf('HOLES', 1), dxf('NOTES', 2)] };
    const made = (apart: boolean) => {
      let k = 0;
      const choices = { factor: 1, operations: ['cut', 'cut', null], at: { x: 10, y: 20 }, apart };
      return broughtParts(job, layers, choices, (stem) => `${stem}-${++k}`);
    };
    expect(made(true).map((p) => [p.name, p.members.map((m) => m.kind === 'artwork' && m.groups)])).toEqual([
      ['shed, PROFILE', [[0]]],
      ['shed, HOLES', [[1]]],
    ]);
    expect(made(true).map((p) => p.placement.x)).toEqual([10, 10]);
    expect(made(false).map((p) => [p.name, p.members.map((m) => m.kind === 'artwork' && m.groups)])).toEqual([
      ['shed', [[0, 1]]],
    ]);
  });

  test('words stay words, in their place and size, and a finding names the typeface they asked for', () => {
    const words = parts[1]?.members[0];
    expect(words).toMatchObject({
      kind: 'lettering',
      text: 'Open daily',
      align: 'centre',
      size: { by: 'capital', mm: 14 },
      placement: { x: 0, y: 0 },
    });
    expect(parts[1]?.placement).toMatchObject({ x: 150, y: expect.closeTo(100 - 2 * 10, 9) });
    const result = new Evaluator(wasmEngine).evaluate({ ...job, parts: parts.slice(1, 2) }, faces);
    expect(result.findings.find((f) => f.code === 'words-set-anew')?.sentence).toBe(
      '“shed, Engrave, words”: words from a file in Example Serif are set in Archivo Black here.',
    );
  });

  test('likely sizes: what the file claims, then what its numbers may mean', () => {
    const dxf = sizeChoices({ unit: 'millimetres', mmPerUnit: 1, stated: false, measure: 'units' });
    expect(dxf.map((s) => s.factor)).toEqual([1, 25.4, 10, 1000]);
    const px = sizeChoices({ unit: 'pixels of 1/96 inch', mmPerUnit: 25.4 / 96, stated: false, measure: 'pixels' });
    expect(px.map((s) => Number(s.factor.toFixed(6)))).toContain(Number((96 / 72).toFixed(6)));
    expect(px.map((s) => Number(s.factor.toFixed(6)))).toContain(Number((96 / 90).toFixed(6)));
    expect(px[0]).toEqual({ factor: 1, unit: 'pixels of 1/96 inch', claimed: true });
  });
});

test('a drawing that is kept comes back as it was', () => {
  const found = read(
    svg(
      '<circle cx="50" cy="30" r="20"/><path d="M0 0C10 5 20 5 30 0Q1 2 3 4A9 5 20 0 1 40 40" fill="red" fill-rule="evenodd"/>',
    ),
  );
  const kept = readFound(writeFound(found));
  expect(kept?.groups).toEqual(found.groups);
  found.shapes.forEach((shape, i) => {
    const again = kept?.shapes[i];
    expect(again?.fill?.rule).toBe(shape.fill?.rule);
    shape.paths.forEach((path, k) => {
      const other = again?.paths[k] as Path;
      expect(other.closed).toBe(path.closed);
      expect(other.segments.map((s) => s.kind)).toEqual(path.segments.map((s) => s.kind));
      expect(Math.abs(pathArea(other) - pathArea(path))).toBeLessThan(1e-3);
    });
  });
  expect(readFound('{')).toBeNull();
  expect(readFound('{"format":2}')).toBeNull();
});

/** A path that ends where it starts is read as closed, whether or not it was written so. */
const comesBack = ({ closed, segments }: Path): boolean => {
  const [first, last] = [segments[0], segments[segments.length - 1]];
  return closed || (!!first && !!last && Math.hypot(last.x1 - first.x0, last.y1 - first.y0) < 1e-6);
};

/** With all lines kept, also those a pen draws twice. */
const asDrawn = (parts: Job['parts']): Job['parts'] =>
  parts.map((part) => ({
    ...part,
    members: part.members.map((m) => (m.kind === 'artwork' ? { ...m, close: { ...m.close, doubles: 0 } } : m)),
  }));

describe('our own files read back', () => {
  /** Every outline and line of a job's files, by operation. */
  const linesOf = (
    job: Job,
    result: JobResult,
  ): Map<string, { closed: number; loops: number; open: number; lines: Polyline[] }> => {
    const out = new Map<string, { closed: number; loops: number; open: number; lines: Polyline[] }>();
    for (const layer of drawingOf(job, result)?.layers ?? []) {
      const paths = layer.drawn.flatMap((d) => (d.kind === 'dot' ? [circleAt(d.at, d.r ?? 0)] : drawnPaths(d)));
      const closed = paths.filter((p) => p.closed).length;
      const loops = paths.filter((p) => !p.closed && comesBack(p)).length;
      out.set(layer.name, {
        closed,
        loops,
        open: paths.length - closed - loops,
        lines: paths.map((p) => {
          const points = flattenPath(p, 0.0002).map((q): [number, number] => [q.x, q.y]);
          return p.closed ? [...points, points[0] as [number, number]] : points;
        }),
      });
    }
    return out;
  };

  test.each(['svg', 'dxf'] as const)(
    '%s: the same outlines, closed where they were, in their operations',
    { tags: 'slow' },
    (format) => {
      let worst = 0;
      for (const [name, original] of [...demoJobs()].slice(0, sample(4, 99))) {
        const job: Job = {
          ...original,
          export: { ...original.export, arcTolerance: 0.001, markTolerance: 0.001, page: 'work' },
        };
        const result = new Evaluator(wasmEngine).evaluate(job, faces);
        const drawing = drawingOf(job, result);
        if (!drawing) throw new Error(`${name} draws nothing`);
        const found = read(writeFile(drawing, format, job.export));
        expect(found.notes, name).toEqual([]);
        const { evaluator, id } = withDrawing(found);
        const box = regionBox(found.shapes.flatMap((s) => s.paths));
        expect([boxWidth(box), boxHeight(box)], name).toEqual([
          expect.closeTo(drawing.width, 2),
          expect.closeTo(drawing.height, 2),
        ]);
        const brought: Brought = { name, drawing: id, original: null, groups: counted(found), texts: [], box };
        let n = 0;
        const choices = {
          factor: 1,
          operations: found.groups.map((g) => likelyOperation(g, job)),
          at: { x: drawing.width / 2, y: drawing.height / 2 },
        };
        const again: Job = { ...job, parts: asDrawn(broughtParts(job, brought, choices, (stem) => `${stem}-${++n}`)) };
        const [before, after] = [linesOf(job, result), linesOf(again, evaluator.evaluate(again, faces))];
        expect([...after.keys()].sort(), name).toEqual([...before.keys()].sort());
        for (const [layer, was] of before) {
          const is = after.get(layer);
          // Lines that run into others come back in more pieces, but none closes. A pass along an edge comes back closed where it
          // stands alone; begun where a line ends, as in a filling, it is one with that.
          const back = (is?.closed ?? 0) + (is?.loops ?? 0);
          expect((is?.open ?? 0) > 0, `${name} ${layer}`).toBe(was.open > 0);
          if (was.open === 0) expect(back, `${name} ${layer}`).toBe(was.closed + was.loops);
          else expect(back, `${name} ${layer}`).toBeGreaterThanOrEqual(was.closed);
          expect(back, `${name} ${layer}`).toBeLessThanOrEqual(was.closed + was.loops);
          const apart = Math.max(farthest(was.lines, is?.lines ?? []), farthest(is?.lines ?? [], was.lines));
          expect(apart, `${name} ${layer}`).toBeLessThan(0.002);
          worst = Math.max(worst, apart);
        }
      }
      figure({
        name: `Our own ${format.toUpperCase()} read back`,
        value: worst,
        digits: 5,
        unit: 'mm',
        aim: { most: 0.002 },
        note: 'worst outline of the sample jobs',
      });
    },
  );
});
