/** Steps of a part: their order, and the first values they have, by the size they are made for. */
import { describe, expect, test } from 'vitest';
import { newCloseUp } from '../../src/core/commands/defaults';
import { checkJob } from '../../src/core/document/read';
import { JOB_FORMAT, type Step } from '../../src/core/document/schema';
import { newStep, STEPS, stepIn, withStep } from '../../src/core/kinds/steps';

const KINDS = STEPS.map((s) => s.kind);
const large = { capHeightMm: 60, leastWidthMm: null, kerfMm: null };
const small = { capHeightMm: 3, leastWidthMm: null, kerfMm: null };
const strong = { capHeightMm: 60, leastWidthMm: 12, kerfMm: 0.1 };

describe('first values', () => {
  test('suit the height of a capital', () => {
    expect(newStep('thicken', large)).toMatchObject({ by: 0.6, corners: 'round', holesOpen: 2.4 });
    expect(newStep('bar', large)).toMatchObject({ at: 'under', height: 10, overlap: 2.4, beyond: 0, ends: 'square' });
    expect(newStep('tie', large)).toMatchObject({
      width: 5,
      overlap: 2.4,
      ends: 'square',
      direction: 'any',
      answers: [],
    });
    expect(newStep('border', large)).toMatchObject({
      distance: 15,
      envelope: false,
      bridge: 0,
      smooth: 0,
      holesFrom: null,
    });
    expect(newStep('plate', large)).toMatchObject({
      across: 20,
      upright: 20,
      corner: 0,
      holes: 'none',
      holeWidth: 5,
      inset: 10,
    });
    expect(newStep('nodes', large)).toMatchObject({ d: '', unit: 60 });
    expect(newStep('bridge', large)).toMatchObject({
      width: 3,
      count: 0,
      slanted: true,
      alike: true,
      level: false,
      islands: [],
      pinned: [],
    });
    expect(newStep('centerline', large)).toMatchObject({ detail: 0.45, smooth: null, joined: true, corrections: [] });
    expect(newStep('dots', large)).toMatchObject({
      diameter: 3,
      spacing: 4.5,
      even: true,
      apart: true,
      as: 'circle',
      changes: [],
    });
    expect(newStep('hatch', large)).toMatchObject({
      joined: true,
      fillMissed: false,
      tool: { shape: 'line', tip: 3 },
      overlap: 0.3,
    });
    expect(newCloseUp(large)).toEqual({ overlap: 1.5, words: false, lines: false, joints: 'best', pairs: [] });
  });

  test('are never nothing, however small it is', () => {
    expect(newStep('thicken', small)).toMatchObject({ by: 0.05 });
    expect(newStep('tie', small)).toMatchObject({ width: 0.3, overlap: 0.1 });
    expect(newStep('bar', small)).toMatchObject({ height: 0.5, overlap: 0.1 });
    expect(newStep('plate', small)).toMatchObject({ across: 1, inset: 5 });
    expect(newStep('dots', small)).toMatchObject({ diameter: 0.3, spacing: 0.5 });
    expect(newStep('hatch', { ...small, capHeightMm: 0.4 })).toMatchObject({ tool: { tip: 0.05 } });
    expect(newStep('nodes', { ...small, capHeightMm: 0 })).toMatchObject({ unit: 0.01 });
    expect(newCloseUp({ ...small, capHeightMm: 1 })).toMatchObject({ overlap: 0.1 });
  });

  test('are as wide as is safe in the material, and wider where a flame cuts', () => {
    expect(newStep('bar', strong)).toMatchObject({ height: 12 });
    expect(newStep('tie', strong)).toMatchObject({ width: 12 });
    expect(newStep('bridge', strong)).toMatchObject({ width: 12 });
    expect(newCloseUp(strong)).toMatchObject({ overlap: 14.4 });
    expect(newStep('bridge', { ...large, kerfMm: 0.9 })).toMatchObject({ width: 5 });
    expect(newStep('bridge', { ...large, kerfMm: 0.89 })).toMatchObject({ width: 3 });
  });

  test.each(KINDS)('of %s are switched on, and a document takes them as they are', (kind) => {
    for (const measure of [large, small, strong]) {
      const step = newStep(kind, measure);
      expect(step).toMatchObject({ kind, on: true });
      const read = checkJob({
        format: 1,
        sheet: { width: 10, height: 10 },
        parts: [{ id: 'p', members: [], steps: [step] }],
      });
      expect(read).toMatchObject({ ok: true, job: { parts: [{ steps: [step] }] } });
    }
  });
});

describe('the steps of a part', () => {
  const all = KINDS.map((kind) => newStep(kind, large)) as Step[];

  test('are in one order, whatever was put in first', () => {
    let steps: Step[] = [];
    for (const step of [...all].reverse()) steps = withStep(steps, step);
    expect(steps.map((s) => s.kind)).toEqual(KINDS);
    steps = [];
    for (const step of all.filter((_, i) => i % 2 === 0)) steps = withStep(steps, step);
    for (const step of all.filter((_, i) => i % 2 === 1)) steps = withStep(steps, step);
    expect(steps.map((s) => s.kind)).toEqual(KINDS);
  });

  test('are one of a kind: another takes the place of the one there was', () => {
    const wide = { ...newStep('tie', large), width: 9 };
    const steps = withStep(all, wide);
    expect(steps).toHaveLength(all.length);
    expect(stepIn({ steps }, 'tie')).toBe(wide);
    expect(stepIn({ steps: [] }, 'tie')).toBeUndefined();
    expect(all.find((s) => s.kind === 'tie')).not.toBe(wide);
  });

  test('keep the order a document has them in, and others of the kind', () => {
    const list = [newStep('border', large), newStep('thicken', large), newStep('thicken', small)];
    const thicker = { ...newStep('thicken', large), by: 3 };
    expect(withStep(list, thicker)).toEqual([list[0], thicker, list[2]]);
    expect(withStep(list, newStep('bridge', large)).map((s) => s.kind)).toEqual([
      'border',
      'thicken',
      'thicken',
      'bridge',
    ]);
    expect(withStep(list, newStep('weld', large)).map((s) => s.kind)).toEqual(['weld', 'border', 'thicken', 'thicken']);
  });
});

describe('a list of steps', () => {
  const said = (...kinds: Step['kind'][]) =>
    checkJob({
      format: JOB_FORMAT,
      sheet: { width: 10, height: 10 },
      parts: [{ id: 'p', placement: { x: 0, y: 0 }, members: [], steps: kinds.map((kind) => newStep(kind, large)) }],
    });

  test('is taken in the order of the places, outline steps in any order and as often as it likes', () => {
    expect(said(...KINDS).ok).toBe(true);
    expect(said('weld', 'border', 'thicken', 'border', 'bar', 'thicken', 'nodes', 'bridge', 'hatch', 'dots').ok).toBe(
      true,
    );
  });

  test.each(STEPS.filter((s) => s.isSingle).map((s) => s.kind))('has one %s at most', (kind) => {
    expect(said(kind, kind)).toEqual({
      ok: false,
      sentences: [`parts[0].steps[1]: a part has one step “${kind}” at most.`],
    });
  });

  test.each<[Step['kind'], Step['kind'], string]>([
    ['weld', 'thicken', 'weld can’t come after “thicken”'],
    ['border', 'nodes', 'border can’t come after “nodes”'],
    ['nodes', 'bridge', 'outlines by hand can’t come after “bridge”'],
    ['bridge', 'centerline', 'bridges can’t come after “centerline”'],
  ])('has %s before %s', (before, after, sentence) => {
    expect(said(before, after).ok).toBe(true);
    expect(said(after, before)).toEqual({ ok: false, sentences: [`parts[0].steps[1]: ${sentence}.`] });
  });
});

test('every kind says all there is to say, and by itself', () => {
  expect(new Set(KINDS).size).toBe(STEPS.length);
  for (const { kind, schema, word, rules } of STEPS) {
    expect(schema.shape.kind.value).toBe(kind);
    expect(word).toMatch(/^[a-z]/);
    for (const rule of rules) expect(rule.code).toMatch(/^[a-z-]+$/);
  }
});
