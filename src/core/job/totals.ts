/** What an operation amounts to in single marks: how often its tool is set down, and its dots by size. */
import { setDowns } from '../geometry/drawable';
import type { DrawnWork } from './drawn';

/** How many dots there are of one size; the radius is in mm, null for points. */
export type DotTotal = {
  /** Diameter in mm; null for points. */
  readonly diameterMm: number | null;
  readonly count: number;
};

/** How often the tool is set down for all that is drawn. */
export const totalSetDowns = (drawn: readonly DrawnWork[]): number =>
  drawn.reduce((sum, d) => sum + setDowns(d.drawable), 0);

/** Dots by size, points first, then the smallest. */
export function dotTotals(drawn: readonly DrawnWork[]): DotTotal[] {
  const counts = new Map<number | null, number>();
  for (const { drawable } of drawn) {
    if (drawable.kind !== 'dot') continue;
    const size = drawable.r === null ? null : Math.round(2 * drawable.r * 1e4) / 1e4;
    counts.set(size, (counts.get(size) ?? 0) + 1);
  }
  return [...counts]
    .map(([diameterMm, count]) => ({ diameterMm, count }))
    .sort((a, b) => (a.diameterMm ?? -1) - (b.diameterMm ?? -1));
}
