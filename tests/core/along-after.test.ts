/** Words along a line with all that comes after: bars, bridges, ties, middle lines, hatch lines, other parts' outlines. */
import { describe, expect, test } from 'vitest';
import { removeParts } from '../../src/core/commands/parts';
import { growPart } from '../../src/core/document/sizes';
import { pathArea } from '../../src/core/geometry/path';
import { boxCentre, boxWidth } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const ring = (more: Draft = {}): Draft => ({ line: { kind: 'circle', radius: 60 }, ...more });
const evaluated = (parts: Draft[], more: Draft = {}) => new Evaluator(wasmEngine).evaluate(jobWith(parts, more), faces);
const first = (parts: Draft[]) => {
  const { parts: found, findings } = evaluated(parts);
  const part = found[0];
  if (!part) throw new Error('no part');
  return { part, findings };
};

describe('along a circle', () => {
  const words = (text: string, along: Draft | null, face = 'Archivo Black') =>
    lettering(text, face, { size: { by: 'capital', mm: 14 }, along });

  test('a bar lies under the letters all along, and makes them one piece', () => {
    const bar = { kind: 'bar', at: 'under', height: 4, overlap: 1.5, beyond: 2, ends: 'round' };
    for (const ends of ['round', 'square']) {
      const { part } = first([partOf([words('GARDEN', ring())], { steps: [{ ...bar, ends }] })]);
      expect(part.pieces.length).toBe(1);
      // The bar is a band between two circles: nothing of the part is nearer to the middle.
      const nearest = Math.min(
        ...part.outlines.flatMap((o) => o.path.segments.map((s) => Math.hypot(s.x0 - 150, s.y0 - 100))),
      );
      expect(nearest).toBeCloseTo(60 + 1.5 - 4, 2);
    }
  });

  test('a bar goes around once, however often the words do', () => {
    const bar = { kind: 'bar', at: 'under', height: 4, overlap: 1.5, beyond: 2 };
    const { part } = first([
      partOf([words('ALDER LANE', { line: { kind: 'circle', radius: 0.01 }, distance: 10 })], { steps: [bar] }),
    ]);
    expect(part.pieces.length).toBe(1);
    expect(part.outlines.length).toBeLessThan(20);
  });

  test('bridges run upright to the baseline of each letter', () => {
    const step = { kind: 'bridge', direction: 'upright', width: 1.5 };
    const { part } = first([partOf([words('OOOOO', ring(), 'Poppins')], { keep: 'outside', steps: [step] })]);
    const bridges = part.bridged?.bridges ?? [];
    expect(bridges.length).toBeGreaterThanOrEqual(5);
    for (const { from, to } of bridges) {
      // Upright to a circle is towards its middle.
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      const [mx, my] = [(from.x + to.x) / 2 - 150, (from.y + to.y) / 2 - 100];
      const turned = Math.abs((dx * my - dy * mx) / Math.hypot(dx, dy) / Math.hypot(mx, my));
      expect((Math.asin(turned) * 180) / Math.PI).toBeLessThan(3);
    }
  });

  test('middle lines, hatch lines and one-line faces come out as long as on a straight line', () => {
    const lengthOf = (along: Draft | null) => {
      const { part } = first([
        partOf([words('SEED', along, 'Poppins')], {
          steps: [{ kind: 'centerline' }, { kind: 'hatch', tool: { tip: 0.5 } }],
          work: [
            { what: 'centerline', operation: 'mark' },
            { what: 'hatch', operation: 'engrave' },
          ],
        }),
      ]);
      return part.linework;
    };
    const [bent, straightly] = [lengthOf(ring()), lengthOf(null)];
    expect(bent.hatch).not.toBeNull();
    expect(bent.centerline?.lengthMm).toBeCloseTo(straightly.centerline?.lengthMm ?? 0, 1);
    const single = first([partOf([words('SEED', ring(), 'Hershey Sans')])]);
    expect(single.part.members[0]?.openPaths.length).toBeGreaterThan(3);
  });

  test('welded letters have the area they have on a straight line where none meet', () => {
    const areaOf = (along: Draft | null) =>
      first([partOf([lettering('I L I', 'Poppins', { along })])]).part.outlines.reduce(
        (a, o) => a + pathArea(o.path),
        0,
      );
    expect(areaOf(ring())).toBeCloseTo(areaOf(null), 3);
  });

  test('words that are longer than the line say so', () => {
    const { findings } = first([
      partOf([words('ALDER LANE COMMUNITY GARDEN AND WORKSHOP', { line: { kind: 'circle', radius: 30 } })]),
    ]);
    expect(findings.find((f) => f.code === 'longer-than-line')?.sentence).toMatch(
      /longer than the line they run along/,
    );
    expect(first([partOf([words('OAK', ring())])]).findings.map((f) => f.code)).not.toContain('longer-than-line');
  });
});

describe('along an outline of another part', () => {
  const emblem = (more: Draft = {}): Draft =>
    partOf([{ id: 'e', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 80, height: 80, ...more }], {
      id: 'emblem',
      placement: { x: 150, y: 100 },
    });
  const words = (along: Draft, more: Draft = {}): Draft =>
    partOf(
      [
        lettering('ALDER LANE', 'Poppins', {
          placement: { x: 0, y: 0 },
          size: { by: 'capital', mm: 8 },
          along: { line: { kind: 'outline', of: 'emblem' }, distance: 3, ...along },
        }),
      ],
      { along: 'emblem', ...more },
    );
  const radii = (parts: Draft[]) => {
    const part = evaluated(parts).parts.find((p) => p.id === 'part');
    const points = part?.outlines.flatMap((o) => o.path.segments.map((s) => Math.hypot(s.x0 - 150, s.y0 - 100))) ?? [];
    return { least: Math.min(...points), most: Math.max(...points) };
  };

  test('the words stand around it and follow it, whatever becomes of it', () => {
    expect(radii([emblem(), words({})]).least).toBeCloseTo(43, 1);
    expect(radii([emblem({ width: 120, height: 120 }), words({})]).least).toBeCloseTo(63, 1);
    const inside = radii([emblem(), words({ side: 'under' })]);
    expect(inside.most).toBeLessThan(40 - 3 + 0.3);
  });

  test('where the words are placed in their part changes nothing; turned, they stand elsewhere around it', () => {
    const there = evaluated([emblem(), words({})]).parts[1]?.box;
    const part = words({});
    const member = (part.members as Draft[])[0] as Draft;
    const placed = (placement: Draft) =>
      evaluated([emblem(), { ...part, members: [{ ...member, placement }] }]).parts[1]?.box;
    const box = placed({ x: 31, y: -7 });
    for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
      expect(box?.[side]).toBeCloseTo(there?.[side] ?? 0, 6);
    const turned = placed({ x: 0, y: 0, turn: 90 });
    expect(turned?.minX).toBeCloseTo(150 - ((there?.maxY ?? 0) - 100), 6);
  });

  test('which of its outlines is told by their length', () => {
    const two = partOf(
      [
        { id: 'e', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 80, height: 80 },
        { id: 'h', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 60, height: 60, role: 'punch' },
      ],
      { id: 'emblem', placement: { x: 150, y: 100 } },
    );
    expect(radii([two, words({ line: { kind: 'outline', of: 'emblem', outline: 1 } })]).least).toBeCloseTo(33, 1);
    const none = evaluated([two, words({ line: { kind: 'outline', of: 'emblem', outline: 5 } })]);
    expect(none.findings.map((f) => f.sentence).join(' ')).toContain('has no such outline now');
  });

  test('a part that is gone, and words along what is made from them, are told; the words are kept', () => {
    const job = jobWith([emblem(), words({})]);
    const { findings, parts } = new Evaluator(wasmEngine).evaluate(removeParts(job, ['emblem']), faces);
    expect(findings.map((f) => f.sentence).join(' ')).toContain('is no longer there');
    expect(parts[0]?.members[0]?.outlines).toEqual([]);
    const loop = evaluated([
      words({}, { along: null }),
      partOf([{ id: 'c', kind: 'copy', placement: { x: 0, y: 0 }, of: 'part' }], { id: 'emblem' }),
    ]);
    expect(loop.findings.map((f) => f.sentence).join(' ')).toContain('made from them');
  });
});

test('an arc, a wave, a circle and a drawn line grow with the words', () => {
  for (const line of [
    { kind: 'arc', by: 'radius', mm: 60 },
    { kind: 'arc', by: 'rise', mm: 8 },
    { kind: 'wave', length: 70, height: 12 },
    { kind: 'circle', radius: 50 },
    { kind: 'path', d: 'M0 0C40 60 80 -40 140 20' },
  ]) {
    const job = jobWith([
      partOf([lettering('GARDEN', 'Poppins', { placement: { x: 0, y: 0 }, along: { line, distance: 2, start: 3 } })]),
    ]);
    const [part] = job.parts;
    if (!part) throw new Error('no part');
    const before = new Evaluator(wasmEngine).evaluate(job, faces).parts[0]?.box;
    const grown = structuredClone(part);
    growPart(grown, 2.5, false);
    const after = new Evaluator(wasmEngine).evaluate({ ...job, parts: [grown] }, faces).parts[0]?.box;
    if (!before || !after) throw new Error('nothing drawn');
    expect(boxWidth(after)).toBeCloseTo(2.5 * boxWidth(before), 3);
    expect(boxCentre(after).y).toBeCloseTo(2.5 * boxCentre(before).y, 3);
  }
});

test('a line of which nothing can be read is told', () => {
  const job = [partOf([lettering('GARDEN', 'Poppins', { along: { line: { kind: 'path', d: '' } } })])];
  expect(
    evaluated(job)
      .findings.map((f) => f.sentence)
      .join(' '),
  ).toContain('No line is drawn yet');
});
