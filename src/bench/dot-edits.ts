/** Dots moved and left out by hand: kept by where they would be on their letter, or in the part's first member. */
import type { StepOf } from '@/core/document/schema';
import { applyMatrix, invert, outsideBox, type Point } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import type { DotFrame } from '@/core/toolpath/dots/part-dots';
import { type AtDot, change, chooseDot, useBench } from './store';

type DotChange = StepOf<'dots'>['changes'][number];

/** Changes nearer to each other than this on the sheet, in mm, are of one dot. */
const SAME_MM = 1e-4;
const round = (v: number): number => Math.round(v * 1e9) / 1e9;

/** What a dot's place is kept in: the letter it is on or next to, so that it goes along; else the first member. */
function frameAt(frames: readonly DotFrame[], at: Point): DotFrame | undefined {
  let [best, least] = [frames[0], Infinity];
  for (const frame of frames) {
    const d = outsideBox(at, frame.box);
    if (d < least) [best, least] = [frame, d];
  }
  return best;
}

/** Keep a change of a dot. One beyond the limit stays as it is. */
function keep(at: AtDot, to: Point | 'gone'): void {
  const { view, job } = useBench.getState();
  const frames = view?.parts.find((p) => p.id === at.partId)?.dots?.frames ?? [];
  const frame = frameAt(frames, at);
  const part = job.parts.find((p) => p.id === at.partId);
  if (!frame || !part || part.locked) return;
  const back = invert(frame.matrix);
  const home = applyMatrix(back, at);
  const own: DotChange = { letter: frame.letter, x: round(home.x), y: round(home.y), dx: null, dy: null };
  if (typeof to !== 'string') {
    const target = applyMatrix(back, to);
    own.dx = round(target.x - home.x);
    own.dy = round(target.y - home.y);
  }
  const isOther = (change: DotChange): boolean => {
    const of = frames.find((f) => f.letter === change.letter);
    if (!of) return true;
    const known = applyMatrix(of.matrix, change);
    return Math.hypot(known.x - at.x, known.y - at.y) > SAME_MM;
  };
  change((draft) => {
    const step = draft.parts.find((p) => p.id === at.partId)?.steps.find((s) => s.kind === 'dots');
    if (step?.kind !== 'dots') return;
    const others = step.changes.filter(isOther);
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
