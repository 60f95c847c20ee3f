/** The region of a job under a point: the panel of an emblem, not the whole emblem. */
import type { Chosen } from '../commands/chosen';
import type { Point } from '../geometry/point';
import { windingAt } from '../geometry/winding';
import type { Outline } from '../prepare/outline';
import type { JobResult } from './evaluate';

/** The smallest outline around a point, of everything but what is chosen; null when there is none. */
export function regionAt(result: JobResult, at: Point, { partIds, memberId }: Chosen): Outline | null {
  let best: Outline | null = null;
  for (const part of result.parts) {
    const isChosen = partIds.includes(part.id);
    if (isChosen && memberId === null) continue;
    const outlines = isChosen ? part.members.filter((m) => m.id !== memberId).flatMap((m) => m.outlines) : part.solid;
    for (const o of outlines) {
      const { box } = o;
      if (at.x < box.minX || at.x > box.maxX || at.y < box.minY || at.y > box.maxY) continue;
      if (best && Math.abs(o.area) >= Math.abs(best.area)) continue;
      if (windingAt(o.path, at.x, at.y) !== 0) best = o;
    }
  }
  return best;
}
