/** Pictures of outlines as cameras and scanners make them: blurred, noisy, unevenly lit, packed. */
import jpeg from 'jpeg-js';
import type { Path } from '../../src/core/geometry/path';
import type { Raster } from '../../src/core/tracing/raster';
import { coverageOf } from './coverage';
import { chance } from './random';

export type Degraded = {
  readonly name: string;
  /** Standard deviation of the blur in pixels, and of the noise in levels. */
  readonly blur?: number;
  readonly noise?: number;
  /** By how much it is darker at the right than at the left. */
  readonly slope?: number;
  readonly jpeg?: number;
  readonly turn?: number;
  readonly ink?: number;
  readonly paper?: number;
};

export const CLEAN: Degraded = { name: 'clean' };
export const TURNED: Degraded = { name: 'turned', turn: 17 };
/** What the table of tracing is made of. */
export const DEGRADED: readonly Degraded[] = [
  CLEAN,
  TURNED,
  { name: 'unevenly lit', slope: 0.4 },
  { name: 'blurred', blur: 1 },
  { name: 'noisy', noise: 8 },
  { name: 'JPEG 90', jpeg: 90 },
  { name: 'JPEG 75', jpeg: 75 },
  { name: 'JPEG 50', jpeg: 50 },
  { name: 'photographed', blur: 1, noise: 8, slope: 0.4, jpeg: 75, turn: 17, ink: 40, paper: 230 },
];

/** A plane of values blurred by a Gaussian of `sigma` pixels; it goes on beyond its rim as it is there. */
export function blurred(plane: Float64Array, width: number, height: number, sigma: number): Float64Array {
  const reach = Math.ceil(3 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)));
  const whole = weights.reduce((sum, w) => sum + w, 0);
  const pass = (from: Float64Array, at: (x: number, y: number, by: number) => number): Float64Array =>
    from.map((_, i) => {
      const [x, y] = [i % width, Math.floor(i / width)];
      return weights.reduce((sum, w, k) => sum + (w / whole) * (from[at(x, y, k - reach)] as number), 0);
    });
  const within = (value: number, most: number) => Math.max(0, Math.min(most - 1, value));
  const across = pass(plane, (x, y, by) => y * width + within(x + by, width));
  return pass(across, (x, y, by) => within(y + by, height) * width + x);
}

/** A grey picture of outlines, in pixels with y downwards. */
export function pictureOf(paths: readonly Path[], width: number, height: number, how: Degraded, seed = 1): Raster {
  const { blur = 0, noise = 0, slope = 0, ink = 0, paper = 255 } = how;
  const random = chance(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const sharp = coverageOf(paths, width, height);
  const share = blur > 0 ? blurred(sharp, width, height, blur) : sharp;
  const data = Uint8Array.from(share, (s, i) => {
    const light = 1 - (slope * ((i % width) + 0.5)) / width;
    const value = (paper + (ink - paper) * s) * light + (noise > 0 ? noise * normal() : 0);
    return Math.max(0, Math.min(255, Math.round(value)));
  });
  return { width, height, channels: 1, data: how.jpeg ? packed(data, width, height, how.jpeg) : data };
}

function packed(data: Uint8Array, width: number, height: number, quality: number): Uint8Array {
  const rgba = new Uint8Array(4 * data.length);
  data.forEach((value, i) => {
    rgba.fill(value, 4 * i, 4 * i + 3);
    rgba[4 * i + 3] = 255;
  });
  const read = jpeg.decode(jpeg.encode({ data: rgba, width, height }, quality).data, { useTArray: true });
  return data.map((_, i) => read.data[4 * i] as number);
}
