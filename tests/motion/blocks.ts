/** Blocks to be gone over, and how a machine moves that has no limits of axes but one acceleration. */
import { inkRowsOf } from '../../src/core/geometry/ink-rows';
import { closedPath } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import type { Motion } from '../../src/core/motion/machine-motion';

/** A block by its lower left corner and its size, in rows so far apart. */
export const block = (x: number, y: number, width: number, height: number, step: number) =>
  inkRowsOf(
    [
      closedPath([
        line(x, y, x + width, y),
        line(x + width, y, x + width, y + height),
        line(x + width, y + height, x, y + height),
        line(x, y + height, x, y),
      ]),
    ],
    step,
  );

/** Motion at a speed, with one acceleration along either axis. */
export const alike = (speed: number, a: number): Motion => ({
  speed,
  axisSpeed: { x: 1e6, y: 1e6 },
  acceleration: { x: a, y: a },
  cornerMm: 0.05,
});
