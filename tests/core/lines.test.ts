/** Lines in a job: run on from letter to letter, mended by hand, found wanting, kept as steps. */
import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { laid } from '../../src/core/geometry/lying';
import { closedPath, isContinuous, type Path, pathLength, transformPath } from '../../src/core/geometry/path';
import { KEPT_DIGITS, pathData } from '../../src/core/geometry/path-data';
import { invert } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { drawingOf } from '../../src/core/job/export';
import type { Shaping, Typeface } from '../../src/core/lettering/face';
import { LIMITS } from '../../src/core/limits';
import { mergedLines, pulledToTip, runThrough } from '../../src/core/toolpath/centerline/mend';
import { retraced } from '../../src/core/toolpath/centerline/retrace';
import { joinLetters } from '../../src/core/toolpath/centerline/tails';
import { faces, scriptEngine, typeface } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const open = (...places: readonly (readonly [number, number])[]): Path => ({
  closed: false,
  segments: places.slice(1).map(([x, y], i) => {
    const [fromX, fromY] = places[i] as readonly [number, number];
    return line(fromX, fromY, x, y);
  }),
});
const square: Path = { ...open([0, 0], [10, 0], [10, 10], [0, 10], [0, 0]), closed: true };

describe('stretches gone over twice', () => {
  const [stem, arch] = [open([0, 10], [0, 0]), open([0, 6], [4, 9], [8, 6], [8, 0])];

  test('the pen turns round at the foot of a stem and goes on into the arch', () => {
    const [one, ...none] = retraced([stem, arch], 1);
    expect(none).toEqual([]);
    expect(isContinuous(one as Path)).toBe(true);
    expect(pathLength(one as Path)).toBeCloseTo(pathLength(stem) + 6 + pathLength(arch), 9);
    expect(one?.segments[0]).toMatchObject({ x0: 0, y0: 10 });
  });

  test('whichever way the lines were drawn, and after the arch another', () => {
    const next = open([8, 6], [12, 9], [16, 6], [16, 0]);
    for (const lines of [
      [arch, next, stem],
      [open([0, 0], [0, 10]), next, arch],
    ])
      expect(retraced(lines, 1)).toHaveLength(1);
  });

  test('not back from an end that is met, not at a sharp turn, and not too far', () => {
    const foot = open([-3, 0], [3, 0]);
    expect(retraced([stem, arch, foot], 1)).toHaveLength(3);
    const down = open([0, 6], [4, 7], [4, 0]);
    expect(retraced([open([0, 6.5], [0, 0]), down], 0.1)).toHaveLength(2);
    expect(retraced([stem, arch], 0.2)).toHaveLength(2);
    expect(retraced([square], 1)).toEqual([square]);
  });

  test('as a step', { tags: 'slow' }, () => {
    const lines = (retraced: string) =>
      new Evaluator(scriptEngine).evaluate(jobWith([lined('n', { retraced }, {}, 'Poppins')]), faces).parts[0]?.linework
        .centerline?.paths ?? [];
    const [once, twice] = [lines('once'), lines('twice')];
    expect(once.length).toBe(2);
    expect(twice.length).toBe(1);
    expect(twice.reduce((n, p) => n + pathLength(p), 0)).toBeGreaterThan(once.reduce((n, p) => n + pathLength(p), 0));
  });
});

test('a loop that is nearly filled stays a loop and is told, or is filled', () => {
  const bar = (step: Draft) =>
    new Evaluator(scriptEngine).evaluate(
      jobWith([
        partOf(
          [
            { id: 'bar', kind: 'rectangle', placement: { x: 100, y: 100 }, width: 40, height: 8 },
            { id: 'hole', kind: 'rectangle', role: 'punch', placement: { x: 100, y: 100 }, width: 2, height: 2 },
          ],
          { steps: [{ kind: 'centerline', ...step }], work: [{ what: 'centerline', operation: 'mark' }] },
        ),
      ]),
      faces,
    );
  const [kept, filled] = [bar({}), bar({ loops: 'filled' })];
  expect(filled.parts[0]?.linework.centerline?.paths.map((p) => p.segments.length)).toEqual([1]);
  expect(kept.parts[0]?.linework.centerline?.paths.reduce((n, p) => n + pathLength(p), 0)).toBeGreaterThan(41);
  const loops = (r: JobResult) => r.findings.filter((f) => f.sentence.includes('nearly filled'));
  expect(loops(kept)).toHaveLength(1);
  expect(loops(filled)).toEqual([]);
});

describe('square pieces', () => {
  /** A face that sets every character as its colon, two squares one over the other. */
  const colon = typeface('Saira Stencil One');
  const alikeFace: Typeface = Object.create(colon, {
    shape: {
      value: (text: string, ...more: readonly ['ltr' | 'rtl', Shaping]) =>
        [...text].flatMap((_, i) => colon.shape(':', ...more).map((g) => ({ ...g, cluster: i }))),
    },
  });
  const letters = (text: string) => {
    const steps = [{ kind: 'weld' }, { kind: 'centerline', joined: false }];
    const part = partOf([lettering(text, 'Saira Stencil One')], {
      steps,
      work: [{ what: 'centerline', operation: 'mark' }],
    });
    const result = new Evaluator(scriptEngine).evaluate(jobWith([part]), () => ({ typeface: alikeFace }));
    return result.parts[0]?.linework.centerline?.letters.map((l) => [l.text, l.paths.length, l.dots.length]);
  };

  test('are dots of a colon and short strokes of a letter, though one glyph stands for both, whichever comes first', () => {
    expect(letters(':e')).toEqual([
      [':', 0, 2],
      ['e', 2, 0],
    ]);
    expect(letters('e:')).toEqual([
      ['e', 2, 0],
      [':', 0, 2],
    ]);
  });

  test('may be dots of letters that have some, in any script', () => {
    for (const text of ['i', 'ü', 'ї', 'ب', '∶', '…']) expect(letters(text), text).toEqual([[text, 0, 2]]);
    for (const text of ['e', '8', 'Ω', 'ж']) expect(letters(text), text).toEqual([[text, 2, 0]]);
  });
});

describe('mending by hand', () => {
  test('an end goes on straight to the edge; where there is none ahead the line stays', () => {
    const pulled = pulledToTip(open([5, 5], [7, 5]), 1, [square], 0.01);
    expect(pulled.segments).toHaveLength(2);
    expect(pulled.segments[1]).toMatchObject({ x0: 7, y0: 5, x1: 10, y1: 5 });
    const back = pulledToTip(open([5, 5], [7, 5]), 0, [square], 0.01);
    expect(back.segments[0]).toMatchObject({ x0: 0, y0: 5, x1: 5, y1: 5 });
    const outside = open([12, 5], [14, 5]);
    expect(pulledToTip(outside, 1, [square], 0.01)).toBe(outside);
  });

  test('two ends become one line, four ends two that pass through each other', () => {
    const [west, east, south, north] = [
      open([0, 0], [4, 0]),
      open([6, 0], [10, 0]),
      open([5, -5], [5, -1]),
      open([5, 1], [5, 5]),
    ];
    const one = runThrough(
      [west, east],
      [
        { path: 0, end: 1 },
        { path: 1, end: 0 },
      ],
    );
    expect(one).toHaveLength(1);
    expect(isContinuous(one[0] as Path)).toBe(true);
    expect(pathLength(one[0] as Path)).toBeCloseTo(10, 6);
    const two = runThrough(
      [west, south, east, north],
      [
        { path: 0, end: 1 },
        { path: 1, end: 1 },
        { path: 2, end: 0 },
        { path: 3, end: 0 },
      ],
    );
    expect(two.map((p) => pathLength(p).toFixed(4))).toEqual(['10.0000', '10.0000']);
    // An end too many stays as it is; a line may close on itself.
    expect(
      runThrough(
        [west, east, south],
        [
          { path: 0, end: 1 },
          { path: 1, end: 0 },
          { path: 2, end: 1 },
        ],
      ),
    ).toHaveLength(2);
    const loop = runThrough(
      [open([0, 0], [5, 0], [5, 5], [0, 5])],
      [
        { path: 0, end: 0 },
        { path: 0, end: 1 },
      ],
    );
    expect(loop).toHaveLength(1);
    expect(loop[0]?.closed).toBe(true);
  });

  test('two lines side by side become the one between, whichever way they run', () => {
    for (const other of [open([0, 2], [10, 2]), open([10, 2], [0, 2])]) {
      const made = mergedLines(open([0, 0], [10, 0]), other, 0.01);
      expect(pathLength(made)).toBeCloseTo(10, 3);
      for (const s of made.segments) expect(s.y0).toBeCloseTo(1, 6);
    }
  });
});

describe('from letter to letter', () => {
  const letters = (...lines: Path[][]) => lines.map((paths) => ({ paths, width: 2 }));
  const box = (x0: number, x1: number): Path =>
    closedPath([line(x0, -1, x1, -1), line(x1, -1, x1, 1), line(x1, 1, x0, 1), line(x0, 1, x0, -1)]);
  const inked =
    (...bars: readonly (readonly [number, number])[]) =>
    () =>
      laid(bars.map(([a, b]) => box(a, b)));
  const everywhere = inked([-9, 30]);

  test('a tail that ends in the next letter runs on into its stroke', () => {
    const made = joinLetters(letters([open([0, 0], [10, 0])], [open([9, 0.3], [20, 0.3])]), everywhere);
    expect(made).toHaveLength(1);
    expect(isContinuous(made[0] as Path)).toBe(true);
    expect(pathLength(made[0] as Path)).toBeGreaterThan(19.9);
    expect(pathLength(made[0] as Path)).toBeLessThan(20.3);
  });

  test('what stands apart, runs aside or comes from the same letter does not', () => {
    expect(joinLetters(letters([open([0, 0], [10, 0])], [open([16, 0], [20, 0])]), everywhere)).toHaveLength(2);
    expect(joinLetters(letters([open([0, 0], [10, 0])], [open([10, 0], [10, 9])]), everywhere)).toHaveLength(2);
    expect(joinLetters(letters([open([0, 0], [10, 0]), open([10, 0], [20, 0])]), everywhere)).toHaveLength(2);
    expect(joinLetters([], everywhere)).toEqual([]);
  });

  test('nothing runs over bare stock: letters that do not touch keep their ends, those that do run on', () => {
    const apart = letters([open([0, 0], [10, 0])], [open([12, 0], [20, 0])]);
    expect(joinLetters(apart, everywhere)).toHaveLength(1);
    expect(joinLetters(apart, inked([0, 11], [11, 20]))).toHaveLength(1);
    // Outlines that touch leave a notch that is no gap.
    expect(joinLetters(apart, inked([0, 10.99], [11.01, 20]))).toHaveLength(1);
    expect(joinLetters(apart, inked([0, 10.9], [11.1, 20]))).toHaveLength(2);
  });
});

const lined = (text: string, step: Draft = {}, more: Draft = {}, face = 'Pacifico'): Draft =>
  partOf([lettering(text, face)], {
    steps: [{ kind: 'weld' }, { kind: 'centerline', ...step }],
    work: [{ what: 'centerline', operation: 'mark' }],
    ...more,
  });
const evaluate = (job: Job): JobResult => new Evaluator(scriptEngine).evaluate(job, faces);

describe('in a job', () => {
  test('a script word runs on, or not as asked', { tags: 'slow' }, () => {
    const run = evaluate(jobWith([lined('ill')])).parts[0]?.linework.centerline;
    const apart = evaluate(jobWith([lined('ill', { joined: false })])).parts[0]?.linework.centerline;
    expect(run?.paths.length).toBeLessThan(apart?.paths.length ?? 0);
    for (const path of run?.paths ?? []) expect(isContinuous(path)).toBe(true);
  });

  test('a letter drawn by hand stands for every such letter, here and in other parts, at any size, or for itself', {
    tags: 'slow',
  }, () => {
    const before = evaluate(jobWith([lined('allo')]));
    const [, l] = before.parts[0]?.linework.centerline?.letters ?? [];
    if (!l) throw new Error('no letter');
    const d = pathData(
      [open([l.matrix.e, l.matrix.f], [l.matrix.e + 5, l.matrix.f + 30])].map((p) =>
        transformPath(p, invert(l.matrix)),
      ),
      null,
      KEPT_DIGITS,
    );
    const other = partOf([lettering('hills', 'Pacifico', { size: { by: 'capital', mm: 12 } })], {
      id: 'other',
      steps: [{ kind: 'weld' }, { kind: 'centerline' }],
      work: [{ what: 'centerline', operation: 'mark' }],
    });
    const everywhere = evaluate(
      jobWith([lined('allo', { corrections: [{ letter: l.key, alike: l.alike, d }] }), other]),
    );
    const lengths = (result: JobResult, part: number) =>
      result.parts[part]?.linework.centerline?.letters.map((one) => [one.text, one.corrected] as const);
    expect(lengths(everywhere, 0)).toEqual([
      ['a', false],
      ['l', true],
      ['l', true],
      ['o', false],
    ]);
    expect(
      lengths(everywhere, 1)
        ?.filter(([, corrected]) => corrected)
        .map(([text]) => text),
    ).toEqual(['l', 'l']);
    const small = everywhere.parts[1]?.linework.centerline?.letters.find((one) => one.corrected);
    expect(pathLength(small?.paths[0] as Path)).toBeCloseTo((Math.hypot(5, 30) * 12) / 30, 3);
    const alone = evaluate(jobWith([lined('allo', { corrections: [{ letter: l.key, alike: null, d }] }), other]));
    expect(lengths(alone, 0)?.map(([, corrected]) => corrected)).toEqual([false, true, false, false]);
    expect(lengths(alone, 1)?.some(([, corrected]) => corrected)).toBe(false);
  });

  test('shapes, plates and punched words are traced as they stand', () => {
    const bar = { id: 'bar', kind: 'bar', placement: { x: 100, y: 50 }, width: 60, height: 4, ends: 'round' };
    const result = evaluate(
      jobWith([
        partOf([bar], {
          steps: [{ kind: 'centerline', ends: 'short' }],
          work: [{ what: 'centerline', operation: 'mark' }],
        }),
      ]),
    );
    const lines = result.parts[0]?.linework.centerline?.paths ?? [];
    expect(lines).toHaveLength(1);
    expect(pathLength(lines[0] as Path)).toBeCloseTo(56, 1);
  });

  test('a step that is off, or work that nothing does, draws nothing', () => {
    expect(evaluate(jobWith([lined('a', { on: false })])).parts[0]?.linework.centerline).toBeNull();
    expect(
      evaluate(jobWith([lined('a', {}, { work: [{ what: 'outline', operation: 'mark' }] })])).parts[0]?.linework
        .centerline,
    ).toBeNull();
  });

  test('moving a part moves its lines and computes none anew', () => {
    const evaluator = new Evaluator(scriptEngine);
    const at = (x: number) =>
      jobWith([
        partOf([lettering('Rake', 'Pacifico', { placement: { x, y: 100 } })], {
          steps: [{ kind: 'weld' }, { kind: 'centerline' }],
          work: [{ what: 'centerline', operation: 'mark' }],
        }),
      ]);
    const first = evaluator.evaluate(at(150), faces).parts[0]?.linework.centerline;
    const moved = evaluator.evaluate(at(160), faces).parts[0]?.linework.centerline;
    expect(moved?.paths).toHaveLength(first?.paths.length ?? -1);
    moved?.paths.forEach((p, i) => {
      expect((p.segments[0]?.x0 ?? 0) - (first?.paths[i]?.segments[0]?.x0 ?? 0)).toBeCloseTo(10, 6);
    });
  });

  test('only open lines and whole circles reach the file, in one layer, marks within their own tolerance', () => {
    const read = jobWith([lined('Quince')]);
    const [layer, ...more] = drawingOf(read, evaluate(read))?.layers ?? [];
    expect(more).toEqual([]);
    expect(layer?.tolerance).toBe(0.127);
    expect(layer?.drawn.every((d) => d.kind === 'polyline' || d.kind === 'dot')).toBe(true);
  });
});

describe('found', () => {
  const found = (job: Job) => evaluate(job).findings;

  test('letters of a one-line face too small for their tip', () => {
    const job = (mm: number) =>
      jobWith(
        [
          partOf([lettering('AL-07', 'Hershey Sans', { size: { by: 'capital', mm } })], {
            work: [{ what: 'outline', operation: 'pen' }],
          }),
        ],
        {
          operations: [{ id: 'pen', name: 'Pen', kind: 'mark', tip: 0.8 }],
        },
      );
    expect(found(job(4)).map((f) => f.code)).toEqual(['small-for-tip']);
    expect(found(job(4))[0]?.sentence).toBe(
      'Letters 4 mm high run together under a tip of 0.8 mm: take at least 4.8 mm.',
    );
    expect(found(job(5))).toEqual([]);
  });

  test('lines that are only to be filled', () => {
    const job = jobWith([partOf([lettering('A', 'Hershey Sans')], { work: [{ what: 'fill', operation: 'engrave' }] })]);
    expect(found(job).map((f) => f.code)).toContain('lines-not-filled');
  });

  test('dots on each other, by place, and too many', () => {
    const job = (step: Draft) =>
      jobWith([
        partOf([{ id: 'box', kind: 'rectangle', placement: { x: 100, y: 100 }, width: 100, height: 0.8 }], {
          steps: [{ kind: 'dots', diameter: 1, spacing: 2, ...step }],
          work: [{ what: 'dots', operation: 'mark' }],
        }),
      ]);
    const told = found(job({ apart: false }));
    expect(told.filter((f) => f.code === 'dots-touch')).toHaveLength(LIMITS.clashesNamed);
    expect(told.some((f) => f.code === 'more-dots-touch')).toBe(true);
    expect(told[0]?.box).not.toBeNull();
    expect(found(job({}))).toEqual([]);
    expect(found(job({ spacing: 0.01, diameter: 0.01 })).map((f) => f.code)).toEqual(['too-many-dots']);
    expect(found(job({ changes: [{ x: 5, y: 5, dx: null, dy: null }] })).map((f) => f.code)).toEqual(['dot-gone']);
  });

  test('a jag where strokes meet', () => {
    const told = found(jobWith([lined('A')])).filter((f) => f.code === 'uneven-line');
    expect(told.map((f) => f.sentence)).toContain('How the strokes of “A” go on here is not sure.');
    expect(found(jobWith([lined('o')])).map((f) => f.code)).not.toContain('uneven-line');
  });

  test('uneven lines of a letter once, however often it comes, with the way to mend them', { tags: 'slow' }, () => {
    const told = (text: string) =>
      found(jobWith([lined(text, {}, {}, 'Alfa Slab One')])).filter((f) => f.code === 'uneven-line');
    expect(told('xgkKRWM&').length).toBeGreaterThan(0);
    for (const letter of 'xgkKRWM&') {
      const [one, many] = [told(letter), told(letter.repeat(3))];
      expect(many.length).toBe(one.length);
      for (const f of many) {
        expect(f.sentence).toContain('3 times');
        expect(f.mend).toEqual({ letter: expect.stringMatching(/:\d+$/) });
      }
    }
    const crowd = found(jobWith([lined('xgkKRWM& aebdt QSwyzNVunmhrf348ABEFHIZpq', {}, {}, 'Alfa Slab One')])).map(
      (f) => f.code,
    );
    expect(crowd.filter((code) => code === 'uneven-line')).toHaveLength(LIMITS.unevenNamed);
    expect(crowd).toContain('more-uneven');
  });
});
