/** Working on nodes on the bench: what is in hand, what each tool makes of the chosen ones, and where it is put back. */
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { chosenNodesOf, nodeKey, parseKey } from '../../src/bench/nodes/chosen';
import { editedPaths, enterNodes, pathsInHand, putPaths } from '../../src/bench/nodes/hand';
import {
  breakNodes,
  chooseAll,
  chooseBetween,
  chooseNext,
  chosenAmong,
  chosenPlace,
  cornerNodes,
  deleteNodes,
  dropLines,
  joinNodes,
  letRunThrough,
  mergeLines,
  nudgeNodes,
  pullToTip,
  reversePaths,
  simplifyPaths,
  smoothNodes,
  straightenSegments,
} from '../../src/bench/nodes/tools';
import type { AtNodes } from '../../src/bench/state';
import { undo, useBench, workOnNodes } from '../../src/bench/store';
import type { DrawnPath } from '../../src/core/document/schema';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { answer, compute, hostHere, now, openJob, partNow, stepNow, viewNow } from '../support/bench';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const host = hostHere();
beforeEach(() => answer(host));

const state = useBench.getState;
const at = (): AtNodes => {
  const { atNodes } = state();
  if (!atNodes) throw new Error('no nodes in hand');
  return atNodes;
};
const choose = (...keys: string[]) => workOnNodes({ ...at(), chosen: new Set(keys) });
const chosen = () => [...at().chosen];

/** A drawn path at the sheet's corner, in hand. */
const open = (d: string, more: Draft = {}, part: Draft = {}) => {
  const path = { id: 'p', kind: 'path', placement: { x: 0, y: 0 }, d, ...more };
  // Another part before it, with a path of the same name: what is worked on is found by its part.
  const other = partOf([{ ...path, d: 'M0 0L7 0L7 7Z', placement: { x: 90, y: 80 } }], { id: 'other' });
  openJob(jobWith([other, partOf([path], part)]), 'close');
  workOnNodes({ partId: 'part', memberId: 'p', letter: null, chosen: new Set() });
};
const drawn = () => (partNow().members[0] as DrawnPath).d;
/** The paths in hand as readable points: "0,0 10,0 z". */
const shown = () =>
  pathOf(drawn()).paths.map(({ segments, closed }) => {
    const points = segments.map((s) => `${+s.x0.toFixed(3)},${+s.y0.toFixed(3)}`);
    const last = segments.at(-1);
    return [...points, closed ? 'z' : `${+(last?.x1 ?? 0).toFixed(3)},${+(last?.y1 ?? 0).toFixed(3)}`].join(' ');
  });
const kinds = () => pathOf(drawn()).paths.map((p) => p.segments.map((s) => s.kind).join());

const SQUARE = 'M0 0L10 0L10 10L0 10Z';
const LINE = 'M0 0L10 0L20 0L30 0';

test('chosen nodes are named by path and node', () => {
  expect(parseKey(nodeKey(3, 12))).toEqual([3, 12]);
  expect(chosenNodesOf(new Set(['0:1', '1:2', '0:7', '10:3']), 0)).toEqual(new Set([1, 7]));
});

describe('in hand', () => {
  test('a drawn path lies as it is placed and sized, and goes back as it was drawn', () => {
    open(SQUARE, { placement: { x: 100, y: 50, turn: 90 }, scale: 2 });
    const hand = pathsInHand(now(), state().view, at());
    if (!hand) throw new Error('nothing in hand');
    const [path] = editedPaths(hand);
    const corner = path?.segments[1];
    expect([corner?.x0, corner?.y0]).toEqual([expect.closeTo(100, 9), expect.closeTo(70, 9)]);
    putPaths(editedPaths(hand));
    expect(shown()).toEqual(['0,0 10,0 10,10 0,10 z']);
  });

  test('what is not there, or not drawn, is not in hand', () => {
    open(SQUARE);
    expect(pathsInHand(now(), null, at())).toBeNull();
    expect(pathsInHand(now(), state().view, null)).toBeNull();
    expect(pathsInHand(now(), state().view, { ...at(), partId: 'gone' })).toBeNull();
    expect(pathsInHand(now(), state().view, { ...at(), memberId: 'gone' })).toBeNull();
    expect(pathsInHand(now(), state().view, { ...at(), memberId: null })).toBeNull();
    expect(pathsInHand(now(), state().view, { ...at(), letter: 'words:0' })).toBeNull();
    const before = now();
    workOnNodes(null);
    putPaths([]);
    for (const tool of [
      deleteNodes,
      smoothNodes,
      breakNodes,
      joinNodes,
      chooseAll,
      chooseBetween,
      pullToTip,
      letRunThrough,
      mergeLines,
      dropLines,
    ])
      tool();
    chooseNext(1);
    expect(nudgeNodes(1, 1)).toBe(false);
    expect(now()).toBe(before);
    expect(state().atNodes).toBeNull();
  });

  test('a lone path is worked on as it is; anything else is taken in hand as the steps leave it', async () => {
    open(SQUARE);
    workOnNodes(null);
    await enterNodes('part', 'p');
    expect(at()).toEqual({ partId: 'part', memberId: 'p', letter: null, chosen: new Set() });
    const before = now();
    open(SQUARE, {}, { steps: [{ kind: 'weld' }, { kind: 'thicken', by: 1 }] });
    await enterNodes('part', 'p');
    expect(at().memberId).toBeNull();
    expect(partNow().steps.map((s) => s.kind)).toEqual(['weld', 'thicken', 'nodes']);
    compute();
    const hand = pathsInHand(now(), state().view, at());
    const box = hand && editedPaths(hand)[0]?.segments.map((s) => s.x0);
    expect(Math.min(...(box ?? []))).toBeCloseTo(-1, 3);
    // Entered again, what was drawn by hand stays.
    const step = structuredClone(stepNow('nodes'));
    await enterNodes('part', 'p');
    expect(stepNow('nodes')).toEqual(step);
    undo();
    expect(partNow().steps).toHaveLength(2);
    expect(before).not.toBe(now());
  });

  test('nothing of what is locked, gone or can’t be taken is', async () => {
    open(SQUARE, {}, { locked: true });
    workOnNodes(null);
    await enterNodes('part', 'p');
    await enterNodes('gone', 'p');
    expect(state().atNodes).toBeNull();
    openJob(jobWith([partOf([lettering('Lane')])]));
    vi.spyOn(host, 'inHand').mockRejectedValueOnce(new Error('stopped'));
    await enterNodes('part', 'words');
    expect(state().atNodes).toBeNull();
    openJob(jobWith([partOf([lettering('  ')])]));
    await enterNodes('part', 'words');
    expect(state().atNodes).toBeNull();
  });

  test('words in hand go back as outlines by hand', async () => {
    openJob(jobWith([partOf([lettering('I', 'Poppins')])]), 'close');
    await enterNodes('part', 'words');
    compute();
    const { d } = stepNow('nodes');
    const { areaMm2 } = viewNow();
    choose('0:0');
    expect(nudgeNodes(0, 3)).toBe(true);
    expect(stepNow('nodes').d).not.toBe(d);
    expect(state().past.at(-1)?.merge).toBe('nodes');
    compute();
    expect(Math.abs(viewNow().areaMm2 - areaMm2)).toBeGreaterThan(5);
  });
});

describe('tools', () => {
  beforeEach(() => open(SQUARE));

  test('nodes are deleted, what lay on both sides is one line; of no choice nothing is', () => {
    deleteNodes();
    expect(shown()).toEqual(['0,0 10,0 10,10 0,10 z']);
    choose('0:1');
    deleteNodes();
    expect(shown()).toEqual(['0,0 10,10 0,10 z']);
    expect(chosen()).toEqual([]);
    open(`${SQUARE}${LINE}`);
    choose('1:0', '1:1', '1:2', '1:3');
    deleteNodes();
    expect(shown()).toEqual(['0,0 10,0 10,10 0,10 z']);
  });

  test('nodes are smoothed and made corners again, and stay chosen', () => {
    choose('0:1', '0:2');
    smoothNodes();
    expect(kinds()).toEqual(['cubic,cubic,cubic,line']);
    expect(chosen()).toEqual(['0:1', '0:2']);
    const [round] = pathOf(drawn()).paths;
    const [into, out] = [round?.segments[0], round?.segments[1]];
    if (into?.kind !== 'cubic' || out?.kind !== 'cubic') throw new Error('not smooth');
    expect((into.y1 - into.by) / (into.x1 - into.bx)).toBeCloseTo((out.ay - out.y0) / (out.ax - out.x0), 6);
    cornerNodes();
    const [corner] = pathOf(drawn()).paths;
    const back = corner?.segments[0];
    expect(back?.kind === 'cubic' && back.by).toBeCloseTo(0, 6);
  });

  test('with none chosen a tool works on all paths, with some on those alone', () => {
    open(`${SQUARE}M20 0L30 0L30 10Z`);
    reversePaths();
    expect(shown()).toEqual(['0,0 0,10 10,10 10,0 z', '20,0 30,10 30,0 z']);
    choose('1:0');
    reversePaths();
    expect(shown()).toEqual(['0,0 0,10 10,10 10,0 z', '20,0 30,0 30,10 z']);
  });

  test('segments between two chosen nodes are made straight, those beside a single one', () => {
    const bent = 'M0 0C1 5 9 5 10 0C12 5 18 5 20 0C22 5 28 5 30 0';
    open(bent);
    choose('0:1', '0:2');
    straightenSegments();
    expect(kinds()).toEqual(['cubic,line,cubic']);
    open(bent);
    choose('0:1');
    straightenSegments();
    expect(kinds()).toEqual(['line,line,cubic']);
    open(bent);
    choose('0:0', '0:2');
    straightenSegments();
    expect(kinds()).toEqual(['cubic,cubic,cubic']);
    open('M0 0C1 5 9 5 10 0C5 -5 1 -2 0 0Z');
    choose('0:1', '0:0');
    straightenSegments();
    expect(kinds()).toEqual(['line,line']);
  });

  test('paths are broken at nodes: a closed one opens, then falls into pieces', () => {
    breakNodes();
    expect(shown()).toEqual(['0,0 10,0 10,10 0,10 z']);
    choose('0:1');
    breakNodes();
    expect(shown()).toEqual(['10,0 10,10 0,10 0,0 10,0']);
    open(SQUARE);
    choose('0:3', '0:0', '0:2');
    breakNodes();
    expect(shown().sort()).toEqual(['0,0 10,0 10,10', '0,10 0,0', '10,10 0,10']);
    open(LINE);
    choose('0:2', '0:1');
    breakNodes();
    expect(shown()).toEqual(['0,0 10,0', '10,0 20,0', '20,0 30,0']);
  });

  test('ends are joined whichever way their paths run; one alone closes its path', () => {
    const two = 'M0 0L10 0M10 5L0 5';
    for (const [keys, joined] of [
      [['0:1', '1:0'], '0,0 10,0 10,5 0,5'],
      [['0:1', '1:1'], '0,0 10,0 0,5 10,5'],
      [['0:0', '1:0'], '10,0 0,0 10,5 0,5'],
      [['0:0', '1:1'], '10,0 0,0 0,5 10,5'],
    ] as const) {
      open(two);
      choose(...keys);
      joinNodes();
      expect(shown(), keys.join(' ')).toEqual([joined]);
    }
    open(LINE);
    choose('0:3');
    joinNodes();
    expect(shown()).toEqual(['0,0 10,0 20,0 30,0 z']);
    open(`${LINE}M50 0L60 0`);
    choose('0:0', '0:3');
    joinNodes();
    expect(shown()).toEqual(['0,0 10,0 20,0 30,0 z', '50,0 60,0']);
    // Nodes in the middle, or of closed paths, are no ends.
    open(`${SQUARE}${LINE}`);
    choose('0:0', '1:1');
    const before = now();
    joinNodes();
    expect(now()).toBe(before);
  });

  test('paths are made simpler within a tolerance', () => {
    const many = Array.from({ length: 41 }, (_, i) => `${i ? 'L' : 'M'}${i / 4} ${Math.sin(i / 8)}`).join('');
    open(many);
    simplifyPaths(0.05);
    expect(pathOf(drawn()).paths[0]?.segments.length).toBeLessThan(10);
  });

  test('nodes are moved by mm on the sheet, in one step of undo', () => {
    open(SQUARE, { placement: { x: 100, y: 50, turn: 90 }, scale: 2 });
    choose('0:0', '0:1');
    expect(nudgeNodes(0, 2)).toBe(true);
    expect(nudgeNodes(0, 2)).toBe(true);
    expect(shown()).toEqual(['2,0 12,0 10,10 0,10 z']);
    undo();
    expect(shown()).toEqual(['0,0 10,0 10,10 0,10 z']);
    choose();
    expect(nudgeNodes(0, 2)).toBe(false);
  });
});

describe('choosing', () => {
  test('all, the next, the one before, around the end', () => {
    open(`${SQUARE}M20 0L30 0`);
    chooseAll();
    expect(chosen()).toEqual(['0:0', '0:1', '0:2', '0:3', '1:0', '1:1']);
    choose();
    chooseNext(1);
    expect(chosen()).toEqual(['0:0']);
    chooseNext(-1);
    expect(chosen()).toEqual(['1:1']);
    chooseNext(1);
    chooseNext(1);
    expect(chosen()).toEqual(['0:1']);
  });

  test('between two, along an open path, the shorter way round a closed one', () => {
    open('M0 0L1 0L2 0L3 0L4 0L5 0');
    choose('0:4', '0:1');
    chooseBetween();
    expect(chosen().sort()).toEqual(['0:1', '0:2', '0:3', '0:4']);
    const hexagon = 'M0 0L1 0L2 1L2 2L1 3L0 3Z';
    open(hexagon);
    choose('0:0', '0:2');
    chooseBetween();
    expect(chosen().sort()).toEqual(['0:0', '0:1', '0:2']);
    choose('0:0', '0:4');
    chooseBetween();
    expect(chosen().sort()).toEqual(['0:0', '0:4', '0:5']);
    choose('0:0', '0:3');
    chooseBetween();
    expect(chosen().sort()).toEqual(['0:0', '0:1', '0:2', '0:3']);
    choose('0:2');
    chooseBetween();
    expect(chosen()).toEqual(['0:2']);
  });

  test('where the one chosen node is, and how many ends and lines are chosen', () => {
    open(`${SQUARE}M20 0L30 5`);
    const hand = pathsInHand(now(), state().view, at());
    const paths = hand ? editedPaths(hand) : [];
    expect(chosenPlace(paths, new Set(['1:1']))).toEqual({ x: 30, y: 5 });
    expect(chosenPlace(paths, new Set(['0:2']))).toEqual({ x: 10, y: 10 });
    expect(chosenPlace(paths, new Set(['1:2']))).toBeNull();
    expect(chosenPlace(paths, new Set(['7:0']))).toBeNull();
    expect(chosenPlace(paths, new Set())).toBeNull();
    expect(chosenPlace(paths, new Set(['0:0', '0:1']))).toBeNull();
    expect(chosenAmong(paths, new Set(['0:0', '0:1', '1:1', '1:0']))).toEqual({ ends: 2, lines: 2 });
    expect(chosenAmong(paths, new Set(['0:0']))).toEqual({ ends: 0, lines: 1 });
  });
});
