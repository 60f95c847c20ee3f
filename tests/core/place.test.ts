/** Members moved, sized, turned and mirrored on the sheet, each kind as it takes it. */
import { describe, expect, test } from 'vitest';
import type { Member } from '../../src/core/document/schema';
import { mirrorMember, moveMember, scaleMember, turnMember } from '../../src/core/job/place';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const made = (draft: Draft): Member => {
  const parts = [partOf([{ id: 'm', ...draft }]), partOf([lettering('o')], { id: 'other' })];
  return jobWith(parts).parts[0]?.members[0] as Member;
};
const at = { placement: { x: 30, y: 40, turn: 10 } };
const KINDS: Readonly<Record<string, Draft>> = {
  rectangle: { kind: 'rectangle', width: 8, height: 4, corner: 1, ...at },
  words: { ...lettering('o'), id: 'm', ...at },
  path: { kind: 'path', d: 'M0 0L1 1', scale: 2, ...at },
  artwork: { kind: 'artwork', drawing: 'a'.repeat(64), scale: 2, ...at },
  copy: { kind: 'copy', of: 'other', scale: 2, ...at },
  following: { kind: 'copy', of: 'other', scale: 2, follows: true, ...at },
};
const kinds = Object.keys(KINDS).filter((k) => k !== 'following');
const member = (kind: string) => made(KINDS[kind] as Draft);
const sizeOf = (m: Member): number =>
  m.kind === 'lettering' ? m.size.mm : 'scale' in m ? m.scale : m.kind === 'rectangle' ? m.width : Number.NaN;

test('moved by as much as is asked', () => {
  const m = member('rectangle');
  moveMember(m, 2.5, -3);
  expect(m.placement).toMatchObject({ x: 32.5, y: 37 });
});

describe('sized about a point', () => {
  test.each(kinds)('%s: its lengths, or its scale, and its place', (kind) => {
    const m = member(kind);
    const before = sizeOf(m);
    scaleMember(m, 3, { x: 10, y: 50 });
    expect(sizeOf(m)).toBeCloseTo(3 * before, 9);
    expect(m.placement).toMatchObject({ x: 70, y: 20, turn: 10 });
  });

  test('a shape has all its lengths sized, the radius of its corners too', () => {
    const m = member('rectangle');
    scaleMember(m, 0.5, { x: 30, y: 40 });
    expect(m).toMatchObject({ width: 4, height: 2, corner: 0.5, placement: { x: 30, y: 40 } });
  });

  test('what goes along with another part keeps its distance from that', () => {
    const m = member('following');
    scaleMember(m, 3, { x: 10, y: 50 });
    expect(m).toMatchObject({ scale: 6, placement: { x: 30, y: 40 } });
  });
});

describe('turned about a point', () => {
  test.each(kinds)('%s: its place and its direction, counter-clockwise', (kind) => {
    const m = member(kind);
    turnMember(m, 90, { x: 10, y: 30 });
    expect(m.placement.x).toBeCloseTo(0, 9);
    expect(m.placement.y).toBeCloseTo(50, 9);
    expect(m.placement.turn).toBe(100);
    turnMember(m, -30, { x: m.placement.x, y: m.placement.y });
    expect(m.placement.x).toBeCloseTo(0, 9);
    expect(m.placement.turn).toBe(70);
  });

  test('by an odd angle, about a point to the lower right of it', () => {
    const m = member('rectangle');
    turnMember(m, 30, { x: 40, y: 20 });
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    expect(m.placement.x).toBeCloseTo(40 + -10 * c - 20 * s, 9);
    expect(m.placement.y).toBeCloseTo(20 + -10 * s + 20 * c, 9);
  });

  test('what goes along with another part turns in its place', () => {
    const m = member('following');
    turnMember(m, 90, { x: 10, y: 30 });
    expect(m.placement).toMatchObject({ x: 30, y: 40, turn: 100 });
  });

  test('directions stay between half a turn either way', () => {
    for (const [from, by, to] of [
      [170, 20, -170],
      [-170, -20, 170],
      [0, 720, 0],
      [0, 180, -180],
      [90, 1080.5, 90.5],
      [0, -360, 0],
    ] as const) {
      const m = made({ ...KINDS.rectangle, placement: { x: 0, y: 0, turn: from } });
      turnMember(m, by, { x: 0, y: 0 });
      expect(m.placement.turn, `${from} by ${by}`).toBeCloseTo(to, 9);
    }
  });
});

describe('mirrored left to right', () => {
  test.each(kinds)('%s: about the middle that is given, its direction too; twice, it is as it was', (kind) => {
    const m = member(kind);
    const before = structuredClone(m);
    mirrorMember(m, 100);
    expect(m.placement).toEqual({ x: 170, y: 40, turn: -10, mirror: true });
    mirrorMember(m, 100);
    expect(m).toEqual(before);
  });

  test('what goes along with another part, about the middle of that', () => {
    const m = member('following');
    mirrorMember(m, 100);
    expect(m.placement).toEqual({ x: -30, y: 40, turn: -10, mirror: true });
  });
});
