import { describe, expect, test } from 'vitest';
import { joinRuns } from '../../src/core/geometry/boolean/join';
import type { LabelledPath } from '../../src/core/geometry/boolean/labelled';
import { tidyLoops } from '../../src/core/geometry/boolean/tidy';
import { unite } from '../../src/core/geometry/boolean/union';
import { fitCubics } from '../../src/core/geometry/fit-cubic';
import { columnsOf, inkRowsOf, moveRows, uniteRows } from '../../src/core/geometry/ink-rows';
import {
  isContinuous,
  type Path,
  pathArea,
  pathLength,
  reversePath,
  transformPath,
} from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import { arcAbout, cubic, curvatureAt, line, pointAt, quadratic, type Segment } from '../../src/core/geometry/segment';
import { pieceShapes, shortestLinks } from '../../src/core/prepare/links';
import { measureOutlines } from '../../src/core/prepare/outline';
import { piecesOf } from '../../src/core/prepare/pieces';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { wasmEngine } from '../support/faces';

const at = (p: Path, x: number, y: number): Path => transformPath(p, translation(x, y));
const labelled = (segments: readonly Segment[]): LabelledPath => ({
  path: { segments, closed: true },
  labels: segments.map(() => 0),
});

describe('rows of ink', () => {
  test('a ring has two stretches in its middle rows and one in its outer ones', () => {
    const ring = [ellipsePath(20, 20), reversePath(ellipsePath(10, 10))];
    const { first, rows } = inkRowsOf(ring, 0.1);
    expect(first).toBe(-100);
    expect(rows).toHaveLength(200);
    expect(rows[100]?.map((x) => Math.round(x))).toEqual([-10, -5, 5, 10]);
    expect(rows[10]).toHaveLength(2);
    const area = rows.reduce((sum, row) => row.reduce((s, x, i) => s + (i % 2 === 0 ? -x : x), sum), 0) * 0.1;
    expect(area).toBeCloseTo(75 * Math.PI, 0);
  });

  test('overlaps count once; columns are rows the other way; nothing has no rows', () => {
    const pair = [roundedRectangle(10, 4, 0), at(roundedRectangle(10, 4, 0), 5, 0)];
    expect(inkRowsOf(pair, 1).rows[0]).toEqual([-5, 10]);
    expect(columnsOf([roundedRectangle(10, 4, 0)], 1).rows[0]).toEqual([-2, 2]);
    expect(inkRowsOf([], 1).rows).toEqual([]);
    expect(uniteRows([]).rows).toEqual([]);
  });

  test('moved, and united with rows that lie elsewhere', () => {
    const a = inkRowsOf([roundedRectangle(4, 4, 0)], 1);
    const b = inkRowsOf([at(roundedRectangle(4, 4, 0), 0, 10)], 1);
    expect(moveRows(a, 3).rows[0]).toEqual([1, 5]);
    const both = uniteRows([a, b]);
    expect(both.rows).toHaveLength(14);
    expect(both.rows[7]).toEqual([]);
  });
});

describe('nodes that mean nothing', () => {
  test('lines that run on straight and arcs of one circle become one; corners and quarters stay', () => {
    const split = labelled([
      line(0, 0, 4, 0),
      line(4, 0, 10, 0),
      line(10, 0, 10, 5),
      line(10, 5, 0, 5),
      line(0, 5, 0, 2),
      line(0, 2, 0, 0),
    ]);
    const joined = joinRuns(split);
    expect(joined.path.segments).toHaveLength(4);
    expect(pathArea(joined.path)).toBeCloseTo(50, 9);
    expect(isContinuous(joined.path)).toBe(true);
    const circle = labelled(ellipsePath(10, 10).segments);
    expect(joinRuns(circle)).toEqual(circle);
    const eighths = labelled(Array.from({ length: 8 }, (_, i) => arcAbout(0, 0, 5, (i * Math.PI) / 4, Math.PI / 4)));
    expect(joinRuns(eighths).path.segments.length).toBeLessThanOrEqual(4);
    expect(pathArea(joinRuns(eighths).path)).toBeCloseTo(25 * Math.PI, 9);
  });

  test('a line that turns back is not straight on', () => {
    const back = labelled([line(0, 0, 10, 0), line(10, 0, 4, 0), line(4, 0, 4, 8), line(4, 8, 0, 0)]);
    expect(joinRuns(back).path.segments).toHaveLength(4);
  });

  test('rectangles put edge to edge leave no node between them', () => {
    const [whole] = unite(wasmEngine, [roundedRectangle(10, 10, 0), at(roundedRectangle(10, 10, 0), 10, 0)]);
    expect(whole?.segments).toHaveLength(4);
  });
});

describe('loops and spikes', () => {
  const square = [line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 10), line(0, 10, 0, 0)];

  test('a spike gone along and back is taken out, and nothing else', () => {
    const [a, ...rest] = square as [Segment, ...Segment[]];
    const spiked = labelled([line(0, 0, 5, 0), line(5, 0, 5, -0.1), line(5, -0.1, 5, 0), line(5, 0, 10, 0), ...rest]);
    const tidied = tidyLoops(spiked, 0.004);
    expect(tidied.path.segments).toHaveLength(5);
    expect(pathLength(tidied.path)).toBeCloseTo(40, 9);
    expect(isContinuous(tidied.path)).toBe(true);
    expect(tidyLoops(labelled([a, ...rest]), 0.004).path.segments).toEqual(square);
  });

  test('a small tooth that is thick stays', () => {
    const rest = square.slice(1);
    const tooth = labelled([
      line(0, 0, 4.9, 0),
      line(4.9, 0, 5, 0.3),
      line(5, 0.3, 5.1, 0),
      line(5.1, 0, 10, 0),
      ...rest,
    ]);
    expect(tidyLoops(tooth, 0.004).path.segments).toHaveLength(7);
  });
});

test('cubics fitted to a curve stay within the tolerance and keep its ends', () => {
  const curve = (t: number) => ({ x: 10 * t, y: 3 * Math.sin(4 * t), d: { x: 10, y: 12 * Math.cos(4 * t) } });
  const sample = (t: number) => {
    const { x, y, d } = curve(t);
    const l = Math.hypot(d.x, d.y);
    return { x, y, tx: d.x / l, ty: d.y / l };
  };
  const fitted = fitCubics(sample, { from: 0, to: 1, tolerance: 0.002 });
  expect(fitted.length).toBeLessThan(12);
  expect(fitted[0]).toMatchObject({ x0: 0, y0: 0 });
  for (const s of fitted)
    for (let k = 0; k <= 20; k++) {
      const p = pointAt(s, k / 20);
      expect(Math.abs(p.y - curve(p.x / 10).y)).toBeLessThan(0.006);
    }
});

test('curvature: of lines, arcs and curves, by its sign', () => {
  expect(curvatureAt(line(0, 0, 5, 5), 0.5)).toBe(0);
  expect(curvatureAt(arcAbout(0, 0, 4, 0, 1), 0.3)).toBeCloseTo(0.25, 12);
  expect(curvatureAt(arcAbout(0, 0, 4, 1, -1), 0.3)).toBeCloseTo(-0.25, 12);
  expect(curvatureAt(quadratic(-1, 1, 0, -1, 1, 1), 0.5)).toBeCloseTo(2, 9);
  expect(curvatureAt(cubic(0, 0, 0, 0, 1, 1, 1, 1), 0)).toBe(0);
});

test('shortest links make one of all pieces, each from one not yet joined', () => {
  const squares = [0, 15, 50, 28].map((x) => at(roundedRectangle(10, 10, 0), x, 0));
  const outlines = measureOutlines(squares.map((path) => labelled(path.segments)));
  const links = shortestLinks(pieceShapes(outlines, piecesOf(outlines)));
  expect(links).toHaveLength(3);
  const joined = new Set([0]);
  for (const link of links) {
    expect(joined.has(link.to)).toBe(true);
    expect(joined.has(link.piece)).toBe(false);
    joined.add(link.piece);
  }
  const total = links.reduce((sum, l) => sum + Math.hypot(l.at.x - l.from.x, l.at.y - l.from.y), 0);
  expect(total).toBeCloseTo(5 + 3 + 12, 6);
});
