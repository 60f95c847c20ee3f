/** Dots moved and left out by hand: kept by where they would be, in the measure of the part's first member. */
import type { StepOf } from '@/core/document/schema';
import { applyMatrix, invert, type Point } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { type AtDot, change, chooseDot, useBench } from './store';

type DotChange = StepOf<'dots'>['changes'][number];

/** Changes nearer to each other than this, in the measure they are kept in, are of one dot. */
const SAME = 1e-6;
const round = (v: number): number => Math.round(v * 1e9) / 1e9;

/** Keep a change of a dot. One beyond the limit stays as it is. */
function keep(at: AtDot, to: Point | 'gone'): void {
  const { view, job } = useBench.getState();
  const frame = view?.parts.find((p) => p.id === at.partId)?.dots?.frame;
  const part = job.parts.find((p) => p.id === at.partId);
  if (!frame || !part || part.locked) return;
  const back = invert(frame);
  const home = applyMatrix(back, at);
  const own: DotChange = { x: round(home.x), y: round(home.y), dx: null, dy: null };
  if (typeof to !== 'string') {
    const target = applyMatrix(back, to);
    own.dx = round(target.x - home.x);
    own.dy = round(target.y - home.y);
  }
  change((draft) => {
    const step = draft.parts.find((p) => p.id === at.partId)?.steps.find((s) => s.kind === 'dots');
    if (step?.kind !== 'dots') return;
    const others = step.changes.filter((c) => Math.hypot(c.x - own.x, c.y - own.y) > SAME);
    if (others.length < LIMITS.dotChanges) step.changes = [...others, own];
  });
}

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
export function resetDots(partId: string): void {
  change((draft) => {
    const step = draft.parts.find((p) => p.id === partId)?.steps.find((s) => s.kind === 'dots');
    if (step?.kind === 'dots') step.changes = [];
  });
}
