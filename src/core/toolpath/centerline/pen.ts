/** Whether strokes look drawn with one pen, and how wide it is. */
import { numberAt } from '../../geometry/elements';

/** A pen drew it all when this share of the widths is the same within this share. */
const ALL = 0.85;
const SAME = 0.02;

/** Half the width of the pen that drew strokes of these radii; null where it was not one pen. */
export function penRadius(radii: readonly number[]): number | null {
  const sorted = [...radii].sort((a, b) => a - b);
  const low = sorted[Math.floor(0.15 * sorted.length)];
  if (low === undefined) return null;
  const same = sorted.filter((r) => Math.abs(r - low) < SAME * low);
  return same.length >= ALL * sorted.length ? numberAt(same, same.length >> 1) : null;
}
