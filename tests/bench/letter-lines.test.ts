/** The middle lines of a letter worked on by hand. */
import { beforeEach, describe, expect, test } from 'vitest';
import { editedPaths, enterLines, pathsInHand } from '../../src/bench/nodes/hand';
import { letterAt } from '../../src/bench/nodes/letter-at';
import { onMiddle } from '../../src/bench/nodes/middle';
import { chooseAll, dropLines, letRunThrough, mergeLines, nudgeNodes, pullToTip } from '../../src/bench/nodes/tools';
import type { AtNodes } from '../../src/bench/state';
import { select, setPointing, useBench, workOnNodes } from '../../src/bench/store';
import { boxCentre } from '../../src/core/geometry/point';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { answer, compute, hostHere, now, openJob, stepNow, viewNow } from '../support/bench';
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

describe('lines of a letter', () => {
  const lined = (text: string, corrections: Draft[] = [], more: Draft = {}) =>
    jobWith([
      partOf([lettering('o', 'Poppins', { placement: { x: 900, y: 900 } })], {
        id: 'other',
        steps: [{ kind: 'weld' }, { kind: 'centerline' }],
        work: [{ what: 'centerline', operation: 'mark' }],
      }),
      partOf([lettering(text, 'Poppins')], {
        steps: [{ kind: 'weld' }, { kind: 'centerline', corrections }],
        work: [{ what: 'centerline', operation: 'mark' }],
        ...more,
      }),
    ]);
  const letters = (id = 'part') => viewNow(id).centerline?.letters ?? [];
  const lines = () => pathOf(stepNow('centerline').corrections[0]?.d ?? '').paths;

  beforeEach(() => openJob(lined('lie'), 'fill'));

  test('are kept as they are drawn from when they are taken in hand, for all that look like it', () => {
    const seen = letters()[1];
    enterLines('part', 'words:1');
    expect(at()).toEqual({ partId: 'part', memberId: null, letter: 'words:1', chosen: new Set() });
    expect(stepNow('centerline').corrections).toMatchObject([{ letter: 'words:1', alike: seen?.alike }]);
    compute();
    const hand = pathsInHand(now(), state().view, at());
    const drawnNow = hand ? editedPaths(hand) : [];
    const before = pathOf(seen?.d ?? '').paths;
    expect(drawnNow.length).toBe(before.length);
    expect(drawnNow[0]?.segments[0]?.x0).toBeCloseTo(before[0]?.segments[0]?.x0 ?? Number.NaN, 2);
    // Taken in hand again, they are the same.
    const step = structuredClone(stepNow('centerline'));
    enterLines('part', 'words:1');
    expect(stepNow('centerline')).toEqual(step);
  });

  test('nothing of what is locked, gone or no letter is taken', () => {
    const before = now();
    enterLines('part', 'words:9');
    enterLines('gone', 'words:1');
    openJob(lined('lie', [], { locked: true }), 'fill');
    enterLines('part', 'words:1');
    expect(state().atNodes).toBeNull();
    expect(before.parts[0]?.steps).toEqual(now().parts[0]?.steps);
  });

  test('are put back into the correction that stands for the letter', () => {
    enterLines('part', 'words:0');
    compute();
    chooseAll();
    expect(nudgeNodes(3, 0)).toBe(true);
    compute();
    expect(letters()[0]?.corrected).toBe(true);
    expect(letters()[1]?.corrected).toBe(false);
    // Only that one goes.
    dropLines();
    expect(lines()).toEqual([]);
  });

  test('ends go to the tip, run through each other, are merged, and dropped', () => {
    openJob(
      lined('l', [
        // In capital heights: an upright line within the letter, and two short ones in a row.
        { letter: 'words:0', d: 'M0.15 0.3L0.15 0.6M2 0L3 0M3.5 0L4.5 0' },
      ]),
      'fill',
    );
    enterLines('part', 'words:0');
    choose('0:0', '0:1', '1:0');
    pullToTip();
    const [upright] = lines();
    const ys = upright?.segments.flatMap((s) => [s.y0, s.y1]) ?? [];
    expect(upright?.segments).toHaveLength(3);
    expect(Math.min(...ys)).toBeCloseTo(0, 2);
    expect(Math.max(...ys)).toBeGreaterThan(0.95);
    expect(lines()).toHaveLength(3);
    compute();
    choose('1:1', '2:0');
    letRunThrough();
    expect(lines()).toHaveLength(2);
    expect(lines()[1]?.segments.at(-1)?.x1).toBeCloseTo(4.5, 6);
    compute();
    choose('1:0');
    const before = now();
    letRunThrough();
    mergeLines();
    expect(now()).toBe(before);
    choose('0:0', '1:0');
    mergeLines();
    expect(lines()).toHaveLength(1);
    compute();
    choose('0:1');
    dropLines();
    expect(lines()).toEqual([]);
  });

  test('two side by side become the one between them', () => {
    openJob(lined('l', [{ letter: 'words:0', d: 'M0 0L1 0M1 0.1L0 0.1M5 5L6 5L6 6Z' }]), 'fill');
    enterLines('part', 'words:0');
    choose('0:0', '2:1');
    const before = now();
    mergeLines();
    choose('0:0', '1:0', '2:0');
    mergeLines();
    expect(now()).toBe(before);
    choose('0:0', '1:1');
    mergeLines();
    expect(lines()).toHaveLength(2);
    const ys = lines()[0]?.segments.flatMap((s) => [s.y0, s.y1]) ?? [];
    for (const y of ys) expect(y).toBeCloseTo(0.05, 6);
  });

  test('the letter under a press is taken, else the nearest, of the selected part or any', () => {
    const boxes = letters().map((l) => boxCentre(l.box));
    setPointing('letter');
    letterAt(boxes[2] as { x: number; y: number });
    expect(at().letter).toBe('words:2');
    expect(state().pointing).toBeNull();
    letterAt({ x: -500, y: 100 });
    expect(at().letter).toBe('words:0');
    select(null);
    letterAt({ x: 500, y: 100 });
    expect([state().selection.partId, at().letter]).toEqual(['part', 'words:2']);
    openJob(jobWith([partOf([lettering('l')])]), 'fill');
    letterAt({ x: 150, y: 100 });
    expect(state().atNodes).toBeNull();
  });

  test('a dragged node snaps to the nearest place of the middle within reach', () => {
    const middle = pathOf('M0 0L10 0M0 5L10 5').paths;
    expect(onMiddle({ x: 3, y: 1 }, middle, 2)).toEqual({ x: 3, y: 0 });
    expect(onMiddle({ x: 3, y: 4.5 }, middle, 2)).toEqual({ x: 3, y: 5 });
    expect(onMiddle({ x: 3, y: 2.5 }, middle, 2)).toBeNull();
    expect(onMiddle({ x: 3, y: 1 }, [], 2)).toBeNull();
  });
});
