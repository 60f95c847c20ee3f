/** Line types of plotter files (LT): dashes and gaps by number. As in the published HP-GL/2 reference. */
import type { Point } from '../../geometry/point';

/** Line types by number (LT): dashes and gaps in per cent of the pattern. */
const DASHES: Readonly<Record<number, readonly number[]>> = {
  2: [50, 50],
  3: [70, 30],
  4: [80, 10, 0, 10],
  5: [70, 10, 10, 10],
  6: [50, 10, 10, 10, 10, 10],
};
/** Length of a pattern where the file names none: per cent of what lies between the plotter’s points. */
const PATTERN_PER_CENT = 4;

/** Shortest dash, in mm: those of no length are dots. */
const LEAST_MM = 0.01;

/**
 * Lengths of dashes and gaps in mm by the numbers of a line type: its number, the length of its pattern, and 1 where that is in mm, not
 * in per cent of the way `across` from one of the plotter’s points to the other. Empty for a full line.
 */
export function dashesOf(numbers: readonly number[], across: Point): readonly number[] {
  const [type, share = PATTERN_PER_CENT, isMm = 0] = numbers;
  const pattern = type === undefined ? undefined : DASHES[Math.abs(type)];
  const lengthMm = isMm === 1 ? share : (Math.hypot(across.x, across.y) * share) / 100;
  return pattern && lengthMm > 0 ? pattern.map((part) => Math.max(LEAST_MM, (part / 100) * lengthMm)) : [];
}
