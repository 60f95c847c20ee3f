/** Words fitted into a box or a panel: their size is found and kept in step with them. */
import type { Job } from '../document/schema';
import { applyMatrix, type Box, boxCentre, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { placementMatrix } from '../prepare/placement';
import type { Fit } from '../schema/fit';
import { editLying, layOn } from './lie-on';
import { editWords, type WordsAt } from './own-lines';

const round = (mm: number): number => Math.round(mm * 1e3) / 1e3;
const LEAST_MM = 0.1;

/** Fit words into a box that is as large as they are now, about their middle. `ownBox`: bounds of their ink in their own coordinates. */
export const fitIntoBox = (job: Job, at: WordsAt, ownBox: Box): Job =>
  editLying(job, at, (member) => {
    const middle = isEmptyBox(ownBox) ? { x: 0, y: 0 } : boxCentre(ownBox);
    const { x, y } = applyMatrix(placementMatrix(member.placement), middle);
    member.placement.x = round(x);
    member.placement.y = round(y);
    const [width, height] = [boxWidth(ownBox), boxHeight(ownBox)].map((mm) => Math.max(LEAST_MM, round(mm)));
    const { margin, centre } = member.fit ?? { margin: 0, centre: 'ink' as const };
    member.fit = { to: 'box', width: width as number, height: height as number, margin, centre };
  });

/** Fit words into a panel of another part, and let their part go along with it. */
export const fitIntoPanel = (
  job: Job,
  at: WordsAt,
  { of, outline, margin }: { readonly of: string; readonly outline: number; readonly margin: number },
): Job =>
  layOn(job, at, of, (member) => {
    // Turned and mirrored they stay.
    member.placement = { ...member.placement, x: 0, y: 0 };
    const { centre } = member.fit ?? { centre: 'ink' as const };
    member.fit = { to: 'panel', of, outline, margin: Math.max(0, round(margin)), centre };
  });

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
  editLying(job, at, (member) => {
    if (!member.fit) return;
    member.fit = null;
    if (capHeightMm) member.size = { by: 'capital', mm: Math.max(LEAST_MM, Math.round(capHeightMm * 1e4) / 1e4) };
    const { x, y } = applyMatrix(placementMatrix(member.placement), place);
    member.placement.x = round(x);
    member.placement.y = round(y);
  });
