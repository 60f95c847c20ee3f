/** Bridges by hand, in the step: which are taken in hand, taken out, put in, and given to others. */
import { beforeEach, describe, expect, test } from 'vitest';
import {
  addBridge,
  type BridgeNow,
  copyToSame,
  islandSetting,
  letGo,
  pinIsland,
  pinnedBridge,
  removeBridge,
  settleIslands,
} from '../../src/core/commands/bridges';
import type { StepOf } from '../../src/core/document/schema';
import { newStep } from '../../src/core/kinds/steps';
import { LIMITS } from '../../src/core/limits';

let step: StepOf<'bridge'>;
beforeEach(() => {
  step = newStep('bridge', { capHeightMm: 30, leastWidthMm: null, kerfMm: null });
});

const A = { letter: 'w:0', island: 0 };
const A1 = { letter: 'w:0', island: 1 };
const B = { letter: 'w:1', island: 0 };
const now = (key: { letter: string; island: number | null }, x: number, more: Partial<BridgeNow> = {}): BridgeNow => ({
  ...key,
  pinnedIndex: null,
  own: { x, y: 0.25, turn: 90 },
  width: 3,
  isNarrowed: false,
  ...more,
});
const placedAt = (key: { letter: string; island: number | null }, x: number) => ({
  ...key,
  x,
  y: 0.25,
  turn: 90,
  width: null,
});
const all = [now(A, 0.1), now(A, 0.2), now(A1, 0.3), now(B, 0.4)];

test('what is said of an island is made once, and kept only while it says something', () => {
  const setting = islandSetting(step, A);
  expect(setting).toEqual({ ...A, how: 'auto', count: null });
  expect(islandSetting(step, A)).toBe(setting);
  expect(islandSetting(step, A1)).not.toBe(setting);
  expect(islandSetting(step, B)).not.toBe(setting);
  islandSetting(step, B).count = 2;
  settleIslands(step);
  expect(step.islands).toEqual([{ ...B, how: 'auto', count: 2 }]);
  islandSetting(step, A).how = 'leave';
  settleIslands(step);
  expect(step.islands).toHaveLength(2);
});

describe('pinned', () => {
  test('are the bridges of that island, as they lie, and no others', () => {
    pinIsland(step, A, all);
    expect(step.pinned).toEqual([placedAt(A, 0.1), placedAt(A, 0.2)]);
    expect(step.islands).toEqual([{ ...A, how: 'hand', count: null }]);
    pinIsland(step, A, all);
    expect(step.pinned).toHaveLength(2);
    pinIsland(step, A1, all);
    expect(step.pinned.at(-1)).toEqual(placedAt(A1, 0.3));
  });

  test('are kept to readable figures; one that was narrowed keeps its width', () => {
    pinIsland(step, B, [
      now(B, 0.123456789, {
        own: { x: 0.123456789, y: -0.987654321, turn: 12.3456 },
        width: 1.23456,
        isNarrowed: true,
      }),
    ]);
    expect(step.pinned).toEqual([{ ...B, x: 0.12346, y: -0.98765, turn: 12.35, width: 1.235 }]);
  });
});

describe('in hand', () => {
  test('is the one placed already, or its island is pinned first', () => {
    step.pinned = [placedAt(B, 0.7)];
    expect(pinnedBridge(step, now(B, 0.7, { pinnedIndex: 0 }), all)).toBe(step.pinned[0]);
    expect(pinnedBridge(step, now(B, 0.7, { pinnedIndex: 5 }), all)).toBeNull();
    expect(step.islands).toEqual([]);
    const second = pinnedBridge(step, all[1] as BridgeNow, all);
    expect(second).toEqual(placedAt(A, 0.2));
    expect(step.pinned).toContain(second);
    expect(step.pinned).toHaveLength(3);
  });

  test('an automatic bridge that holds no island can’t be taken', () => {
    expect(pinnedBridge(step, now({ letter: 'w:0', island: null }, 0.1), all)).toBeNull();
    expect(step).toMatchObject({ pinned: [], islands: [] });
  });
});

describe('let go, taken out, put in', () => {
  beforeEach(() => {
    pinIsland(step, A, all);
    pinIsland(step, B, all);
  });

  test('an island let go has only automatic ones, the others stay', () => {
    letGo(step, A);
    expect(step.pinned).toEqual([placedAt(B, 0.4)]);
    expect(step.islands).toEqual([{ ...B, how: 'hand', count: null }]);
    letGo(step, A1);
    expect(step.pinned).toHaveLength(1);
  });

  test('one taken out leaves the others of its island as they lie', () => {
    removeBridge(step, now(A, 0.1, { pinnedIndex: 0 }), all);
    expect(step.pinned).toEqual([placedAt(A, 0.2), placedAt(B, 0.4)]);
    letGo(step, A);
    removeBridge(step, all[1] as BridgeNow, all);
    expect(step.pinned).toEqual([placedAt(B, 0.4), placedAt(A, 0.1)]);
    removeBridge(step, now({ letter: 'w:0', island: null }, 0.9), all);
    expect(step.pinned).toHaveLength(2);
  });

  test('one put in is one more; those its island has stay as they lie', () => {
    addBridge(step, { ...placedAt(A1, 0.987654321), turn: null }, all);
    expect(step.pinned.slice(-2)).toEqual([placedAt(A1, 0.3), { ...placedAt(A1, 0.98765), turn: null }]);
    addBridge(step, placedAt({ letter: 'w:1', island: null }, 0.5), all);
    expect(step.pinned.at(-1)).toEqual(placedAt({ letter: 'w:1', island: null }, 0.5));
    expect(step.islands.map((s) => s.letter)).toEqual(['w:0', 'w:1', 'w:0']);
  });
});

describe('those of one island given to others', () => {
  test('take the place of what those had, and are by hand', () => {
    pinIsland(step, B, all);
    copyToSame(step, A, [A, B], all);
    expect(step.pinned).toEqual([placedAt(A, 0.1), placedAt(A, 0.2), placedAt(B, 0.1), placedAt(B, 0.2)]);
    expect(step.islands.map((s) => [s.letter, s.island, s.how])).toEqual([
      ['w:1', 0, 'hand'],
      ['w:0', 0, 'hand'],
    ]);
  });

  test('are no more than a document holds', () => {
    step.pinned = Array.from({ length: LIMITS.bridgesPlaced - 3 }, () => placedAt({ letter: 'w:9', island: null }, 0));
    copyToSame(step, A, [B, A1], all);
    expect(step.pinned).toHaveLength(LIMITS.bridgesPlaced);
    expect(step.pinned.slice(-3)).toEqual([placedAt(A, 0.1), placedAt(A, 0.2), placedAt(B, 0.1)]);
    addBridge(step, placedAt({ letter: 'w:1', island: null }, 0.5), all);
    pinIsland(step, { letter: 'w:2', island: 0 }, [now({ letter: 'w:2', island: 0 }, 1)]);
    expect(step.pinned).toHaveLength(LIMITS.bridgesPlaced);
  });
});
