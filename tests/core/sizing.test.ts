/** How large things are, what sizing sizes, and sizing to a width or a height. */
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { type Job, jobSchema } from '../../src/core/document/schema';
import { boxHeight, boxWidth } from '../../src/core/geometry/point';
import { factorFor } from '../../src/core/geometry/root';
import { Evaluator } from '../../src/core/job/evaluate';
import { sized, sizingTo } from '../../src/core/job/size';
import { STEPS } from '../../src/core/kinds/steps';
import { finished } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const plate: Draft = { id: 'plate', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 80, height: 40 };
const name = lettering('Oak', 'Poppins', {
  placement: { x: 0, y: -5 },
  size: { by: 'capital', mm: 12 },
  role: 'punch',
});

describe('every length of a step', () => {
  type Field = {
    properties?: Record<string, Field>;
    anyOf?: Field[];
    type?: string;
    description?: string;
    const?: string;
  };
  const schema = z.toJSONSchema(jobSchema, { io: 'output' }) as unknown as {
    properties: { parts: { items: { properties: { steps: { items: { oneOf: Field[] } } } } } };
  };
  const steps = schema.properties.parts.items.properties.steps.items.oneOf;
  const isNumber = (f: Field): boolean => f.type === 'number' || (f.anyOf ?? []).some(isNumber);

  test('that is told in mm grows along or stays: none is forgotten, and none is made up', () => {
    const told = new Map(
      steps.map((s) => [
        s.properties?.kind?.const ?? '',
        Object.entries(s.properties ?? {})
          .filter(([, f]) => isNumber(f) && /\bmm\b|^The same/.test(f.description ?? 'mm'))
          .map(([key]) => key)
          .sort(),
      ]),
    );
    expect([...told.keys()].sort()).toEqual(STEPS.map((s) => s.kind).sort());
    for (const { kind, lengths } of STEPS) {
      const own: string[] = [...lengths.grows, ...lengths.stays];
      const expected = (told.get(kind) ?? []).filter((key) => key !== 'unit');
      expect(own.sort(), kind).toEqual(expected);
    }
  });
});

describe('the factor that comes to a value', () => {
  const limits = { met: 1e-6, least: 1e-4, most: 1e4 };
  test.each<[string, (f: number) => number, number]>([
    ['straight', (f) => 30 * f, 508],
    ['straight, with a share that stays', (f) => 30 * f + 12, 20],
    ['bent', (f) => 10 * f ** 1.7 + 2, 300],
    ['flat, then steep', (f) => (f < 2 ? 10 + 0.001 * f : 10 + 40 * (f - 2)), 37],
  ])('%s', (_, of, target) => {
    let asked = 0;
    const factor = factorFor(
      (f) => {
        asked++;
        return of(f);
      },
      target,
      limits,
    );
    expect(Math.abs(of(factor) - target)).toBeLessThan(1e-6);
    expect(asked).toBeLessThan(20);
  });

  test('that is never met is the nearest tried; of a straight one the second is it', () => {
    expect(30 + 10 * factorFor((f) => 30 + 10 * f, 20, limits)).toBeLessThan(30.1);
    let asked = 0;
    factorFor(
      (f) => {
        asked++;
        return 3 * f;
      },
      12,
      limits,
    );
    expect(asked).toBe(2);
    expect(factorFor((f) => 3 * f, 3, limits)).toBe(1);
    expect(factorFor(() => 0, 3, limits)).toBe(1);
  });
});

describe('sizing to a width', () => {
  const jobs: readonly (readonly [string, Job])[] = [
    ['a plate with its words', jobWith([partOf([plate, name], { placement: { x: 100, y: 80 } })])],
    [
      'words with a bar, thickened and bordered',
      jobWith([
        partOf([lettering('Oak', 'Poppins', { placement: { x: 0, y: 0 } })], {
          placement: { x: 100, y: 80, turn: 20, mirror: true },
          steps: [
            { kind: 'weld' },
            { kind: 'thicken', by: 0.5 },
            { kind: 'bar', height: 3 },
            { kind: 'border', distance: 4 },
          ],
        }),
      ]),
    ],
    [
      'lines down the middle',
      jobWith([
        partOf([lettering('Oak', 'Poppins', { placement: { x: 0, y: 0 } })], {
          placement: { x: 100, y: 80 },
          steps: [{ kind: 'weld' }, { kind: 'centerline' }],
          work: [{ what: 'centerline', operation: 'mark' }],
        }),
      ]),
    ],
  ];
  const chosen = { partIds: ['part'], memberId: null };

  test.each(jobs)('%s: to the hundredth of a millimetre, the lower left corner stays', (_, job) => {
    const before = evaluator.boxOf(job, chosen, faces);
    for (const [side, mm] of [
      ['width', 508],
      ['height', 31.5],
    ] as const)
      for (const everything of [false, true]) {
        const sizing = finished(sizingTo(job, chosen, { side, mm, everything, evaluator, faces }));
        if (!sizing) throw new Error('not sized');
        const after = evaluator.boxOf(sized(job, chosen, sizing, everything), chosen, faces);
        expect(Math.abs((side === 'width' ? boxWidth(after) : boxHeight(after)) - mm)).toBeLessThan(0.01);
        expect(after.minX).toBeCloseTo(before.minX, 3);
        expect(after.minY).toBeCloseTo(before.minY, 3);
      }
  });

  test('of several parts, and of a member, as one; of nothing it is none', () => {
    const job = jobWith([
      partOf([plate, name], { id: 'a', placement: { x: 60, y: 50 } }),
      partOf([{ ...plate, id: 'b' }], { id: 'b', placement: { x: 200, y: 120, turn: 30 } }),
    ]);
    const both = { partIds: ['a', 'b'], memberId: null };
    const sizing = finished(sizingTo(job, both, { side: 'width', mm: 400, everything: false, evaluator, faces }));
    if (!sizing) throw new Error('not sized');
    expect(boxWidth(evaluator.boxOf(sized(job, both, sizing, false), both, faces))).toBeCloseTo(400, 2);
    const words = { partIds: ['a'], memberId: 'words' };
    const one = finished(sizingTo(job, words, { side: 'height', mm: 20, everything: false, evaluator, faces }));
    if (!one) throw new Error('not sized');
    const after = sized(job, words, one, false);
    expect(boxHeight(evaluator.boxOf(after, words, faces))).toBeCloseTo(20, 2);
    expect(after.parts[0]?.members[0]).toBe(job.parts[0]?.members[0]);
    expect(
      finished(
        sizingTo(
          job,
          { partIds: ['gone'], memberId: null },
          { side: 'width', mm: 9, everything: false, evaluator, faces },
        ),
      ),
    ).toBeNull();
    expect(
      finished(
        sizingTo(
          job,
          { partIds: ['a'], memberId: 'gone' },
          { side: 'width', mm: 9, everything: false, evaluator, faces },
        ),
      ),
    ).toBeNull();
  });
});

describe('the size of a part', () => {
  const size = (members: Draft[], more: Draft) => {
    const result = evaluator.evaluate(jobWith([partOf(members, { placement: { x: 100, y: 80 }, ...more })]), faces);
    const [box, part] = [result.parts[0]?.size, result.parts[0]];
    if (!box || !part) throw new Error('no part');
    return { box, part };
  };
  const words = lettering('Oak', 'Poppins', { placement: { x: 0, y: 0 } });
  const lines = [{ kind: 'weld' }, { kind: 'centerline' }, { kind: 'dots', diameter: 6, spacing: 9 }];
  const work = (...what: string[]) => what.map((w) => ({ what: w, operation: 'mark' }));

  test('is that of its outlines, bar and border included; of lines and dots alone, theirs', () => {
    const bordered = size([words], { steps: [{ kind: 'weld' }, { kind: 'border', distance: 5 }] });
    expect(bordered.box).toEqual(bordered.part.box);
    expect(boxWidth(bordered.box)).toBeCloseTo(boxWidth(size([words], {}).box) + 10, 2);
    const drawn = size([words], { steps: lines, work: work('centerline') });
    expect(boxHeight(drawn.box)).toBeLessThan(boxHeight(drawn.part.box) - 0.2);
    // Dots stick out of the outline they lie on by half their width.
    const dotted = size([words], { steps: lines, work: work('dots') });
    expect(dotted.part.box.minX - dotted.box.minX).toBeGreaterThan(2.5);
    const both = size([words], { steps: lines, work: work('outline', 'centerline') });
    expect(both.box).toEqual(both.part.box);
    expect(size([words], { work: [] }).box).toEqual(size([words], {}).part.box);
  });
});
