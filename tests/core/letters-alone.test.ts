/** Letters worked by themselves: kept to those letters by every kind of work, whatever becomes of the words. */
import { describe, expect, test } from 'vitest';
import { giveLetters, giveWork } from '../../src/core/commands/lines';
import { setWords } from '../../src/core/commands/words';
import type { Job, Work } from '../../src/core/document/schema';
import { drawnLength } from '../../src/core/geometry/drawable';
import { type Box, boxContains, boxWidth, growBox } from '../../src/core/geometry/point';
import { asCut } from '../../src/core/job/as-cut';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { finished } from '../../src/core/memo';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const OPERATIONS = [
  { id: 'one', name: 'Black', kind: 'mark' },
  { id: 'two', name: 'Red', kind: 'mark' },
];
const evaluate = (job: Job) => new Evaluator(wasmEngine).evaluate(job, faces);
type What = Work['what'];
const words = (
  text: string,
  what: What,
  { face = 'Poppins', steps = [], operations = OPERATIONS, ...more }: Draft = {},
) =>
  jobWith(
    [
      partOf([lettering(text, face as string, { id: 'w', size: { by: 'capital', mm: 40 } })], {
        steps: [{ kind: 'weld' }, ...(steps as Draft[])],
        work: [{ what, operation: 'one' }],
        placement: { x: 100, y: 100 },
        ...more,
      }),
    ],
    { operations: operations as Draft[] },
  );
const alone = (
  job: Job,
  what: What,
  only: { letters?: string[]; dots?: boolean },
  operation: string | undefined = 'two',
) => giveLetters(job, 'part', what, { only: { letters: [], dots: false, ...only }, operation });
const drawnBy = (result: JobResult, id: string) =>
  result.operations.filter((o) => o.operation.id === id).flatMap((o) => o.drawn.map((d) => d.drawable));
const boxesBy = (result: JobResult, id: string) => drawnBy(result, id).map((d) => d.box);
const lengthBy = (result: JobResult, id: string) => drawnBy(result, id).reduce((sum, d) => sum + drawnLength(d), 0);

describe('outlines', () => {
  test('the dots of i and j go to another pen, and stay dots', () => {
    const job = alone(words('jib fig', 'outline'), 'outline', { dots: true });
    const result = evaluate(job);
    const dots = boxesBy(result, 'two');
    expect(dots).toHaveLength(3);
    for (const box of dots) expect(boxWidth(box)).toBeLessThan(20);
    expect(drawnBy(result, 'one')).toHaveLength(drawnBy(evaluate(words('jib fig', 'outline')), 'one').length - 3);
    expect(result.operations.map((o) => o.lengthMm)).toEqual(
      [lengthBy(result, 'one'), lengthBy(result, 'two')].map((mm) => expect.closeTo(mm, 6)),
    );
  });

  test('a letter goes with its counter; the rest is the rest', () => {
    const all = evaluate(words('Bone', 'outline'));
    const result = evaluate(alone(words('Bone', 'outline'), 'outline', { letters: ['w:1'] }));
    expect(drawnBy(result, 'two')).toHaveLength(2);
    expect(drawnBy(result, 'one')).toHaveLength(drawnBy(all, 'one').length - 2);
    expect(lengthBy(result, 'one') + lengthBy(result, 'two')).toBeCloseTo(lengthBy(all, 'one'), 6);
  });

  test('an operation that does other work on all letters runs along those alone that it is given', () => {
    const job = giveWork(alone(words('Bone', 'outline'), 'outline', { letters: ['w:1'] }), 'part', 'fill', 'two');
    const lines = drawnBy(evaluate(job), 'two').filter((d) => d.kind === 'outline');
    expect(lines).toHaveLength(2);
  });

  test('a fill and a cut are told of where they have letters in common', () => {
    const operations = [
      { id: 'one', name: 'Cut', kind: 'cut' },
      { id: 'two', name: 'Engrave', kind: 'engrave' },
    ];
    const cut = words('Bone', 'outline', { operations });
    const told = (job: Job) => evaluate(job).findings.some((f) => f.code === 'fill-and-cut');
    expect(told(giveWork(cut, 'part', 'fill', 'two'))).toBe(true);
    const engraved = giveLetters(cut, 'part', 'fill', { only: { letters: ['w:1'], dots: false }, operation: 'two' });
    expect(told(engraved)).toBe(true);
    // The same letter is scored in place of being cut.
    expect(told(alone(engraved, 'outline', { letters: ['w:1'] }))).toBe(false);
  });

  test('openings of a stencil that are given to something else are not missed by the cut', () => {
    const operations = [
      { id: 'one', name: 'Cut', kind: 'cut', kerfSide: 'beside' },
      { id: 'two', name: 'Score', kind: 'score' },
    ];
    const plain = words('Bin', 'outline', { operations, keep: 'outside' });
    const job = alone({ ...plain, sheet: { ...plain.sheet, kerf: 0.4 } }, 'outline', { letters: ['w:2'] });
    expect(evaluate(job).findings.filter((f) => f.code === 'narrower-than-cut')).toEqual([]);
  });

  test('letters alone that are cut out of a plate are scrap: no tab holds them', () => {
    const operations = [
      { id: 'one', name: 'Cut', kind: 'cut', tabs: {} },
      { id: 'two', name: 'Cut 2', kind: 'cut', tabs: {} },
    ];
    const plate = { id: 'r', kind: 'rectangle', placement: { x: 0, y: 15 }, width: 300, height: 90 };
    const letters = lettering('Bin', 'Poppins', {
      id: 'w',
      role: 'punch',
      placement: { x: 0, y: 0 },
      size: { by: 'capital', mm: 40 },
    });
    const job = jobWith(
      [partOf([plate, letters], { work: [{ what: 'outline', operation: 'one' }], placement: { x: 150, y: 150 } })],
      { operations },
    );
    const cuts = evaluate(alone(job, 'outline', { letters: ['w:1', 'w:2'] })).operations.map((o) => o.cuts);
    const tabs = cuts.map((own) => own.reduce((sum, cut) => sum + cut.tabs.length, 0));
    expect(cuts.map((own) => own.length)).toEqual([4, 3]);
    expect(tabs[0]).toBeGreaterThan(0);
    expect(tabs[1]).toBe(0);
  });

  test('letters that hang together are given alike, or not at all, which is found', () => {
    const script = (letters: string[]) =>
      evaluate(alone(words('Lane', 'outline', { face: 'Pacifico' }), 'outline', { letters }));
    const found = (result: JobResult) =>
      result.findings.filter((f) => f.code === 'letter-not-alone').map((f) => f.sentence);
    const one = script(['w:2']);
    expect(drawnBy(one, 'two')).toEqual([]);
    expect(found(one)).toEqual([
      'N of “Lane” hangs together with other letters: it is worked with them, not by itself.',
    ]);
    const all = script(['w:0', 'w:1', 'w:2', 'w:3']);
    expect(found(all)).toEqual([]);
    expect(drawnBy(all, 'one')).toEqual([]);
  });

  test('beside what is kept they are given as well, and as cut only what is cut comes off', () => {
    const operations = [
      { id: 'one', name: 'Cut', kind: 'cut', kerfSide: 'beside' },
      { id: 'two', name: 'Score', kind: 'score' },
    ];
    const plain = { ...words('Bin', 'outline', { operations }) };
    const job = alone({ ...plain, sheet: { ...plain.sheet, kerf: 0.4 } }, 'outline', { letters: ['w:0'] });
    const result = evaluate(job);
    expect(drawnBy(result, 'two')).toHaveLength(3);
    expect(drawnBy(result, 'one')).toHaveLength(3);
    expect(finished(asCut(wasmEngine, job, result))).toHaveLength(3);
  });
});

describe.each<[What, Draft[]]>([
  ['fill', []],
  ['hatch', [{ kind: 'hatch', tool: { shape: 'line', tip: 1 } }]],
  ['hatch', [{ kind: 'hatch', style: 'rings', tool: { shape: 'line', tip: 1 } }]],
  ['centerline', [{ kind: 'centerline' }]],
  ['dots', [{ kind: 'dots', along: 'outline', diameter: 1, spacing: 3 }]],
])('%s', (what, steps) => {
  test('lies within the letters it is given, and what is left within the others', () => {
    const plain = words('Bin', what, { steps });
    const whole = evaluate(plain);
    const result = evaluate(alone(plain, what, { letters: ['w:1'] }));
    const letterBox = (label: number): Box => {
      const own = (whole.parts[0]?.outlines ?? []).filter((o) => o.labels.includes(label)).map((o) => o.box);
      return growBox(
        own.reduce((a, b) => ({
          minX: Math.min(a.minX, b.minX),
          minY: Math.min(a.minY, b.minY),
          maxX: Math.max(a.maxX, b.maxX),
          maxY: Math.max(a.maxY, b.maxY),
        })),
        1,
      );
    };
    const boxes = boxesBy(result, 'two');
    expect(boxes.length).toBeGreaterThan(0);
    for (const box of boxes) expect(boxContains(letterBox(1), box)).toBe(true);
    for (const box of boxesBy(result, 'one')) expect(boxContains(letterBox(1), box)).toBe(false);
    const area = (r: JobResult) => r.operations.reduce((sum, o) => sum + o.fillMm2, 0);
    expect(area(result)).toBeCloseTo(area(whole), 6);
    expect(lengthBy(result, 'one') + lengthBy(result, 'two')).toBeCloseTo(lengthBy(whole, 'one'), 3);
  });

  test('its dots go by themselves', () => {
    const result = evaluate(alone(words('Bin', what, { steps }), what, { dots: true }));
    const boxes = boxesBy(result, 'two');
    expect(boxes.length).toBeGreaterThan(0);
    const { box } = result.parts[0] as { box: Box };
    for (const b of boxes) expect(b.minY).toBeGreaterThan((box.minY + box.maxY) / 2);
  });
});

test('a one-line face: its letters and its dots, which are no outlines', () => {
  const job = words('Dij', 'outline', { face: 'EMS Allure' });
  const dots = evaluate(alone(job, 'outline', { dots: true }));
  const letter = evaluate(alone(job, 'outline', { letters: ['w:2'] }));
  expect(lengthBy(dots, 'two')).toBeGreaterThan(0);
  expect(lengthBy(dots, 'two')).toBeLessThan(lengthBy(dots, 'one') / 8);
  const last = boxesBy(letter, 'two').map((b) => b.minX);
  expect(Math.min(...last)).toBeGreaterThan(Math.min(...boxesBy(letter, 'one').map((b) => b.minX)));
});

test('turned and mirrored it is the same', () => {
  const lengths = (placement: Draft) => {
    const result = evaluate(alone(words('jib', 'outline', { placement }), 'outline', { dots: true }));
    return ['one', 'two'].map((id) => lengthBy(result, id));
  };
  const [one, two] = lengths({ x: 100, y: 100 });
  const turned = lengths({ x: 200, y: 200, turn: 130, mirror: true });
  expect(turned).toEqual([expect.closeTo(one as number, 4), expect.closeTo(two as number, 4)]);
});

test('they are carried through new words, and gone with the letter', () => {
  const job = alone(words('Bin', 'outline'), 'outline', { letters: ['w:1', 'w:2'] });
  const given = (j: Job) => j.parts[0]?.work.map((w) => w.only?.letters ?? null);
  expect(given(setWords(job, 'part', 'w', 'A Bin'))).toEqual([null, ['w:3', 'w:4']]);
  expect(given(setWords(job, 'part', 'w', 'Bn'))).toEqual([null, ['w:1']]);
  expect(given(setWords(job, 'part', 'w', 'B'))).toEqual([null]);
});

describe('giving', () => {
  const job = words('Bin', 'outline');
  const given = (j: Job) => j.parts[0]?.work.map((w) => [w.operation, w.only?.letters.join() ?? '-', w.only?.dots]);
  test('a letter is in one place: taken from where it was', () => {
    const a = alone(job, 'outline', { letters: ['w:0', 'w:1'] });
    const b = giveLetters(a, 'part', 'outline', { only: { letters: ['w:1'], dots: true }, operation: 'one' });
    expect(given(b)).toEqual([
      ['one', '-', undefined],
      ['two', 'w:0', false],
      ['one', 'w:1', true],
    ]);
  });
  test('more letters for the same are one entry; none are none', () => {
    const a = alone(alone(job, 'outline', { letters: ['w:0'] }), 'outline', { letters: ['w:2'], dots: true });
    expect(given(a)?.[1]).toEqual(['two', 'w:0,w:2', true]);
    expect(alone(a, 'outline', { letters: ['w:0', 'w:2'], dots: true }, undefined)).not.toBe(a);
    expect(
      given(giveLetters(a, 'part', 'outline', { only: { letters: ['w:0', 'w:2'], dots: true }, operation: undefined })),
    ).toEqual([['one', '-', undefined]]);
  });
});

test('every shipped face: all that is drawn is drawn once, and the file is given out', { tags: 'slow' }, () => {
  for (const face of FAMILIES) {
    const plain = words('Big jay & oil', 'outline', { face });
    const job = alone(alone(plain, 'outline', { dots: true }), 'outline', { letters: ['w:0'] });
    const [whole, result] = [evaluate(plain), evaluate(job)];
    expect(lengthBy(result, 'one') + lengthBy(result, 'two'), face).toBeCloseTo(lengthBy(whole, 'one'), 4);
    expect(finished(makeFiles(job, result, ['dxf', 'svg'], { partIds: null })).refused, face).toEqual([]);
  }
});
