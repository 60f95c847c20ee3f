/** Words fitted into a box or a panel: their size is found and kept in step with them. */
import type { Job } from '../document/schema';
import { applyMatrix, type Box, boxCentre, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { placementMatrix, UNMOVED } from '../prepare/placement';
import type { Fit } from '../schema/fit';
import { goAlong } from './along';
import { changed, memberOf, partOf } from './changed';
import { editWords, type LinesAt } from './own-lines';

type WordsAt = Omit<LinesAt, 'lines'>;

const round = (mm: number): number => Math.round(mm * 1e3) / 1e3;
const LEAST_MM = 0.1;

/** No longer on another part's panel: the part stays where it is, and goes by itself. */
function leavePanel(job: Job, at: WordsAt): Job {
  const member = memberOf(job, at.partId, at.memberId);
  if (member?.kind !== 'lettering' || member.fit?.to !== 'panel') return job;
  return partOf(job, at.partId)?.along === member.fit.of ? goAlong(job, at.partId, null) : job;
}

/** Fit words into a box that is as large as they are now, about their middle. `ownBox`: bounds of their ink in their own coordinates. */
export const fitIntoBox = (job: Job, at: WordsAt, ownBox: Box): Job =>
  editWords(leavePanel(job, at), at, (member) => {
    const middle = isEmptyBox(ownBox) ? { x: 0, y: 0 } : boxCentre(ownBox);
    const { x, y } = applyMatrix(placementMatrix(member.placement), middle);
    member.placement.x = round(x);
    member.placement.y = round(y);
    const [width, height] = [boxWidth(ownBox), boxHeight(ownBox)].map((mm) => Math.max(LEAST_MM, round(mm)));
    const { margin, centre } = member.fit ?? { margin: 0, centre: 'ink' as const };
    member.fit = { to: 'box', width: width as number, height: height as number, margin, centre };
  });

/** Fit words into a panel of another part, and let their part go along with it. */
export function fitIntoPanel(
  job: Job,
  at: WordsAt,
  { of, outline, margin }: { readonly of: string; readonly outline: number; readonly margin: number },
): Job {
  if (!partOf(job, of) || of === at.partId || partOf(job, at.partId)?.locked) return job;
  const gone = goAlong(leavePanel(job, at), at.partId, of);
  const follows = partOf(gone, at.partId)?.along === of;
  return changed(gone, (draft) => {
    const part = partOf(draft, at.partId);
    const member = memberOf(draft, at.partId, at.memberId);
    if (!part || member?.kind !== 'lettering') return;
    if (follows && part.members.length === 1) part.placement = { ...UNMOVED };
    // Turned and mirrored they stay.
    member.placement = { ...member.placement, x: 0, y: 0 };
    const { centre } = member.fit ?? { centre: 'ink' as const };
    member.fit = { to: 'panel', of, outline, margin: Math.max(0, round(margin)), centre };
  });
}

/** Change what words are fitted into. */
export const setFit = (job: Job, at: WordsAt, more: Partial<Extract<Fit, { to: 'box' }>>): Job =>
  editWords(job, at, (member) => {
    if (member.fit) Object.assign(member.fit, more);
  });

/** Give words a size of their own, the one they have now; they stay where they are. */
export const unfit = (
  job: Job,
  at: WordsAt,
  {
    capHeightMm,
    place,
  }: { readonly capHeightMm: number | null; readonly place: { readonly x: number; readonly y: number } },
): Job =>
  editWords(leavePanel(job, at), at, (member) => {
    if (!member.fit) return;
    member.fit = null;
    if (capHeightMm) member.size = { by: 'capital', mm: Math.max(LEAST_MM, Math.round(capHeightMm * 1e4) / 1e4) };
    const { x, y } = applyMatrix(placementMatrix(member.placement), place);
    member.placement.x = round(x);
    member.placement.y = round(y);
  });
