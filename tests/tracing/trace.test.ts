/** Outlines of what is in a picture: corners, tips, few curves; what is too small or runs along the rim. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closedPath, type Path, pathArea, pathBox, regionArea } from '../../src/core/geometry/path';
import { arcAbout, line } from '../../src/core/geometry/segment';
import { prepareTrace } from '../../src/core/prepare/trace';
import type { Coverage } from '../../src/core/tracing/contours';
import { type TraceSettings, traceCoverage } from '../../src/core/tracing/trace';
import { countCrossings, nonZeroArea } from '../support/area';
import { coverageOf } from '../support/coverage';
import { wasmEngine } from '../support/faces';
import { finished } from '../support/generators';

type P = readonly [number, number];
const polygon = (...points: P[]): Path =>
  closedPath(
    points.map(([x, y], i) => {
      const [u, v] = points[(i + 1) % points.length] as P;
      return line(x, y, u, v);
    }),
  );
const disc = (x: number, y: number, r: number): Path =>
  closedPath([arcAbout(x, y, r, 0, Math.PI), arcAbout(x, y, r, Math.PI, Math.PI)]);
const reversed = (points: P[]): P[] => [...points].reverse();
const SIZE = 80;
const drawn = (paths: readonly Path[], size = SIZE): Coverage => ({
  width: size,
  height: size,
  data: Uint8Array.from(coverageOf(paths, size, size), (s) => Math.round(255 * s)),
});
const settings: TraceSettings = { least: 3, tolerance: null, dropRim: true };
const traced = (paths: readonly Path[], more: Partial<TraceSettings> = {}) =>
  finished(traceCoverage(drawn(paths), { ...settings, ...more }));
/** The nodes of an outline, in the picture's own columns and rows. */
const nodesOf = (path: Path | undefined) => (path?.segments ?? []).map((s) => [s.x0, SIZE - s.y0] as P);
const nearest = (nodes: readonly P[], [x, y]: P) => Math.min(...nodes.map(([u, v]) => Math.hypot(u - x, v - y)));

describe('straight sides', () => {
  const square: P[] = [
    [20.3, 18.6],
    [60.8, 18.6],
    [60.8, 55.1],
    [20.3, 55.1],
  ];

  test('are lines, and meet in the true corners', () => {
    const { paths, noise, edgeWidth } = traced([polygon(...square)]);
    expect(paths).toHaveLength(1);
    expect(paths[0]?.segments.map((s) => s.kind)).toEqual(['line', 'line', 'line', 'line']);
    for (const corner of square) expect(nearest(nodesOf(paths[0]), corner)).toBeLessThan(0.03);
    expect(pathArea(paths[0] as Path)).toBeCloseTo(40.5 * 36.5, 0);
    expect(noise).toBeLessThan(0.01);
    expect(edgeWidth).toBeLessThan(2.6);
  });

  test('turned anyhow they are four lines just as well', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: Math.PI, noNaN: true }), (angle) => {
        const turned = square.map(([x, y]): P => {
          const [u, v] = [x - 40, y - 37];
          return [40 + u * Math.cos(angle) - v * Math.sin(angle), 40 + u * Math.sin(angle) + v * Math.cos(angle)];
        });
        const { paths } = traced([polygon(...turned)]);
        expect(paths[0]?.segments.map((s) => s.kind)).toEqual(['line', 'line', 'line', 'line']);
        for (const corner of turned) expect(nearest(nodesOf(paths[0]), corner)).toBeLessThan(0.06);
      }),
      { numRuns: 60 },
    );
  });

  test.each([4, 5, 6, 9])('of %i pixels are four all the same', (side) => {
    const small: P[] = [
      [20, 20],
      [20 + side, 20],
      [20 + side, 20 + side],
      [20, 20 + side],
    ];
    const { paths } = traced([polygon(...small)], { least: 0 });
    expect(paths[0]?.segments).toHaveLength(4);
    for (const corner of small) expect(nearest(nodesOf(paths[0]), corner)).toBeLessThan(0.1);
  });

  test('coming together in a tip meet in it, though no pixel shows it', () => {
    const tip: P = [40.2, 12.4];
    const { paths } = traced([polygon(tip, [49, 66], [31, 66])]);
    expect(paths[0]?.segments).toHaveLength(3);
    expect(nearest(nodesOf(paths[0]), tip)).toBeLessThan(0.5);
  });

  test('a tip that is cut off keeps both its corners, half a pixel apart', () => {
    const { paths } = traced([polygon([39.9, 15.2], [40.5, 15.2], [50, 66], [30, 66])]);
    expect(nodesOf(paths[0]).filter(([, y]) => y < 20)).toHaveLength(2);
    expect(nearest(nodesOf(paths[0]), [40.2, 15.2])).toBeLessThan(0.5);
  });

  test('a notch is as deep as it is', () => {
    const foot: P = [40.1, 50.7];
    const { paths } = traced([polygon([15, 15], [35, 15], foot, [45, 15], [65, 15], [65, 66], [15, 66])]);
    expect(nearest(nodesOf(paths[0]), foot)).toBeLessThan(0.4);
  });
});

test('a circle is a few curves, none of them in a corner', () => {
  const { paths } = traced([disc(40.3, 39.6, 25.2)]);
  expect(paths[0]?.segments.length).toBeLessThanOrEqual(6);
  expect(pathArea(paths[0] as Path) / (Math.PI * 25.2 ** 2)).toBeCloseTo(1, 2);
  const { minX, maxX, minY, maxY } = pathBox(paths[0] as Path);
  for (const [value, truth] of [
    [minX, 15.1],
    [maxX, 65.5],
    [SIZE - maxY, 14.4],
    [SIZE - minY, 64.8],
  ] as const)
    expect(value).toBeCloseTo(truth, 0);
});

test('a hole runs the other way, and what lies in it is there again', () => {
  const { paths } = traced([
    disc(40, 40, 30),
    closedPath(disc(40, 40, 20).segments.map((_, i) => arcAbout(40, 40, 20, i * Math.PI, -Math.PI))),
    disc(40, 40, 9),
  ]);
  expect(paths.map((p) => Math.sign(pathArea(p))).sort()).toEqual([-1, 1, 1]);
  expect(regionArea(paths) / (Math.PI * (900 - 400 + 81))).toBeCloseTo(1, 2);
});

describe('what is not worth keeping', () => {
  const dots = [disc(40, 40, 20), disc(70, 12, 1.2), disc(12, 70, 3)];

  test('specks and pinholes go by their size', () => {
    expect(traced(dots)).toMatchObject({ paths: { length: 2 }, specks: 1, pinholes: 0 });
    expect(traced(dots, { least: 8 })).toMatchObject({ paths: { length: 1 }, specks: 2 });
    const pinhole = polygon(
      ...reversed([
        [38, 38],
        [40, 38],
        [40, 40],
        [38, 40],
      ]),
    );
    expect(traced([disc(40, 40, 20), pinhole])).toMatchObject({ paths: { length: 1 }, pinholes: 1 });
  });

  test('a frame around the picture goes with what is a hole in it; what lies within stays', () => {
    const frame = [
      polygon([0, 0], [80, 0], [80, 80], [0, 80]),
      polygon(
        ...reversed([
          [8, 8],
          [72, 8],
          [72, 72],
          [8, 72],
        ]),
      ),
      disc(40, 40, 15),
    ];
    const left = traced(frame);
    expect(left).toMatchObject({ paths: { length: 1 }, rims: 1 });
    expect(left.paths[0] && pathArea(left.paths[0])).toBeCloseTo(Math.PI * 225, -1);
    expect(traced(frame, { dropRim: false })).toMatchObject({ paths: { length: 3 }, rims: 1 });
  });

  test('a shape that only just reaches the rim is no frame', () => {
    expect(traced([polygon([0, 30], [40, 30], [40, 40], [0, 40])])).toMatchObject({ paths: { length: 1 }, rims: 0 });
  });
});

test('followed more loosely, it takes fewer curves', () => {
  const wavy = closedPath(
    Array.from({ length: 90 }, (_, i) => {
      const at = (k: number): P => {
        const a = (k * 2 * Math.PI) / 90;
        const r = 25 + 0.6 * Math.sin(9 * a);
        return [40 + r * Math.cos(a), 40 + r * Math.sin(a)];
      };
      return line(...at(i), ...at((i + 1) % 90));
    }),
  );
  const nodes = (tolerance: number | null) => traced([wavy], { tolerance }).paths[0]?.segments.length ?? 0;
  expect(nodes(1)).toBeLessThan(nodes(null));
});

test('nothing is nothing', () => {
  expect(traced([])).toEqual({ paths: [], specks: 0, pinholes: 0, rims: 0, beyond: 0, edgeWidth: 1, noise: 0 });
});

test('outlines of anything at all do not cross themselves or each other, and are as large as what is there', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 0, max: 15 }), fc.integer({ min: 0, max: 15 })), {
        minLength: 1,
        maxLength: 70,
      }),
      (blocks) => {
        // Blocks of pixels, which meet in edges and corners.
        const data = new Uint8Array(SIZE * SIZE).fill(255);
        for (const [u, v] of blocks)
          for (let y = 0; y < 5; y++) for (let x = 0; x < 5; x++) data[(5 * v + y) * SIZE + 5 * u + x] = 0;
        const made = prepareTrace(
          wasmEngine,
          { width: SIZE, height: SIZE, channels: 1, data },
          {
            crop: { left: 0, right: 0, top: 0, bottom: 0 },
            scale: 0.5,
            tones: { by: 'dark', picks: [], evenLight: false },
            least: 0,
            follow: null,
            dropRim: false,
          },
        );
        const paths = made?.outlines.map((o) => o.path) ?? [];
        // Outlines may meet in a corner of pixels; none meets itself, and no two overlap.
        for (const path of paths) expect(countCrossings([path])).toBe(0);
        expect(nonZeroArea(paths)).toBeCloseTo(regionArea(paths), 4);
        const dark = data.filter((value) => value === 0).length;
        expect(Math.abs(regionArea(paths) / 0.25 - dark)).toBeLessThan(0.03 * dark + 3);
      },
    ),
    { numRuns: 60 },
  );
});
