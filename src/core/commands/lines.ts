/** Middle lines and dots of a part, and which operation does what. */
import type { Job, StepOf, Work } from '../document/schema';
import type { Measure } from '../kinds/step';
import { workBy, workOn } from '../kinds/works';
import { LIMITS } from '../limits';
import { changed, partOf } from './changed';
import { editStep } from './steps';

/** Lines are marked where the job has a mark, else scored, else whatever there is. */
const suiting = ({ operations }: Job): string | undefined =>
  (operations.find((o) => o.kind === 'mark') ?? operations.find((o) => o.kind === 'score') ?? operations[0])?.id;

/** Give a kind of work on a part to an operation, or to none. */
export const giveWork = (job: Job, partId: string, what: Work['what'], operation: string | undefined): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (!part) return;
    part.work = part.work.filter((w) => w.what !== what || w.only !== null);
    if (operation) part.work.push(workBy(what, operation));
  });

/** Draw the middle of a part's strokes, or don't. The line takes the place of the outline, and gives it back. */
export function setCenterline(job: Job, partId: string, on: boolean, measure: Measure): Job {
  const part = partOf(job, partId);
  if (!part) return job;
  const turned = editStep(job, partId, 'centerline', measure, (step) => {
    step.on = on;
  });
  const given = giveWork(turned, partId, 'centerline', on ? suiting(job) : undefined);
  if (on) return giveWork(given, partId, 'outline', undefined);
  const outlined = part.work.some((w) => w.what === 'outline');
  const operation = workOn(part.work, 'centerline')?.operation;
  return outlined ? given : giveWork(given, partId, 'outline', operation);
}

/** Set dots along a part's lines, or don't. */
export const setDots = (job: Job, partId: string, on: boolean, measure: Measure): Job =>
  giveWork(
    editStep(job, partId, 'dots', measure, (step) => {
      step.on = on;
    }),
    partId,
    'dots',
    on ? suiting(job) : undefined,
  );

/** What dots run along. Down the middle needs the lines there, whether or not they are drawn themselves. */
export function setDotsAlong(job: Job, partId: string, along: StepOf<'dots'>['along'], measure: Measure): Job {
  const set = editStep(job, partId, 'dots', measure, (step) => {
    step.along = along;
  });
  return along === 'outline'
    ? set
    : editStep(set, partId, 'centerline', measure, (step) => {
        step.on = true;
      });
}

/** Letters of a part, by their keys, and whether all dots of i and j are among them. */
export type LettersAlone = NonNullable<Work['only']>;

/**
 * Give letters of a part to an operation by themselves, for a kind of work; undefined: they are worked with the rest again. Whatever they
 * were given to before, they are taken from.
 */
export const giveLetters = (
  job: Job,
  partId: string,
  what: Work['what'],
  { only, operation }: { readonly only: LettersAlone; readonly operation: string | undefined },
): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (!part) return;
    const without = part.work.map((w) =>
      w.what === what && w.only
        ? {
            ...w,
            only: {
              letters: w.only.letters.filter((letter) => !only.letters.includes(letter)),
              dots: w.only.dots && !only.dots,
            },
          }
        : w,
    );
    const same = without.find((w) => w.what === what && w.only !== null && w.operation === operation);
    if (same?.only) same.only = { letters: [...same.only.letters, ...only.letters], dots: same.only.dots || only.dots };
    else if (operation && without.length < LIMITS.operations) without.push({ what, operation, only });
    part.work = without.filter((w) => w.only === null || w.only.dots || w.only.letters.length > 0);
  });
