/** Fillings that are held: by what they take in memory, lines and rings alike. */
import { describe, expect, test } from 'vitest';
import type { StepOf } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { newStep } from '../../src/core/kinds/steps';
import { hatchStep } from '../../src/core/kinds/steps/hatch';
import { Memo } from '../../src/core/memo';
import type { PreparedPart } from '../../src/core/prepare/prepared';
import { TOOL_TRY } from '../../src/core/toolpath/hatch/stages';
import { faces, wasmEngine } from '../support/faces';
import { finished } from '../support/generators';
import { jobWith, lettering, partOf } from '../support/jobs';

const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
const step = (style: 'parallel' | 'rings', more: Partial<StepOf<'hatch'>> = {}): StepOf<'hatch'> => ({
  ...newStep('hatch', measure),
  style,
  ...more,
});
const prepared = (text: string): PreparedPart => {
  const part = new Evaluator(wasmEngine).prepare(jobWith([partOf([lettering(text)])]), 'part', faces);
  if (!part) throw new Error('no part');
  return part;
};
const part = prepared('O');
/** Fillings of parts, and tools tried on them, remembered up to so many numbers. */
class Fillings {
  private readonly memo: Memo;
  constructor(numbers?: number) {
    this.memo = new Memo(numbers);
  }
  of = (shape: PreparedPart, step: StepOf<'hatch'>) => {
    const part = { id: shape.id, members: [], isAsSet: true };
    return this.memo.steps(hatchStep.draw, { shape, step, part, made: new Map(), engine: wasmEngine, faces });
  };
  tried = (part: PreparedPart, step: StepOf<'hatch'>) => this.memo.steps(TOOL_TRY, { part, step, engine: wasmEngine });
}
/** So many different tips that each is a filling of its own. */
const tips = [1, 1.1, 1.2, 1.3, 1.4, 1.5].map((tip) => ({ shape: 'line', tip, angle: 60, depth: 0.5 }) as const);

describe.each(['parallel', 'rings'] as const)('fillings by %s', (style) => {
  test('are held while there is room', () => {
    const fillings = new Fillings();
    const of = (tool: (typeof tips)[number]) => finished(fillings.of(part, step(style, { tool })));
    const first = tips.map(of);
    expect(tips.map(of).every((fill, i) => fill === first[i])).toBe(true);
    const tried = (tool: (typeof tips)[number]) => finished(fillings.tried(part, step(style, { tool })));
    const tries = tips.map(tried);
    expect(tips.map(tried).every((one, i) => one === tries[i])).toBe(true);
  });

  test('go when there is none, the oldest first', () => {
    // Room for about two of the six: one takes several thousand numbers.
    const fillings = new Fillings(6_000);
    const of = (tool: (typeof tips)[number]) => finished(fillings.of(part, step(style, { tool })));
    const made = tips.map(of);
    expect(of(tips[5] as (typeof tips)[number])).toBe(made[5]);
    expect(of(tips[0] as (typeof tips)[number])).not.toBe(made[0]);
    const tried = (tool: (typeof tips)[number]) => finished(fillings.tried(part, step(style, { tool })));
    const tries = tips.map(tried);
    expect(tried(tips[5] as (typeof tips)[number])).toBe(tries[5]);
    expect(tried(tips[0] as (typeof tips)[number])).not.toBe(tries[0]);
  });
});

test('what may be left changes no filling; another part, tip or angle is one of its own', () => {
  const fillings = new Fillings();
  const of = (of: PreparedPart, more: Partial<StepOf<'hatch'>> = {}) =>
    finished(fillings.of(of, step('parallel', more)));
  const first = of(part);
  expect(of(part, { mostMissed: 0.5 })).toBe(first);
  expect(of(part, { angle: 10 })).not.toBe(first);
  expect(of(part, { fillMissed: true })).not.toBe(first);
  expect(of(prepared('I'))).not.toBe(first);
});

test('a filling says how far it has come, from little to nearly all; a held one says nothing', () => {
  const fillings = new Fillings();
  for (const told of [() => [...fillings.of(part, step('rings'))], () => [...fillings.tried(part, step('rings'))]]) {
    const shares = told();
    expect(shares[0]).toBeGreaterThan(0);
    expect(shares.at(-1)).toBeGreaterThan(shares[1] ?? 1);
    expect(shares.at(-1)).toBeLessThanOrEqual(1);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(told()).toEqual([]);
  }
});

describe('places that are missed', () => {
  /** Fillings whose short lines are left out, so that corners are missed, large and small. */
  const missedBy = (more: Partial<StepOf<'hatch'>>) => {
    const fillings = new Fillings();
    const tool = { shape: 'line', tip: 1, angle: 60, depth: 0.5 } as const;
    return ['&', 'R', 'e8'].map((text) =>
      finished(
        fillings.of(prepared(text), step('parallel', { tool, overlap: 0, outline: 'none', joined: false, ...more })),
      ),
    );
  };
  const TIP_MM2 = Math.PI / 4;

  test('are told from a tenth of the tip’s area on; smaller ones are only counted', () => {
    const fills = missedBy({ least: 1.5 });
    const places = fills.flatMap((f) => f.cover.places);
    expect(places.length).toBeGreaterThan(10);
    expect(Math.min(...places.map((p) => p.areaMm2))).toBeGreaterThanOrEqual(0.1 * TIP_MM2);
    expect(places.some((p) => p.areaMm2 < 0.2 * TIP_MM2)).toBe(true);
    for (const { cover } of fills) {
      const told = cover.places.reduce((sum, p) => sum + p.areaMm2, 0);
      expect(cover.missed).toBeGreaterThan(told + 0.01);
      // The largest first.
      expect(cover.places.map((p) => p.areaMm2)).toEqual(cover.places.map((p) => p.areaMm2).sort((a, b) => b - a));
    }
  });

  test('are none where there is room between the lines on purpose', () => {
    for (const { cover } of missedBy({ overlap: -1 })) {
      expect(cover.places).toEqual([]);
      expect(cover.missed).toBeGreaterThan(1);
    }
  });

  test('are filled where that is asked for, and then none is left', () => {
    for (const fill of missedBy({ least: 1.5, fillMissed: true })) {
      expect(fill.overMissed.xy.length).toBeGreaterThan(0);
      expect(fill.cover.places).toEqual([]);
    }
  });
});
