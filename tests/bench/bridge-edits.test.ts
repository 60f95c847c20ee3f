/** Bridges by hand on the bench: each motion changes the bridge step, and only that. */
import { beforeEach, describe, expect, test, vi } from 'vitest';
import {
  addBridgeAt,
  bridgeAll,
  bridgeOne,
  chooseBridge,
  chosenBridge,
  copyToSameLetters,
  leaveIsland,
  nudgeChosenBridge,
  pin,
  placeBridge,
  removeChosenBridge,
  setIslandCount,
  unpin,
} from '../../src/bench/bridge-edits';
import { chooseIsland, goToStation, redo, select, setPointing, undo, useBench } from '../../src/bench/store';
import { LIMITS } from '../../src/core/limits';
import { answer, compute, hostHere, now, openJob, partNow, stepNow, viewNow } from '../support/bench';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const host = hostHere();
beforeEach(() => answer(host));

const stencil = (step: Draft[] = [{ kind: 'bridge', width: 3, count: 1 }], text = 'BOO', more: Draft = {}) =>
  jobWith([
    partOf([lettering('A', 'Archivo Black', { placement: { x: 40, y: 20 } })], {
      id: 'other',
      keep: 'outside',
      steps: [{ kind: 'weld' }, { kind: 'bridge', on: false }],
    }),
    partOf([lettering(text)], { keep: 'outside', steps: [{ kind: 'weld' }, ...step], ...more }),
  ]);
const state = useBench.getState;
const bridges = () => viewNow().bridges.bridges;
const on = (letter: string) => bridges().filter((b) => b.letter === letter);
const only = (letter: string) => {
  const [bridge, ...more] = on(letter);
  if (!bridge || more.length > 0) throw new Error(`not one bridge on ${letter}`);
  return bridge;
};
const O = { letter: 'words:1', island: 0 };
const SECOND_O = { letter: 'words:2', island: 0 };

beforeEach(() => openJob(stencil(), 'hold'));

describe('islands', () => {
  test('all are bridged: those left, and those whose bridges were all taken out by hand', () => {
    openJob(
      stencil([
        {
          kind: 'bridge',
          on: false,
          width: 3,
          islands: [
            { letter: 'words:0', island: 0, how: 'leave' },
            { letter: 'words:1', island: 0, how: 'hand' },
            { letter: 'words:2', island: 0, how: 'hand', count: 2 },
          ],
          pinned: [{ letter: 'words:2', island: 0, x: 0.3, y: 0.8, turn: 90 }],
        },
      ]),
      'hold',
    );
    bridgeAll('part');
    expect(stepNow('bridge')).toMatchObject({
      on: true,
      islands: [{ letter: 'words:2', island: 0, how: 'hand', count: 2 }],
    });
    compute();
    expect(viewNow().bridges.keys.length).toBe(viewNow().bridges.islandsHeld);
  });

  test('a part that has no bridge step gets one with first values', () => {
    openJob(stencil([]), 'hold');
    bridgeAll('part');
    expect(stepNow('bridge')).toMatchObject({ on: true, width: 3, islands: [], pinned: [] });
  });

  test('one alone is bridged where none was asked for, the others are left; then they stay as they are', () => {
    for (const step of [[], [{ kind: 'bridge', on: false, pinned: [{ letter: 'words:0', island: 1, x: 0, y: 0 }] }]]) {
      openJob(stencil(step), 'hold');
      bridgeOne('part', O);
      expect(stepNow('bridge').pinned).toEqual([]);
      expect(stepNow('bridge').islands).toEqual(
        [
          { letter: 'words:0', island: 0 },
          { letter: 'words:0', island: 1 },
          { letter: 'words:2', island: 0 },
        ].map((key) => ({ ...key, how: 'leave', count: null })),
      );
      compute();
      expect(bridges().map((b) => b.letter)).toEqual(['words:1']);
      bridgeOne('part', SECOND_O);
      compute();
      expect(
        bridges()
          .map((b) => b.letter)
          .sort(),
      ).toEqual(['words:1', 'words:2']);
    }
  });

  test('one is left on purpose, and asked for so many', () => {
    pin('part', O);
    leaveIsland('part', O);
    expect(stepNow('bridge')).toMatchObject({ islands: [{ ...O, how: 'leave', count: null }], pinned: [] });
    setIslandCount('part', O, 2);
    expect(stepNow('bridge').islands).toEqual([{ ...O, how: 'auto', count: 2 }]);
    compute();
    expect(on('words:1')).toHaveLength(2);
    setIslandCount('part', O, null);
    expect(stepNow('bridge').islands).toEqual([]);
  });

  test('pinned, bridges stay as they lie; let go, they are placed anew', () => {
    const before = only('words:1');
    pin('part', O);
    expect(stepNow('bridge').pinned).toEqual([
      {
        ...O,
        x: Math.round(before.own.x * 1e5) / 1e5,
        y: Math.round(before.own.y * 1e5) / 1e5,
        turn: Math.round(before.own.turn * 100) / 100,
        width: null,
      },
    ]);
    pin('part', O);
    expect(stepNow('bridge').pinned).toHaveLength(1);
    unpin('part', O);
    expect(stepNow('bridge')).toMatchObject({ islands: [], pinned: [] });
  });

  test('those of one go to all letters of the same text, by hand', () => {
    placeBridge('part', only('words:1'), bridges(), (placed) => Object.assign(placed, { width: 4 }), 'width');
    copyToSameLetters('part', { letter: 'gone', island: 0 });
    expect(stepNow('bridge').pinned).toHaveLength(1);
    compute();
    copyToSameLetters('part', O);
    const [first, second, ...more] = stepNow('bridge').pinned;
    expect(more).toEqual([]);
    expect(second).toEqual({ ...first, ...SECOND_O });
    expect(stepNow('bridge').islands.map((s) => [s.letter, s.how])).toEqual([
      ['words:1', 'hand'],
      ['words:2', 'hand'],
    ]);
  });

  test('of a part that is locked, or gone, nothing changes', () => {
    openJob(stencil([{ kind: 'bridge', width: 3 }], 'BOO', { locked: true }), 'hold');
    const before = now();
    bridgeAll('part');
    bridgeOne('part', O);
    leaveIsland('part', O);
    pin('part', O);
    bridgeAll('gone');
    copyToSameLetters('gone', O);
    expect(now()).toBe(before);
  });
});

describe('one bridge', () => {
  test('is chosen by its island and which of its bridges it is', () => {
    openJob(stencil([{ kind: 'bridge', width: 3, count: 2 }]), 'hold');
    const [, second] = on('words:1');
    if (!second) throw new Error('no second bridge');
    select(null);
    chooseBridge('part', second);
    expect(state().selection.partId).toBe('part');
    expect(state().atIsland).toEqual({ ...O, nth: 1 });
    expect(chosenBridge(viewNow(), state().atIsland)).toBe(second);
    expect(chosenBridge(viewNow(), { ...O, nth: 5 })).toBeNull();
    expect(chosenBridge(viewNow(), { ...O, nth: null })).toBeNull();
    expect(chosenBridge(undefined, { ...O, nth: 0 })).toBeNull();
    expect(chosenBridge(viewNow(), null)).toBeNull();
  });

  test('is changed in hand, a drag is one step of undo, and it stays where a document can hold it', () => {
    const bridge = only('words:1');
    const before = now();
    const seen = bridges();
    for (const x of [0.3, 0.4, 9e9])
      placeBridge('part', bridge, seen, (placed) => Object.assign(placed, { x }), 'drag');
    placeBridge('part', bridge, seen, (placed) => Object.assign(placed, { y: -9e9 }), 'drag');
    expect(stepNow('bridge').pinned).toMatchObject([{ x: LIMITS.bridgeCapitals, y: -LIMITS.bridgeCapitals }]);
    const changed = now();
    undo();
    expect(now()).toEqual(before);
    redo();
    expect(now()).toEqual(changed);
  });

  test('is moved by keys along its edge, in mm on the sheet', () => {
    openJob(stencil([{ kind: 'bridge', width: 3, count: 1 }], 'BOO'), 'hold');
    const bridge = only('words:1');
    expect(nudgeChosenBridge(1, 0)).toBe(false);
    chooseBridge('part', bridge);
    goToStation('compose');
    chooseIsland({ ...O, nth: 0 });
    expect(nudgeChosenBridge(1, 0)).toBe(false);
    goToStation('hold');
    chooseIsland({ ...O, nth: 0 });
    expect(nudgeChosenBridge(1.5, -3)).toBe(true);
    const [placed] = stepNow('bridge').pinned;
    // Capitals are 30 mm high.
    expect(placed?.x).toBeCloseTo(bridge.own.x + 1.5 / 30, 4);
    expect(placed?.y).toBeCloseTo(bridge.own.y - 3 / 30, 4);
    select(null);
    chooseIsland({ ...O, nth: 0 });
    expect(nudgeChosenBridge(1, 0)).toBe(false);
  });

  test('is taken out; its island stays chosen, and while one is chosen nothing else is taken out', () => {
    expect(removeChosenBridge()).toBe(false);
    chooseBridge('part', only('words:1'));
    expect(removeChosenBridge()).toBe(true);
    expect(stepNow('bridge')).toMatchObject({ islands: [{ ...O, how: 'hand' }], pinned: [] });
    expect(state().atIsland).toEqual({ ...O, nth: null });
    const before = now();
    expect(removeChosenBridge()).toBe(true);
    expect(now()).toBe(before);
    goToStation('compose');
    chooseIsland({ ...O, nth: null });
    expect(removeChosenBridge()).toBe(false);
  });

  test('that holds no island is taken out, and nothing is chosen', () => {
    openJob(
      stencil([{ kind: 'bridge', width: 3, count: 1, pinned: [{ letter: 'words:0', island: null, x: 0.02, y: 0.5 }] }]),
      'hold',
    );
    const loose = bridges().find((b) => b.island === null);
    if (!loose) throw new Error('no such bridge');
    chooseBridge('part', loose);
    expect(removeChosenBridge()).toBe(true);
    expect(stepNow('bridge').pinned).toEqual([]);
    expect(state().atIsland).toBeNull();
  });
});

describe('put in where the sheet is pressed', () => {
  const beside = (letter: string) => {
    const island = viewNow().bridges.islands.find((i) => i.letter === letter);
    if (!island) throw new Error('no island');
    return { x: island.box.maxX + 2, y: (island.box.minY + island.box.maxY) / 2 };
  };

  test('it is one more of its island, and chosen', async () => {
    setPointing('bridge');
    await addBridgeAt(beside('words:1'));
    expect(state().pointing).toBeNull();
    expect(stepNow('bridge').pinned).toHaveLength(2);
    expect(stepNow('bridge').islands).toEqual([{ ...O, how: 'hand', count: null }]);
    expect(state().atIsland).toEqual({ ...O, nth: 1 });
    compute();
    expect(on('words:1')).toHaveLength(2);
  });

  test('where none was asked for it is the only one', async () => {
    openJob(stencil([]), 'hold');
    await addBridgeAt(beside('words:1'));
    compute();
    expect(bridges().map((b) => b.letter)).toEqual(['words:1']);
    expect(state().atIsland).toEqual({ ...O, nth: 0 });
  });

  test('beside every gap a press is waited out; without a part it ends', async () => {
    setPointing('bridge');
    const before = now();
    await addBridgeAt({ x: 290, y: 190 });
    expect(state().pointing).toBe('bridge');
    select(null);
    setPointing('bridge');
    await addBridgeAt({ x: 290, y: 190 });
    expect(state().pointing).toBeNull();
    expect(now()).toBe(before);
  });

  test('when another part is chosen before the answer comes, nothing is put in', async () => {
    const at = beside('words:1');
    const before = now();
    const adding = addBridgeAt(at);
    select(null);
    await adding;
    expect(now()).toBe(before);
    openJob(stencil(), 'hold');
    vi.spyOn(host, 'bridgeThrough').mockRejectedValueOnce(new Error('stopped'));
    await addBridgeAt(at);
    expect(partNow().steps).toEqual(stencil().parts.find((p) => p.id === 'part')?.steps);
  });
});
