/** Where the pen keeps to edges of pictures: corners first, then the nearest place, and nothing that is farther than it reaches. */
import { expect, test } from 'vitest';
import { onEdge, type PictureEdges } from '../../src/bench/nodes/edges';
import { arcAbout, line, type Segment } from '../../src/core/geometry/segment';
import { segmentBox } from '../../src/core/geometry/segment-measures';

const segments: readonly Segment[] = [line(0, 0, 10, 0), line(10, 0, 10, 10), arcAbout(30, 0, 5, 0, Math.PI)];
const edges: PictureEdges = {
  pieces: segments.map((segment) => ({ segment, box: segmentBox(segment) })),
  corners: [{ x: 10, y: 0 }],
};

test.each([
  ['a corner, though an edge is nearer', { x: 9.2, y: 0.1 }, { x: 10, y: 0 }],
  ['an edge', { x: 4, y: 0.6 }, { x: 4, y: 0 }],
  ['the nearer of two edges', { x: 8.4, y: 1.4 }, { x: 8.4, y: 0 }],
  ['a curve', { x: 30, y: 5.5 }, { x: 30, y: 5 }],
  ['its end, beside it', { x: -0.5, y: 0 }, { x: 0, y: 0 }],
])('on %s', (_, at, on) => {
  const found = onEdge(at, edges, 1.5);
  expect(found?.x).toBeCloseTo(on.x, 6);
  expect(found?.y).toBeCloseTo(on.y, 6);
});

test('nowhere where nothing is within reach', () => {
  expect(onEdge({ x: 4, y: 1.6 }, edges, 1.5)).toBeNull();
  expect(onEdge({ x: 30, y: 0 }, edges, 1.5)).toBeNull();
  expect(onEdge({ x: 0, y: 0 }, { pieces: [], corners: [] }, 1.5)).toBeNull();
});
