/** Tips that fill: how wide each works, and what the widths mean. */
import type { HatchTool } from '../../schema/tools';

/**
 * Width in mm that a tool works at its depth. A pen or beam, and a flat tool: its width. A round-ended tool: of the ball where it
 * is let in less than half its width. A conical tool: tip + 2 · depth · tan(angle / 2).
 */
export function widthOf({ shape, tip, angle, depth }: HatchTool): number {
  switch (shape) {
    case 'line':
    case 'flat':
      return tip;
    case 'round': {
      const r = tip / 2;
      return depth >= r ? tip : 2 * Math.sqrt(depth * (2 * r - depth));
    }
    case 'cone':
      return tip + 2 * depth * Math.tan((angle * Math.PI) / 360);
  }
}
