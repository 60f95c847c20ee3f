/**
 * Letters and strokes on a raster, an independent judge of what a tip covers: pixels by their middles, distances by the exact
 * transform of Felzenszwalb and Huttenlocher (2012). Shares no code with what it judges but the points of a curve.
 */
import type { Point } from '../../src/core/geometry/point';

export type Raster = {
  readonly width: number;
  readonly height: number;
  readonly minX: number;
  readonly minY: number;
  /** Size of a pixel in mm. */
  readonly size: number;
};

export type Mask = Uint8Array;

/** Pixels whose middle lies in polygons, by the even-odd rule. */
export function fillMask(r: Raster, polygons: readonly (readonly Point[])[]): Mask {
  const out = new Uint8Array(r.width * r.height);
  const hits: number[][] = Array.from({ length: r.height }, () => []);
  for (const points of polygons)
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length] as Point;
      const [low, high] = a.y < b.y ? [a, b] : [b, a];
      if (low.y === high.y) return;
      const from = Math.max(0, Math.ceil((low.y - r.minY) / r.size - 0.5));
      for (let k = from; k < r.height; k++) {
        const y = r.minY + (k + 0.5) * r.size;
        if (y >= high.y) break;
        if (y < low.y) continue;
        (hits[k] as number[]).push(low.x + ((y - low.y) / (high.y - low.y)) * (high.x - low.x));
      }
    });
  hits.forEach((row, k) => {
    row.sort((a, b) => a - b);
    for (let i = 0; i + 1 < row.length; i += 2) {
      const from = Math.max(0, Math.ceil(((row[i] as number) - r.minX) / r.size - 0.5));
      const to = Math.min(r.width, Math.ceil(((row[i + 1] as number) - r.minX) / r.size - 0.5));
      if (to > from) out.fill(1, k * r.width + from, k * r.width + to);
    }
  });
  return out;
}

/** Marks pixels whose middle lies within a distance of a straight stroke. */
export function strokeMask(r: Raster, out: Mask, a: Point, b: Point, radius: number): void {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const low = Math.max(0, Math.floor((Math.min(a.y, b.y) - radius - r.minY) / r.size));
  const high = Math.min(r.height - 1, Math.ceil((Math.max(a.y, b.y) + radius - r.minY) / r.size));
  const left = Math.max(0, Math.floor((Math.min(a.x, b.x) - radius - r.minX) / r.size));
  const right = Math.min(r.width - 1, Math.ceil((Math.max(a.x, b.x) + radius - r.minX) / r.size));
  for (let k = low; k <= high; k++) {
    const y = r.minY + (k + 0.5) * r.size;
    for (let i = left; i <= right; i++) {
      if (out[k * r.width + i]) continue;
      const x = r.minX + (i + 0.5) * r.size;
      const t = square > 0 ? Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / square)) : 0;
      const [ex, ey] = [x - a.x - t * dx, y - a.y - t * dy];
      if (ex * ex + ey * ey <= radius * radius) out[k * r.width + i] = 1;
    }
  }
}

/** Of every pixel the distance in mm to the nearest one whose mask is `to`. */
export function distances(r: Raster, mask: Mask, to: 0 | 1): Float32Array {
  const { width, height } = r;
  const far = 1e12;
  const out = new Float64Array(mask.length);
  for (let i = 0; i < mask.length; i++) out[i] = mask[i] === to ? 0 : far;
  const n = Math.max(width, height);
  const [f, d, v, z] = [new Float64Array(n), new Float64Array(n), new Int32Array(n), new Float64Array(n + 1)];
  const along = (count: number, at: (i: number) => number) => {
    for (let i = 0; i < count; i++) f[i] = out[at(i)] as number;
    let k = 0;
    v[0] = 0;
    z[0] = -Infinity;
    z[1] = Infinity;
    for (let q = 1; q < count; q++) {
      let s: number;
      for (;;) {
        const p = v[k] as number;
        s = ((f[q] as number) + q * q - ((f[p] as number) + p * p)) / (2 * q - 2 * p);
        if (s > (z[k] as number)) break;
        k--;
      }
      k++;
      v[k] = q;
      z[k] = s;
      z[k + 1] = Infinity;
    }
    k = 0;
    for (let q = 0; q < count; q++) {
      while ((z[k + 1] as number) < q) k++;
      const p = v[k] as number;
      d[q] = (q - p) ** 2 + (f[p] as number);
    }
    for (let i = 0; i < count; i++) out[at(i)] = d[i] as number;
  };
  for (let x = 0; x < width; x++) along(height, (i) => i * width + x);
  for (let y = 0; y < height; y++) along(width, (i) => y * width + i);
  return Float32Array.from(out, (square) => Math.sqrt(square) * r.size);
}

export const count = (mask: Mask): number => mask.reduce((sum, v) => sum + v, 0);
