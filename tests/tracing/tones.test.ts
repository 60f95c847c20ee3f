/** Which pixels belong to a shape: dark, light, opaque or pressed on, in even and uneven light. */
import { describe, expect, test } from 'vitest';
import { lightOf } from '../../src/core/tracing/light';
import { croppedRaster, lightnessOf, opacityOf, type Raster, reducedRaster } from '../../src/core/tracing/raster';
import { likelyStart, likelyTones } from '../../src/core/tracing/starts';
import { coverageBy, levelsOf, type Tones } from '../../src/core/tracing/tones';

const grey = (width: number, height: number, value: (x: number, y: number) => number): Raster => ({
  width,
  height,
  channels: 1,
  data: Uint8Array.from({ length: width * height }, (_, i) => value(i % width, Math.floor(i / width))),
});
const coloured = (colours: readonly (readonly number[])[], width = colours.length): Raster => ({
  width,
  height: colours.length / width,
  channels: (colours[0]?.length ?? 3) as 3,
  data: Uint8Array.from(colours.flat()),
});
const tones = (more: Partial<Tones>): Tones => ({ by: 'dark', picks: [], evenLight: false, ...more });
const shares = (raster: Raster, more: Partial<Tones>) => [...(coverageBy(raster, tones(more))?.data ?? [])];
const inSquare = (x: number, y: number, size: number) =>
  Math.abs(x - size / 2) < size / 5 && Math.abs(y - size / 2) < size / 5;

describe('dark and light', () => {
  const halves = grey(20, 20, (x) => (x < 9 ? 40 : x === 9 ? 130 : 220));

  test('go by the commonest of each, and what is between them by its share', () => {
    expect(shares(halves, {}).slice(7, 12)).toEqual([255, 255, 128, 0, 0]);
    expect(shares(halves, { by: 'light' }).slice(7, 12)).toEqual([0, 0, 128, 255, 255]);
  });

  test('a picture of one tone, or of two that hardly differ, shows nothing', () => {
    expect(
      coverageBy(
        grey(8, 8, () => 90),
        tones({}),
      ),
    ).toBeNull();
    expect(
      coverageBy(
        grey(8, 8, (x) => (x < 4 ? 90 : 100)),
        tones({}),
      ),
    ).toBeNull();
    expect(levelsOf(grey(8, 8, (x) => (x < 4 ? 90 : 120)))).toEqual({ dark: 90, light: 120 });
  });

  test('colours go by their lightness, what can be seen through lies on white', () => {
    const three = coloured([
      [0, 0, 255, 255],
      [255, 255, 0, 255],
      [0, 0, 0, 0],
      [0, 0, 0, 128],
    ]);
    expect([...lightnessOf(three).data]).toEqual([29, 226, 255, 127]);
  });
});

describe('light', () => {
  const size = 160;
  const lit = (x: number, y: number) => 1 - (0.4 * x) / size - (0.1 * (y - size / 2) ** 2) / (size / 2) ** 2;
  const uneven = grey(size, size, (x, y) => (inSquare(x, y, size) ? 60 : 240) * lit(x, y));

  test('that falls off to a side is evened out: ink is told from paper everywhere', () => {
    const light = lightOf(uneven);
    expect(light?.brightest).toBeGreaterThan(225);
    const even = coverageBy(uneven, tones({ evenLight: true }));
    const raw = coverageBy(uneven, tones({ evenLight: false }));
    const paper = (c: typeof even) =>
      Math.max(...[...(c?.data ?? [])].filter((_, i) => !inSquare(i % size, Math.floor(i / size), size)));
    expect(paper(even)).toBeLessThan(20);
    expect(paper(raw)).toBeGreaterThan(70);
  });

  test('that is even, or that nothing tells of, is left as it is', () => {
    expect(lightOf(grey(size, size, (x, y) => (inSquare(x, y, size) ? 60 : 240)))).toBeNull();
    expect(lightOf(grey(size, size, () => 0))).toBeNull();
    expect(lightOf(grey(2, 2, () => 200))).toBeNull();
  });

  test('what is painted light on a dark ground is evened too', () => {
    const night = grey(size, size, (x, y) => (inSquare(x, y, size) ? 250 : 12) * lit(x, y));
    const even = coverageBy(night, tones({ by: 'light', evenLight: true }));
    const within = [...(even?.data ?? [])].filter((_, i) => inSquare(i % size, Math.floor(i / size), size));
    expect(Math.min(...within)).toBeGreaterThan(215);
  });
});

describe('what can’t be seen through', () => {
  test('is the shape of a picture that says so', () => {
    const logo = coloured([
      [9, 9, 9, 0],
      [9, 9, 9, 255],
      [9, 9, 9, 128],
      [9, 9, 9, 0],
    ]);
    expect(shares(logo, { by: 'opaque' })).toEqual([0, 255, 128, 0]);
    expect(likelyTones(logo)).toBe('opaque');
    expect(likelyStart(logo)).toBe('clear');
  });

  test('is nothing in one that is opaque throughout, or does not say', () => {
    expect(
      coverageBy(
        coloured([
          [9, 9, 9, 255],
          [200, 9, 9, 255],
        ]),
        tones({ by: 'opaque' }),
      ),
    ).toBeNull();
    expect(
      opacityOf(
        coloured([
          [9, 9, 9],
          [200, 9, 9],
        ]),
      ),
    ).toBeNull();
  });
});

describe('pressed on', () => {
  const red = [200, 30, 30] as const;
  const green = [30, 160, 60] as const;
  const white = [250, 250, 250] as const;
  // Nine columns of each, in rows of three.
  const flag = coloured(
    Array.from({ length: 27 * 3 }, (_, i) => [red, green, white][Math.floor((i % 27) / 9)] as readonly number[]),
    27,
  );
  const at = (column: number, belongs: boolean) => ({ x: column * 9 + 4, y: 1, belongs });
  const middle = (list: number[]) => [4, 13, 22].map((x) => list[x]);

  test('what is like what belongs, against what does not', () => {
    expect(middle(shares(flag, { by: 'picked', picks: [at(0, true), at(2, false)] }))).toEqual([255, 149, 0]);
    expect(middle(shares(flag, { by: 'picked', picks: [at(0, true), at(1, true), at(2, false)] }))).toEqual([
      255, 255, 0,
    ]);
  });

  test('with one side only, what is commonest and unlike it is the other', () => {
    expect(middle(shares(flag, { by: 'picked', picks: [at(2, true)] }))[2]).toBe(255);
    expect(middle(shares(flag, { by: 'picked', picks: [at(2, false)] }))[2]).toBe(0);
  });

  test('with nothing pressed on there is nothing', () => {
    expect(coverageBy(flag, tones({ by: 'picked' }))).toBeNull();
  });

  test('places at the rim and beyond it go by the nearest pixel', () => {
    expect(
      middle(
        shares(flag, {
          by: 'picked',
          picks: [
            { x: 0, y: 0, belongs: true },
            { x: 99, y: 99, belongs: false },
          ],
        }),
      ),
    ).toEqual([255, 149, 0]);
  });
});

test('which tones and which start a picture most likely wants', () => {
  const size = 60;
  expect(likelyTones(grey(size, size, (x, y) => (inSquare(x, y, size) ? 20 : 240)))).toBe('dark');
  expect(likelyTones(grey(size, size, (x, y) => (inSquare(x, y, size) ? 240 : 20)))).toBe('light');
  expect(likelyStart(grey(size, size, (x, y) => (inSquare(x, y, size) ? 20 : 240)))).toBe('clear');
  expect(likelyStart(grey(size, size, (x, y) => (inSquare(x, y, size) ? 20 : 120 + 2 * y)))).toBe('photo');
  expect(likelyStart(grey(size, size, () => 120))).toBe('photo');
});

test('a picture is cropped and made smaller by whole pixels', () => {
  const picture = grey(5, 3, (x, y) => 10 * y + x);
  expect(croppedRaster(picture, { left: 1, top: 1, width: 2, height: 2 })).toMatchObject({
    width: 2,
    height: 2,
    data: Uint8Array.from([11, 12, 21, 22]),
  });
  expect(croppedRaster(picture, { left: 0, top: 0, width: 5, height: 3 })).toBe(picture);
  expect(reducedRaster(picture, 2)).toMatchObject({ width: 2, height: 1, data: Uint8Array.from([6, 8]) });
  expect(reducedRaster(picture, 1)).toBe(picture);
});
