/** What an operation amounts to in single marks: how often its tool is set down, and its dots by size. */
import { countStrokes } from '../toolpath/fill/strokes';
import type { OperationShape } from './evaluate';

export type DotTotal = {
  /** Diameter in mm; null for points. */
  readonly diameterMm: number | null;
  readonly count: number;
};

/** How often the tool is set down: once for each outline, line and dot. */
export const setDowns = (shapes: readonly OperationShape[]): number =>
  shapes.reduce((sum, s) => sum + (s.what === 'strokes' ? countStrokes(s.strokes) : s.what === 'fill' ? 0 : 1), 0);

/** Dots by size, points first, then the smallest. */
export function dotTotals(shapes: readonly OperationShape[]): DotTotal[] {
  const counts = new Map<number | null, number>();
  for (const s of shapes) {
    if (s.what !== 'dot') continue;
    const size = s.r === null ? null : Math.round(2 * s.r * 1e4) / 1e4;
    counts.set(size, (counts.get(size) ?? 0) + 1);
  }
  return [...counts]
    .map(([diameterMm, count]) => ({ diameterMm, count }))
    .sort((a, b) => (a.diameterMm ?? -1) - (b.diameterMm ?? -1));
}
