/** Moving things on the sheet: drags, what they snap to, and centring in a region. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { toSheet, useCamera } from '../../src/bench/sheet/camera';
import { followDrag, followPointer, type Grab } from '../../src/bench/sheet/drag';
import { centreAt } from '../../src/bench/sheet/point-at';
import { snapperFor, useSnap } from '../../src/bench/sheet/snapping';
import { redo, select, selectAlso, setPointing, undo, useBench } from '../../src/bench/store';
import { applyMatrix, boxCentre } from '../../src/core/geometry/point';
import { partMatrix } from '../../src/core/prepare/placement';
import { answer, compute, hostHere, now, openJob, partNow, viewNow } from '../support/bench';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const host = hostHere();
beforeEach(() => answer(host));

const rectangle = (id: string, x: number, y: number, more: Draft = {}): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x, y },
  width: 20,
  height: 10,
  ...more,
});
/** Where the middle of what a part's first member measures lies on the sheet, and how the part is turned. */
const placeOf = (id = 'part') => {
  const part = partNow(id);
  const { x, y } = applyMatrix(partMatrix(now().parts, part), part.members[0]?.placement ?? { x: Number.NaN, y: 0 });
  return [Math.round(x * 1e5) / 1e5, Math.round(y * 1e5) / 1e5, part.placement.turn];
};

/** A pointer that is pressed, moved and let go; a window that hears of it. */
let heard: EventTarget;
const pointer = (type: string, x: number, y: number, more: object = {}) =>
  heard.dispatchEvent(
    Object.assign(new Event(type), { clientX: x, clientY: y, shiftKey: false, altKey: false, ...more }),
  );

beforeEach(() => {
  vi.useFakeTimers();
  heard = new EventTarget();
  vi.stubGlobal('window', heard);
  useCamera.setState({ k: 1 });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a drag', () => {
  const said: (string | null)[] = [];
  /** One pixel is a millimetre; y upwards. */
  const toMm = (x: number, y: number) => ({ x, y: -y });
  const press = (grab: Grab, x: number, y: number) =>
    followDrag({ clientX: x, clientY: y }, grab, { toMm, say: (at) => void said.push(at?.words ?? null) });
  // Alone on a large sheet, so that nothing is near to snap to.
  beforeEach(() => {
    said.length = 0;
    openJob(jobWith([partOf([rectangle('r', 300, 200)])], { sheet: { width: 1000, height: 900 } }));
    select('part');
  });

  test('moves by how far the pointer has gone, from when it has left its place', () => {
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 2, 2);
    expect(placeOf()).toEqual([300, 200, 0]);
    pointer('pointermove', 20.00049, -30);
    pointer('pointermove', 40, -33.3333333);
    expect(said).toEqual(['move', 'move']);
    pointer('pointerup', 40, -30);
    expect(said.at(-1)).toBeNull();
    expect(placeOf()).toEqual([340, 233.333, 0]);
    pointer('pointermove', 90, 0);
    expect(placeOf()).toEqual([340, 233.333, 0]);
    undo();
    expect(placeOf()).toEqual([300, 200, 0]);
    redo();
    // Another drag is a step of its own.
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 50, 0, { altKey: true });
    pointer('pointerup', 50, 0);
    undo();
    expect(placeOf()).toEqual([340, 233.333, 0]);
  });

  test('keeps to level or upright with Shift, whichever is farther', () => {
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 40, 30, { shiftKey: true });
    expect(placeOf()).toEqual([340, 200, 0]);
    pointer('pointermove', 30, 40, { shiftKey: true });
    expect(placeOf()).toEqual([300, 160, 0]);
    pointer('pointercancel', 0, 0);
    pointer('pointermove', 90, 90);
    expect(placeOf()).toEqual([300, 160, 0]);
  });

  test('sizes away from the opposite corner with locked proportions, never to nothing', () => {
    press({ kind: 'size', about: { x: 290, y: 195 } }, 310, -205);
    pointer('pointermove', 330, -215);
    expect(partNow().members[0]).toMatchObject({ width: 40, height: 20 });
    expect(placeOf()).toEqual([310, 205, 0]);
    pointer('pointermove', 250, -100);
    const member = partNow().members[0];
    expect(member?.kind === 'rectangle' && [member.width, member.height]).toEqual([0.02, 0.01]);
    pointer('pointerup', 0, 0);
  });

  test('turns about the middle; with Shift to multiples of 15 degrees', () => {
    press({ kind: 'turn', about: { x: 300, y: 200 } }, 310, -200);
    pointer('pointermove', 300, -210);
    expect(placeOf()).toEqual([300, 200, 90]);
    expect(said.at(-1)).toBe('90°');
    pointer('pointermove', 310, -203);
    expect(placeOf()[2]).toBeCloseTo(16.7, 2);
    pointer('pointermove', 310, -203, { shiftKey: true });
    expect(placeOf()[2]).toBe(15);
    pointer('pointerup', 0, 0);
  });

  test('of several moves all of them, by readable sums', () => {
    openJob(
      jobWith([partOf([rectangle('r', 300, 200)]), partOf([rectangle('s', 500, 400)], { id: 'other' })], {
        sheet: { width: 1000, height: 900 },
      }),
    );
    selectAlso('other');
    press({ kind: 'move' }, 0, 0);
    for (let i = 1; i <= 10; i++) pointer('pointermove', 4.1 * i, 0, { altKey: true });
    pointer('pointerup', 0, 0);
    expect([placeOf(), placeOf('other')]).toEqual([
      [341, 200, 0],
      [541, 400, 0],
    ]);
    undo();
    expect([placeOf(), placeOf('other')]).toEqual([
      [300, 200, 0],
      [500, 400, 0],
    ]);
  });

  test('snaps, by pixels rather than millimetres; not with Alt held, nor when it sizes or turns', () => {
    openJob(jobWith([partOf([rectangle('r', 100, 60)]), partOf([rectangle('s', 160, 120)], { id: 'other' })]));
    select('part');
    useCamera.setState({ k: 4 });
    press({ kind: 'move' }, 50, 0);
    // Six pixels are 1.5 mm here: the middle of the sheet is at 150 mm.
    pointer('pointermove', 50 + 48.4, 0);
    expect(placeOf()).toEqual([148.4, 60, 0]);
    pointer('pointermove', 50 + 48.8, 0);
    expect(placeOf()).toEqual([150, 60, 0]);
    expect(useSnap.getState().across?.words).toBe('Middle on the middle of the sheet');
    pointer('pointermove', 50 + 48.8, 0, { altKey: true });
    expect(placeOf()).toEqual([148.8, 60, 0]);
    expect(useSnap.getState().across).toBeNull();
    pointer('pointermove', 50 + 48.8, 0);
    pointer('pointerup', 98.8, 0);
    expect(useSnap.getState().across).toBeNull();
    press({ kind: 'turn', about: { x: 150, y: 60 } }, 200, -60);
    pointer('pointermove', 150, -110);
    expect(placeOf()).toEqual([150, 60, 90]);
    expect(useSnap.getState().across).toBeNull();
    pointer('pointerup', 0, 0);
  });

  test('that is no drag is a press; one that was is none', () => {
    const pressed = vi.fn();
    const begin = () => followDrag({ clientX: 70, clientY: 90 }, { kind: 'move' }, { toMm, say: () => {}, pressed });
    begin();
    pointer('pointermove', 72, 91);
    pointer('pointerup', 72, 91);
    expect(pressed).toHaveBeenCalledTimes(1);
    expect(placeOf()).toEqual([300, 200, 0]);
    begin();
    pointer('pointermove', 73, 90);
    pointer('pointerup', 73, 90);
    expect(pressed).toHaveBeenCalledTimes(1);
    expect(placeOf()).toEqual([303, 200, 0]);
  });

  test('long after the last step is a step of its own, and ends as one', () => {
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 50, 0, { altKey: true });
    pointer('pointerup', 50, 0);
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 20, 0, { altKey: true });
    pointer('pointerup', 20, 0);
    expect(useBench.getState().past.map((s) => s.merge)).toEqual([null, null]);
    undo();
    expect(placeOf()).toEqual([350, 200, 0]);
  });

  test('of what was gone into moves that alone, by what its part is turned', () => {
    openJob(
      jobWith(
        [partOf([rectangle('r', 300, 200), rectangle('s', 330, 200)], { placement: { x: 10, y: 20, turn: 90 } })],
        { sheet: { width: 1000, height: 900 } },
      ),
    );
    select('part', 's');
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 0, -40, { altKey: true });
    pointer('pointerup', 0, -40);
    expect(partNow().members.map((m) => m.placement.x)).toEqual([300, 370]);
    press({ kind: 'turn', about: { x: 0, y: 0 } }, 10, 0);
    pointer('pointermove', 10, -10, { shiftKey: true });
    expect(partNow().members[1]?.placement.turn).toBe(45);
    expect(partNow().placement).toMatchObject({ x: 10, y: 20, turn: 90 });
    pointer('pointerup', 0, 0);
  });

  test('stretches a shape along its own sides, or along one of them', () => {
    const chosen = { partIds: ['part'], memberId: 'r' };
    const grab = (across: boolean, upright: boolean): Grab => ({
      kind: 'stretch',
      about: { x: 290, y: 195 },
      matrix: { a: 1, b: 0, c: 0, d: 1, e: 300, f: 200 },
      width: 20,
      height: 10,
      ways: { across, upright },
      chosen,
    });
    press(grab(true, true), 310, -205);
    pointer('pointermove', 330, -201);
    expect(partNow().members[0]).toMatchObject({ width: 40, height: 6 });
    pointer('pointermove', 290, -195);
    expect(partNow().members[0]).toMatchObject({ width: 0.1, height: 0.1 });
    expect(said.at(-1)).toBe('stretch');
    pointer('pointerup', 0, 0);
    undo();
    press(grab(true, false), 310, -200);
    pointer('pointermove', 350, -500);
    expect(partNow().members[0]).toMatchObject({ width: 60, height: 10 });
    pointer('pointerup', 0, 0);
    undo();
    press(grab(false, true), 310, -200);
    pointer('pointermove', 350, -225);
    expect(partNow().members[0]).toMatchObject({ width: 20, height: 30 });
    pointer('pointerup', 0, 0);
  });

  test('of nothing is none', () => {
    select(null);
    press({ kind: 'move' }, 0, 0);
    pointer('pointermove', 40, 30);
    expect(placeOf()).toEqual([300, 200, 0]);
    expect(said).toEqual([]);
  });

  test('swallows the click it ends with, a mere press does not', () => {
    const clicks: string[] = [];
    heard.addEventListener('click', () => clicks.push('click'));
    const click = () => {
      const event = new Event('click');
      vi.spyOn(event, 'stopPropagation').mockImplementation(() => {
        clicks.push('swallowed');
      });
      heard.dispatchEvent(event);
    };
    const ended: boolean[] = [];
    followPointer(
      { clientX: 0, clientY: 0 },
      () => {},
      (begun) => ended.push(begun),
    );
    pointer('pointermove', 1, 1);
    pointer('pointerup', 1, 1);
    click();
    expect([clicks, ended]).toEqual([['click'], [false]]);
    followPointer(
      { clientX: 0, clientY: 0 },
      () => {},
      (begun) => ended.push(begun),
    );
    pointer('pointermove', 10, 1);
    pointer('pointerup', 10, 1);
    click();
    click();
    expect([clicks, ended]).toEqual([
      ['click', 'click', 'swallowed', 'click'],
      [false, true],
    ]);
    followPointer(
      { clientX: 0, clientY: 0 },
      () => {},
      () => {},
    );
    pointer('pointermove', 10, 1);
    pointer('pointerup', 10, 1);
    vi.runAllTimers();
    click();
    expect(clicks.at(-1)).toBe('click');
    expect(clicks.filter((c) => c === 'swallowed')).toHaveLength(1);
  });
});

describe('snapping', () => {
  const REACH = 3;
  const snap = (dx: number, dy: number) => snapperFor(useBench.getState())?.({ dx, dy }, REACH);
  const words = () => {
    const { across, upright } = useSnap.getState();
    return [across?.words, upright?.words];
  };
  beforeEach(() =>
    openJob(
      jobWith([
        partOf([rectangle('r', 100, 60)]),
        partOf(
          [rectangle('s', 200, 150, { width: 40 }), lettering('HI', 'Poppins', { placement: { x: 60, y: 120 } })],
          {
            id: 'other',
            name: 'Plate',
          },
        ),
      ]),
    ),
  );

  test('is to edges and middles of the sheet and of other things, said in words', () => {
    expect(snap(48, 41)).toEqual({ dx: 50, dy: 40 });
    expect(words()).toEqual(['Middle on the middle of the sheet', 'Middle on the middle of the sheet']);
    expect(snap(-88.5, 10)).toEqual({ dx: -90, dy: 10 });
    expect(words()).toEqual(['Left edge on the left edge of the sheet', undefined]);
    expect(snap(121, 86)).toEqual({ dx: 120, dy: 85 });
    expect(words()).toEqual(['Middle on the right edge of Plate', 'Middle on the bottom edge of Plate']);
  });

  test('is to baselines of words', () => {
    // The lower edge, 55 mm up, to the baseline at 120 mm.
    expect(snap(15, 64.8)?.dy).toBeCloseTo(65, 9);
    expect(words()[1]).toMatch(/on the (baseline|bottom edge) of Plate/);
    select('other', 'words');
    expect(snap(0, -54)?.dy).toBeCloseTo(-55, 9);
    expect(words()[1]).toBe('Baseline on the top edge of Rectangle');
  });

  test('is to nodes only where nothing more telling is near', () => {
    // A corner of the letters: the left side of the I's stem is no edge or middle of anything.
    const nodes = viewNow('other').nodes;
    const xs = [...new Set(Array.from({ length: nodes.length / 2 }, (_, i) => nodes[2 * i] as number))];
    const inner = xs.find((x) => Math.abs(x - 60) > 5 && x > 50 && x < 70);
    if (inner === undefined) throw new Error('no node inside');
    const moved = snapperFor(useBench.getState())?.({ dx: inner - 110 + 0.2, dy: 20 }, 0.5);
    expect(moved?.dx).toBeCloseTo(inner - 110, 6);
    expect(words()[0]).toBe('Right edge on a node of Plate');
  });

  test('is to a part as a whole where it is more than its things, and by its own size', () => {
    // A border of 10 mm about a plate: its edges are those of the border.
    openJob(
      jobWith([
        partOf([rectangle('r', 100, 60), rectangle('t', 130, 70)]),
        partOf([rectangle('s', 200, 150)], { id: 'other', name: 'Plate', steps: [{ kind: 'border', distance: 10 }] }),
      ]),
    );
    select('part');
    // From 90 to 140 mm and from 55 to 75 mm; the border begins at 180 and at 135 mm.
    expect(snap(40.5, 60.5)?.dx).toBeCloseTo(40, 6);
    expect(snap(40.5, 60.5)?.dy).toBeCloseTo(60, 6);
    expect(words()).toEqual(['Right edge on the left edge of Plate', 'Top edge on the bottom edge of Plate']);
    select('part', 't');
    // Gone into, a thing snaps to those beside it in the part.
    expect(snap(-20.5, -15)?.dx).toBeCloseTo(-20, 6);
    expect(words()[0]).toMatch(/of Rectangle$/);
  });

  test('is never to itself, and of nothing there is none', () => {
    const own = snap(1, 0.5);
    expect(own).toEqual({ dx: 1, dy: 0.5 });
    selectAlso('other');
    expect(snap(1, 0.5)).toEqual({ dx: 1, dy: 0.5 });
    select(null);
    expect(snapperFor(useBench.getState())).toBeNull();
    openJob(jobWith([partOf([lettering('  ')])]));
    expect(snapperFor(useBench.getState())).toBeNull();
  });
});

describe('centred in the region under a press', () => {
  const centred = async (at: { x: number; y: number }) => {
    setPointing('region');
    centreAt(at);
    vi.useRealTimers();
    await vi.waitFor(() => expect(useBench.getState().past.length).toBeGreaterThan(0), { timeout: 10_000 });
    compute();
  };
  const plate = () =>
    jobWith([
      partOf([rectangle('dot', 20, 20)]),
      partOf([rectangle('plate', 200, 120, { width: 80, height: 60 })], { id: 'plate' }),
    ]);

  test('the member goes to its middle', async () => {
    openJob(plate());
    await centred({ x: 190, y: 110 });
    expect(placeOf()).toEqual([200, 120, 0]);
    expect(placeOf('plate')).toEqual([200, 120, 0]);
    expect(useBench.getState().pointing).toBeNull();
  });

  test('or to the middle of the sheet where there is none', async () => {
    openJob(plate());
    await centred({ x: 20, y: 180 });
    expect(boxCentre(viewNow().box)).toEqual({ x: 150, y: 100 });
  });

  test('nothing that is not drawn goes anywhere', async () => {
    openJob(plate());
    select(null);
    const before = now();
    centreAt({ x: 190, y: 110 });
    await vi.advanceTimersByTimeAsync(10);
    expect(now()).toBe(before);
  });
});

test('places of the view are millimetres on the sheet, which go upwards', () => {
  expect(toSheet({ k: 4, x: 100, y: 300, width: 0, height: 0, panning: false, fitted: false }, 140, 260)).toEqual({
    x: 10,
    y: 10,
  });
});
