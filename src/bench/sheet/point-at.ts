/** Centring what is chosen in the region under a point of the sheet. */
import { boxCentre, isEmptyBox, type Point } from '@/core/geometry/point';
import { computing } from '@/worker/client';
import { chosenBox, chosenNow, moveBy } from '../chosen';
import { setPointing, useBench, whenComputed } from '../store';

/** Centre what is chosen in the region that a point lies in. */
export function centreAt(at: Point): void {
  setPointing(null);
  whenComputed(() => void centre(at));
}

async function centre(at: Point): Promise<void> {
  const { job, view } = useBench.getState();
  const chosen = chosenNow();
  const box = chosenBox(chosen, view);
  if (isEmptyBox(box)) return;
  const region = await computing().regionAt(job, at, chosen);
  const sheet = { minX: 0, minY: 0, maxX: job.sheet.width, maxY: job.sheet.height };
  const [from, to] = [boxCentre(box), boxCentre(region ?? sheet)];
  moveBy(chosen, to.x - from.x, to.y - from.y);
}
