/** Working on nodes: every change keeps the path whole and touches nothing but what was asked for. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addNode,
  asCubic,
  bent,
  breakAt,
  cornered,
  isCorner,
  joined,
  moveHandle,
  moveNodes,
  nodeAt,
  nodeCount,
  nodesOf,
  removeNodes,
  smoothed,
  straightened,
} from '../../src/core/geometry/nodes';
import { isContinuous, type Path, pathArea, pathLength, reversePath } from '../../src/core/geometry/path';
import { arcAbout, cubic, line, pointAt } from '../../src/core/geometry/segment';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';

const plate = roundedRectangle(80, 50, 8);
const circle = ellipsePath(40, 40);
const wave: Path = {
  closed: false,
  segments: [cubic(0, 0, 10, 20, 20, -20, 30, 0), line(30, 0, 50, 0), cubic(50, 0, 60, 10, 70, 10, 80, 0)],
};
const SHAPES = [plate, circle, wave, ellipsePath(60, 20)];

test('nodes are counted and found', () => {
  expect(SHAPES.map(nodeCount)).toEqual([8, 4, 4, 8]);
  expect(nodesOf(wave)).toEqual([
    { x: 0, y: 0 },
    { x: 30, y: 0 },
    { x: 50, y: 0 },
    { x: 80, y: 0 },
  ]);
});

test('any run of changes leaves paths whole', { tags: 'slow' }, () => {
  const change = fc.record({
    kind: fc.constantFrom('move', 'add', 'remove', 'smooth', 'corner', 'straight', 'handle', 'bend', 'turn'),
    node: fc.nat(30),
    t: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
    x: fc.double({ min: -20, max: 20, noNaN: true }),
    y: fc.double({ min: -20, max: 20, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.constantFrom(...SHAPES), fc.array(change, { maxLength: 12 }), (shape, changes) => {
      let path: Path = shape;
      for (const { kind, node, t, x, y } of changes) {
        const i = node % nodeCount(path);
        const s = node % path.segments.length;
        const next = {
          move: () => moveNodes(path, new Set([i]), x, y),
          add: () => addNode(path, s, t),
          remove: () => removeNodes(path, new Set([i])),
          smooth: () => smoothed(path, i),
          corner: () => cornered(path, i),
          straight: () => straightened(path, new Set([s])),
          handle: () => moveHandle(path, s, node % 2 === 0 ? 0 : 1, { x, y }),
          bend: () => bent(path, s, t, { x, y }),
          turn: () => reversePath(path),
        }[kind]();
        path = next ?? path;
        expect(isContinuous(path)).toBe(true);
        expect(path.closed).toBe(shape.closed);
        for (const segment of path.segments)
          for (const value of Object.values(segment))
            if (typeof value === 'number') expect(Number.isFinite(value)).toBe(true);
      }
    }),
    { numRuns: 300 },
  );
});

describe('single changes', () => {
  test('moving a node moves it and nothing farther away', () => {
    const moved = moveNodes(plate, new Set([2]), 3, 4);
    const from = nodeAt(plate, 2);
    expect(nodeAt(moved, 2)).toEqual({ x: from.x + 3, y: from.y + 4 });
    moved.segments.forEach((s, i) => {
      if (i !== 1 && i !== 2) expect(s).toBe(plate.segments[i]);
    });
  });

  test('a node put in keeps the shape, and taken out again gives it back', () => {
    for (const shape of SHAPES)
      for (let s = 0; s < shape.segments.length; s++) {
        const more = addNode(shape, s, 0.4);
        expect(nodeCount(more)).toBe(nodeCount(shape) + 1);
        expect(pathLength(more)).toBeCloseTo(pathLength(shape), 4);
        const back = removeNodes(more, new Set([s + 1])) as Path;
        expect(nodeCount(back)).toBe(nodeCount(shape));
        expect(Math.abs(pathArea(back) - pathArea(shape))).toBeLessThan(0.05);
      }
  });

  test('a path of which too few nodes are left is gone', () => {
    expect(removeNodes(circle, new Set([0, 1, 2]))).toBeNull();
    expect(nodeCount(removeNodes(circle, new Set([1, 3])) as Path)).toBe(2);
  });

  test('smooth and corner', () => {
    const square = roundedRectangle(10, 10, 0);
    expect(isCorner(square, 1)).toBe(true);
    const soft = smoothed(square, 1);
    expect(isCorner(soft, 1)).toBe(false);
    expect(nodeAt(soft, 1)).toEqual(nodeAt(square, 1));
    expect(isCorner(cornered(soft, 1), 1)).toBe(true);
    // A straight beside a curve keeps the curve's direction.
    expect(isCorner(smoothed(wave, 1), 1)).toBe(false);
    expect(smoothed(wave, 0)).toBe(wave);
  });

  test('a handle of a smooth node turns the other along; a segment goes where it is dragged', () => {
    const turned = moveHandle(ellipsePath(60, 20), 0, 0, { x: 33, y: 6 });
    expect(isCorner(turned, 0)).toBe(false);
    for (const shape of [plate, wave])
      for (const t of [0.3, 0.5, 0.7]) {
        const to = { x: 5, y: 30 };
        const pulled = bent(shape, 0, t, to);
        const p = pointAt(pulled.segments[0] as never, t);
        expect([p.x, p.y]).toEqual([expect.closeTo(5, 9), expect.closeTo(30, 9)]);
      }
  });

  test('breaking and joining undo each other', () => {
    const [open] = breakAt(plate, 3) as [Path];
    expect([open.closed, open.segments.length]).toEqual([false, 8]);
    expect(joined(open, null).segments).toHaveLength(8);
    const [a, b] = breakAt(wave, 2) as [Path, Path];
    expect(joined(a, b)).toEqual(wave);
    expect(joined(a, moveNodes(b, new Set([0]), 0, 5)).segments).toHaveLength(4);
    expect(breakAt(wave, 0)).toEqual([wave]);
  });

  test('an arc as a cubic keeps ends and directions', () => {
    const c = asCubic(arcAbout(0, 0, 10, 0, 2.4));
    expect(Math.hypot(pointAt(c, 0.5).x, pointAt(c, 0.5).y)).toBeCloseTo(10, 0);
    expect([c.x1, c.y1]).toEqual([expect.closeTo(10 * Math.cos(2.4), 9), expect.closeTo(10 * Math.sin(2.4), 9)]);
  });
});
