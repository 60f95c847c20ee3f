/** Words that lie on another part: along its outline, or in a panel of it. Their part goes along with that one. */
import type { Job, Lettering, Part } from '../document/schema';
import { UNMOVED } from '../prepare/placement';
import { madeFrom } from '../schema/members';
import { goAlong } from './along';
import { changed, memberOf, partOf } from './changed';
import { editWords, type WordsAt } from './own-lines';

/** Lay words on another part: `recipe` says how, and where their origin lies on it. Nothing happens where there is no such part. */
export function layOn(job: Job, at: WordsAt, of: string, recipe: (member: Lettering) => void): Job {
  const part = partOf(job, at.partId);
  if (!partOf(job, of) || of === at.partId || !part || part.locked) return job;
  const gone = goAlong(job, at.partId, of);
  return changed(gone, (draft) => {
    const own = partOf(draft, at.partId);
    const member = memberOf(draft, at.partId, at.memberId);
    if (!own || member?.kind !== 'lettering') return;
    if (own.along === of && own.members.length === 1) own.placement = { ...UNMOVED };
    recipe(member);
  });
}

/**
 * Change words that may lie on another part. Where nothing of their part does any more, that goes by itself again; it stays where it
 * is.
 */
export function editLying(job: Job, at: WordsAt, recipe: (member: Lettering) => void): Job {
  const before = partOf(job, at.partId);
  const changedJob = editWords(job, at, recipe);
  const after = partOf(changedJob, at.partId);
  const leader = before?.along ?? null;
  const liesOn = (part: Part | null | undefined): boolean =>
    leader !== null && (part?.members.some((m) => madeFrom(m).includes(leader)) ?? false);
  return liesOn(before) && !liesOn(after) ? goAlong(changedJob, at.partId, null) : changedJob;
}
