/** What an evaluator remembers: only what did not change is taken from before, and it is where it is asked for now. */

import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { drawnLength, drawnPaths, isHatch } from '../../src/core/geometry/drawable';
import { IDENTITY, translation } from '../../src/core/geometry/point';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { transformPart } from '../../src/core/prepare/transform';
import { viewOf } from '../../src/worker/view';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

type Over = {
  at?: readonly [number, number];
  detail?: number;
  angle?: number;
  spacing?: number;
  as?: string;
  least?: number;
  ends?: string;
};

/** Words with everything that is drawn of them: outlines, middle lines, dots, filling, thin places. */
const jobOf = ({
  at = [100, 60],
  detail = 0.45,
  angle = 0,
  spacing = 4,
  as = 'circle',
  least = 3,
  ends = 'tip',
}: Over = {}): Job =>
  jobWith(
    [
      partOf([lettering('oi', 'Dancing Script', { placement: { x: 0, y: 0 }, size: { by: 'capital', mm: 20 } })], {
        placement: { x: at[0], y: at[1] },
        steps: [
          { kind: 'weld' },
          { kind: 'centerline', detail, ends },
          { kind: 'dots', diameter: 1, spacing, as },
          { kind: 'hatch', tool: { shape: 'line', tip: 0.8 }, overlap: 0, least: 1.2, angle },
        ],
        work: [
          { what: 'hatch', operation: 'engrave' },
          { what: 'centerline', operation: 'mark' },
          { what: 'dots', operation: 'mark' },
          { what: 'outline', operation: 'cut' },
        ],
      }),
    ],
    { sheet: { width: 300, height: 200, leastWidth: least, kerf: 0.2 } },
  );
const evaluate = (evaluator: Evaluator, job: Job) => evaluator.evaluate(job, faces);

/** Everything of a result that has a place, as x and y. */
function placesOf(result: JobResult): (readonly [string, number, number])[] {
  const [part] = result.parts;
  if (!part) throw new Error('no part');
  const { strength } = part;
  const { hatch: fill, dots, centerline: lines } = part.linework;
  if (!fill || !dots || !lines) throw new Error('not all is there');
  const drawn = result.operations.flatMap((o) => o.drawn.map((d) => d.drawable));
  const xy = (list: Float64Array) =>
    Array.from(
      { length: list.length / 2 },
      (_, i) => ['stroke', list[2 * i] as number, list[2 * i + 1] as number] as const,
    );
  return [
    ...part.outlines.flatMap((o) => o.path.segments.map((s) => ['outline', s.x0, s.y0] as const)),
    ...part.frames.map((f) => ['frame', f.matrix.e, f.matrix.f] as const),
    ['part', part.box.minX, part.box.minY],
    ...strength.thin.map((s) => ['thin', s.at.x, s.at.y] as const),
    ...lines.paths.flatMap((p) => p.segments.map((s) => ['line', s.x0, s.y0] as const)),
    ...lines.letters.map((l) => ['letter', l.matrix.e, l.matrix.f] as const),
    ...dots.dots.flatMap((d) => [['dot', d.x, d.y] as const, ['home', d.home.x, d.home.y] as const]),
    ...xy(fill.strokes.xy),
    ...fill.edge.flatMap((p) => p.segments.map((s) => ['edge', s.x0, s.y0] as const)),
    ...fill.reached.flatMap((o) => o.path.segments.map((s) => ['reached', s.x0, s.y0] as const)),
    ...fill.cover.places.map((p) => ['missed', p.at.x, p.at.y] as const),
    ...drawn.flatMap((d) => (d.kind === 'dot' ? [['drawn dot', d.at.x, d.at.y] as const] : [])),
    ...drawn.flatMap((d) =>
      d.kind === 'polyline' && !isHatch(d)
        ? drawnPaths(d).flatMap((p) => p.segments.map((g) => ['drawn line', g.x0, g.y0] as const))
        : [],
    ),
    ['work', result.workBox.minX, result.workBox.minY],
  ];
}

const KINDS = [
  'outline',
  'frame',
  'part',
  'thin',
  'line',
  'letter',
  'dot',
  'home',
  'stroke',
  'edge',
  'reached',
  'missed',
  'drawn dot',
  'drawn line',
  'work',
];

describe('a part that is moved', () => {
  test.each([
    ['straight up', 0, 7.5],
    ['straight across', -12.25, 0],
    ['askew', 3, -4],
  ])('%s takes everything that was found about it along', (_, dx, dy) => {
    const evaluator = new Evaluator(wasmEngine);
    const before = placesOf(evaluate(evaluator, jobOf()));
    const after = placesOf(evaluate(evaluator, jobOf({ at: [100 + dx, 60 + dy] })));
    expect(after.map(([what]) => what)).toEqual(before.map(([what]) => what));
    expect([...new Set(before.map(([what]) => what))]).toEqual(KINDS);
    after.forEach(([what, x, y], i) => {
      const [, x0, y0] = before[i] as readonly [string, number, number];
      expect(x, what).toBeCloseTo(x0 + dx, 6);
      expect(y, what).toBeCloseTo(y0 + dy, 6);
    });
    // And back again.
    expect(placesOf(evaluate(evaluator, jobOf()))).toEqual(before);
  });

  test('nowhere is the same part; else another, of the same make', () => {
    const [part] = evaluate(new Evaluator(wasmEngine), jobOf()).parts;
    if (!part) throw new Error('no part');
    expect(transformPart(part, IDENTITY)).toBe(part);
    for (const [dx, dy] of [
      [0, 5],
      [5, 0],
    ] as const) {
      const moved = transformPart(part, translation(dx, dy));
      expect(moved.box.minX).toBeCloseTo(part.box.minX + dx, 9);
      expect(moved.box.minY).toBeCloseTo(part.box.minY + dy, 9);
      expect(moved.outlines[0]?.labels).toBe(part.outlines[0]?.labels);
    }
  });
});

describe('the same part', () => {
  const linesD = (result: JobResult) => viewOf(result).parts[0]?.centerline?.d;

  test.each<[string, Over]>([
    ['lines', { ends: 'short' }],
    ['dots', { spacing: 6 }],
    ['filling', { angle: 90 }],
    ['thin places', { least: 0.3 }],
  ])('with other %s is shown with those', (_, over) => {
    const evaluator = new Evaluator(wasmEngine);
    const first = evaluate(evaluator, jobOf());
    const before = viewOf(first);
    const second = evaluate(evaluator, jobOf(over));
    expect(second.parts[0]?.own).toBe(first.parts[0]?.own);
    const after = viewOf(second, evaluator.memo);
    const fresh = viewOf(evaluate(new Evaluator(wasmEngine), jobOf(over)));
    expect(after).toEqual(fresh);
    expect(after).not.toEqual(before);
    // Asked for again, it is the very view.
    expect(viewOf(evaluate(evaluator, jobOf(over)), evaluator.memo).parts[0]).toBe(after.parts[0]);
  });

  test('with other lines keeps its filling, with another filling its lines', () => {
    const evaluator = new Evaluator(wasmEngine);
    const [first, second, third] = [jobOf(), jobOf({ ends: 'short' }), jobOf({ ends: 'short', angle: 90 })].map((job) =>
      evaluate(evaluator, job),
    ) as [JobResult, JobResult, JobResult];
    expect(linesD(second)).not.toBe(linesD(first));
    expect(linesD(third)).toBe(linesD(second));
    expect(second.parts[0]?.linework.hatch?.strokes.xy).toEqual(first.parts[0]?.linework.hatch?.strokes.xy);
    expect(third.parts[0]?.linework.hatch?.strokes.xy).not.toEqual(second.parts[0]?.linework.hatch?.strokes.xy);
  });

  test('is drawn as its dots are to be now', () => {
    const evaluator = new Evaluator(wasmEngine);
    const radii = (job: Job) =>
      evaluate(evaluator, job)
        .operations.flatMap((o) => o.drawn)
        .flatMap(({ drawable }) => (drawable.kind === 'dot' ? [drawable.r] : []));
    // The dot of the i is a dot of the middle lines, with a radius of its own.
    expect(radii(jobOf()).filter((r) => r === 0.5).length).toBeGreaterThan(10);
    expect(radii(jobOf({ as: 'point' })).filter((r) => r === null).length).toBeGreaterThan(10);
    expect(radii(jobOf({ as: 'point' })).filter((r) => r === 0.5)).toEqual([]);
  });
});

test('nothing of one part is taken for another that is like it', () => {
  const evaluator = new Evaluator(wasmEngine);
  const [like] = jobOf().parts;
  if (!like) throw new Error('no part');
  const both: Job = { ...jobOf(), parts: [like, { ...structuredClone(like), id: 'twin' }] };
  const result = evaluate(evaluator, both);
  const lengthOf = (id: string) =>
    result.operations
      .flatMap((o) => o.drawn)
      .filter((d) => d.partId === id)
      .reduce((sum, d) => sum + drawnLength(d.drawable), 0);
  expect(lengthOf('twin')).toBeGreaterThan(100);
  expect(lengthOf('twin')).toBeCloseTo(lengthOf('part'), 6);
  expect(result.parts.map((p) => p.id)).toEqual(['part', 'twin']);
});

describe('an operation that runs after a cut', () => {
  const operation = (id: string, kind: string, more: Draft = {}) => ({ id, name: `The ${id}`, kind, ...more });
  const told = (operations: Draft[], parts: Draft[]) =>
    evaluate(new Evaluator(wasmEngine), jobWith(parts, { operations }))
      .findings.filter((f) => f.code === 'cut-first')
      .map((f) => f.sentence);
  const part = (id: string, what: string, operationId: string, more: Draft = {}) =>
    partOf([{ id: 'r', kind: 'rectangle', placement: { x: 50, y: 50 }, width: 20, height: 20 }], {
      id,
      work: [{ what, operation: operationId }],
      ...more,
    });
  const sentence = (cut: string, after: string) =>
    `The ${cut} runs before The ${after}: pieces may shift or fall before they are finished.`;
  const parts = [
    part('a', 'outline', 'cut'),
    part('b', 'fill', 'engrave'),
    part('c', 'outline', 'mark'),
    part('d', 'outline', 'rim'),
  ];

  test('is told for each that should run before, with the cut that is first', () => {
    const [cut, engrave, mark, rim] = [
      operation('cut', 'cut'),
      operation('engrave', 'engrave'),
      operation('mark', 'mark'),
      operation('rim', 'cut'),
    ];
    expect(told([engrave, mark, cut, rim], parts)).toEqual([]);
    expect(told([cut, engrave, mark, rim], parts)).toEqual([sentence('cut', 'engrave'), sentence('cut', 'mark')]);
    expect(told([engrave, cut, mark, rim], parts)).toEqual([sentence('cut', 'mark')]);
    expect(told([engrave, cut, rim, mark], parts)).toEqual([sentence('cut', 'mark')]);
    expect(told([rim, cut, engrave, mark], parts)).toEqual([sentence('rim', 'engrave'), sentence('rim', 'mark')]);
    expect(told([operation('mark', 'mark'), cut, rim, engrave], parts)).toEqual([sentence('cut', 'engrave')]);
    const score = [operation('cut', 'cut'), operation('mark', 'score')];
    expect(told(score, [part('a', 'outline', 'cut'), part('c', 'outline', 'mark')])).toEqual([sentence('cut', 'mark')]);
  });

  test('is not where either is off, or does nothing', () => {
    const order = (cut: Draft, engrave: Draft) => [
      operation('cut', 'cut', cut),
      operation('engrave', 'engrave', engrave),
    ];
    const two = [part('a', 'outline', 'cut'), part('b', 'fill', 'engrave')];
    expect(told(order({}, {}), two)).toHaveLength(1);
    expect(told(order({ on: false }, {}), two)).toEqual([]);
    expect(told(order({}, { on: false }), two)).toEqual([]);
    expect(told(order({}, {}), [part('a', 'outline', 'cut', { hidden: true }), two[1] as Draft])).toEqual([]);
    expect(told(order({}, {}), [two[0] as Draft, part('b', 'fill', 'engrave', { hidden: true })])).toEqual([]);
    expect(told(order({}, {}), [two[0] as Draft])).toEqual([]);
  });
});
