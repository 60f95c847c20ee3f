/** Rows of a roster, as the page asks for them: looked over one after the other, mended, and written. */
import type { Job } from '../core/document/schema';
import type { Evaluator, Progress } from '../core/job/evaluate';
import type { ExportScope } from '../core/job/export';
import { type MadeRowFiles, rowFiles, type WriteOne } from '../core/job/row-files';
import { type RowDone, RowsSeen, rowSteps } from '../core/job/rows';
import { thickenedEnough } from '../core/job/safe';
import { stepIn } from '../core/kinds/steps';
import type { FaceLookup } from '../core/prepare/prepared';
import type { FilledWith } from '../core/roster/fields';
import { type ChangeFor, keptInDocument } from '../core/roster/kept';
import { mendingOf } from '../core/rules/mend';
import type { Seen } from '../core/rules/rule';
import { isThin } from '../core/rules/strength';
import { seenIn } from './seen-in';
import { viewOf } from './view';

/** Hears of rows as they are there. */
export type OnRows = (rows: readonly RowDone[]) => void;

/** Which findings are to be mended: those of a code, in these rows; and who the mend is for. */
export type RowMend = { readonly code: string; readonly rowIds: readonly string[]; readonly changeFor: ChangeFor };

type Means = { readonly evaluator: Evaluator; readonly faces: FaceLookup };

/** Rows told at once. */
const TOLD = 20;

/** A job with a part thickened just enough; itself where that can't be, or was done already. */
function* thickened(
  job: Job,
  partId: string | null,
  progress: Progress,
  { seen, isForAll }: { readonly seen: Seen; readonly isForAll: boolean },
  { evaluator, faces }: Means,
): Generator<Progress, Job> {
  const part = job.parts.find((p) => p.id === partId);
  const words = part?.members.find((m) => m.kind === 'lettering');
  if (!part || part.locked) return job;
  const capHeightMm = (words && seen.capHeightOf(part.id, words.id)) ?? 10;
  const steps = thickenedEnough(job, part.id, { evaluator, faces, capHeightMm });
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield progress;
  const safe = step.value;
  if (!safe.ok) return job;
  // What is enough for one row is not made less by another.
  const [by, was] = [stepIn(safe.part, 'thicken')?.by ?? 0, stepIn(part, 'thicken')?.by ?? 0];
  if (isForAll && by < was) return job;
  return { ...job, parts: job.parts.map((p) => (p.id === part.id ? safe.part : p)) };
}

/** What rows came to, for the page that looks at them. */
export class RowsHost {
  private readonly seen = new RowsSeen();
  private readonly aboutFaces = new WeakMap<FaceLookup, number>();
  private nextAbout = 1;

  /** Look over all rows; `onRows` hears of them a few at a time. */
  *look(job: Job, filling: FilledWith, onRows: OnRows, means: Means): Generator<Progress, true> {
    let rows: RowDone[] = [];
    const send = () => {
      if (rows.length > 0) onRows(rows);
      rows = [];
    };
    const steps = this.seen.steps(job, {
      filling,
      about: String(this.aboutOf(means.faces)),
      tell: (done) => {
        rows.push(done);
        if (rows.length >= TOLD) send();
      },
      ...means,
    });
    for (let step = steps.next(); !step.done; step = steps.next()) {
      // A row that took long is shown at once.
      yield step.value;
      if (rows.length > 0 && step.value.done > 0) send();
    }
    send();
    return true;
  }

  /** The document with findings of rows mended, each row by what is computed of it; and in how many rows that was. */
  *mend(
    document: Job,
    { code, rowIds, changeFor }: RowMend,
    filling: FilledWith,
    means: Means,
  ): Generator<Progress, { readonly job: Job; readonly mended: number }> {
    let job = document;
    let mended = 0;
    for (const [done, rowId] of rowIds.entries()) {
      const nth = job.roster?.rows.findIndex((row) => row.id === rowId) ?? -1;
      if (nth < 0) continue;
      const steps = rowSteps(job, nth, filling, means);
      let step = steps.next();
      for (; !step.done; step = steps.next()) yield { done, of: rowIds.length };
      const { job: before, result, findings } = step.value;
      const seen = seenIn(before, viewOf(result, means.evaluator.memo));
      let after = before;
      for (const finding of findings) {
        if (finding.code !== code || finding.leftReason !== null) continue;
        if (isThin(code))
          after = yield* thickened(
            after,
            finding.partId,
            { done, of: rowIds.length },
            { seen, isForAll: changeFor === 'all' },
            means,
          );
        else {
          const mending = mendingOf(after, finding);
          if (mending && 'run' in mending) after = mending.run(after, seen);
        }
      }
      if (after === before) continue;
      job = keptInDocument(job, { nth, before, after, changeFor });
      mended++;
    }
    return { job, mended };
  }

  /** The files of rows. */
  files(
    job: Job,
    asked: {
      readonly filling: FilledWith;
      readonly rowIds: readonly string[] | null;
      readonly scope: ExportScope;
      readonly write: WriteOne;
    },
    means: Means,
  ): Generator<Progress, MadeRowFiles> {
    return rowFiles(job, { ...asked, ...means });
  }

  /** Tells typefaces and files at hand apart. */
  private aboutOf(faces: FaceLookup): number {
    let about = this.aboutFaces.get(faces);
    if (about === undefined) {
      about = this.nextAbout++;
      this.aboutFaces.set(faces, about);
    }
    return about;
  }
}
