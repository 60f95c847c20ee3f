/** Plates of their own, and emblems: letters cut out of them, bridged to their own stock. */
import { describe, expect, test } from 'vitest';
import type { PreparedPart } from '../../src/core/prepare/prepared';
import { faces } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { evaluator, notesOf, partIn, weld } from '../support/stencils';

describe('plate', () => {
  const plated = (plate: Draft, more: Draft = {}) =>
    partIn(
      jobWith([
        partOf([lettering('GATE', 'Archivo Black')], {
          keep: 'outside',
          steps: [weld, { kind: 'plate', ...plate }],
          ...more,
        }),
      ]),
    );

  test('margins around the words, round corners, holes at their insets', () => {
    const bare = plated({ on: false });
    const part = plated({ across: 12, upright: 8, corner: 5, holes: 'corners', holeWidth: 4, inset: 6 });
    expect(part.keep).toBe('inside');
    expect(part.box.minX).toBeCloseTo(bare.box.minX - 12, 9);
    expect(part.box.maxY).toBeCloseTo(bare.box.maxY + 8, 9);
    const holes = part.outlines.filter((o) => o.depth === 1 && o.labels.every((l) => l < 0));
    expect(holes).toHaveLength(4);
    const [hole] = [...holes].sort((a, b) => a.box.minX - b.box.minX || a.box.minY - b.box.minY);
    expect((hole?.box.minX ?? 0) - part.box.minX).toBeCloseTo(4, 9);
    expect((hole?.box.maxX ?? 0) - (hole?.box.minX ?? 0)).toBeCloseTo(4, 9);
    expect(part.pieces.filter((p) => p.kind === 'island')).toHaveLength(1);
  });

  test('an ellipse goes around the words; words wider than the plate cut it open', () => {
    const ellipse = plated({ shape: 'ellipse', across: 5, upright: 5, holes: 'sides', inset: 6 });
    expect(ellipse.pieces.filter((p) => p.kind !== 'island')).toHaveLength(1);
    const narrow = plated({ across: -10, upright: 5 });
    const rim = (part: PreparedPart) => part.outlines.filter((o) => o.depth === 0).flatMap((o) => [...o.labels]);
    expect(rim(ellipse).every((label) => label < 0)).toBe(true);
    expect(rim(narrow).some((label) => label >= 0)).toBe(true);
    expect(narrow.box.minX).toBeGreaterThan(plated({ on: false }).box.minX);
  });

  test('its margin and the web between letters count for strength; the web can be spaced', () => {
    const findings = (members: Draft, plate: Draft) =>
      evaluator.evaluate(
        jobWith(
          [
            partOf([lettering('HH', 'Archivo Black', members)], {
              keep: 'outside',
              steps: [weld, { kind: 'plate', ...plate }],
            }),
          ],
          {
            sheet: { width: 300, height: 200, leastWidth: 3 },
          },
        ),
        faces,
      ).findings;
    const [web] = findings({ letterSpacing: -0.13 }, { across: 20, upright: 20 }).filter((f) => f.code === 'thin');
    expect(web?.sentence).toMatch(/^Between the first H and the second H it is [\d.]+ mm wide here; 3 mm is the least/);
    expect(web?.mend).toMatchObject({ memberId: 'words' });
    expect(findings({ letterSpacing: 0.2 }, { across: 20, upright: 20 })).toEqual([]);
    const margin = findings({ letterSpacing: 0.2 }, { across: 20, upright: 1 });
    expect(margin.some((f) => f.code === 'thin')).toBe(true);
    const hole = findings(
      { letterSpacing: 0.2 },
      { across: 20, upright: 20, holes: 'corners', holeWidth: 5, inset: 3.5 },
    );
    expect(hole.some((f) => f.code === 'thin')).toBe(true);
  });

  test('bridges hold its islands to it', () => {
    const part = partIn(
      jobWith([
        partOf([lettering('BOARD', 'Archivo Black')], {
          keep: 'outside',
          steps: [weld, { kind: 'plate' }, { kind: 'bridge', width: 3 }],
        }),
      ]),
    );
    expect(part.pieces).toHaveLength(1);
  });
});

describe('emblems', () => {
  test('lettering punched into a shape is bridged to the shape, and its thin webs are told', () => {
    const job = jobWith(
      [
        partOf(
          [
            { id: 'heart', kind: 'heart', placement: { x: 150, y: 100 }, width: 180, height: 170 },
            lettering('POD', 'Archivo Black', { role: 'punch', placement: { x: 150, y: 95 } }),
          ],
          { steps: [weld, { kind: 'bridge', width: 3 }] },
        ),
      ],
      { sheet: { width: 300, height: 200, leastWidth: 2 } },
    );
    const result = evaluator.evaluate(job, faces);
    expect(result.parts[0]?.pieces).toHaveLength(1);
    expect(notesOf(result.parts[0] as PreparedPart).islands).toHaveLength(3);
    const bare = evaluator.evaluate({ ...job, parts: job.parts.map((p) => ({ ...p, steps: [] })) }, faces);
    const island = bare.findings.find((f) => f.code === 'island');
    expect(island?.sentence).toBe('The middle of P will drop out.');
    expect(island?.mend).toEqual({ letter: 'words:0', island: 0 });
  });
});
