/** Dots moved and left out by hand. */
import { beforeEach, describe, expect, test } from 'vitest';
import { moveDot, removeChosenDot, resetDots } from '../../src/bench/dot-edits';
import { chooseDot, undo, useBench } from '../../src/bench/store';
import type { Point } from '../../src/core/geometry/point';
import { LIMITS } from '../../src/core/limits';
import { compute, now, openJob, stepNow, viewNow } from '../support/bench';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const dotted = (more: Draft = {}, part: Draft = {}) =>
  jobWith([
    partOf([lettering('LO', 'Poppins', { align: 'left', placement: { x: 40, y: 100 } })], {
      steps: [{ kind: 'weld' }, { kind: 'dots', diameter: 1, spacing: 5, ...more }],
      work: [{ what: 'dots', operation: 'mark' }],
      ...part,
    }),
  ]);
/** Of each dot where it is and where it would be by itself. */
const dots = (): { at: Point; home: Point }[] => {
  const places = viewNow().dots?.places ?? new Float64Array();
  return Array.from({ length: places.length / 4 }, (_, i) => {
    const [x, y, hx, hy] = places.subarray(4 * i) as unknown as [number, number, number, number];
    return { at: { x, y }, home: { x: hx, y: hy } };
  });
};
/** The dot farthest to the right: on the O. */
const rightmost = () => {
  const home = dots().reduce((a, b) => (b.home.x > a.home.x ? b : a)).home;
  return { partId: 'part', ...home };
};
const changes = () => stepNow('dots').changes;

beforeEach(() => openJob(dotted(), 'fill'));

describe('a dot', () => {
  test('is moved, kept in its letter, and where it was asked to be', () => {
    const at = rightmost();
    moveDot(at, { x: at.x + 3, y: at.y - 1.5 });
    // Capitals are 30 mm high.
    expect(changes()).toMatchObject([{ letter: 'words:1', dx: 0.1, dy: -0.05 }]);
    compute();
    const moved = dots().find((d) => d.home.x !== d.at.x);
    expect(moved?.home.x).toBeCloseTo(at.x, 6);
    expect(moved?.at.x).toBeCloseTo(at.x + 3, 6);
    expect(moved?.at.y).toBeCloseTo(at.y - 1.5, 6);
  });

  test('has one change, however often it is moved', () => {
    const at = rightmost();
    moveDot(at, { x: at.x + 3, y: at.y });
    moveDot({ ...at, x: at.x - 10 }, at);
    moveDot(at, { x: at.x + 1, y: at.y });
    expect(changes().map((c) => c.dx)).toEqual([expect.closeTo(10 / 30, 6), expect.closeTo(1 / 30, 6)]);
    undo();
    expect(changes().map((c) => c.dx)).toEqual([expect.closeTo(3 / 30, 6), expect.closeTo(10 / 30, 6)]);
  });

  test('that was kept in the first member is kept in its letter when it is moved again', () => {
    const at = rightmost();
    const frame = viewNow().dots?.frames[0]?.matrix;
    if (!frame) throw new Error('no frame');
    const own = { letter: null, x: (at.x - frame.e) / 30, y: (at.y - frame.f) / 30, dx: 0.2, dy: 0 };
    openJob(dotted({ changes: [own, { ...own, letter: 'gone:7' }] }), 'fill');
    moveDot(at, { x: at.x + 3, y: at.y });
    expect(changes().map((c) => c.letter)).toEqual(['gone:7', 'words:1']);
  });

  test('is left out; whether there was one chosen', () => {
    expect(removeChosenDot()).toBe(false);
    const count = dots().length;
    chooseDot(rightmost());
    expect(removeChosenDot()).toBe(true);
    expect(useBench.getState().atDot).toBeNull();
    expect(changes()).toMatchObject([{ letter: 'words:1', dx: null, dy: null }]);
    compute();
    expect(dots()).toHaveLength(count - 1);
    resetDots('part');
    compute();
    expect(dots()).toHaveLength(count);
  });

  test('of a shape is kept in the first member', () => {
    openJob(
      jobWith([
        partOf([{ id: 'r', kind: 'rectangle', placement: { x: 100, y: 100 }, width: 40, height: 20 }], {
          steps: [{ kind: 'dots', diameter: 1, spacing: 5 }],
          work: [{ what: 'dots', operation: 'mark' }],
        }),
      ]),
      'fill',
    );
    moveDot({ partId: 'part', x: 120, y: 110 }, { x: 122, y: 110 });
    expect(changes()).toEqual([{ letter: null, x: 1, y: 0.5, dx: 0.1, dy: 0 }]);
  });
});

test('no more changes are kept than a document holds; nothing of what is locked, or not there', () => {
  const many = Array.from({ length: LIMITS.dotChanges }, (_, i) => ({ x: 500 + i, y: 0 }));
  openJob(dotted({ changes: many }), 'fill');
  const at = rightmost();
  moveDot(at, { x: 0, y: 0 });
  expect(changes()).toHaveLength(LIMITS.dotChanges);
  expect(changes().some((c) => c.letter !== null)).toBe(false);
  openJob(dotted({}, { locked: true }), 'fill');
  const before = now();
  moveDot(at, { x: 0, y: 0 });
  moveDot({ ...at, partId: 'gone' }, { x: 0, y: 0 });
  resetDots('gone');
  expect(now()).toBe(before);
  openJob(jobWith([partOf([lettering('L')])]), 'fill');
  moveDot(at, { x: 0, y: 0 });
  resetDots('part');
  expect(now()).toEqual(jobWith([partOf([lettering('L')])]));
});
