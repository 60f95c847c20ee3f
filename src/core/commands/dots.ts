/** Dots moved and left out by hand: kept by where they would be on their letter, or in the part's first member. */
import type { Job, StepOf } from '../document/schema';
import { applyMatrix, invert, outsideBox, type Point } from '../geometry/point';
import { stepIn } from '../kinds/steps';
import { LIMITS } from '../limits';
import type { DotFrame } from '../toolpath/dots/part-dots';
import { changed, partOf } from './changed';

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

/**
 * Move a dot, or leave it out. `at` is where it would be by itself on the sheet, `frames` what places are kept in, as computed.
 * A change beyond the limit is not kept.
 */
export function changeDot(
  job: Job,
  partId: string,
  { at, to, frames }: { readonly at: Point; readonly to: Point | 'gone'; readonly frames: readonly DotFrame[] },
): Job {
  const frame = frameAt(frames, at);
  if (!frame) return job;
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
  return changed(job, (draft) => {
    const part = partOf(draft, partId);
    const step = part && stepIn(part, 'dots');
    if (!step || part.locked) return;
    const others = step.changes.filter(isOther);
    if (others.length < LIMITS.dotChanges) step.changes = [...others, own];
  });
}

/** Put all dots of a part back where they are by themselves. */
export const resetDots = (job: Job, partId: string): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    const step = part && stepIn(part, 'dots');
    if (step) step.changes = [];
  });
