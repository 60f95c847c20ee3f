/** Changing the steps of a part. */
import type { Job, Step, StepOf } from '../document/schema';
import type { Measure } from '../kinds/step';
import { newStep, stepIn, withStep } from '../kinds/steps';
import { changed, partOf, plain } from './changed';

/** Put a step into a part, or change the one it has. */
export const editStep = <K extends Step['kind']>(
  job: Job,
  partId: string,
  kind: K,
  measure: Measure,
  recipe: (step: StepOf<K>) => void,
): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (!part) return;
    const step = plain(stepIn(part, kind) ?? newStep(kind, measure));
    recipe(step as StepOf<K>);
    part.steps = withStep(part.steps, step as Step);
  });
