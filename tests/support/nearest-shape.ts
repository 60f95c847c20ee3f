/**
 * Which letter of a face a shape looks most like: the one that leaves the fewest pixels over when laid on it. A plain judge, by pixels
 * that are ink or are not; it knows nothing of what tells letters apart.
 */
import { flattenPath, type Path, transformRegion } from '../../src/core/geometry/path';
import { type Point, scaling, translation } from '../../src/core/geometry/point';
import type { Typeface } from '../../src/core/lettering/face';
import { fillMask, type Mask, type Raster } from './raster';

/** Pixels along a capital height, and shifts tried to both sides. */
export const PIXELS = 24;
const SHIFTS = 3;
const FRAME: Raster = {
  width: 3 * PIXELS,
  height: Math.round(2.2 * PIXELS),
  minX: -1.5,
  minY: -0.6,
  size: 1 / PIXELS,
};

export const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789';

/** A shape in capital heights about the middle of its box. */
export type Shape = { readonly name: string; readonly mask: Mask; readonly from: number; readonly to: number };

/** So many finer pixels a pixel is wide, where a shape is made thinner. */
const FINER = 6;

/** The pixels of closed lines made thinner all around by a share of a capital height; what has closed stays closed. */
function thinnerMask(rings: readonly Point[][], by: number): Mask {
  const fine: Raster = {
    ...FRAME,
    width: FRAME.width * FINER,
    height: FRAME.height * FINER,
    size: FRAME.size / FINER,
  };
  const mask = fillMask(fine, rings);
  // White begins half a pixel before the middle of the first white one.
  const reach = by > 0 ? by / fine.size + 0.5 : 0;
  const round: number[] = [];
  for (let y = -Math.floor(reach); y <= reach; y++)
    for (let x = -Math.floor(reach); x <= reach; x++) if (Math.hypot(x, y) <= reach) round.push(y * fine.width + x);
  const out = fillMask(FRAME, []);
  for (let k = 0; k < out.length; k++) {
    const [row, column] = [FINER * Math.floor(k / FRAME.width), FINER * (k % FRAME.width)];
    let ink = 0;
    for (let i = 0; i < FINER * FINER; i++) {
      const at = (row + Math.floor(i / FINER)) * fine.width + column + (i % FINER);
      if (round.every((by) => mask[at + by] === 1)) ink++;
    }
    out[k] = 2 * ink >= FINER * FINER ? 1 : 0;
  }
  return out;
}

/**
 * Clean outlines in mm, between two places across, as pixels about the middle of these; made thinner all around by so many mm.
 */
export function shapeBetween(
  outlines: readonly Path[],
  from: number,
  to: number,
  capMm: number,
  name: string,
  thinnedMm: number | null = null,
): Shape {
  const placed = transformRegion([...outlines], translation(-(from + to) / 2, 0));
  const rings = transformRegion(placed, scaling(1 / capMm)).map((p) => flattenPath(p, 0.01));
  const mask = thinnedMm === null ? fillMask(FRAME, rings) : thinnerMask(rings, thinnedMm / capMm);
  const half = (to - from) / 2 / capMm;
  for (let k = 0; k < mask.length; k++) {
    const x = FRAME.minX + ((k % FRAME.width) + 0.5) * FRAME.size;
    if (Math.abs(x) > half) mask[k] = 0;
  }
  const columns = Array.from({ length: FRAME.width }, (_, c) => c).filter((c) =>
    mask.some((v, k) => v === 1 && k % FRAME.width === c),
  );
  return { name, mask, from: columns[0] ?? 0, to: (columns[columns.length - 1] ?? -1) + 1 };
}

/** Pixels that are ink in one and not in the other, where they fit best; no more than `most` are told apart. */
function leftOver(a: Shape, b: Shape, most: number): number {
  let least = most;
  const { width, height } = FRAME;
  for (let shift = -SHIFTS; shift <= SHIFTS; shift++) {
    let sum = 0;
    const [from, to] = [Math.max(0, Math.min(a.from, b.from + shift)), Math.min(width, Math.max(a.to, b.to + shift))];
    for (let r = 0; r < height && sum < least; r++)
      for (let c = from; c < to; c++) {
        const other = c - shift;
        const inB = other >= 0 && other < width ? (b.mask[r * width + other] as number) : 0;
        sum += (a.mask[r * width + c] as number) ^ inB;
      }
    least = Math.min(least, sum);
  }
  return least;
}

/** The letters of a face as shapes, from their own clean outlines. */
export function lettersOf(
  face: Typeface,
  clean: (character: string) => {
    readonly outlines: readonly Path[];
    readonly from: number;
    readonly to: number;
    readonly capMm: number;
  } | null,
): Shape[] {
  return [...LETTERS].flatMap((character) => {
    if (face.shape(character, 'ltr', { ligatures: false, features: [] }).some((g) => g.glyph === 0)) return [];
    const set = clean(character);
    return set ? [shapeBetween(set.outlines, set.from, set.to, set.capMm, character)] : [];
  });
}

/** The name of the shape that is nearest to one. */
export function nearestTo(shape: Shape, among: readonly Shape[]): string {
  let best = { name: '', sum: Infinity };
  for (const other of among) {
    const sum = leftOver(shape, other, best.sum);
    if (sum < best.sum) best = { name: other.name, sum };
  }
  return best.name;
}
