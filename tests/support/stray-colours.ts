/** Two pictures compared outside a band of a pixel. */
import type { PNG } from 'pngjs';

/** Pixels of one picture whose colour is nowhere near among the nine around that place in the other, both ways. */
export function strayColours(a: PNG, b: PNG): number {
  const far = (p: PNG, q: PNG): number => {
    let count = 0;
    for (let y = 0; y < p.height; y++)
      for (let x = 0; x < p.width; x++) {
        const i = 4 * (y * p.width + x);
        let best = 255;
        for (let dy = -1; dy <= 1 && best > 96; dy++)
          for (let dx = -1; dx <= 1 && best > 96; dx++) {
            if (x + dx < 0 || y + dy < 0 || x + dx >= q.width || y + dy >= q.height) continue;
            const j = 4 * ((y + dy) * q.width + x + dx);
            let most = 0;
            for (let c = 0; c < 3; c++)
              most = Math.max(most, Math.abs((p.data[i + c] as number) - (q.data[j + c] as number)));
            best = Math.min(best, most);
          }
        if (best > 96) count++;
      }
    return count;
  };
  return far(a, b) + far(b, a);
}
