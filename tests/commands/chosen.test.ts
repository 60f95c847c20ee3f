/** Moving, turning, mirroring and sizing what is chosen. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { memberOf } from '../../src/core/commands/changed';
import {
  type Chosen,
  mirrorChosen,
  moveChosen,
  sizeChosen,
  stretchShape,
  turnChosen,
  withPartsOf,
} from '../../src/core/commands/chosen';
import type { Copy, Job, Member } from '../../src/core/document/schema';
import { stepIn } from '../../src/core/kinds/steps';
import { LIMITS } from '../../src/core/limits';
import { boxOf, partIn, rectangle, viewed } from '../support/commands';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const whole = (...partIds: string[]): Chosen => ({ partIds, memberId: null });
const one = (partId: string, memberId: string): Chosen => ({ partIds: [partId], memberId });
const SIDES = ['minX', 'minY', 'maxX', 'maxY'] as const;
const memberBox = (job: Job, partId: string, memberId: string) => {
  const box = viewed(job)
    .parts.find((p) => p.id === partId)
    ?.members.find((m) => m.id === memberId)?.box;
  if (!box) throw new Error(`no box of ${memberId}`);
  return box;
};
/** A turned and mirrored part of two things, one that goes along with it, one beside, one that is locked. */
const job = () =>
  jobWith([
    partOf([lettering('Lane', 'Poppins', { size: { by: 'capital', mm: 10 } }), rectangle('r', 50)], {
      placement: { x: 40, y: 30, turn: 25, mirror: true },
    }),
    partOf([{ id: 'c', kind: 'copy', of: 'part', follows: true, placement: { x: 1, y: 2 } }], {
      id: 'around',
      along: 'part',
      placement: { x: 3, y: 4 },
    }),
    partOf([rectangle('r', 90)], { id: 'beside' }),
    partOf([rectangle('r', 90)], { id: 'locked', locked: true }),
  ]);

describe('a move', () => {
  test('takes a part with all that is in it, and what goes along; nothing else is touched', () => {
    const before = job();
    const after = moveChosen(before, whole('part'), -3, 7);
    for (const id of ['part', 'around']) {
      expect(boxOf(after, id).minX).toBeCloseTo(boxOf(before, id).minX - 3, 5);
      expect(boxOf(after, id).minY).toBeCloseTo(boxOf(before, id).minY + 7, 5);
    }
    expect(partIn(after).members).toBe(partIn(before).members);
    for (const id of ['around', 'beside', 'locked']) expect(partIn(after, id)).toBe(partIn(before, id));
    expect(moveChosen(before, whole('part'), 0, 0)).toBe(before);
  });

  test('of several moves each once, though one goes along with another; what is locked stays', () => {
    const before = job();
    const after = moveChosen(before, whole('part', 'around', 'beside', 'locked'), 0, 5);
    for (const id of ['part', 'around', 'beside'])
      expect(boxOf(after, id).minY).toBeCloseTo(boxOf(before, id).minY + 5, 5);
    expect(boxOf(after, 'locked')).toEqual(boxOf(before, 'locked'));
    expect(moveChosen(before, whole('locked', 'gone'), 0, 5)).toBe(before);
  });

  test('of a leader that is locked leaves it, but moves what is chosen with it', () => {
    const before = jobWith([
      partOf([rectangle('r', 20)], { locked: true }),
      partOf([rectangle('s', 40)], { id: 'b', along: 'part' }),
    ]);
    const after = moveChosen(before, whole('part', 'b'), 3, 0);
    expect(partIn(after)).toBe(partIn(before));
    expect(boxOf(after, 'b').minX).toBeCloseTo(boxOf(before, 'b').minX + 3, 6);
  });

  test('of a member is by mm on the sheet, however its part lies and however large it is made', () => {
    const before = job();
    const after = moveChosen(before, one('part', 'r'), 3, -4);
    for (const [i, side] of SIDES.entries())
      expect(memberBox(after, 'part', 'r')[side]).toBeCloseTo(
        memberBox(before, 'part', 'r')[side] + (i % 2 === 0 ? 3 : -4),
        5,
      );
    expect(partIn(after).placement).toEqual(partIn(before).placement);
    // Made twice as large as its members say, half of it is enough.
    const scaled = moveChosen(before, { ...one('part', 'r'), scale: 2 }, 6, -8);
    expect(memberOf(scaled, 'part', 'r')?.placement).toEqual(memberOf(after, 'part', 'r')?.placement);
    expect(moveChosen(before, one('locked', 'r'), 3, 4)).toBe(before);
    expect(moveChosen(before, one('part', 'gone'), 3, 4)).toBe(before);
  });

  test('of a copy that stays on what it copies is a distance from there', () => {
    const before = job();
    const after = moveChosen(before, one('around', 'c'), 3, 4);
    expect(memberBox(after, 'around', 'c').minX).toBeCloseTo(memberBox(before, 'around', 'c').minX + 3, 5);
    expect(memberBox(after, 'around', 'c').minY).toBeCloseTo(memberBox(before, 'around', 'c').minY + 4, 5);
  });

  test('in many small steps comes to a readable sum', () => {
    let moved = jobWith([partOf([rectangle('r', 5)], { placement: { x: 1.1, y: 0 } })]);
    for (let i = 0; i < 10; i++) moved = moveChosen(moved, whole('part'), 0.1, 0.3);
    expect(partIn(moved).placement).toEqual({ x: 2.1, y: 3, turn: 0, mirror: false });
  });
});

describe('a turn and a mirroring', () => {
  test('are about a point of the sheet, of all that is chosen as one', () => {
    const before = jobWith([
      partOf([rectangle('r', 20, { placement: { x: 20, y: 10 } })]),
      partOf([rectangle('s', 60, { placement: { x: 60, y: 10 } })], { id: 'b' }),
    ]);
    const turned = turnChosen(before, whole('part', 'b'), 90, { x: 40, y: 10 });
    expect(boxOf(turned, 'part')).toMatchObject({ minX: expect.closeTo(35, 6), maxY: expect.closeTo(0, 6) });
    expect(boxOf(turned, 'b')).toMatchObject({ minX: expect.closeTo(35, 6), minY: expect.closeTo(20, 6) });
    expect(partIn(turned).placement.turn).toBe(90);
    expect(turnChosen(before, whole('part'), 0, { x: 0, y: 0 })).toBe(before);
    const mirrored = mirrorChosen(before, whole('part', 'b'), 40);
    expect(boxOf(mirrored, 'part').minX).toBeCloseTo(50, 6);
    expect(boxOf(mirrored, 'b').minX).toBeCloseTo(10, 6);
    expect(partIn(mirrored).placement.mirror).toBe(true);
  });

  test('of a member in a mirrored part run as they do on the sheet', () => {
    const before = job();
    const about = { x: 10, y: 20 };
    const turned = turnChosen(before, one('part', 'r'), 30, about);
    const own = (j: Job) => viewed(j).parts[0]?.members[1]?.matrix;
    const [m, n] = [own(before), own(turned)];
    if (!m || !n) throw new Error('no matrix');
    const angle = (Math.atan2(n.b, n.a) - Math.atan2(m.b, m.a)) * (180 / Math.PI);
    expect((angle + 360) % 360).toBeCloseTo(30, 6);
    const back = mirrorChosen(mirrorChosen(before, one('part', 'r'), 77), one('part', 'r'), 77);
    expect(memberOf(back, 'part', 'r')?.placement.x).toBeCloseTo(50, 5);
    expect(memberOf(back, 'part', 'r')?.placement.mirror).toBe(false);
  });

  test('of a copy that stays on what it copies are about the middle of that', () => {
    const before = job();
    const turned = turnChosen(before, one('around', 'c'), 40, { x: 900, y: 900 });
    expect(memberOf(turned, 'around', 'c')?.placement).toMatchObject({ x: 1, y: 2 });
    expect(Math.abs(memberOf(turned, 'around', 'c')?.placement.turn ?? 0)).toBeCloseTo(40, 6);
    const mirrored = mirrorChosen(before, one('around', 'c'), 900);
    expect(memberOf(mirrored, 'around', 'c')?.placement).toMatchObject({ x: -1, y: 2, mirror: true });
  });

  test('there and back again is where it began, a thousand times', () => {
    let turned = job();
    for (let i = 0; i < 1000; i++) turned = turnChosen(turned, whole('part'), 0.36, { x: 123.4, y: 56.7 });
    expect(partIn(turned).placement.x).toBeCloseTo(40, 2);
    expect(partIn(turned).placement.turn).toBeCloseTo(25, 6);
  });
});

describe('sizing', () => {
  const STEPS = [
    { kind: 'weld' },
    { kind: 'thicken', by: 0.5, holesOpen: 2 },
    { kind: 'bar', height: 4, beyond: 3, overlap: 1 },
    { kind: 'tie', width: 3, overlap: 1 },
    { kind: 'border', distance: 6, bridge: 1, smooth: 2, holesFrom: 5 },
    { kind: 'bridge', width: 3, pinned: [{ letter: 'words:0', x: 0.1, y: 0.2, width: 2 }] },
    { kind: 'centerline', smooth: 0.2 },
    { kind: 'dots', diameter: 2, spacing: 3 },
    { kind: 'hatch', least: 1, tool: { shape: 'cone', tip: 0.5, depth: 0.4 } },
  ];
  const PLATE = { kind: 'plate', across: 20, upright: -5, corner: 4, holeWidth: 5, inset: 10 };
  const made = (members: Draft[], more: Draft = {}) =>
    jobWith([partOf(members, { placement: { x: 30, y: 20 }, ...more })]);
  const words = lettering('Lane', 'Poppins', { placement: { x: 5, y: -6 }, size: { by: 'capital', mm: 10 } });

  test('grows members and the distances between them about a point of the sheet', () => {
    const before = made([words, rectangle('r', 50, { placement: { x: 40, y: 8 }, corner: 2 })]);
    const after = sizeChosen(before, whole('part'), { factor: 2, about: { x: 100, y: 100 } });
    expect(partIn(after).placement).toMatchObject({ x: -40, y: -60 });
    expect(partIn(after).members).toMatchObject([
      { size: { mm: 20 }, placement: { x: 10, y: -12 } },
      { width: 40, height: 20, corner: 4, placement: { x: 80, y: 16 } },
    ]);
    expect(sizeChosen(before, whole('part'), { factor: 1, about: { x: 0, y: 0 } })).toBe(before);
    for (const factor of [0, -1, Number.NaN])
      expect(sizeChosen(before, whole('part'), { factor, about: { x: 0, y: 0 } })).toBe(before);
  });

  test('leaves what a shop has set as it is, unless everything goes along', () => {
    const before = made([lettering('Lane', 'Poppins', { closeUp: { overlap: 1 } })], { steps: STEPS });
    const after = partIn(sizeChosen(before, whole('part'), { factor: 3, about: { x: 0, y: 0 } }));
    expect(stepIn(after, 'bar')).toMatchObject({ height: 12, beyond: 9, overlap: 1 });
    const same = (part: typeof after) => part.steps.filter((s) => s.kind !== 'bar');
    expect(same(after)).toEqual(same(partIn(before)));
    expect(after.members[0]).toMatchObject({ size: { mm: 90 }, closeUp: { overlap: 1 } });
    const all = partIn(sizeChosen(before, whole('part'), { factor: 3, about: { x: 0, y: 0 }, everything: true }));
    expect(all.members[0]).toMatchObject({ closeUp: { overlap: 3 } });
    expect(all.steps).toMatchObject([
      { kind: 'weld' },
      { kind: 'thicken', by: 1.5, holesOpen: 6 },
      { kind: 'bar', height: 12, beyond: 9, overlap: 3 },
      { kind: 'tie', width: 9, overlap: 3 },
      { kind: 'border', distance: 18, bridge: 3, smooth: 6, holesFrom: 15 },
      { kind: 'bridge', width: 9, pinned: [{ x: 0.1, y: 0.2, width: 6 }] },
      { kind: 'centerline', smooth: 0.6 },
      { kind: 'dots', diameter: 6, spacing: 9 },
      { kind: 'hatch', least: 3, tool: { tip: 1.5, depth: 1.2 } },
    ]);
  });

  test('grows a plate with its margins, corners and holes', () => {
    const before = made([words], { keep: 'outside', steps: [{ kind: 'weld' }, PLATE] });
    expect(
      stepIn(partIn(sizeChosen(before, whole('part'), { factor: 0.5, about: { x: 0, y: 0 } })), 'plate'),
    ).toMatchObject({
      across: 10,
      upright: -2.5,
      corner: 2,
      holeWidth: 2.5,
      inset: 5,
    });
  });

  test('grows a drawing with the gaps that are closed in it, a path, and a copy', () => {
    const art = { id: 'a', kind: 'artwork', drawing: '0'.repeat(64), scale: 2, placement: { x: 0, y: 0 } };
    const close = { gap: 1, findUpTo: 2, doubles: 0.02, specks: 0.05, refit: 0.1 };
    const before = made([
      { ...art, close },
      { id: 'p', kind: 'path', d: 'M0 0L9 9', scale: 3, placement: { x: 1, y: 1 } },
      { id: 'c', kind: 'copy', of: 'other', scale: 4, placement: { x: 1, y: 1 } },
    ]);
    expect(partIn(sizeChosen(before, whole('part'), { factor: 2, about: { x: 0, y: 0 } })).members).toMatchObject([
      { scale: 4, close: { gap: 2, findUpTo: 4, doubles: 0.04, specks: 0.1, refit: 0.2 } },
      { scale: 6 },
      { scale: 8 },
    ]);
    // No farther than a document holds; nothing less than nothing.
    const drawing = made([{ ...art, close }]);
    const most = partIn(sizeChosen(drawing, whole('part'), { factor: 500, about: { x: 0, y: 0 } })).members[0];
    expect(most).toMatchObject({ close: { gap: LIMITS.gapMostMm, findUpTo: LIMITS.gapMostMm, doubles: 1 } });
    const least = partIn(sizeChosen(drawing, whole('part'), { factor: 0.001, about: { x: 0, y: 0 } })).members[0];
    expect(least).toMatchObject({ close: { findUpTo: 0.01, refit: 0.001 } });
  });

  test('of a part and its copy grows the copy once, by what it copies', () => {
    const before = job();
    const after = sizeChosen(before, whole('part', 'around'), { factor: 2, about: { x: 0, y: 0 } });
    expect((memberOf(after, 'around', 'c') as Copy).scale).toBe(1);
    for (const side of SIDES) expect(boxOf(after, 'around')[side]).toBeCloseTo(2 * boxOf(before, 'around')[side], 4);
    // Alone, the copy grows by itself.
    expect(
      (memberOf(sizeChosen(before, whole('around'), { factor: 2, about: { x: 0, y: 0 } }), 'around', 'c') as Copy)
        .scale,
    ).toBe(2);
  });

  test('of a member grows it about the point, however its part lies', () => {
    const before = job();
    const about = { x: 60, y: 90 };
    const after = sizeChosen(before, one('part', 'r'), { factor: 2.5, about });
    for (const side of SIDES) {
      const from = side.endsWith('X') ? about.x : about.y;
      expect(memberBox(after, 'part', 'r')[side]).toBeCloseTo(
        from + 2.5 * (memberBox(before, 'part', 'r')[side] - from),
        4,
      );
    }
    expect(memberOf(after, 'part', 'words')).toBe(memberOf(before, 'part', 'words'));
    expect(memberOf(sizeChosen(before, one('around', 'c'), { factor: 2, about }), 'around', 'c')).toMatchObject({
      scale: 2,
      placement: { x: 1, y: 2 },
    });
    expect(sizeChosen(before, one('locked', 'r'), { factor: 2, about })).toBe(before);
    expect(sizeChosen(before, whole('locked'), { factor: 2, about })).toBe(before);
  });

  test('to a size a document cannot hold changes nothing', () => {
    const before = made([words]);
    expect(sizeChosen(before, whole('part'), { factor: 1e7, about: { x: 0, y: 0 } })).toBe(before);
    const wide = made([words], { overallWidth: 80 });
    expect(partIn(sizeChosen(wide, whole('part'), { factor: 2, about: { x: 0, y: 0 } })).overallWidth).toBe(160);
    expect(sizeChosen(wide, whole('part'), { factor: 1e5, about: { x: 0, y: 0 } })).toBe(wide);
  });

  test('by a factor and by one over it gives the first document again', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 20, noNaN: true }), fc.boolean(), (factor, everything) => {
        const before = made([words, rectangle('r', 50, { corner: 2 })], { steps: STEPS });
        const about = { x: 12, y: -7 };
        const back = sizeChosen(sizeChosen(before, whole('part'), { factor, about, everything }), whole('part'), {
          factor: 1 / factor,
          about,
          everything,
        });
        const numbers = (value: unknown): number[] =>
          typeof value === 'number'
            ? [value]
            : value && typeof value === 'object'
              ? Object.values(value).flatMap(numbers)
              : [];
        const [a, b] = [numbers(partIn(before)), numbers(partIn(back))];
        expect(b).toHaveLength(a.length);
        for (const [i, v] of a.entries()) expect(b[i]).toBeCloseTo(v, 4);
      }),
      { numRuns: 40 },
    );
  });
});

describe('a shape whose proportions are free', () => {
  test('gets another width or height along its own sides, a point of the sheet staying', () => {
    const before = job();
    const chosen = one('part', 'r');
    const m = viewed(before).parts[0]?.members[1]?.matrix;
    if (!m) throw new Error('no matrix');
    const at = (j: Job, x: number, y: number) => {
      const n = viewed(j).parts[0]?.members[1]?.matrix ?? m;
      return { x: n.a * x + n.c * y + n.e, y: n.b * x + n.d * y + n.f };
    };
    const corner = at(before, -10, -5);
    const after = stretchShape(before, chosen, { width: 50, height: 5, about: corner });
    expect(memberOf(after, 'part', 'r')).toMatchObject({ width: 50, height: 5 });
    expect(at(after, -25, -2.5).x).toBeCloseTo(corner.x, 5);
    expect(at(after, -25, -2.5).y).toBeCloseTo(corner.y, 5);
    expect(stretchShape(before, one('part', 'words'), { width: 50, height: 5, about: corner })).toBe(before);
    expect(stretchShape(before, one('locked', 'r'), { width: 50, height: 5, about: corner })).toBe(before);
    for (const [w, h] of [
      [0, 5],
      [5, -1],
      [Number.POSITIVE_INFINITY, 1],
    ] as const)
      expect(stretchShape(before, chosen, { width: w, height: h, about: corner })).toBe(before);
    const star = jobWith([partOf([{ id: 's', kind: 'star', width: 10, points: 5, placement: { x: 0, y: 0 } }])]);
    expect(stretchShape(star, one('part', 's'), { width: 50, height: 5, about: corner })).toBe(star);
  });
});

test('some parts as they are in another state of the job, the others as they are here', () => {
  const before = job();
  const other = moveChosen(before, whole('part', 'beside'), 5, 5);
  const both = withPartsOf(before, other, ['part', 'gone']);
  expect(partIn(both)).toBe(partIn(other));
  expect(partIn(both, 'beside')).toBe(partIn(before, 'beside'));
  const without = { ...other, parts: other.parts.slice(1) };
  expect(partIn(withPartsOf(before, without as Job, ['part']))).toBe(partIn(before));
  const members: readonly Member[] = partIn(both).members;
  expect(members).toHaveLength(2);
});
