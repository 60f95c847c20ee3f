/** Islands that nobody would miss: which they are, what becomes of them, and how many bridges decorated letters have. */
import { beforeAll, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import type { JobResult } from '../../src/core/job/evaluate';
import type { PartResult } from '../../src/core/job/part-result';
import { isOfCapitals } from '../../src/core/lettering/capitals';
import type { Typeface } from '../../src/core/lettering/face';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { mendingOf } from '../../src/core/rules/mend';
import { fontOf } from '../support/font';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { evaluator, notesOf } from '../support/stencils';

type Corner = readonly [number, number];
const solid = (x0: number, y0: number, x1: number, y1: number): Corner[] => [
  [x0, y0],
  [x0, y1],
  [x1, y1],
  [x1, y0],
];
const hole = (x0: number, y0: number, x1: number, y1: number): Corner[] => solid(x0, y0, x1, y1).reverse();

/** An L with a thin line in its stem, an O with one beside its counter, an H with three, a plain I and V, and a T in outline. */
const glyphs = [
  {
    char: 'L',
    contours: [
      [
        [80, 0],
        [80, 700],
        [280, 700],
        [280, 180],
        [560, 180],
        [560, 0],
      ] as Corner[],
      hole(160, 60, 185, 640),
    ],
  },
  { char: 'O', contours: [solid(60, 0, 640, 700), hole(270, 180, 430, 520), hole(140, 60, 160, 640)] },
  {
    char: 'H',
    contours: [solid(60, 0, 600, 700), hole(140, 60, 160, 640), hole(300, 300, 320, 420), hole(480, 60, 500, 640)],
  },
  { char: 'I', contours: [solid(80, 0, 240, 700)] },
  {
    char: 'V',
    contours: [
      [
        [240, 0],
        [40, 700],
        [200, 700],
        [300, 300],
        [400, 700],
        [560, 700],
        [360, 0],
      ] as Corner[],
    ],
  },
  // A ring of ink around an island that has a bar of ink, and that a hole.
  {
    char: 'T',
    contours: [solid(0, 0, 700, 700), hole(60, 60, 640, 640), solid(160, 160, 540, 540), hole(250, 250, 450, 450)],
  },
];
let face: Typeface;
beforeAll(async () => {
  const load = await loadTypeface(fontOf({ glyphs }));
  if (!load.ok) throw new Error(load.sentence);
  face = load.typeface;
});

const jobOf = (text: string, bridge: Draft, capital = 70): Job =>
  jobWith(
    [
      partOf([lettering(text, 'Made up', { size: { by: 'capital', mm: capital }, letterSpacing: 5 })], {
        keep: 'outside',
        steps: [{ kind: 'weld' }, { kind: 'bridge', width: 4, ...bridge }],
      }),
    ],
    { sheet: { width: 2000, height: 400 } },
  );
const evaluated = (job: Job): JobResult => evaluator.evaluate(job, () => ({ typeface: face }));
const partIn = (job: Job): PartResult => evaluated(job).parts[0] as PartResult;
const lettersOf = (text: string, islands: readonly { readonly letter: string; readonly rank: number }[]) =>
  islands.map(({ letter, rank }) => `${[...text][Number(letter.split(':')[1])]}${rank}`).sort();

test('a line thinner than its bridge is small; a counter is not, however thin, and nothing is where none was asked', () => {
  const asked = notesOf(partIn(jobOf('LOHI', { small: 'ask' })));
  expect(lettersOf('LOHI', asked.small)).toEqual(['H0', 'H1', 'H2', 'L0', 'O0']);
  expect(lettersOf('LOHI', asked.islands)).toEqual(['O1']);
  expect(asked.islands.every(({ hangs }) => hangs)).toBe(true);
  // Twice its area by the way around it.
  expect(asked.small[0]?.widthMm).toBeCloseTo((2 * 2.5 * 58) / (2 * (2.5 + 58)), 6);
  // The same letters so small that the counter is thinner than a bridge too.
  const tiny = notesOf(partIn(jobOf('LOHI', { small: 'ask' }, 10)));
  expect(lettersOf('LOHI', tiny.islands)).toEqual(['O1']);
  const all = notesOf(partIn(jobOf('LOHI', {})));
  expect(all.small).toEqual([]);
  expect(all.islands).toHaveLength(6);
});

test('wider than a bridge it is bridged', () => {
  expect(notesOf(partIn(jobOf('L', { small: 'ask', width: 2.3 }))).small).toEqual([]);
});

test('asked about they are cut and told; left uncut they are not in the file; dropped nothing is said', () => {
  const job = jobOf('LOHI', { small: 'ask' });
  const asked = evaluated(job);
  const finding = asked.findings.find(({ code }) => code === 'small-islands');
  expect(finding).toMatchObject({
    severity: 'caution',
    sentence: '5 small islands of “LOHI” are not bridged and would drop out: they are up to 2.4 mm wide.',
  });
  expect(asked.findings.filter(({ code }) => code === 'island' || code === 'unbridged')).toEqual([]);
  const ink = (part: PartResult) => part.outlines.filter((o) => o.depth === 0).length;
  const bare = partIn(jobOf('LOHI', { on: false }));
  const part = asked.parts[0] as PartResult;
  expect(part.outlines.length - ink(part)).toBe(5);
  const mending = finding && mendingOf(job, finding);
  if (!mending || !('run' in mending)) throw new Error('not to be mended');
  expect(mending.words).toBe('Leave them uncut');
  const mended = evaluated(mending.run(job, {} as never));
  expect(mended.findings.map(({ code }) => code)).not.toContain('small-islands');
  const filled = mended.parts[0] as PartResult;
  expect(filled.outlines.every((o) => o.depth === 0)).toBe(true);
  expect(notesOf(filled).small).toHaveLength(5);
  const dropped = evaluated(jobOf('LOHI', { small: 'drop' }));
  expect(dropped.findings.map(({ code }) => code)).not.toContain('small-islands');
  expect(dropped.parts[0]?.outlines).toHaveLength(part.outlines.length);
  // What stays is the same: the letters are open there.
  expect(dropped.parts[0]?.solid).toHaveLength(filled.solid.length);
  expect(bare.outlines.length - ink(bare)).toBe(6);
  expect(dropped.parts[0]?.pieces.filter(({ kind }) => kind !== 'main')).toEqual([]);
});

test('what a bridge lies across is not cut', () => {
  // A bridge from the counter of the O to the left lies across its line.
  const pinned = [{ letter: 'words:1', island: 1, x: 270 / 700, y: 0.5, turn: 180 }];
  const islands = [{ letter: 'words:1', island: 1, how: 'hand' }];
  const notes = notesOf(partIn(jobOf('LO', { small: 'drop', pinned, islands })));
  expect(notes.bridges).toHaveLength(1);
  expect(notes.small.map(({ letter, isCut }) => [letter, isCut])).toEqual([
    ['words:0', true],
    ['words:1', false],
  ]);
});

test('one that something was said of is bridged as was said, under the number it had', () => {
  const islands = [{ letter: 'words:0', island: 2, count: 1 }];
  const notes = notesOf(partIn(jobOf('HI', { small: 'fill', islands })));
  expect(lettersOf('HI', notes.small)).toEqual(['H0', 'H1']);
  expect(notes.islands.map(({ rank, bridges }) => [rank, bridges.length])).toEqual([[2, 1]]);
});

test('decorated letters have two bridges on average, those that matter most; a number that was asked for is kept', () => {
  const text = 'TTTTT';
  const free = notesOf(partIn(jobOf(text, { small: 'bridge' })));
  expect(free.bridges.length).toBeGreaterThan(2 * text.length);
  const asked = notesOf(partIn(jobOf(text, { small: 'ask' })));
  expect(asked.bridges.length).toBeLessThanOrEqual(2 * text.length);
  expect(asked.islands).toHaveLength(10);
  expect(asked.islands.every(({ hangs }) => hangs)).toBe(true);
  const counted = notesOf(partIn(jobOf(text, { small: 'ask', count: 2 })));
  expect(counted.bridges).toHaveLength(20);
});

test('letters of other scripts keep all their bridges; small letters drawn as capitals both halves', async () => {
  const holes = [100, 220, 340, 460, 580].map((x) => hole(x, 100, x + 60, 600));
  const halves = [hole(150, 300, 350, 600), hole(150, 80, 190, 200)];
  const withSmall = async (heightOfX: number) => {
    const load = await loadTypeface(
      fontOf({
        glyphs: [
          { char: '中', contours: [solid(0, 0, 740, 700), ...holes] },
          { char: 'b', contours: [solid(0, 0, 500, 700), ...halves] },
          { char: 'p', contours: [solid(0, 0, 500, 700)] },
          { char: 'x', contours: [solid(0, 0, 500, heightOfX)] },
        ],
      }),
    );
    if (!load.ok) throw new Error(load.sentence);
    return load.typeface;
  };
  const [capitals, small] = await Promise.all([withSmall(700), withSmall(500)]);
  const notes = (typeface: Typeface, text: string, capital: number) =>
    notesOf(evaluator.evaluate(jobOf(text, { small: 'ask' }, capital), () => ({ typeface })).parts[0] as PartResult);
  expect(notes(capitals, '中中', 70).small).toEqual([]);
  expect(notes(capitals, '中中', 70).islands.filter(({ hangs }) => hangs)).toHaveLength(10);
  // Both are counters of a B; a b has one, and what else is in it is a loop.
  expect([capitals, small].map(isOfCapitals)).toEqual([true, false]);
  expect(notes(capitals, 'b', 10).small).toEqual([]);
  expect(notes(small, 'b', 10).small).toHaveLength(1);
});

test('dust is no island: it is neither bridged nor told', async () => {
  const load = await loadTypeface(
    fontOf({
      glyphs: [{ char: 'O', contours: [solid(60, 0, 640, 700), hole(200, 180, 500, 520), hole(80, 40, 81, 41)] }],
    }),
  );
  if (!load.ok) throw new Error(load.sentence);
  const result = evaluator.evaluate(jobOf('O', {}, 20), () => ({ typeface: load.typeface }));
  const notes = notesOf(result.parts[0] as PartResult);
  expect(notes.islands.map(({ rank, hangs }) => [rank, hangs])).toEqual([[0, true]]);
  expect(result.findings.filter(({ code }) => code === 'unbridged' || code === 'island')).toEqual([]);
});

test('another answer does not keep what was found under the one before', () => {
  const shape = (small: string) => partIn(jobOf('LOHI', { small })).outlines.length;
  const before = ['bridge', 'ask', 'fill', 'drop'].map(shape);
  expect(['bridge', 'ask', 'fill', 'drop'].map(shape)).toEqual(before);
  expect(new Set(before).size).toBe(3);
});
