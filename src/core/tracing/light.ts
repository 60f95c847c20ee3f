/**
 * How the light falls on a picture: a smooth surface through what is brightest in each part of it (the paper, or what is painted
 * on a dark ground). A photograph of a sheet is brighter towards the lamp; divided by this, paper is as light everywhere.
 */
import { floatAt } from '../geometry/elements';
import { solve } from '../geometry/solve';
import type { Plane } from './raster';

/** Lightness of what is bright, by place: coefficients of 1, u, v, u², uv, v² with u and v from −1 to 1 across the picture. */
export type Light = { readonly coefficients: readonly number[]; readonly brightest: number };

/** Blocks along the longer side. */
const BLOCKS = 32;
/** Share of the pixels of a block that are darker than what is taken for its bright part. */
const BRIGHT = 0.8;
/** Blocks darker than this share of the brightest have nothing bright in them, at first; later, those darker by this than the surface. */
const AT_FIRST = 0.5;
const DARKER = 0.07;
/** Light that differs by less than this is even. */
const UNEVEN = 1.04;
/** Fewest blocks that tell a slope, and a bowl. */
const TELL_SLOPE = 8;
const TELL_BOWL = 30;
/** Pixels looked at along each side of a block. */
const LOOKED = 16;

type Block = { readonly u: number; readonly v: number; readonly bright: number };

function blocksOf({ width, height, data }: Plane): Block[] {
  const size = Math.max(4, Math.ceil(Math.max(width, height) / BLOCKS));
  const out: Block[] = [];
  const counts = new Uint32Array(256);
  for (let top = 0; top < height; top += size)
    for (let left = 0; left < width; left += size) {
      const [bottom, right] = [Math.min(height, top + size), Math.min(width, left + size)];
      const step = Math.max(1, Math.floor(size / LOOKED));
      counts.fill(0);
      let n = 0;
      for (let y = top; y < bottom; y += step)
        for (let x = left; x < right; x += step) {
          const value = data[y * width + x] as number;
          counts[value] = (counts[value] as number) + 1;
          n++;
        }
      let value = 0;
      for (let sum = counts[0] as number; sum < BRIGHT * n; sum += counts[value] as number) value++;
      out.push({ u: (left + right) / width - 1, v: (top + bottom) / height - 1, bright: value });
    }
  return out;
}

const termsAt = (u: number, v: number): readonly number[] => [1, u, v, u * u, u * v, v * v];

/** Least squares of `count` terms through blocks; null where they do not tell them. */
function surface(blocks: readonly Block[], count: number): number[] | null {
  const rows = Array.from({ length: count }, () => new Float64Array(count + 1));
  for (const { u, v, bright } of blocks) {
    const terms = termsAt(u, v);
    rows.forEach((row, i) => {
      const t = terms[i] as number;
      for (let j = 0; j < count; j++) row[j] = floatAt(row, j) + t * (terms[j] as number);
      row[count] = floatAt(row, count) + t * bright;
    });
  }
  return solve(rows) ? rows.map((row) => floatAt(row, count)) : null;
}

const valueAt = (coefficients: readonly number[], u: number, v: number): number => {
  const terms = termsAt(u, v);
  return coefficients.reduce((sum, c, i) => sum + c * (terms[i] as number), 0);
};

/** How the light falls; null where it is even, or the picture does not tell. */
export function lightOf(plane: Plane): Light | null {
  const all = blocksOf(plane);
  const brightest = Math.max(...all.map((b) => b.bright));
  let kept = all.filter((b) => b.bright >= AT_FIRST * brightest);
  let found: number[] | null = null;
  for (let round = 0; round < 8; round++) {
    const count = kept.length >= TELL_BOWL ? 6 : kept.length >= TELL_SLOPE ? 3 : 1;
    if (count === 1) return null;
    const now = surface(kept, count);
    if (!now) return null;
    found = now;
    const next = all.filter((b) => b.bright > 0 && b.bright >= (1 - DARKER) * valueAt(now, b.u, b.v));
    if (next.length === kept.length && next.every((b, i) => b === kept[i])) break;
    if (next.length < TELL_SLOPE) return null;
    kept = next;
  }
  if (!found) return null;
  const fitted = kept.map((b) => valueAt(found, b.u, b.v));
  const [low, high] = [Math.min(...fitted), Math.max(...fitted)];
  return low > 8 && high / low > UNEVEN ? { coefficients: found, brightest: high } : null;
}

/** A row of factors that even the light, for row `y` of a picture. */
function factorsOfRow(
  { coefficients, brightest }: Light,
  width: number,
  height: number,
  y: number,
  out: Float32Array,
): void {
  const [c0, c1 = 0, c2 = 0, c3 = 0, c4 = 0, c5 = 0] = coefficients as [number, ...number[]];
  const v = (2 * y + 1) / height - 1;
  const [p, q] = [c0 + c2 * v + c5 * v * v, c1 + c4 * v];
  const least = brightest / 8;
  for (let x = 0; x < width; x++) {
    const u = (2 * x + 1) / width - 1;
    out[x] = brightest / Math.max(least, p + q * u + c3 * u * u);
  }
}

/** Values evened: each as if the light were everywhere as bright as where it is brightest. Pixels have `channels` values, of which the first `lit` are light. */
export function evened(
  data: Uint8Array,
  size: { readonly width: number; readonly height: number },
  light: Light,
  channels = 1,
  lit = 1,
): Uint8Array {
  const { width, height } = size;
  const out = data.slice();
  const factors = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    factorsOfRow(light, width, height, y, factors);
    for (let x = 0, i = y * width * channels; x < width; x++, i += channels)
      for (let k = 0; k < lit; k++) {
        const value = (data[i + k] as number) * (factors[x] as number) + 0.5;
        out[i + k] = value > 255 ? 255 : value;
      }
  }
  return out;
}
