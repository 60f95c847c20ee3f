/** What a user does to dots at the bench: the commands with what is chosen and what was computed. */
import { changeDot, resetDots as resetDotsIn } from '@/core/commands/dots';
import type { Point } from '@/core/geometry/point';
import type { AtDot } from './at';
import { partView } from './seen';
import { chooseDot, dispatch, useBench } from './store';

const keep = (at: AtDot, to: Point | 'gone'): void =>
  dispatch((job) =>
    changeDot(job, at.partId, { at: { x: at.x, y: at.y }, to, frames: partView(at.partId)?.dots?.frames ?? [] }),
  );

/** Put a dot elsewhere, on the sheet. */
export const moveDot = (at: AtDot, to: Point): void => keep(at, to);

/** Leave the chosen dot out; whether there was one. */
export function removeChosenDot(): boolean {
  const { atDot } = useBench.getState();
  if (!atDot) return false;
  keep(atDot, 'gone');
  chooseDot(null);
  return true;
}

/** Put all dots of a part back where they are by themselves. */
export const resetDots = (partId: string): void => dispatch((job) => resetDotsIn(job, partId));
