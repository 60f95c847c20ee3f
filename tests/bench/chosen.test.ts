/** What is chosen: what it is in words, how large, and what the numbers beside it do. */
import { beforeEach, describe, expect, test, vi } from 'vitest';
import {
  chosenBox,
  chosenFrame,
  chosenIn,
  chosenNow,
  chosenWords,
  isMirrored,
  isTurned,
  memberInHand,
  mirrorNow,
  moveBy,
  moveTo,
  shapeInHand,
  sizeBy,
  sizeTo,
  stretchTo,
  turnOf,
  turnTo,
} from '../../src/bench/chosen';
import { goInside } from '../../src/bench/inside';
import { partsIn } from '../../src/bench/sheet/band';
import { redo, select, selectedParts, selectParts, undo, useBench } from '../../src/bench/store';
import { boxHeight, boxWidth, isEmptyBox } from '../../src/core/geometry/point';
import { answer, compute, hostHere, now, openJob, partNow } from '../support/bench';
import { rectangle } from '../support/commands';
import { jobWith, lettering, partOf } from '../support/jobs';

const host = hostHere();
beforeEach(() => answer(host));
const state = useBench.getState;
const box = () => chosenBox(chosenNow(), state().view);

/** A part before it, a turned and mirrored plate with words on it, and one beside. */
const job = () =>
  jobWith([
    partOf([rectangle('plate', 250)], { id: 'first' }),
    partOf(
      [
        rectangle('plate', 0, { placement: { x: 0, y: 0 } }),
        lettering('Oak', 'Poppins', { placement: { x: 0, y: 0 }, size: { by: 'capital', mm: 4 } }),
      ],
      {
        name: 'Sign',
        placement: { x: 60, y: 50, turn: 30, mirror: true },
      },
    ),
    partOf([rectangle('r', 150)], { id: 'beside', steps: [{ kind: 'border', distance: 3 }] }),
    partOf([lettering(' ')], { id: 'empty' }),
  ]);
beforeEach(() => {
  openJob(job());
  select('part');
});

describe('what is chosen', () => {
  test('is a part, a member of one, or several parts as one, and says so', () => {
    expect(chosenNow()).toEqual({ partIds: ['part'], memberId: null });
    expect(chosenWords(now(), chosenNow())).toBe('Part Sign, 2 things as one');
    select('part', 'words');
    expect(chosenNow()).toEqual({ partIds: ['part'], memberId: 'words', scale: 1 });
    expect(chosenWords(now(), chosenNow())).toBe('Oak, in the part Sign');
    selectParts(['part', 'beside']);
    expect(chosenWords(now(), chosenNow())).toBe('2 parts as one');
    select('beside');
    expect(chosenWords(now(), chosenNow())).toBe('Part Rectangle');
    select(null);
    expect(chosenWords(now(), chosenNow())).toBe('Nothing');
    expect(isEmptyBox(box())).toBe(true);
  });

  test('is as large as what is cut of it, border included; several as all of them', () => {
    select('beside');
    expect([boxWidth(box()), boxHeight(box())].map((v) => Math.round(v * 100) / 100)).toEqual([26, 16]);
    select('beside', 'r');
    expect([boxWidth(box()), boxHeight(box())]).toEqual([20, 10]);
    selectParts(['first', 'beside']);
    expect(box()).toMatchObject({ minX: expect.closeTo(137, 2), maxX: expect.closeTo(260, 9) });
  });

  test('has a frame along its own sides; several have a level one', () => {
    const frame = () => chosenFrame(chosenNow(), state().view);
    expect(frame()?.matrix).toMatchObject({ e: 60, f: 50 });
    expect(frame()?.box.maxX).toBeCloseTo(10, 9);
    expect(isTurned(frame()?.matrix ?? { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 })).toBe(true);
    select('part', 'words');
    expect(frame()?.box).toEqual(state().view?.parts[1]?.members[1]?.ownBox);
    select('beside');
    expect(frame()).toMatchObject({ matrix: { a: 1, b: 0, e: 0 }, box: { minX: expect.closeTo(137, 2) } });
    selectParts(['part', 'beside']);
    expect(frame()?.matrix).toMatchObject({ a: 1, b: 0 });
    select('empty');
    expect(frame()).toBeNull();
    select(null);
    expect(frame()).toBeNull();
    for (const [m, turned] of [
      [{ a: 0, b: 1, c: -1, d: 0, e: 5, f: 5 }, false],
      [{ a: -1, b: 0, c: 0, d: -1, e: 5, f: 5 }, false],
      [{ a: 0.8, b: 0.6, c: -0.6, d: 0.8, e: 0, f: 0 }, true],
    ] as const)
      expect(isTurned(m)).toBe(turned);
  });

  test('the one thing a part is made of is in hand without going in', () => {
    const inHand = () => memberInHand(now(), state().selection)?.id;
    expect(inHand()).toBeUndefined();
    select('part', 'words');
    expect(inHand()).toBe('words');
    select('beside');
    expect(inHand()).toBe('r');
    selectParts(['beside', 'first']);
    expect(inHand()).toBeUndefined();
    select('beside');
    expect(shapeInHand(now(), state().selection)).toMatchObject({
      chosen: { partIds: ['beside'], memberId: 'r' },
      shape: { width: 20 },
    });
    select('part', 'words');
    expect(shapeInHand(now(), state().selection)).toBeNull();
    select(null);
    expect(shapeInHand(now(), state().selection)).toBeNull();
  });

  test('is turned and mirrored as a part, or a member in it', () => {
    expect([turnOf(now(), chosenNow()), isMirrored(now(), chosenNow())]).toEqual([30, true]);
    select('part', 'plate');
    expect([turnOf(now(), chosenNow()), isMirrored(now(), chosenNow())]).toEqual([0, false]);
    for (const chosen of [
      chosenIn({ partId: 'part', memberId: null, others: ['beside'] }, state().view),
      { partIds: ['gone'], memberId: null },
      { partIds: ['part'], memberId: 'gone' },
    ])
      expect([turnOf(now(), chosen), isMirrored(now(), chosen)]).toEqual([0, false]);
  });
});

describe('the numbers beside it', () => {
  test('move the lower left corner of its bounds', () => {
    moveTo(chosenNow(), { x: 12.5 });
    compute();
    moveTo(chosenNow(), { y: 7 });
    compute();
    expect(box()).toMatchObject({ minX: expect.closeTo(12.5, 5), minY: expect.closeTo(7, 5) });
    expect(state().past).toHaveLength(2);
    moveBy(chosenNow(), 1.00049, -1);
    compute();
    expect(box()).toMatchObject({ minX: expect.closeTo(13.5, 5), minY: expect.closeTo(6, 5) });
    const before = now();
    for (const id of ['empty', null]) {
      select(id);
      moveTo(chosenNow(), { x: 1 });
      turnTo(chosenNow(), 9);
      mirrorNow(chosenNow());
      sizeBy(chosenNow(), 2, false);
    }
    expect(now()).toBe(before);
  });

  test('turn it to a direction of its own, about its middle, in a mirrored part too', () => {
    const centre = () =>
      [(box().minX + box().maxX) / 2, (box().minY + box().maxY) / 2].map((v) => Math.round(v * 1e4) / 1e4);
    const before = centre();
    turnTo(chosenNow(), 75);
    compute();
    expect(partNow().placement.turn).toBe(75);
    expect(centre()).toEqual(before);
    select('part', 'plate');
    turnTo(chosenNow(), 20);
    expect(partNow().members[0]?.placement.turn).toBeCloseTo(20, 6);
    selectParts(['part', 'beside']);
    turnTo(chosenNow(), 10);
    expect(partNow().placement.turn).toBe(85);
    expect(partNow('beside').placement.turn).toBe(10);
  });

  test('mirror it and size it about its middle', () => {
    const middle = () => (box().minX + box().maxX) / 2;
    const before = [middle(), boxWidth(box())] as const;
    mirrorNow(chosenNow());
    compute();
    expect(partNow().placement.mirror).toBe(false);
    expect(middle()).toBeCloseTo(before[0], 4);
    sizeBy(chosenNow(), 2, false);
    compute();
    expect(middle()).toBeCloseTo(before[0], 4);
    expect(boxWidth(box())).toBeCloseTo(2 * before[1], 3);
  });

  test('size it to what is typed, digit by digit from what there was before, as one step of undo', async () => {
    select('beside');
    const from = box();
    for (const mm of [2, 20, 208]) await sizeTo(chosenNow(), 'width', mm, false);
    compute();
    expect(boxWidth(box())).toBeCloseTo(208, 3);
    expect(box()).toMatchObject({ minX: expect.closeTo(from.minX, 3), minY: expect.closeTo(from.minY, 3) });
    expect(state().past).toHaveLength(1);
    // Of a border 3 mm wide either way the rest is words.
    expect(partNow('beside').members[0]).toMatchObject({ width: expect.closeTo(202, 3) });
    undo();
    expect(partNow('beside')).toEqual(job().parts[2]);
    redo();
    compute();
    await sizeTo(chosenNow(), 'height', 30, true);
    compute();
    expect(boxHeight(box())).toBeCloseTo(30, 3);
    expect(partNow('beside').steps.find((s) => s.kind === 'border')).not.toMatchObject({ distance: 3 });
  });

  test('are overtaken by newer ones and let go by an undo; what is done meanwhile stays done', async () => {
    select('beside');
    const first = sizeTo(chosenNow(), 'width', 99, false);
    const second = sizeTo(chosenNow(), 'width', 77, false);
    await Promise.all([first, second]);
    compute();
    expect(boxWidth(box())).toBeCloseTo(77, 3);
    const from = box().minX;
    const third = sizeTo(chosenNow(), 'height', 55, false);
    moveBy(chosenNow(), 5, 0);
    await third;
    compute();
    expect(boxHeight(box())).toBeCloseTo(55, 3);
    expect(box().minX).toBeCloseTo(from + 5, 3);
    undo();
    const moved = now();
    redo();
    moveBy(chosenNow(), 1, 0);
    const fourth = sizeTo(chosenNow(), 'height', 66, false);
    undo();
    undo();
    await fourth;
    expect(now()).toBe(moved);
    // One that comes after an undo is as good as any.
    compute();
    await sizeTo(chosenNow(), 'height', 33, false);
    compute();
    expect(boxHeight(box())).toBeCloseTo(33, 3);
    undo();
    compute();
    expect(now()).toBe(moved);
    vi.spyOn(host, 'sizingTo').mockRejectedValueOnce(new Error('stopped'));
    await sizeTo(chosenNow(), 'height', 44, false);
    select('empty');
    await sizeTo(chosenNow(), 'height', 44, false);
    expect(now()).toBe(moved);
  });

  test('are not for another job, nor for another name, that is there by the time they are found', async () => {
    select('beside');
    const first = sizeTo(chosenNow(), 'height', 55, false);
    openJob({ ...job(), title: 'Another' });
    useBench.setState({ id: 'another' });
    const other = now();
    await first;
    expect(now()).toBe(other);
    select('beside');
    const second = sizeTo(chosenNow(), 'height', 55, false);
    useBench.setState({ rowId: 'second' });
    await second;
    expect(now()).toBe(other);
    expect(state().said).toContain('another name was taken in hand');
    useBench.setState({ rowId: null });
  });

  test('free a shape of its proportions, its lower left corner staying', () => {
    select('first');
    const inHand = shapeInHand(now(), state().selection);
    if (!inHand) throw new Error('no shape');
    stretchTo(inHand.chosen, inHand.shape, { width: 50 });
    compute();
    expect(box()).toMatchObject({
      minX: expect.closeTo(240, 6),
      maxX: expect.closeTo(290, 6),
      minY: expect.closeTo(95, 6),
    });
    stretchTo(inHand.chosen, { ...inHand.shape, width: 50 }, { height: 3 });
    compute();
    expect([boxWidth(box()), boxHeight(box())].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([50, 3]);
    const before = now();
    stretchTo({ partIds: ['gone'], memberId: 'r' }, inHand.shape, { height: 3 });
    expect(now()).toBe(before);
  });
});

describe('a step inside', () => {
  test('leads from a part to its member, then to letters', () => {
    goInside();
    expect(state().selection).toMatchObject({ partId: 'part', memberId: 'plate' });
    goInside('words');
    expect(state().selection.memberId).toBe('words');
    expect(state().picked).toBeNull();
    goInside('words');
    expect(state().picked).toEqual([]);
    expect(state().station).toBe('compose');
  });

  test('leads to nodes of what is no lettering, and nowhere from what is locked, or several', async () => {
    select('first', 'plate');
    goInside('plate');
    await vi.waitFor(() => expect(state().atNodes?.partId).toBe('first'));
    expect(state().station).toBe('close');
    openJob(job());
    selectParts(['part', 'beside']);
    goInside();
    expect(selectedParts(state().selection)).toEqual(['part', 'beside']);
    openJob(jobWith([partOf([rectangle('r', 5)], { locked: true })]));
    select('part');
    goInside();
    expect(state().selection.memberId).toBeNull();
    select(null);
    goInside();
    expect(state().selection.partId).toBeNull();
  });
});

test('a band chooses what it touches, but nothing that is locked or empty', () => {
  expect(partsIn({ minX: 100, minY: 90, maxX: 137.5, maxY: 95 })).toEqual(['beside']);
  expect(partsIn({ minX: 0, minY: 0, maxX: 300, maxY: 200 })).toEqual(['first', 'part', 'beside']);
  expect(partsIn({ minX: 0, minY: 0, maxX: 1, maxY: 1 })).toEqual([]);
  openJob(
    jobWith([partOf([rectangle('r', 50)], { locked: true }), partOf([rectangle('r', 50)], { id: 'b', hidden: true })]),
  );
  expect(partsIn({ minX: 0, minY: 0, maxX: 300, maxY: 200 })).toEqual([]);
});
