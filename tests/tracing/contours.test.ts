/** Where edges run in a picture, exactly: half planes and discs whose share of each pixel is known. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closedPath } from '../../src/core/geometry/path';
import { arcAbout, line } from '../../src/core/geometry/segment';
import { type Coverage, contoursOf, type Ring, ringArea } from '../../src/core/tracing/contours';
import { coverageOf } from '../support/coverage';

const SIZE = 24;
const drawn = (share: Float64Array, width = SIZE, height = SIZE): Coverage => ({
  width,
  height,
  data: Uint8Array.from(share, (s) => Math.round(255 * s)),
});
const rows = (text: string): Coverage => {
  const lines = text.trim().split('\n');
  return drawn(
    Float64Array.from([...lines.join('')].map((c) => (c === '#' ? 1 : 0))),
    lines[0]?.length ?? 0,
    lines.length,
  );
};
const pointsOf = (ring: Ring) =>
  Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i], ring[2 * i + 1]] as [number, number]);

test('an edge that crosses pixels anyhow is found to a hundredth of a pixel', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      (angle, off) => {
        // What lies on one side of a line through about the middle: a large rectangle.
        const [nx, ny] = [Math.cos(angle), Math.sin(angle)];
        const [px, py] = [SIZE / 2 + off * nx, SIZE / 2 + off * ny];
        const at = (u: number, v: number) => ({ x: px + u * -ny + v * nx, y: py + u * nx + v * ny });
        const corners = [at(-99, 0), at(99, 0), at(99, -99), at(-99, -99)];
        const share = coverageOf(
          [
            closedPath(
              corners.map((p, i) =>
                line(p.x, p.y, (corners[(i + 1) % 4] as typeof p).x, (corners[(i + 1) % 4] as typeof p).y),
              ),
            ),
          ],
          SIZE,
          SIZE,
        );
        const away = contoursOf(drawn(share))
          .rings.flatMap(pointsOf)
          .filter(([x, y]) => x > 3 && y > 3 && x < SIZE - 3 && y < SIZE - 3)
          .map(([x, y]) => Math.abs((x - px) * nx + (y - py) * ny));
        expect(away.length).toBeGreaterThan(5);
        expect(Math.max(...away)).toBeLessThan(0.01);
      },
    ),
  );
});

test.each([3, 6.4, 9.9])('the outline of a disc of radius %d encloses its area', (radius) => {
  const share = coverageOf(
    [closedPath([arcAbout(12.3, 11.8, radius, 0, Math.PI), arcAbout(12.3, 11.8, radius, Math.PI, Math.PI)])],
    SIZE,
    SIZE,
  );
  const { rings } = contoursOf(drawn(share));
  expect(rings).toHaveLength(1);
  expect(ringArea(rings[0] as Ring) / (Math.PI * radius * radius)).toBeCloseTo(1, radius > 9 ? 2 : 1);
});

describe('outlines', () => {
  test('run so that the shape is on their right: holes are negative', () => {
    const { rings } = contoursOf(rows('.....\n.###.\n.#.#.\n.###.\n.....'));
    expect(rings.map((r) => Math.sign(ringArea(r)))).toEqual([1, -1]);
  });

  test('close at the rim of the picture', () => {
    const [ring] = contoursOf(rows('###\n###\n###')).rings;
    expect(ringArea(ring as Ring)).toBeCloseTo(8.5, 0);
    expect(pointsOf(ring as Ring).every(([x, y]) => x >= 0 && y >= 0 && x <= 3 && y <= 3)).toBe(true);
  });

  test('of two pixels that meet in a corner are two, and do not cross', () => {
    expect(contoursOf(rows('....\n.#..\n..#.\n....')).rings).toHaveLength(2);
    expect(contoursOf(rows('....\n..#.\n.#..\n....')).rings).toHaveLength(2);
  });

  test('of pixels that belong more than half where they meet are one', () => {
    const between = rows('....\n.#..\n..#.\n....');
    between.data[6] = 120;
    between.data[9] = 120;
    expect(contoursOf(between).rings).toHaveLength(1);
  });

  test('shorter than asked are left out; of nothing there are none', () => {
    const two = rows('.........\n.#..####.\n....####.\n....####.\n.........');
    expect(contoursOf(two).rings).toHaveLength(2);
    expect(contoursOf(two, 6).rings).toHaveLength(1);
    expect(contoursOf(rows('....\n....')).rings).toEqual([]);
    expect(contoursOf({ width: 0, height: 0, data: new Uint8Array() }).rings).toEqual([]);
  });
});

test('steepness tells sharp edges from blurred ones', () => {
  const cone = (width: number) =>
    drawn(
      Float64Array.from({ length: SIZE * SIZE }, (_, i) =>
        Math.max(0, Math.min(1, 0.5 + (8 - Math.hypot((i % SIZE) - 12, Math.floor(i / SIZE) - 12)) / width)),
      ),
    );
  expect(contoursOf(cone(1)).steepness).toBeGreaterThan(0.6);
  expect(contoursOf(cone(5)).steepness).toBeCloseTo(0.2, 1);
  // What runs straight across is the steepest.
  expect(contoursOf(cone(5)).steepest).toBeCloseTo(0.2, 2);
  expect(contoursOf(cone(5)).steepest).toBeGreaterThan(contoursOf(cone(5)).steepness);
});
