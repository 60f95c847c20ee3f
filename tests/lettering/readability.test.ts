/** How readable letters stay: one figure for joints, bridges, thickening and whatever else is done to them. */
import { describe, expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import type { PartResult } from '../../src/core/job/part-result';
import { Memo } from '../../src/core/memo';
import { meanReadability, readabilityOf } from '../../src/core/prepare/readability';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { inFull } from '../support/scale';

const CAP = 20;
const memory = new Memo();
const evaluator = new Evaluator(wasmEngine);
const evaluated = (members: Draft[], more: Draft = {}): PartResult =>
  evaluator.evaluate(jobWith([partOf(members, more)]), faces).parts[0] as PartResult;
const words = (text: string, face: string, more: Draft = {}): Draft =>
  lettering(text, face, { size: { by: 'capital', mm: CAP }, align: 'left', placement: { x: 20, y: 80 }, ...more });
const readable = (members: Draft[], more: Draft = {}): number =>
  meanReadability(readabilityOf(evaluated(members, more), null, memory));

const weld = { kind: 'weld' };
const joined = (joints: string, overlap: number): Draft => ({ closeUp: { overlap, words: true, joints } });

describe('one figure', () => {
  test('nothing is measured where nothing was done, and nothing is lost where nothing changed', () => {
    expect(evaluated([words('Taverne', 'Poppins')]).readability).toEqual([]);
    for (const family of ['Poppins', 'Libre Baskerville', 'Pacifico', 'Caveat'])
      for (const text of ['Taverne', 'AVATAR', 'fjord', 'Wy. To'])
        for (const placement of [
          { x: 20, y: 80 },
          { x: 150, y: 90, turn: 33, mirror: true },
        ])
          for (const { figure: left } of readabilityOf(evaluated([words(text, family, { placement })]), null, memory))
            expect(left).toBeGreaterThan(98);
  });

  test('letters are told by their labels, holes in a plate as well as what stays', () => {
    const text = 'BeO';
    const steps = [weld, { kind: 'bridge', width: 2 }];
    for (const more of [
      { keep: 'outside', steps },
      { keep: 'outside', steps: [weld, { kind: 'plate' }, { kind: 'bridge', width: 2 }] },
    ]) {
      const { readability, sources } = evaluated([words(text, 'Poppins')], more);
      expect(readability.map(({ label }) => sources[label]?.text)).toEqual([...text]);
      for (const { figure: left } of readability) {
        expect(left).toBeGreaterThan(60);
        expect(left).toBeLessThan(99.9);
      }
    }
  });

  test('wider bridges, and more of them, leave less', () => {
    const bridged = (step: Draft) =>
      readable([words('Boden', 'Poppins')], { keep: 'outside', steps: [weld, { kind: 'bridge', ...step }] });
    expect(bridged({ width: 1 })).toBeGreaterThan(bridged({ width: 3 }));
    expect(bridged({ width: 2, count: 1 })).toBeGreaterThan(bridged({ width: 2, count: 3 }));
  });

  test('letters that are hard to read are findings, the worst first; others are none', () => {
    const found = (more: Draft, steps: Draft[] = [weld]) =>
      evaluator
        .evaluate(jobWith([partOf([words('Mimi', 'Archivo Black', more)], { steps })]), faces)
        .findings.filter((f) => f.code === 'hard-to-read');
    expect(found(joined('best', 2))).toEqual([]);
    const worst = found(joined('overlap', 6));
    expect(worst.length).toBeGreaterThan(0);
    expect(worst[0]?.sentence).toMatch(/is hard to read: \d+ % is left of what tells it from other letters\.$/);
    const left = worst.map((f) => Number(/(\d+) %/.exec(f.sentence)?.[1]));
    expect(left).toEqual([...left].sort((a, b) => a - b));
    expect(worst[0]?.box && worst[0].box.maxX > worst[0].box.minX).toBe(true);
  });
});

describe('what a tool leaves', () => {
  const cut = (mm: number, kerf: number | null, more: Draft = {}) =>
    evaluator.evaluate(
      jobWith([partOf([words('Reed', 'Poppins', { size: { by: 'capital', mm } })], { steps: [weld], ...more })], {
        sheet: { width: 300, height: 200, kerf },
      }),
      faces,
    );
  const meanOf = (result: ReturnType<typeof cut>) => meanReadability(result.parts[0]?.readability ?? []);

  test('a kerf is looked at from a fiftieth of a capital on, and only of what is cut', () => {
    expect(cut(20, 0.39).parts[0]?.readability).toEqual([]);
    expect(cut(20, 0.41).parts[0]?.readability).toHaveLength(4);
    expect(cut(20, null).parts[0]?.readability).toEqual([]);
    const engraved = { work: [{ what: 'fill', operation: 'engrave' }] };
    expect(cut(4, 0.6, engraved).parts[0]?.readability).toEqual([]);
  });

  test('the wider the kerf the less is left; letters that it eats are found', () => {
    const figures = [0.1, 0.3, 0.5].map((kerf) => meanOf(cut(4, kerf)));
    expect(figures[0]).toBeGreaterThan(85);
    expect(figures[1]).toBeLessThan(figures[0] as number);
    expect(figures[2]).toBeLessThan(figures[1] as number);
    const codes = (kerf: number) => cut(4, kerf).findings.filter(({ code }) => code === 'hard-to-read').length;
    expect(codes(0.1)).toBe(0);
    expect(codes(0.75)).toBeGreaterThan(0);
  });

  test('a kerf widens letters that are cut out, and thins those that stay', () => {
    const stencil = cut(6, 0.5, { keep: 'outside' });
    const sign = cut(6, 0.5);
    for (const result of [stencil, sign]) {
      expect(result.parts[0]?.readability).toHaveLength(4);
      expect(meanOf(result)).toBeLessThan(99);
      expect(meanOf(result)).toBeGreaterThan(60);
    }
    expect(meanOf(stencil)).not.toBeCloseTo(meanOf(sign), 1);
  });

  test('a filling is read by what its tool gets to, wherever the part lies', () => {
    const filled = (tip: number, placement: Draft = { x: 0, y: 0 }) =>
      evaluator.evaluate(
        jobWith([
          partOf([words('Reed', 'Poppins')], {
            placement,
            steps: [weld, { kind: 'hatch', tool: { shape: 'round', tip, depth: tip } }],
            work: [{ what: 'hatch', operation: 'engrave' }],
          }),
        ]),
        faces,
      );
    expect(filled(0.3).parts[0]?.readability).toEqual([]);
    const [fine, coarse] = [meanOf(filled(1)), meanOf(filled(3.2))];
    expect(fine).toBeGreaterThan(95);
    expect(coarse).toBeLessThan(fine - 3);
    expect(meanOf(filled(3.2, { x: 13, y: 7, turn: 31 }))).toBeCloseTo(coarse, 0);
  });
});

/** A strip out of a letter where it matters most, and one as wide where it matters least: in shares of its box, and level or upright. */
const STRIPS: readonly (readonly [string, (readonly [number, number, 'level' | 'upright'])[]])[] = [
  // What closes an O against a C; the top of it.
  [
    'O',
    [
      [0.93, 0.5, 'level'],
      [0.5, 0.95, 'upright'],
    ],
  ],
  // The bar that parts an e from a c; its crown.
  [
    'e',
    [
      [0.5, 0.47, 'upright'],
      [0.5, 0.95, 'upright'],
    ],
  ],
  // The bowl that parts a P from an F; its foot.
  [
    'P',
    [
      [0.92, 0.72, 'level'],
      [0.15, 0.1, 'level'],
    ],
  ],
  // The arm that parts an E from an F; the middle of its stem.
  [
    'E',
    [
      [0.6, 0.06, 'upright'],
      [0.12, 0.3, 'level'],
    ],
  ],
];

test('of a good and a spoiled word the good one is told in 95 of 100', { tags: 'slow' }, () => {
  const outlined = FAMILIES.filter((f) => f !== 'Saira Stencil One');
  const families = inFull ? outlined : outlined.slice(0, 4);
  let [right, all] = [0, 0];
  const wrong: string[] = [];
  const compare = (what: string, good: number, spoiled: number) => {
    all++;
    if (good > spoiled) right++;
    else wrong.push(`${what}: ${good.toFixed(1)} against ${spoiled.toFixed(1)}`);
  };
  for (const family of families) {
    // Stems merged: letters moved together by a third of a capital, against joined as reads best.
    for (const text of ['Mimi', 'Lilly', 'HILL', 'Quintin', 'nullmm', 'WILLIAM'])
      compare(
        `${family} ${text} joined`,
        readable([words(text, family, joined('best', 1.5))]),
        readable([words(text, family, joined('overlap', 6))]),
      );
    // Counters closed, against thickened a little.
    for (const text of ['Bea', 'Goose', 'ADOBE', 'abode', '8689'])
      compare(
        `${family} ${text} thickened`,
        readable([words(text, family)], { steps: [weld, { kind: 'thicken', by: 0.3 }] }),
        readable([words(text, family)], { steps: [weld, { kind: 'thicken', by: 2.5 }] }),
      );
    // Bridges as they come, against bridges so wide that little is left of the bowls.
    for (const text of ['Bodega', 'ROPE', '6890'])
      compare(
        `${family} ${text} bridged`,
        readable([words(text, family)], {
          keep: 'outside',
          steps: [weld, { kind: 'bridge', width: 1.5, reads: true }],
        }),
        readable([words(text, family)], {
          keep: 'outside',
          steps: [weld, { kind: 'bridge', width: 7, count: 2, direction: 'level' }],
        }),
      );
    // A strip out of one letter, where it matters and where it does not.
    for (const [letter, places] of STRIPS) {
      const bare = evaluated([words(letter, family)]);
      const { minX, minY, maxX, maxY } = bare.box;
      const strip = ([x, y, way]: readonly [number, number, 'level' | 'upright']): Draft => ({
        id: 'strip',
        kind: 'rectangle',
        role: 'punch',
        placement: { x: minX + x * (maxX - minX), y: minY + y * (maxY - minY) },
        width: way === 'level' ? 0.35 * (maxX - minX) : 2.5,
        height: way === 'level' ? 2.5 : 0.28 * (maxY - minY),
      });
      const [key, harmless] = places as [(typeof places)[0], (typeof places)[0]];
      compare(
        `${family} ${letter} cut`,
        readable([words(letter, family), strip(harmless)]),
        readable([words(letter, family), strip(key)]),
      );
    }
  }
  figure({
    name: `Pairs of a good and a spoiled word told right by readability, of ${all}`,
    value: (100 * right) / all,
    digits: 1,
    unit: '%',
    note: wrong.slice(0, 6).join('; '),
  });
  if (process.env.NEEDLEFILE_SAYS) console.log(all, wrong.join('\n'));
  expect(all).toBe(18 * families.length);
  expect(right / all).toBeGreaterThanOrEqual(0.95);
});
