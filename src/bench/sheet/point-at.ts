/** What a press on the sheet says: the region to centre in, the panel to fit words into. */

import { fitIntoPanel } from '@/core/commands/fit';
import { boxCentre, boxHeight, boxWidth, isEmptyBox, type Point } from '@/core/geometry/point';
import { computing } from '@/worker/client';
import { chosenBox, chosenNow, memberInHand, moveBy } from '../chosen';
import { dispatch, say, setPointing, useBench } from '../store';
import { whenComputed } from '../when-computed';

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

/** A margin that suits a panel, as a share of its shorter side. */
const MARGIN = 0.08;

/** Fit the words in hand into the panel that a point lies in. */
export function fitAt(at: Point): void {
  setPointing(null);
  whenComputed(() => void fit(at));
}

async function fit(at: Point): Promise<void> {
  const { job, selection } = useBench.getState();
  const member = memberInHand(job, selection);
  const { partId } = selection;
  if (!partId || member?.kind !== 'lettering') return;
  const panel = await computing().panelAt(job, at, partId);
  if (!panel) return say('There is no closed outline of another part around that place.');
  const { of, outline, box } = panel;
  const margin = member.fit?.margin ?? Math.round(MARGIN * Math.min(boxWidth(box), boxHeight(box)));
  dispatch((now) => fitIntoPanel(now, { partId, memberId: member.id }, { of, outline, margin }));
}
