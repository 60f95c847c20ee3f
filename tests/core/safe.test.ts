/** Just safe: thickened so far and no farther, sized so large and no larger. */
import { describe, expect, test } from 'vitest';
import type { Part } from '../../src/core/document/schema';
import { leastWidth } from '../../src/core/inspect/strength';
import { Evaluator } from '../../src/core/job/evaluate';
import { atSafeSize, type SafePart, thickenedEnough } from '../../src/core/job/safe';
import { stepIn } from '../../src/core/kinds/steps';
import { finished } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const bar = (width: number, id = 'bar', x = 100): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x, y: 100 },
  width,
  height: 40,
});
const jobOf = (members: Draft[], leastWidthMm: number | null = 3, part: Draft = {}) =>
  jobWith([partOf(members, part)], { sheet: { width: 300, height: 200, leastWidth: leastWidthMm } });
const evaluator = new Evaluator(wasmEngine);
const partOf_ = (safe: SafePart): Part => {
  if (!safe.ok) throw new Error(safe.sentence);
  return safe.part;
};
const thickened = (members: Draft[], least: number | null = 3, part: Draft = {}) =>
  finished(thickenedEnough(jobOf(members, least, part), 'part', { evaluator, faces, capHeightMm: 30 }));
const sized = (members: Draft[], least: number | null = 3, part: Draft = {}) =>
  finished(atSafeSize(jobOf(members, least, part), 'part', evaluator, faces));
/** The narrowest width of what a part comes to, up to `most`. */
const narrowest = (part: Part, most: number) => {
  const ready = evaluator.prepare({ ...jobOf([]), parts: [part] }, part.id, faces);
  if (!ready) throw new Error('no part');
  return leastWidth(ready.kept, most);
};

describe('thickening', () => {
  test('goes just so far that nothing is too thin, to a few micrometres', () => {
    // Both sides of a bar grow: 1 mm to 3 mm takes 1 mm, 2.2 mm takes 0.4 mm, 2.99 mm takes 5 µm.
    for (const [width, by] of [
      [1, 1],
      [2.2, 0.4],
      [2.99, 0.005],
    ] as const) {
      const part = partOf_(thickened([bar(width)]));
      const step = stepIn(part, 'thicken');
      expect(step?.by).toBeGreaterThanOrEqual(by - 0.0026);
      expect(step?.by).toBeLessThanOrEqual(by + 0.0065);
      expect(step?.on).toBe(true);
      expect(narrowest(part, 3)).toBeNull();
      const less = { ...part, steps: part.steps.map((s) => (s.kind === 'thicken' ? { ...s, by: s.by - 0.012 } : s)) };
      expect(narrowest(less, 3)).not.toBeNull();
    }
  });

  test('is not needed where nothing is too thin, and a step that was there goes', () => {
    const steps = [{ kind: 'weld' }, { kind: 'thicken', by: 2 }];
    expect(partOf_(thickened([bar(3.5)], 3, { steps })).steps.map((s) => s.kind)).toEqual(['weld']);
  });

  test('keeps the settings of a step that is there, and puts it on', () => {
    const steps = [{ kind: 'weld' }, { kind: 'thicken', on: false, by: 9, corners: 'mitre' }];
    expect(stepIn(partOf_(thickened([bar(2)], 3, { steps })), 'thicken')).toMatchObject({
      on: true,
      corners: 'mitre',
      by: expect.closeTo(0.5, 2),
    });
  });

  test('that makes a thin neck of two things growing together goes on until that is safe too', () => {
    // Bars 2 mm wide, 1.6 mm apart at an angle: they meet before they are safe.
    const leaning = { ...bar(2, 'leaning', 103.6), placement: { x: 103.6, y: 100, turn: 1.5 } };
    const part = partOf_(thickened([bar(2), leaning]));
    expect(narrowest(part, 3)).toBeNull();
  });

  test('that would take too much is said', () => {
    expect(thickened([bar(0.01)], null)).toEqual({
      ok: false,
      sentence: 'The least safe width is not known: choose a material or type it at station Compose.',
    });
    expect(thickened([bar(0.01)], 0)).toMatchObject({ ok: false });
    expect(finished(thickenedEnough(jobOf([bar(1)]), 'gone', { evaluator, faces, capHeightMm: 30 }))).toEqual({
      ok: false,
      sentence: 'There is nothing to thicken.',
    });
  });
});

describe('the least safe size', () => {
  test('is found from below and from above, to a few thousandths', () => {
    for (const width of [0.2, 1, 2.9, 3.1, 6]) {
      const part = partOf_(sized([bar(width)]));
      const [member] = part.members;
      const now = member?.kind === 'rectangle' ? member.width : Number.NaN;
      // Widths count as safe to 5 µm.
      expect(now, String(width)).toBeGreaterThan(3 - 0.0051);
      expect(now, String(width)).toBeLessThan(3 * 1.004);
      expect(narrowest(part, 3), String(width)).toBeNull();
      // About its middle, with its proportions.
      const { x, y } = part.placement;
      expect(x + (member?.placement.x ?? 0)).toBeCloseTo(100, 5);
      expect(y + (member?.placement.y ?? 0)).toBeCloseTo(100, 5);
      expect(member?.kind === 'rectangle' && member.height / member.width).toBeCloseTo(40 / width, 3);
    }
  });

  test('scales all that a part is made of about its middle', () => {
    const part = partOf_(sized([bar(1), { ...lettering('HI'), id: 'words' }]));
    const before = jobOf([bar(1), { ...lettering('HI'), id: 'words' }]).parts[0] as Part;
    const factor = (part.members[0] as { width: number }).width / 1;
    expect(factor).toBeGreaterThan(2.9);
    const words = part.members[1];
    expect(words?.kind === 'lettering' && words.size.mm).toBeCloseTo(30 * factor, 4);
    const gap = (p: Part) => (p.members[1]?.placement.x ?? 0) - (p.members[0]?.placement.x ?? 0);
    expect(gap(part)).toBeCloseTo(gap(before) * factor, 3);
  });

  test('that no size gives, of nothing, or without a least width, is said', () => {
    const steps = [{ kind: 'weld' }, { kind: 'tie', width: 1 }];
    expect(sized([bar(20), bar(20, 'b', 150)], 3, { steps })).toEqual({
      ok: false,
      sentence: 'No size makes it safe: what is too thin does not grow with it.',
    });
    expect(sized([lettering('  ')])).toEqual({ ok: false, sentence: 'There is nothing to size.' });
    expect(finished(atSafeSize(jobOf([bar(1)]), 'gone', evaluator, faces))).toMatchObject({ ok: false });
    expect(sized([bar(1)], null)).toMatchObject({ ok: false, sentence: expect.stringContaining('least safe width') });
  });
});
