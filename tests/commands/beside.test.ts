/** New things come beside what is there, alike to it, on the sheet. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Around, placeBeside, roughBounds, workAlike } from '../../src/core/commands/beside';
import { addMember, addPart } from '../../src/core/commands/parts';
import type { Job, Lettering, Part, Shape } from '../../src/core/document/schema';
import type { Box } from '../../src/core/geometry/point';
import { jobWith, lettering, partOf } from '../support/jobs';

const box = (minX: number, minY: number, maxX: number, maxY: number): Box => ({ minX, minY, maxX, maxY });
const aroundOf = (boxes: Record<string, Box>, beside: string | null = null, capital = 12): Around => ({
  beside,
  boxes: new Map(Object.entries(boxes)),
  capHeightOf: () => capital,
});
const last = (job: Job): Part => job.parts.at(-1) as Part;
const words = lettering('Lane', 'Pacifico', {
  letterSpacing: 0.1,
  lineSpacing: 1.4,
  align: 'left',
  size: { by: 'width', mm: 90 },
  features: { ss01: 1 },
});

describe('words', () => {
  const job = jobWith([
    partOf([words], { work: [{ what: 'fill', operation: 'engrave', only: null }], placement: { x: 40, y: 150 } }),
  ]);
  const around = aroundOf({ part: box(40, 146, 130, 165) });

  test('are set and worked as those they come beside, and stand beneath, in line with them', () => {
    const made = addPart(job, 'lettering', around);
    const part = last(made.job);
    expect(part.work).toEqual([{ what: 'fill', operation: 'engrave', only: null }]);
    expect(part.members[0]).toMatchObject({
      face: 'Pacifico',
      size: { by: 'capital', mm: 12 },
      letterSpacing: 0.1,
      lineSpacing: 1.4,
      align: 'left',
      features: { ss01: 1 },
      text: '',
      closeUp: null,
    });
    expect(part.placement.x).toBe(40);
    // Capitals of 12 mm and their accents stay clear of what is above.
    expect(part.placement.y + 1.1 * 12).toBeLessThan(146 - 2);
    expect(part.placement.y).toBeGreaterThan(100);
  });

  test('for a tool to run along are in single lines and marked, as large as what they come beside', () => {
    const made = last(addPart(job, 'one-line lettering', around).job);
    expect(made.work).toEqual([{ what: 'outline', operation: 'mark', only: null }]);
    expect(made.members[0]).toMatchObject({ face: 'EMS Readability', size: { by: 'capital', mm: 12 }, align: 'left' });
    const lines = jobWith([partOf([lettering('No 7', 'Hershey Sans')], { work: [] })]);
    expect(last(addPart(lines, 'one-line lettering', around).job).members[0]).toMatchObject({ face: 'Hershey Sans' });
    const noMark = { ...job, operations: job.operations.filter((o) => o.kind !== 'mark') };
    expect(last(addPart(noMark, 'one-line lettering', around).job).work).toEqual([
      { what: 'outline', operation: 'cut', only: null },
    ]);
  });

  test('come above where there is no room beneath, beside where there is none above, past what is there', () => {
    const above = addPart(job, 'lettering', aroundOf({ part: box(40, 8, 130, 30) }));
    expect(last(above.job).placement.y).toBeGreaterThan(34);
    const side = addPart(job, 'lettering', aroundOf({ part: box(40, 8, 130, 195) }));
    expect(last(side.job).placement).toMatchObject({ x: expect.closeTo(130 + 0.35 * 17.4, 2) });
    const past = addPart(job, 'lettering', aroundOf({ part: box(40, 146, 130, 165), other: box(20, 100, 200, 140) }));
    expect(last(past.job).placement.y).toBeLessThan(100 - 13);
    const full = addPart(job, 'lettering', aroundOf({ part: box(1, 1, 299, 199) }));
    expect(last(full.job).placement).toMatchObject({ x: 150, y: 100 });
  });

  test('are as new ones where there are none, or none that are drawn', () => {
    const bare = addPart(jobWith([]), 'lettering', aroundOf({}));
    expect(last(bare.job).members[0]).toMatchObject({ face: 'Archivo Black', size: { by: 'capital', mm: 30 } });
    expect(last(bare.job).placement).toMatchObject({ x: 150, y: 100 });
    const unseen = addPart(job, 'lettering', { ...aroundOf({}), capHeightOf: () => undefined });
    expect(last(unseen.job).work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
  });

  test('come beside the part that is chosen, else the last one that is shown', () => {
    const two = jobWith([
      partOf([words], { id: 'a' }),
      partOf([{ ...words, face: 'Poppins' }], { id: 'b' }),
      partOf([{ ...words, face: 'Caveat' }], { id: 'c', hidden: true }),
    ]);
    const boxes = { a: box(10, 150, 60, 160), b: box(200, 150, 260, 160) };
    expect((last(addPart(two, 'lettering', aroundOf(boxes, 'a')).job).members[0] as Lettering).face).toBe('Pacifico');
    const beside = last(addPart(two, 'lettering', aroundOf(boxes)).job);
    expect((beside.members[0] as Lettering).face).toBe('Poppins');
    expect(beside.placement.x).toBe(200);
  });

  test('in a part of words come beneath these, in a plate to its middle', () => {
    const into = addMember(job, 'part', 'lettering', { x: 85, y: 155 }, around);
    const member = into.job.parts[0]?.members[1] as Lettering;
    expect(member).toMatchObject({ face: 'Pacifico', placement: { x: 0 } });
    expect(member.placement.y + 150 + 1.1 * 12).toBeLessThan(146 - 2);
    const plate = jobWith([partOf([{ id: 'p', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 90, height: 40 }])]);
    const inPlate = addMember(plate, 'part', 'lettering', { x: 85, y: 155 }, around);
    expect(inPlate.job.parts[0]?.members[1]?.placement).toMatchObject({ x: 85, y: 155 });
  });
});

describe('shapes', () => {
  const engraved = { work: [{ what: 'fill', operation: 'engrave', only: null }] };
  const job = jobWith([partOf([words], { ...engraved, placement: { x: 100, y: 100 } })]);
  const around = aroundOf({ part: box(100, 96, 190, 116) });

  test('are about as high; ornaments are worked as the words, panels are cut', () => {
    const heart = last(addPart(job, 'heart', around).job);
    expect((heart.members[0] as Extract<Shape, { kind: 'heart' }>).height).toBeCloseTo(20, 1);
    expect(heart.work).toEqual(engraved.work);
    const panel = last(addPart(job, 'rectangle', around).job);
    // A panel has room for them.
    expect(panel.members[0]).toMatchObject({ width: 103, height: 33 });
    expect(panel.work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
    const bar = last(addPart(job, 'bar', around).job);
    expect((bar.members[0] as Shape).width).toBeCloseTo(90, 1);
    expect(bar.placement.x).toBeCloseTo(145, 3);
    expect(bar.placement.y).toBeLessThan(96);
  });

  test('a spike hangs below its origin: it comes beneath with its top', () => {
    const spike = last(addPart(job, 'spike', around).job);
    const own = roughBounds(spike.members[0] as Shape, 0);
    expect(own.maxY).toBe(0);
    expect(spike.placement.y).toBeLessThan(96);
    expect(spike.placement.y).toBeGreaterThan(80);
  });
});

test('steps that draw come along without what was corrected on letters; those that change outlines do not', () => {
  const part = jobWith([
    partOf([words], {
      steps: [
        { kind: 'weld' },
        { kind: 'bar' },
        { kind: 'bridge' },
        { kind: 'centerline', corrections: [{ letter: 'words:0', d: 'M0 0L1 1' }] },
        { kind: 'hatch', angle: 30 },
      ],
      work: [{ what: 'hatch', operation: 'mark', only: null }],
    }),
  ]).parts[0] as Part;
  const { steps, work } = workAlike(part);
  expect(work).toEqual([{ what: 'hatch', operation: 'mark', only: null }]);
  expect(steps.map((s) => s.kind)).toEqual(['weld', 'centerline', 'hatch']);
  expect(steps[1]).toMatchObject({ corrections: [] });
  expect(steps[2]).toMatchObject({ angle: 30 });
});

test('wherever it comes, it lies on the sheet and on nothing, or in the middle of the sheet', () => {
  const boxes = fc.array(
    fc
      .tuple(
        fc.integer({ min: 0, max: 280 }),
        fc.integer({ min: 0, max: 180 }),
        fc.integer({ min: 1, max: 90 }),
        fc.integer({ min: 1, max: 60 }),
      )
      .map(([x, y, w, h]) => box(x, y, x + w, y + h)),
    { minLength: 1, maxLength: 12 },
  );
  fc.assert(
    fc.property(boxes, fc.integer({ min: 2, max: 60 }), fc.integer({ min: 2, max: 60 }), (list, w, h) => {
      const job = jobWith(list.map((_, i) => partOf([words], { id: `p${i}` })));
      const own = box(-w / 2, -h / 2, w / 2, h / 2);
      const at = placeBeside(own, job, aroundOf(Object.fromEntries(list.map((b, i) => [`p${i}`, b]))));
      if (at.x === 150 && at.y === 100) return;
      const [x0, y0, x1, y1] = [at.x - w / 2, at.y - h / 2, at.x + w / 2, at.y + h / 2];
      expect(Math.min(x0, y0)).toBeGreaterThanOrEqual(-1e-3);
      expect(x1).toBeLessThanOrEqual(300.001);
      expect(y1).toBeLessThanOrEqual(200.001);
      for (const b of list) expect(x0 < b.maxX && x1 > b.minX && y0 < b.maxY && y1 > b.minY).toBe(false);
    }),
  );
});
