/** Lines gone along twice: told where a user has laid them so, refused where the program did; strokes of faces and of letters once. */
import { describe, expect, test } from 'vitest';
import { alongOnce, doubledStretches, doubledWithin } from '../../src/core/geometry/doubles';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { type Path, pathLength } from '../../src/core/geometry/path';
import { cubic, line } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { reportOf } from '../../src/core/job/report';
import { twiceWithin } from '../../src/core/rules/twice';
import { faces, LINE_FAMILIES, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const evaluated = (parts: Draft[], more: Draft = {}) => {
  const job = jobWith(parts, more);
  const result = evaluator.evaluate(job, faces);
  const told = result.findings.filter((f) => f.code === 'drawn-twice');
  return { job, result, told, sentences: told.map((f) => f.sentence) };
};
const plate = (id: string, x: number, more: Draft = {}): Draft =>
  partOf([{ id: 'r', kind: 'rectangle', placement: { x, y: 50 }, width: 40, height: 20 }], {
    id,
    name: id,
    ...more,
  });
const score = { work: [{ what: 'outline', operation: 'score' }] };
const totalLength = (paths: readonly Path[]) => paths.reduce((sum, p) => sum + pathLength(p), 0);

describe('two parts', () => {
  test('that share an edge: how long, which, by what operation, and where', () => {
    const { told, sentences } = evaluated([plate('Left', 50), plate('Right', 90)]);
    expect(sentences).toEqual(['“Left” and “Right” lie on each other along 20 mm: Cut goes along it twice.']);
    expect(told[0]).toMatchObject({ severity: 'caution', station: 'assign', partId: 'Left' });
    expect(told[0]?.box?.minX).toBeCloseTo(70, 3);
    expect(told[0]?.box?.maxX).toBeCloseTo(70, 3);
  });

  test('on each other: all of it', () => {
    expect(evaluated([plate('One', 50), plate('Two', 50)]).sentences[0]).toContain('along 120 mm');
  });

  test('apart, crossing, touching in a corner, or worked by two operations: nothing is told', () => {
    expect(evaluated([plate('A', 50), plate('B', 90.01)]).sentences).toEqual([]);
    expect(evaluated([plate('A', 50), plate('B', 60, { placement: { x: 0, y: 7 } })]).sentences).toEqual([]);
    expect(evaluated([plate('A', 50), plate('B', 90, { placement: { x: 0, y: 20 } })]).sentences).toEqual([]);
    expect(evaluated([plate('A', 50), plate('B', 50, score)]).sentences).toEqual([]);
  });

  test('of which one is hidden, or whose operation is off: nothing', () => {
    expect(evaluated([plate('A', 50), plate('B', 50, { hidden: true })]).sentences).toEqual([]);
    const operations = [{ id: 'cut', name: 'Cut', kind: 'cut', on: false }];
    expect(evaluated([plate('A', 50), plate('B', 50)], { operations }).sentences).toEqual([]);
  });

  test('one of which is moved away: told no more, and again when it is back', () => {
    const memo = new Evaluator(wasmEngine);
    const at = (x: number) =>
      memo
        .evaluate(jobWith([plate('A', 50), plate('B', 50, { placement: { x, y: 0 } })]), faces)
        .findings.filter((f) => f.code === 'drawn-twice').length;
    expect([at(0), at(100), at(0), at(40), at(40.5)]).toEqual([1, 0, 1, 1, 0]);
  });
});

describe('one part', () => {
  const drawn = (d: string, more: Draft = {}) =>
    evaluated([
      partOf([{ id: 'p', kind: 'path', d, placement: { x: 50, y: 50 } }], { name: 'Hand', ...score, ...more }),
    ]);

  test('whose lines run along each other', () => {
    const { told, sentences, job, result } = drawn('M0 0L30 0M10 0L50 0', { placement: { x: 10, y: 5 } });
    expect(sentences).toEqual(['“Hand” has 20 mm of line drawn twice: Score goes along it twice.']);
    expect(told[0]?.box?.minY).toBeCloseTo(55, 6);
    expect(reportOf(job, result).operations.find((o) => o.id === 'score')?.twiceMm).toBeCloseTo(20, 6);
    expect(drawn('M0 0L30 0M10 1L50 1').sentences).toEqual([]);
  });

  test('whose letters are not welded', () => {
    const words = (weld: boolean) =>
      evaluated([
        partOf(
          [0, 20].map((x) => ({
            id: `r${x}`,
            kind: 'rectangle',
            placement: { x: 50 + x, y: 50 },
            width: 40,
            height: 20,
          })),
          { steps: [{ kind: 'weld', on: weld }] },
        ),
      ]).sentences;
    expect(words(true)).toEqual([]);
    expect(words(false)[0]).toContain('has 40 mm of line drawn twice');
  });

  test('with stems gone along twice by choice: asked for, so that only the report tells it', () => {
    const made = (retraced: string) =>
      evaluated([
        partOf([lettering('nm', 'Poppins')], {
          steps: [{ kind: 'weld' }, { kind: 'centerline', retraced }],
          work: [{ what: 'centerline', operation: 'mark' }],
        }),
      ]);
    const [once, twice] = [made('once'), made('twice')];
    const told = ({ job, result }: typeof once) =>
      reportOf(job, result).operations.find((o) => o.id === 'mark')?.twiceMm;
    expect([once.sentences, twice.sentences]).toEqual([[], []]);
    expect(told(once)).toBe(0);
    expect(told(twice)).toBeGreaterThan(20);
  });
});

describe('centerlines', () => {
  test.each(['once', 'twice'])('of words that lie on each other go %s along what they have in common', (retraced) => {
    const same = [0, 1].map((i) => ({ ...lettering('HE', 'Poppins'), id: `w${i}` }));
    const lengthOf = (members: Draft[]) =>
      evaluated([
        partOf(members, {
          steps: [{ kind: 'weld' }, { kind: 'centerline', retraced }],
          work: [{ what: 'centerline', operation: 'mark' }],
        }),
      ]).result.operations.find((o) => o.operation.id === 'mark')?.lengthMm ?? 0;
    const [one, both] = [lengthOf(same.slice(0, 1)), lengthOf(same)];
    if (retraced === 'once') expect(both).toBeCloseTo(one, 2);
    else expect(both).toBeGreaterThan(one * 0.99);
  });
});

describe('one-line faces', () => {
  test.each(LINE_FAMILIES)('%s: no stroke goes back along itself', (face) => {
    const text = 'HEARTBEAT\nhamburgefonstiv\n0123456789\n$&*éñü';
    const { result } = evaluated([
      partOf([lettering(text, face, { letterSpacing: 0.5 })], { work: [{ what: 'outline', operation: 'mark' }] }),
    ]);
    const drawn = result.operations.flatMap((o) => o.drawn.map((d) => d.drawable));
    const length = totalLength(drawn.flatMap(drawnPaths));
    expect(length).toBeGreaterThan(2000);
    // Strokes that cross or touch at a flat angle are near each other for a moment.
    expect(twiceWithin(drawn) / length).toBeLessThan(0.001);
  });
});

describe('stretches found', () => {
  const there = line(0, 0, 10, 0);
  test('of lines in part, of curves as a whole, once each', () => {
    expect(doubledWithin([there, line(4, 0, 14, 0)], 0.002)).toEqual([
      { of: 1, along: 0, lengthMm: expect.closeTo(6, 6) },
    ]);
    expect(doubledWithin([there, line(10, 0, 4, 0)], 0.002)[0]?.lengthMm).toBeCloseTo(6, 6);
    const curve = cubic(0, 0, 3, 4, 6, 4, 9, 0);
    expect(doubledWithin([curve, curve], 0.002)).toHaveLength(1);
    expect(doubledWithin([there, line(0, 0.01, 10, 0.01), line(5, -5, 5, 5)], 0.002)).toEqual([]);
  });

  test('between two lists, by their own numbers; within each nothing is looked at', () => {
    const [one, two] = [
      [there, there],
      [line(0, 5, 9, 5), line(6, 0, 20, 0), line(6, 0, 20, 0)],
    ];
    expect(doubledStretches(one, two, 0.002).map(({ of, along }) => [of, along])).toEqual([
      [0, 1],
      [0, 2],
      [1, 1],
      [1, 2],
    ]);
    expect([doubledStretches(one, [], 0.002), doubledStretches([], two, 0.002)]).toEqual([[], []]);
  });

  test('lines along each other are left once, in pieces; closed ones and all others as they are', () => {
    const open = (...segments: Path['segments'][number][]): Path => ({ segments, closed: false });
    const stem = open(line(0, 0, 0, 10), line(0, 10, 0, 5), line(0, 5, 6, 5));
    const once = alongOnce([stem], 0.002);
    expect(once.map((p) => p.segments.length)).toEqual([1, 1]);
    expect(totalLength(once)).toBeCloseTo(16, 9);
    const others = [open(line(0, 0, 3, 3)), open(line(0, 3, 3, 0))];
    expect(alongOnce(others, 0.002)).toBe(others);
    const ring: Path = { closed: true, segments: [line(0, 0, 9, 0), line(9, 0, 0, 9), line(0, 9, 0, 0)] };
    expect(alongOnce([open(line(2, 0, 5, 0)), ring], 0.002)).toEqual([ring]);
  });
});
