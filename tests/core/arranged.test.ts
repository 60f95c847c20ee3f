/** Arranging by bounds, and what is exported of a job. */
import { describe, expect, test } from 'vitest';
import { putTogether, splitPart } from '../../src/core/commands/regroup';
import { colourOf } from '../../src/core/document/colour-of';
import type { Job, Operation } from '../../src/core/document/schema';
import { type Drawable, dot, drawnPaths, polyline, polylines } from '../../src/core/geometry/drawable';
import { alignTo, levelBaselines, snapTo, spaceEqually } from '../../src/core/job/arrange';
import type { DrawnWork } from '../../src/core/job/drawn';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { dotTotals, totalSetDowns } from '../../src/core/job/totals';
import { area } from '../support/drawables';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, partOf } from '../support/jobs';

const box = (minX: number, minY: number, maxX: number, maxY: number) => ({ minX, minY, maxX, maxY });

describe('arranging', () => {
  const [small, large] = [box(10, 20, 14, 26), box(100, 50, 180, 90)];

  test.each([
    ['left', 90, 0],
    ['centre', 128, 0],
    ['right', 166, 0],
    ['bottom', 0, 30],
    ['middle', 0, 47],
    ['top', 0, 64],
  ] as const)('to the %s', (edge, dx, dy) => expect(alignTo(small, large, edge)).toEqual({ dx, dy }));

  test('gaps become equal, the first and the last stay, whatever order they come in', () => {
    const boxes = [box(50, 0, 60, 1), box(0, 0, 10, 1), box(12, 0, 32, 1)];
    expect(spaceEqually(boxes, 'across')).toEqual([
      { dx: 0, dy: 0 },
      { dx: 0, dy: 0 },
      { dx: 8, dy: 0 },
    ]);
    const upright = boxes.map((b) => box(b.minY, b.minX, b.maxY, b.maxX));
    expect(spaceEqually(upright, 'upright')[2]).toEqual({ dx: 0, dy: 8 });
    // By their middles, not their edges: the large one is in between though it begins first.
    const wide = [box(0, 0, 10, 1), box(-20, 0, 80, 1), box(70, 0, 90, 1)];
    expect(spaceEqually(wide, 'across').map((m) => m.dx)).toEqual([0, 10, 0]);
    expect(spaceEqually(boxes.slice(0, 2), 'across').every((m) => m.dx === 0)).toBe(true);
    expect(spaceEqually([], 'across')).toEqual([]);
    // Off the origin, and overlapping: they overlap equally.
    const over = [box(100, 0, 120, 1), box(105, 0, 125, 1), box(118, 0, 138, 1)];
    expect(spaceEqually(over, 'across').map((m) => m.dx)).toEqual([0, 4, 0]);
  });

  test('baselines go to the height of the first', () => {
    expect(levelBaselines([5, 8, 2])).toEqual([
      { dx: 0, dy: 0 },
      { dx: 0, dy: -3 },
      { dx: 0, dy: 3 },
    ]);
  });

  test('of guides within reach the nearest is snapped to, of equally near ones the first', () => {
    const own = [{ at: 10, words: 'Left' }];
    const guide = (at: number, words: string) => ({ at, words });
    expect(snapTo(own, [guide(13, 'far'), guide(12, 'near')], 3)).toEqual({ by: 2, at: 12, words: 'Left on near' });
    expect(snapTo(own, [guide(8, 'first'), guide(12, 'second')], 3)?.words).toBe('Left on first');
    expect(snapTo(own, [guide(13, 'at reach')], 3)?.by).toBe(3);
    expect(snapTo(own, [guide(13.001, 'beyond')], 3)).toBeNull();
    expect(snapTo([guide(10, 'A'), guide(20, 'B')], [guide(21, 'g')], 5)).toEqual({ by: 1, at: 21, words: 'B on g' });
  });
});

describe('what is exported', () => {
  const rect = (id: string, x: number, more: Draft = {}): Draft => ({
    id,
    kind: 'rectangle',
    placement: { x, y: 60 },
    width: 20,
    height: 10,
    ...more,
  });
  const drawn = (job: Job, partIds: string[] | null = null) =>
    drawingOf(job, new Evaluator(wasmEngine).evaluate(job, faces), { partIds });
  const two = (more: Draft = {}) =>
    jobWith(
      [
        partOf([rect('r', 50)], { id: 'a', name: 'Plate' }),
        partOf([rect('r', 100)], { id: 'b', work: [{ what: 'outline', operation: 'mark' }] }),
      ],
      { sheet: { width: 300, height: 200, material: 'Ply', thickness: 3 }, ...more },
    );
  const left = (job: Job, partIds: string[] | null = null) =>
    drawn(job, partIds)?.layers.map((l) =>
      l.drawn.map((d) => Math.min(...drawnPaths(d).flatMap((p) => p.segments.map((g) => g.x0)))),
    );

  test('fits the work, whose corner is the origin, or is the sheet', () => {
    expect(drawn(two())).toMatchObject({ title: 'Trial', width: 70, height: 10 });
    expect(left(two())).toEqual([[50], [0]]);
    const sheet = two({ export: { page: 'sheet' } });
    expect(drawn(sheet)).toMatchObject({ width: 300, height: 200 });
    expect(left(sheet)).toEqual([[90], [40]]);
  });

  test('is only the parts that are asked for, and what they alone take up', () => {
    expect(drawn(two(), ['b'])).toMatchObject({ width: 20, layers: [{ name: 'Mark' }] });
    expect(left(two(), ['b'])).toEqual([[0]]);
    expect(drawn(two(), ['gone'])).toBeNull();
    expect(drawn(two(), [])).toBeNull();
    expect(drawn(two(), ['a', 'b'])?.layers.map((l) => l.name)).toEqual(['Mark', 'Cut']);
  });

  test('has the tolerance of what is marked, and of the rest', () => {
    const job = two({ export: { arcTolerance: 0.01, markTolerance: 0.2 } });
    expect(drawn(job)?.layers.map((l) => [l.name, l.tolerance])).toEqual([
      ['Mark', 0.2],
      ['Cut', 0.01],
    ]);
  });

  test('has the operation’s own colour, or the colour key’s', () => {
    const job = two();
    const cut = job.operations.find((o) => o.kind === 'cut') as Operation;
    expect(colourOf(cut, job)).toBe(job.colourKey.cut);
    expect(colourOf({ ...cut, colour: '#123456' }, job)).toBe('#123456');
  });

  test('is written in each format', () => {
    const drawing = drawn(two());
    if (!drawing) throw new Error('nothing is drawn');
    const start = (format: 'svg' | 'dxf' | 'pdf') =>
      new TextDecoder('latin1').decode(writeFile(drawing, format, two().export)).slice(0, 5);
    expect([start('svg'), start('pdf'), start('dxf')]).toEqual(['<?xml', '%PDF-', '  0\r\n']);
  });
});

describe('what an operation amounts to', () => {
  const drawn = (drawable: Drawable): DrawnWork => ({ partId: 'p', what: 'outline', drawable });
  const dotOf = (r: number | null) => drawn(dot({ x: 0, y: 0 }, r));
  const one = drawn(polyline({ closed: false, segments: [] }));
  const fill = drawn(area());
  const [packed] = polylines({ xy: new Float64Array(10), start: Int32Array.of(0, 2, 5) });
  const strokes = drawn(packed as Drawable);

  test('is how often the tool is set down: once a line, a dot, a stroke, never for an area', () => {
    expect(totalSetDowns([])).toBe(0);
    expect(totalSetDowns([dotOf(1), one])).toBe(2);
    expect(totalSetDowns([fill])).toBe(0);
    expect(totalSetDowns([strokes, strokes, dotOf(null), fill])).toBe(5);
  });

  test('is dots by size, points first, then the smallest', () => {
    expect(dotTotals([dotOf(1), dotOf(0.25), dotOf(null), dotOf(1.00000001), one, dotOf(0.5), dotOf(null)])).toEqual([
      { diameterMm: null, count: 2 },
      { diameterMm: 0.5, count: 1 },
      { diameterMm: 1, count: 1 },
      { diameterMm: 2, count: 2 },
    ]);
    expect(dotTotals([one, fill])).toEqual([]);
  });
});

describe('parts taken apart and put together', () => {
  const plain = (id: string, role = 'join'): Draft => ({
    id,
    role,
    kind: 'rectangle',
    placement: { x: 0, y: 0 },
    width: 5,
    height: 5,
  });
  const one = (members: Draft[], more: Draft = {}) => jobWith([partOf(members, more)]).parts[0] as Job['parts'][number];
  const ids = (taken: readonly string[]) => `new-${taken.length}`;
  const membersOf = (parts: readonly Job['parts'][number][]) => parts.map((p) => p.members.map((m) => m.id).join());

  test('every joined member takes along what is cut out after it, the first what stood before it', () => {
    const part = one(
      [plain('p', 'punch'), plain('a'), plain('b'), plain('c', 'clip'), plain('d'), plain('e', 'punch')],
      { name: 'Sign' },
    );
    const parts = splitPart(part, ids);
    expect(membersOf(parts)).toEqual(['p,a,c,e', 'b,c,e', 'd,e']);
    expect(parts.map((p) => p.id)).toEqual(['part', 'new-1', 'new-2']);
    expect(parts.map((p) => p.name)).toEqual(['Sign', 'Sign 2', 'Sign 3']);
    expect(splitPart(one([plain('a'), plain('b')]), ids).map((p) => p.name)).toEqual(['', '']);
    expect(parts[1]?.members[0]).not.toBe(part.members[2]);
  });

  test('with one joined member, or none, a part is left as it is', () => {
    for (const members of [
      [plain('a'), plain('b', 'punch')],
      [plain('a', 'punch'), plain('b', 'clip')],
      [plain('a')],
    ]) {
      const part = one(members);
      expect(splitPart(part, ids)).toEqual([part]);
    }
  });

  test('the one that cuts out comes first; all are joined, and names both have are told apart', () => {
    const [cutting, whole] = [one([plain('a'), plain('b', 'punch')]), one([plain('a'), plain('c')])];
    const names = (taken: readonly string[]) => `x${taken.length}`;
    const together = putTogether(cutting, whole, names);
    expect(together.ok && together.members.map((m) => [m.id, m.role])).toEqual([
      ['a', 'join'],
      ['b', 'punch'],
      ['x2', 'join'],
      ['c', 'join'],
    ]);
    const turned = putTogether(whole, cutting, names);
    expect(turned.ok && turned.members.map((m) => m.id)).toEqual(['a', 'b', 'x2', 'c']);
    const both = putTogether(cutting, one([plain('d', 'clip')]), names);
    expect(both).toMatchObject({ ok: false, sentence: expect.stringContaining('Both parts have something cut out') });
    expect(putTogether(whole, one([plain('d')]), names).ok).toBe(true);
  });

  test('work counts whatever its order, steps that are off or weld do not', () => {
    const work = (order: number[]) => ({
      work: order.map(
        (i) =>
          [
            { what: 'outline', operation: 'cut' },
            { what: 'fill', operation: 'engrave' },
          ][i] as Draft,
      ),
    });
    const names = () => 'x';
    expect(putTogether(one([plain('a')], work([0, 1])), one([plain('b')], work([1, 0])), names).ok).toBe(true);
    expect(putTogether(one([plain('a')], work([0])), one([plain('b')], work([0, 1])), names).ok).toBe(false);
    const steps = (list: Draft[]) => ({ steps: list });
    expect(
      putTogether(
        one([plain('a')], steps([{ kind: 'weld', on: false }])),
        one([plain('b')], steps([{ kind: 'weld' }])),
        names,
      ).ok,
    ).toBe(true);
    expect(
      putTogether(one([plain('a')], steps([{ kind: 'thicken', by: 1 }])), one([plain('b')], steps([])), names),
    ).toMatchObject({ ok: false });
    expect(putTogether(one([plain('a')], { keep: 'outside' }), one([plain('b')]), names)).toMatchObject({ ok: false });
  });
});
