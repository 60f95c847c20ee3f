/**
 * Which pixels belong to the shape, and how much of each: the dark ones, the light ones, those that can't be seen through, or those of
 * tones that were pressed on. What lies between two tones is a pixel that an edge goes through.
 */
import type { Coverage } from './contours';
import { evened, lightOf } from './light';
import { hasOpacity, lightnessOf, opacityOf, type Plane, type Raster } from './raster';

/** A place in a picture, in pixels from its top left, whose tone belongs to the shape or does not. */
export type TonePick = { readonly x: number; readonly y: number; readonly belongs: boolean };

/** Which tones belong to the shape. */
export type Tones = {
  readonly by: 'dark' | 'light' | 'opaque' | 'picked';
  /** Pressed on, for `picked`. */
  readonly picks: readonly TonePick[];
  /** Whether uneven light is evened out first. */
  readonly evenLight: boolean;
};

/** How much of each pixel belongs; null where the picture shows no difference. */
export function coverageBy(raster: Raster, tones: Tones): Coverage | null {
  const opacity = opacityOf(raster);
  if (tones.by === 'opaque') return opacity;
  if (tones.by === 'picked') return coverageByPicks(raster, tones);
  const lightness = lightnessOf(raster);
  const light = tones.evenLight ? lightOf(lightness) : null;
  const plane: Plane = light ? { ...lightness, data: evened(lightness.data, lightness, light) } : lightness;
  const levels = levelsOf(plane);
  if (!levels) return null;
  const [none, all] = tones.by === 'dark' ? [levels.light, levels.dark] : [levels.dark, levels.light];
  return mapped(plane, (value) => (255 * (value - none)) / (all - none));
}

/** Values looked up: 0 to 255 of what `of` makes of each. */
function mapped({ width, height, data }: Plane, of: (value: number) => number): Coverage {
  const table = Uint8Array.from({ length: 256 }, (_, value) => Math.max(0, Math.min(255, Math.round(of(value)))));
  const out = new Uint8Array(data.length);
  for (let i = 0; i < data.length; i++) out[i] = table[data[i] as number] as number;
  return { width, height, data: out };
}

/** Tones nearer to each other than this are one. */
const LEAST_CONTRAST = 12;
/** Half the width over which the commonest tone is looked for, and averaged. */
const BROAD = 5;

/** The commonest dark and the commonest light tone, either side of what parts them best; null where all is one tone. */
export function levelsOf({ data }: Plane): { readonly dark: number; readonly light: number } | null {
  const counts = new Uint32Array(256);
  for (let i = 0; i < data.length; i++) {
    const value = data[i] as number;
    counts[value] = (counts[value] as number) + 1;
  }
  const parting = otsu(counts);
  if (parting === null) return null;
  const dark = commonest(counts, 0, parting);
  const light = commonest(counts, parting + 1, 255);
  return light - dark >= LEAST_CONTRAST ? { dark, light } : null;
}

/** The last value of the darker of two groups whose means are farthest apart for their sizes (Otsu 1979). */
function otsu(counts: Uint32Array): number | null {
  let [n, sum] = [0, 0];
  counts.forEach((count, value) => {
    n += count;
    sum += count * value;
  });
  let [below, belowSum, best, first, last] = [0, 0, 0, 0, -1];
  for (let value = 0; value < 255; value++) {
    below += counts[value] as number;
    belowSum += value * (counts[value] as number);
    const above = n - below;
    if (below === 0 || above === 0) continue;
    const apart = belowSum / below - (sum - belowSum) / above;
    const score = below * above * apart * apart;
    if (score > best * (1 + 1e-9)) [best, first, last] = [score, value, value];
    else if (score > best * (1 - 1e-9)) last = value;
  }
  // Between two tones nothing lies in, any value parts as well: the middle is taken.
  return last < 0 ? null : Math.floor((first + last) / 2);
}

/** The middle of the tones that are commonest between two. */
function commonest(counts: Uint32Array, from: number, to: number): number {
  let [best, at] = [-1, from];
  for (let value = from; value <= to; value++) {
    let sum = 0;
    for (let k = Math.max(from, value - BROAD); k <= Math.min(to, value + BROAD); k++)
      sum += (counts[k] as number) * (BROAD + 1 - Math.abs(k - value));
    if (sum > best) [best, at] = [sum, value];
  }
  let [n, sum] = [0, 0];
  for (let k = Math.max(from, at - BROAD); k <= Math.min(to, at + BROAD); k++) {
    n += counts[k] as number;
    sum += k * (counts[k] as number);
  }
  return n > 0 ? sum / n : at;
}

type Colour = readonly [number, number, number];

/** A pixel's colour, laid on white where it can be seen through. */
function colourAt({ channels, data }: Raster, i: number): Colour {
  const k = i * channels;
  const at = (j: number): number => data[k + j] as number;
  if (channels === 1) return [at(0), at(0), at(0)];
  if (channels === 3) return [at(0), at(1), at(2)];
  const share = at(channels - 1) / 255;
  const on = (value: number) => 255 + (value - 255) * share;
  return channels === 2 ? [on(at(0)), on(at(0)), on(at(0))] : [on(at(0)), on(at(1)), on(at(2))];
}

/** The colour around a place: the median of nine pixels, by channel. */
function colourAround(raster: Raster, x: number, y: number): Colour {
  const around: Colour[] = [];
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const column = Math.max(0, Math.min(raster.width - 1, Math.floor(x) + dx));
      const row = Math.max(0, Math.min(raster.height - 1, Math.floor(y) + dy));
      around.push(colourAt(raster, row * raster.width + column));
    }
  const middle = (k: 0 | 1 | 2) => around.map((c) => c[k]).sort((p, q) => p - q)[4] as number;
  return [middle(0), middle(1), middle(2)];
}

const apart = (p: Colour, q: Colour): number => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);

/** By colours: the nearer a pixel is to one that belongs, against the nearest that does not, the more of it belongs. */
function coverageByPicks(source: Raster, { picks, evenLight }: Tones): Coverage | null {
  const light = evenLight ? lightOf(lightnessOf(source)) : null;
  const lit = source.channels - (hasOpacity(source) ? 1 : 0);
  const raster: Raster = light ? { ...source, data: evened(source.data, source, light, source.channels, lit) } : source;
  const of = (belongs: boolean): Colour[] =>
    picks.filter((p) => p.belongs === belongs).map((p) => colourAround(raster, p.x, p.y));
  const [inside, outside] = [of(true), of(false)];
  if (inside.length === 0 && outside.length === 0) return null;
  // Where only one side was pressed on, what is commonest and unlike it is the other.
  if (outside.length === 0) outside.push(commonestUnlike(raster, inside));
  if (inside.length === 0) inside.push(commonestUnlike(raster, outside));
  const { width, height } = raster;
  const out = new Uint8Array(width * height);
  const nearest = (list: readonly Colour[], c: Colour): number => {
    let least = Infinity;
    for (const other of list) least = Math.min(least, apart(c, other));
    return least;
  };
  for (let i = 0; i < out.length; i++) {
    const c = colourAt(raster, i);
    const [a, b] = [nearest(inside, c), nearest(outside, c)];
    out[i] = a + b === 0 ? 127 : Math.round((255 * b) / (a + b));
  }
  return { width, height, data: out };
}

/** Colours this near to one that was pressed on are like it. */
const LIKE = 48;
/** Bits by which colours are told apart while they are counted. */
const COUNTED_BITS = 4;

/** The commonest colour of a picture that is like none of those given; black or white, whichever is less like them, where all are. */
function commonestUnlike(raster: Raster, given: readonly Colour[]): Colour {
  const counts = new Map<number, { n: number; sum: [number, number, number] }>();
  const shift = 8 - COUNTED_BITS;
  for (let i = 0; i < raster.width * raster.height; i++) {
    const c = colourAt(raster, i);
    const key = ((c[0] >> shift) << (2 * COUNTED_BITS)) | ((c[1] >> shift) << COUNTED_BITS) | (c[2] >> shift);
    const found = counts.get(key) ?? { n: 0, sum: [0, 0, 0] };
    if (found.n === 0) counts.set(key, found);
    found.n++;
    for (const k of [0, 1, 2] as const) found.sum[k] += c[k];
  }
  const means = [...counts.values()].map(({ n, sum }) => ({
    n,
    colour: [sum[0] / n, sum[1] / n, sum[2] / n] as Colour,
  }));
  const unlike = means.filter(({ colour }) => given.every((g) => apart(g, colour) > LIKE));
  const [first] = unlike.sort((p, q) => q.n - p.n);
  if (first) return first.colour;
  const of = (c: Colour) => Math.min(...given.map((g) => apart(g, c)));
  return of([0, 0, 0]) > of([255, 255, 255]) ? [0, 0, 0] : [255, 255, 255];
}
