/** What closes when outlines grow, told by letter. */
import { describe, expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { newStep } from '../../src/core/kinds/steps';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const told = (text: string, step: Draft, more: Draft = {}, face = 'Archivo Black'): string[] =>
  new Evaluator(wasmEngine)
    .evaluate(
      jobWith([
        partOf([lettering(text, face, { size: { by: 'capital', mm: 20 }, ...more })], {
          steps: [{ kind: 'weld' }, { kind: 'thicken', ...step }],
        }),
      ]),
      faces,
    )
    .findings.filter((f) => /close|grow/.test(f.code))
    .map((f) => f.sentence);

describe('what closes by thickening', () => {
  test('every hole, every opening, and what grows together', () => {
    const all = told('Bea', { by: 2 });
    expect(all).toContain('B, e and a grow together.');
    expect(all.filter((s) => /^The hole of/.test(s))).toEqual([
      expect.stringMatching(/^The hole of B closes: nothing is left/),
      expect.stringMatching(/^The hole of B closes/),
      expect.stringMatching(/^The hole of e closes/),
      expect.stringMatching(/^The hole of a closes/),
    ]);
  });

  test('an opening that becomes a hole is none of those there were', () => {
    const sentences = told('e', { by: 1.2 }, {}, 'Poppins');
    expect(sentences.some((s) => s === 'The opening of e closes and becomes a hole.')).toBe(true);
  });

  test('a dot that grows onto its stem is told of one letter', () => {
    expect(told('i', { by: 1.5 }, {}, 'Poppins')).toContain('The parts of i grow together.');
  });

  test('the second of two alike is told from the first, and many are counted', () => {
    expect(told('oo', { by: 3.4 }, { letterSpacing: 0.8 })).toEqual([
      expect.stringMatching(/^The hole of the first o closes/),
      expect.stringMatching(/^The hole of the second o closes/),
    ]);
    expect(told('minimum', { by: 2 }, {}, 'Poppins').some((s) => /and 5 more grow together\.$/.test(s))).toBe(true);
  });

  test('nothing is told where nothing closes, of thinning, or of a step that is off', () => {
    expect(told('HO', { by: 0.2 })).toEqual([]);
    expect(told('Bea', { by: -0.3 })).toEqual([]);
    expect(told('Bea', { by: 2, on: false })).toEqual([]);
    expect(told('Bea', { by: 0 })).toEqual([]);
  });

  test('holes are kept open by new steps', () => {
    const measure = { capHeightMm: 20, leastWidthMm: null, kerfMm: null };
    expect(newStep('thicken', measure).holesOpen).toBe(0.8);
    expect(newStep('thicken', { ...measure, leastWidthMm: 2 }).holesOpen).toBe(2);
    expect(newStep('thicken', { ...measure, capHeightMm: 2 }).holesOpen).toBe(0.5);
    expect(told('Bea', { by: 2, holesOpen: 0.8 }).some((s) => /^The hole/.test(s))).toBe(false);
  });

  test('where it lies on the sheet is told, wherever the part lies', () => {
    const at = (x: number, turn: number) =>
      new Evaluator(wasmEngine)
        .evaluate(
          jobWith([
            partOf([lettering('e')], {
              placement: { x, y: 40, turn },
              steps: [{ kind: 'weld' }, { kind: 'thicken', by: 4 }],
            }),
          ]),
          faces,
        )
        .findings.find((f) => f.code === 'hole-closes')?.box;
    const [here, there] = [at(0, 0), at(60, 0)];
    if (!here || !there) throw new Error('not told');
    expect(there.minX - here.minX).toBeCloseTo(60, 6);
    expect(at(0, 90)).toBeDefined();
  });
});
