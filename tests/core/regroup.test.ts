import { describe, expect, test } from 'vitest';
import { putTogether, splitPart } from '../../src/core/commands/regroup';
import type { Part } from '../../src/core/document/schema';
import { unite } from '../../src/core/geometry/boolean/union';
import { regionArea } from '../../src/core/geometry/path';
import { Evaluator } from '../../src/core/job/evaluate';
import { anyPart, SHEET } from '../support/any-part';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { chance } from '../support/random';

const partFrom = (draft: Draft): Part => jobWith([draft]).parts[0] as Part;
const named = (stem: string) => {
  let n = 0;
  return (taken: readonly string[]) => {
    let id = `${stem}-${++n}`;
    while (taken.includes(id)) id = `${stem}-${++n}`;
    return id;
  };
};

/** Area of everything the parts draw together, in mm². */
function areaOf(parts: readonly Part[]): number {
  const job = { ...jobWith([], { sheet: { width: SHEET[0], height: SHEET[1] } }), parts: [...parts] };
  const drawn = new Evaluator(wasmEngine).evaluate(job, faces).parts.flatMap((p) => p.outlines.map((o) => o.path));
  return regionArea(unite(wasmEngine, drawn));
}

describe('splitting', () => {
  test('what is cut stays the same, whatever the part is made of', { tags: 'slow' }, () => {
    const next = chance(31);
    let split = 0;
    for (let i = 0; i < 60; i++) {
      const part = partFrom({ ...anyPart(next), keep: 'inside' });
      const parts = splitPart(part, named('part'));
      if (parts.length > 1) split++;
      expect(new Set(parts.map((p) => p.id)).size).toBe(parts.length);
      expect(parts.every((p) => p.members.filter((m) => m.role === 'join').length <= 1 || parts.length === 1)).toBe(
        true,
      );
      expect(Math.abs(areaOf(parts) - areaOf([part])), JSON.stringify(part)).toBeLessThan(0.02);
    }
    expect(split).toBeGreaterThan(15);
  });

  test('one joined member is left as it is', () => {
    const part = partFrom(partOf([lettering('A')]));
    expect(splitPart(part, named('part'))).toEqual([part]);
  });
});

describe('putting together', () => {
  test('what is cut stays the same, or it is refused', { tags: 'slow' }, () => {
    const next = chance(5);
    let together = 0;
    for (let i = 0; i < 60; i++) {
      const [a, b] = [partFrom({ ...anyPart(next), keep: 'inside' }), partFrom({ ...anyPart(next), keep: 'inside' })];
      const other = { ...b, id: 'other' };
      const result = putTogether(a, other, named('member'));
      const bothCombine = [a, b].every((p) => p.members.some((m) => m.role !== 'join'));
      expect(result.ok).toBe(!bothCombine);
      if (!result.ok) continue;
      together++;
      const one = { ...a, members: result.members };
      expect(new Set(one.members.map((m) => m.id)).size).toBe(a.members.length + b.members.length);
      expect(Math.abs(areaOf([one]) - areaOf([a, other])), JSON.stringify([a, b])).toBeLessThan(0.02);
    }
    expect(together).toBeGreaterThan(10);
  });

  test('parts given to different operations are refused, so that none is lost', () => {
    const given = (id: string, operation: string, what = 'outline') =>
      partFrom(partOf([lettering('A')], { id, work: [{ what, operation }] }));
    const result = putTogether(given('a', 'cut'), given('b', 'score'), named('member'));
    expect(result.ok ? '' : result.sentence).toMatch(/different operations/);
    expect(putTogether(given('a', 'cut'), given('b', 'cut', 'fill'), named('member')).ok).toBe(false);
    expect(putTogether(given('a', 'cut'), given('b', 'cut'), named('member')).ok).toBe(true);
  });

  test('parts prepared differently are refused, so that no step is lost', () => {
    const prepared = (id: string, steps: Draft[]) => partFrom(partOf([lettering('A')], { id, steps }));
    const weld = { kind: 'weld' };
    const tied = [weld, { kind: 'tie', width: 2 }];
    const result = putTogether(prepared('a', [weld]), prepared('b', tied), named('member'));
    expect(result.ok ? '' : result.sentence).toMatch(/thickened, tied or bordered differently/);
    expect(putTogether(prepared('a', tied), prepared('b', [weld]), named('member')).ok).toBe(false);
    expect(putTogether(prepared('a', tied), prepared('b', tied), named('member')).ok).toBe(true);
    const off = [weld, { kind: 'thicken', on: false, by: 1 }];
    expect(putTogether(prepared('a', [weld]), prepared('b', off), named('member')).ok).toBe(true);
  });

  test('a positive and a negative are refused with a sentence', () => {
    const positive = partFrom(partOf([lettering('A')]));
    const negative = partFrom(partOf([lettering('B')], { keep: 'outside' }));
    const result = putTogether(positive, negative, named('member'));
    expect(result.ok ? '' : result.sentence).toMatch(/can’t be one part/);
  });
});
