/** Polylines of DXF: vertices that coincide are no segments, bulges are arcs, nearly straight ones lines. */
import { describe, expect, test } from 'vitest';
import { bulged } from '../../src/core/formats/dxf-read/bulge';
import { readDrawing } from '../../src/core/formats/read';
import { isContinuous } from '../../src/core/geometry/path';
import { pointAt } from '../../src/core/geometry/segment';

const v = (x: number, y: number, bulge = 0) => ({ x, y, bulge });

test('vertices that coincide make no segment, wherever they stand', () => {
  const square = [v(0, 0), v(10, 0), v(10, 10), v(0, 10)];
  for (let at = 0; at < 4; at++) {
    const twice = [...square.slice(0, at + 1), square[at] as ReturnType<typeof v>, ...square.slice(at + 1)];
    expect(bulged(twice, true)).toEqual(bulged(square, true));
  }
  // The first again at the end of a closed one.
  expect(bulged([...square, v(0, 0)], true).segments).toHaveLength(4);
  expect(bulged([v(1, 1), v(1, 1), v(1, 1)], true).segments).toEqual([]);
  expect(bulged([v(1, 1), v(1, 1)], false).segments).toEqual([]);
  // Beside each other in one direction only, they are two.
  expect(bulged([v(1, 1), v(1, 2)], false).segments).toHaveLength(1);
  expect(bulged([v(1, 1), v(2, 1)], false).segments).toHaveLength(1);
});

test('an open one does not run back to where it began, a closed one does', () => {
  const corner = [v(0, 0), v(10, 0), v(10, 10)];
  expect(bulged(corner, false)).toMatchObject({ closed: false, segments: { length: 2 } });
  expect(bulged(corner, true)).toMatchObject({ closed: true, segments: { length: 3 } });
  expect(isContinuous(bulged(corner, true))).toBe(true);
  expect(bulged([], true).segments).toEqual([]);
  expect(bulged([v(3, 4)], false).segments).toEqual([]);
});

test('a bulge is the tangent of a quarter of the arc’s angle, to the right of its chord where it is positive', () => {
  const [half] = bulged([v(0, 0, 1), v(10, 0)], false).segments;
  expect(half?.kind).toBe('arc');
  const middle = half && pointAt(half, 0.5);
  expect([middle?.x, middle?.y]).toEqual([expect.closeTo(5, 9), expect.closeTo(-5, 9)]);
  const [quarter] = bulged([v(0, 0, -Math.tan(Math.PI / 8)), v(10, 0)], false).segments;
  expect(quarter?.kind === 'arc' && quarter.sweep).toBeCloseTo(-Math.PI / 2, 9);
  // Less than a nanometre from its chord it is a line; more, an arc.
  expect(bulged([v(0, 0, 1.9e-7), v(10, 0)], false).segments[0]?.kind).toBe('line');
  expect(bulged([v(0, 0, 2.1e-7), v(10, 0)], false).segments[0]?.kind).toBe('arc');
  expect(bulged([v(0, 0, -2.1e-7), v(10, 0)], false).segments[0]?.kind).toBe('arc');
});

describe('in a file', () => {
  const file = (tags: string) => new TextEncoder().encode(`0\nSECTION\n2\nENTITIES\n${tags}0\nENDSEC\n0\nEOF\n`);
  const vertex = (x: number, y: number) => `10\n${x}\n20\n${y}\n`;
  const shapes = (tags: string) => {
    const reading = readDrawing(file(tags));
    if (!reading.ok) throw new Error(reading.sentence);
    return reading.found.shapes.flatMap((s) => s.paths.map((p) => [p.closed, p.segments.length]));
  };

  test('a polyline with a vertex twice has as many segments as without', () => {
    const vertices = vertex(0, 0) + vertex(10, 0) + vertex(10, 0) + vertex(10, 10) + vertex(0, 0);
    expect(shapes(`0\nLWPOLYLINE\n8\n0\n90\n5\n70\n1\n${vertices}`)).toEqual([[true, 3]]);
    expect(shapes(`0\nLWPOLYLINE\n8\n0\n90\n5\n70\n0\n${vertices}`)).toEqual([[false, 3]]);
    const old = [vertex(0, 0), vertex(10, 0), vertex(10, 0), vertex(10, 10)]
      .map((p) => `0\nVERTEX\n8\n0\n${p}`)
      .join('');
    expect(shapes(`0\nPOLYLINE\n8\n0\n66\n1\n70\n1\n${old}0\nSEQEND\n`)).toEqual([[true, 3]]);
  });

  test('one all of whose vertices coincide is nothing', () => {
    expect(() => shapes(`0\nLWPOLYLINE\n8\n0\n90\n2\n70\n1\n${vertex(3, 3)}${vertex(3, 3)}`)).not.toThrow();
    const line = '0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n';
    expect(shapes(`0\nLWPOLYLINE\n8\n0\n90\n2\n70\n1\n${vertex(3, 3)}${vertex(3, 3)}${line}`)).toEqual([[false, 1]]);
  });
});
