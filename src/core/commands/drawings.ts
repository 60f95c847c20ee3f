/** Gaps of drawings answered one by one, and outlines that were worked on by hand left. */
import type { Artwork, Job } from '../document/schema';
import { LIMITS } from '../limits';
import { changed, memberOf, partOf } from './changed';

const editArtwork = (job: Job, partId: string, memberId: string, recipe: (member: Artwork) => void): Job =>
  changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member?.kind === 'artwork') recipe(member);
  });

/** Say what becomes of one gap of a drawing. */
export const answerGap = (
  job: Job,
  partId: string,
  { memberId, gap, how }: { readonly memberId: string; readonly gap: string; readonly how: 'close' | 'leave' },
): Job =>
  editArtwork(job, partId, memberId, ({ close }) => {
    const others = close.answers.filter((answer) => answer.gap !== gap);
    close.answers = others.length < LIMITS.gapAnswers ? [...others, { gap, how }] : others;
  });

/** Take back what was said about a gap. */
export const forgetGap = (job: Job, partId: string, memberId: string, gap: string): Job =>
  editArtwork(job, partId, memberId, ({ close }) => {
    close.answers = close.answers.filter((answer) => answer.gap !== gap);
  });

/** Back from outlines worked on by hand to what the words and steps give. */
export const leaveHandMade = (job: Job, partId: string): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (part?.steps.some((step) => step.kind === 'nodes'))
      part.steps = part.steps.filter((step) => step.kind !== 'nodes');
  });
