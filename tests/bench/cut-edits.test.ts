/** Starts and tabs on the bench: dragged along their own outline, moved by keys, taken out, put in. */
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { AtCut } from '../../src/bench/at';
import {
  addTabAt,
  cutSeen,
  letGoTabsOf,
  nudgeChosenCut,
  placeOf,
  removeChosenCut,
  takeHold,
} from '../../src/bench/cut-edits';
import { chooseCut, goToStation, select, setPointing, undo, useBench } from '../../src/bench/store';
import { setTabs } from '../../src/core/commands/cut-places';
import { setKerfSide, setLead } from '../../src/core/commands/operations';
import type { Point } from '../../src/core/geometry/point';
import { answer, compute, hostHere, openJob, partNow } from '../support/bench';
import { jobWith, partOf, rectangle } from '../support/jobs';

const host = hostHere();
beforeEach(() => answer(host));

const state = useBench.getState;
const plate = () =>
  partOf([rectangle('r', 100, 60), rectangle('h', 20, 20, { role: 'punch' })], {
    placement: { x: 200, y: 200 },
    work: [{ what: 'outline', operation: 'cut' }],
  });
const asked = () => {
  const job = jobWith([plate()], {
    operations: [{ id: 'cut', name: 'Cut', kind: 'cut' }],
    sheet: { width: 400, height: 400, kerf: 0.4 },
  });
  return setTabs(setLead(setKerfSide(job, 'cut', 'beside'), 'cut', { shape: 'arc', in: 4 }), 'cut', { count: 4 });
};
/** On the rim, which is the first of the outlines as they are made. */
const at = (place: AtCut['place']): AtCut => ({ operationId: 'cut', partId: 'part', nth: 0, place });
const seen = () => {
  const cut = cutSeen(state().view, at('start'));
  if (!cut) throw new Error('no cut is seen');
  return cut;
};
const startNow = () => placeOf(at('start'), seen())?.at as Point;
const away = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

beforeEach(() => openJob(asked(), 'assign'));

describe('a drag', () => {
  test('keeps to its own outline wherever the pointer goes, and is one step of undo', async () => {
    const held = takeHold({ at: at('start'), cut: seen() });
    // The outline is asked for when it is taken hold of. The pointer is nearer to the hole than to the rim.
    await vi.waitFor(() => {
      held.moveTo({ x: 226, y: 201 });
      compute();
      expect(away(startNow(), { x: 250.2, y: 201 })).toBeLessThan(1e-3);
    });
    expect(seen().start?.byHand).toBe(0);
    expect(partNow().starts).toHaveLength(1);
    held.moveTo({ x: 230, y: 226 });
    await held.letGo();
    compute();
    expect(away(startNow(), { x: 230, y: 230.2 })).toBeLessThan(1e-3);
    undo();
    expect(partNow().starts).toEqual([]);
  });

  test('of a tab leaves the others where they are', async () => {
    const before = seen().tabs.map((t) => t.at);
    const held = takeHold({ at: at(1), cut: seen() });
    held.moveTo({ x: (before[1] as Point).x + 3, y: (before[1] as Point).y });
    await held.letGo();
    compute();
    const after = seen().tabs;
    expect(after).toHaveLength(4);
    for (const i of [0, 2, 3]) expect(Math.min(...after.map((t) => away(t.at, before[i] as Point)))).toBeLessThan(1e-3);
    expect(after.every((t) => t.byHand !== null)).toBe(true);
    letGoTabsOf(seen());
    compute();
    expect(partNow().tabs).toEqual([]);
  });

  test('goes on where the worker does not answer', async () => {
    vi.spyOn(host, 'cutLine').mockRejectedValueOnce(new Error('stopped'));
    vi.spyOn(host, 'cutNear').mockRejectedValueOnce(new Error('stopped'));
    const held = takeHold({ at: at('start'), cut: seen() });
    held.moveTo({ x: 251, y: 205 });
    await held.letGo();
    compute();
    expect(away(startNow(), { x: 250.2, y: 205 })).toBeLessThan(0.01);
  });
});

describe('what is chosen', () => {
  test('goes along its outline by keys', () => {
    expect(nudgeChosenCut(1, 0)).toBe(false);
    chooseCut(at('start'));
    const before = startNow();
    expect(nudgeChosenCut(2, 0)).toBe(true);
    compute();
    expect(away(startNow(), { x: before.x + 2, y: before.y })).toBeLessThan(1e-3);
  });

  test('is taken out by a key, a start let go', () => {
    expect(removeChosenCut()).toBe(false);
    chooseCut(at(2));
    expect(removeChosenCut()).toBe(true);
    compute();
    expect(seen().tabs).toHaveLength(3);
    expect(state().atCut).toBeNull();
    const by = startNow();
    chooseCut(at('start'));
    nudgeChosenCut(5, 0);
    compute();
    removeChosenCut();
    compute();
    expect(away(startNow(), by)).toBeLessThan(1e-6);
    expect(partNow().starts).toEqual([]);
  });

  test('is nothing any more at another station or with another part', () => {
    for (const leave of [() => goToStation('prove'), () => select(null)]) {
      chooseCut(at('start'));
      leave();
      expect(state().atCut).toBeNull();
    }
  });

  test('is a cut that is gone: nothing happens', () => {
    chooseCut({ ...at('start'), nth: 9 });
    expect(nudgeChosenCut(1, 0)).toBe(true);
    expect(partNow().starts).toEqual([]);
  });
});

test('a press puts a tab on the outline nearest to it, beside those there are', async () => {
  setPointing('tab');
  await addTabAt({ x: 251, y: 221 });
  compute();
  expect(state().pointing).toBeNull();
  expect(seen().tabs).toHaveLength(5);
  expect(Math.min(...seen().tabs.map((t) => away(t.at, { x: 250.2, y: 221 })))).toBeLessThan(1e-3);
});
