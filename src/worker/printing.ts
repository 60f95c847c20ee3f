/** Path data for the screen. */

import type { Path } from '../core/geometry/path';
import { pathData } from '../core/geometry/path-data';
import type { Point } from '../core/geometry/point';
import type { Memory } from '../core/memo';
import type { Outline } from '../core/prepare/outline';

/** Decimal places on the screen: 1 µm. */
const DIGITS = 3;

/** Prints paths; what is printed of one is remembered as long as the path is there, so that an edit prints only what it changed. */
export class Printer {
  constructor(private readonly memory: Memory) {}

  readonly path = (path: Path): string => this.memory.of(path, 'printed', () => pathData([path], null, DIGITS));

  readonly paths = (paths: readonly Path[]): string => paths.map(this.path).join('');

  readonly outlines = (outlines: readonly Outline[]): string => outlines.map((o) => this.path(o.path)).join('');
}

/** A dot as path data: a circle, or a line of no length, which round ends make a point. */
export function dotData({ x, y }: Point, r: number | null): string {
  const [minX, low] = [(x - (r ?? 0)).toFixed(DIGITS), y.toFixed(DIGITS)];
  if (r === null) return `M${minX} ${low}h0`;
  const [radius, across] = [r.toFixed(DIGITS), (2 * r).toFixed(DIGITS)];
  return `M${minX} ${low}a${radius} ${radius} 0 1 0 ${across} 0a${radius} ${radius} 0 1 0 -${across} 0`;
}
