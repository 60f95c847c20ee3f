/** Beginning a list of names: the words of a lettering become a field, and the first row has them. */
import { changed, memberOf, partOf } from '../commands/changed';
import { rosterOf, setRoster } from '../commands/roster';
import { setWords } from '../commands/words';
import type { Job } from '../document/schema';
import { fieldMark, hasFields } from './fields';

/** A job with a list of names. The words of a lettering, where one is given, stand in its first row, and a field takes their place; else that row is the job as it is. */
export function beginRoster(job: Job, partId: string | null, memberId: string | null): Job {
  if (job.roster) return job;
  const member = memberOf(job, partId, memberId);
  const words = member?.kind === 'lettering' && !hasFields(member.text) ? member.text : null;
  const part = partOf(job, partId);
  const withRoster = setRoster(job, rosterOf(['Name'], [[words ?? '']]));
  if (words === null || !partId || !memberId) return withRoster;
  // A part that is called by its words is called by those of each row.
  return changed(setWords(withRoster, partId, memberId, fieldMark('Name')), (draft) => {
    const named = partOf(draft, partId);
    if (named && part?.name === words) named.name = fieldMark('Name');
  });
}
