/** How much of each pixel outlines cover, exactly: what a picture of them is judged against. */
import { flattenPath, type Path } from '../../src/core/geometry/path';

/**
 * The share of each pixel that lies inside closed outlines which do not cross (holes run the other way), 0 to 1, row by row from
 * the top; coordinates in pixels, y downwards. Each edge adds to the pixels of its rows the area to its right (Raph Levien's way of
 * accumulating signed areas), so that nothing is sampled.
 */
export function coverageOf(paths: readonly Path[], width: number, height: number): Float64Array {
  const at = new Float64Array(width * height + height + 1);
  const W = width + 1;
  const cells = new Float64Array(W * height + 1);
  const edge = (x0: number, y0: number, x1: number, y1: number) => {
    if (y0 === y1) return;
    const sign = y0 < y1 ? 1 : -1;
    const [ax, ay, bx, by] = sign > 0 ? [x0, y0, x1, y1] : [x1, y1, x0, y0];
    const slope = (bx - ax) / (by - ay);
    for (let row = Math.max(0, Math.floor(ay)); row < Math.min(height, Math.ceil(by)); row++) {
      const [top, bottom] = [Math.max(ay, row), Math.min(by, row + 1)];
      if (bottom <= top) continue;
      let [p, q] = [ax + (top - ay) * slope, ax + (bottom - ay) * slope];
      if (p > q) [p, q] = [q, p];
      p = Math.min(Math.max(p, 0), width);
      q = Math.min(Math.max(q, 0), width);
      const dy = sign * (bottom - top);
      const first = Math.floor(p);
      const last = Math.max(first, Math.ceil(q) - 1);
      for (let column = first; column <= Math.min(last, width - 1); column++) {
        const [l, r] = [Math.max(p, column), Math.min(q, column + 1)];
        // The part of the edge within this column, and the area to its right in it.
        const share = q > p ? (r - l) / (q - p) : 1;
        const middle = q > p ? (l + r) / 2 : p;
        const area = dy * share * (column + 1 - middle);
        cells[row * W + column] = (cells[row * W + column] as number) + area;
        cells[row * W + column + 1] = (cells[row * W + column + 1] as number) + dy * share - area;
      }
    }
  };
  for (const path of paths) {
    const points = flattenPath(path, 0.002);
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length] as { x: number; y: number };
      edge(p.x, p.y, q.x, q.y);
    });
  }
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += cells[y * W + x] as number;
      at[y * width + x] = Math.min(1, Math.abs(sum));
    }
  }
  return at.subarray(0, width * height);
}
