/** Centring the selected member in the region under a point of the sheet. */
import { boxCentre, isEmptyBox, type Point } from '@/core/geometry/point';
import { moveMember } from '@/core/job/place';
import { computing } from '@/worker/client';
import { memberOf } from '../edits';
import { change, pointAt, useBench, whenComputed } from '../store';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

export function centreAt(at: Point): void {
  pointAt(null);
  whenComputed(() => void centre(at));
}

async function centre(at: Point): Promise<void> {
  const { job, selection, view } = useBench.getState();
  const { partId, memberId } = selection;
  const box = view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === memberId)?.box;
  if (!box || isEmptyBox(box)) return;
  const region = await computing().regionAt(job, at, memberId);
  const sheet = { minX: 0, minY: 0, maxX: job.sheet.width, maxY: job.sheet.height };
  const [from, to] = [boxCentre(box), boxCentre(region ?? sheet)];
  change((draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member) moveMember(member, round(to.x - from.x), round(to.y - from.y));
  });
}
