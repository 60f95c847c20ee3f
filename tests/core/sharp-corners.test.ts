/** Corners in one node: shapes by hand. */
import { describe, expect, test } from 'vitest';
import type { Path } from '../../src/core/geometry/path';
import { line, quadratic, type Segment } from '../../src/core/geometry/segment';
import { withSharpCorners } from '../../src/core/toolpath/centerline/sharp-corners';

const open = (...segments: Segment[]): Path => ({ segments, closed: false });
const polyline = (...places: readonly (readonly [number, number])[]): Path =>
  open(...places.slice(1).map(([x, y], i) => line(...(places[i] as [number, number]), x, y)));
const WIDTH = 10;
const anywhere = () => true;

describe('a corner of several nodes', () => {
  /** A right angle whose corner is cut off, 2 from its apex on both sides. */
  const BLUNT = polyline([0, 0], [38, 0], [40, 2], [40, 60]);

  test('becomes one, where the two sides cross', () => {
    const { segments } = withSharpCorners(BLUNT, WIDTH, anywhere);
    expect(segments).toEqual([line(0, 0, 40, 0), line(40, 0, 40, 60)]);
  });

  test('also where one side overshoots and comes back', () => {
    const hook = polyline([0, 0], [41, 0], [41, 0.5], [40, 0.5], [40, 60]);
    expect(withSharpCorners(hook, WIDTH, anywhere).segments).toEqual([line(0, 0, 40, 0), line(40, 0, 40, 60)]);
  });

  test('a curved side is carried on straight', () => {
    const curved = open(quadratic(0, -20, 20, 0, 38, 0), line(38, 0, 40, 2), line(40, 2, 40, 60));
    expect(withSharpCorners(curved, WIDTH, anywhere).segments).toEqual([
      quadratic(0, -20, 20, 0, 38, 0),
      line(38, 0, 40, 0),
      line(40, 0, 40, 60),
    ]);
  });

  test.each([
    ['one node', polyline([0, 0], [40, 0], [40, 60])],
    ['nodes far apart', polyline([0, 0], [30, 0], [40, 10], [40, 60])],
    ['a bend that is no sharp corner', polyline([0, 0], [38, 0], [42, 1], [80, 20])],
    ['a way back on itself', polyline([0, 0], [40, 0], [40, 1], [0, 2])],
  ])('%s stays as it is', (_, path) => {
    expect(withSharpCorners(path, WIDTH, anywhere)).toBe(path);
  });

  test('stays where its apex would be no ink', () => {
    expect(withSharpCorners(BLUNT, WIDTH, ({ x, y }) => !(x === 40 && y === 0))).toBe(BLUNT);
  });

  test('its ends stay where they are', () => {
    const { segments } = withSharpCorners(BLUNT, WIDTH, anywhere);
    expect([segments[0]?.x0, segments[0]?.y0, segments.at(-1)?.x1, segments.at(-1)?.y1]).toEqual([0, 0, 40, 60]);
  });
});
