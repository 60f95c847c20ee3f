/** What of a document is on the sheet: all of it, or the row in hand of its roster. */
import type { Job } from '@/core/document/schema';
import { jobInRow, placeOfRow } from '@/core/roster/in-row';
import { today } from '@/ui/when';

type Shown = { readonly document: Job; readonly nth: number; readonly job: Job; readonly today: string };

/** Whether a row puts the same into a document as it did into another. */
function isSameRow(one: Job, other: Job, nth: number): boolean {
  const [a, b] = [one.roster, other.roster];
  return a?.columns === b?.columns && a?.rows[nth] === b?.rows[nth];
}

/** What is on the sheet of documents one after the other: parts that did not change stay the same objects. */
export class ShownOf {
  private last: Shown | null = null;

  /** The document itself; where it has a roster, the job of a row: of one by its id, or the first. */
  of(document: Job, rowId: string | null): Job {
    if (document.roster === null || document.roster.rows.length === 0) return document;
    const { last } = this;
    const nth = placeOfRow(document, rowId);
    const day = today();
    if (last?.document === document && last.nth === nth && last.today === day) return last.job;
    const made = jobInRow(document, nth, { today: day });
    const isSame = last !== null && last.nth === nth && last.today === day && isSameRow(last.document, document, nth);
    const job = isSame ? { ...made, parts: keptParts(made, document, last) } : made;
    this.last = { document, nth, job, today: day };
    return job;
  }
}

/** Parts of a job in a row, as they were made before where what they are made of is the same. */
function keptParts(made: Job, document: Job, last: Shown): Job['parts'] {
  const before = new Map(last.document.parts.map((part, i) => [part, last.job.parts[i]]));
  return made.parts.map((part, i) => before.get(document.parts[i] as Job['parts'][number]) ?? part);
}
