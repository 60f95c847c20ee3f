/** Whether strokes look drawn with one pen, and how wide it is. */

/** Widths are those of strokes of one pen when two fifths are less than this much larger than the least tenth. */
const EVEN = 1.06;
/** A pen drew it all when this share of the widths is the same within this share. */
const ALL = 0.85;
const SAME = 0.02;

/** Half the width that most of a letter has, from radii in order; null where widths differ. */
export function evenRadius(sorted: readonly number[]): number | null {
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))];
  const [low, more] = [at(0.1), at(0.4)];
  return low !== undefined && more !== undefined && more < EVEN * low ? (at(0.2) as number) : null;
}

/** Half the width of the pen that drew strokes of these radii; null where it was not one pen. */
export function penRadius(radii: readonly number[]): number | null {
  const sorted = [...radii].sort((a, b) => a - b);
  const low = sorted[Math.floor(0.15 * sorted.length)];
  if (low === undefined) return null;
  const same = sorted.filter((r) => Math.abs(r - low) < SAME * low);
  return same.length >= ALL * sorted.length ? (same[same.length >> 1] as number) : null;
}
