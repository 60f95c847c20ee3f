/** Words with fields written in capitals, in small letters, or each with a capital: plain words, and the cells that fields take. */
import { changed, memberOf } from '../commands/changed';
import { CASES, type Case } from '../commands/words';
import type { Job } from '../document/schema';
import { fieldsIn, hasFields, stretchesOf } from './fields';

/** Write the words of a lettering so, with what the rows of the list have for its fields. */
export function setFieldCase(job: Job, partId: string, memberId: string, as: Case): Job {
  const words = memberOf(job, partId, memberId);
  if (words?.kind !== 'lettering' || !hasFields(words.text)) return job;
  const used = new Set(fieldsIn(words.text).map((name) => name.toLowerCase()));
  return changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member?.kind !== 'lettering') return;
    member.text = stretchesOf(words.text)
      .map(({ start, end, field }) => {
        const stretch = words.text.slice(start, end);
        return field === null ? CASES[as](stretch) : stretch;
      })
      .join('');
    draft.roster?.columns.forEach((column, i) => {
      if (column.kind !== 'typed' || !used.has(column.name.toLowerCase())) return;
      for (const row of draft.roster?.rows ?? []) {
        const cell = row.cells[i];
        if (cell) row.cells[i] = CASES[as](cell);
      }
    });
  });
}
