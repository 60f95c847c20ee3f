import { editStep } from '@/core/commands/steps';
import type { Part, Step, StepOf } from '@/core/document/schema';
import { stepIn } from '@/core/kinds/steps';
import type { PartView } from '@/worker/view';
import { measureOf } from '../../seen';
import { dispatch } from '../../store';

/** What the panel of a step is given. */
export type StepProps = { readonly part: Part; readonly view: PartView };

/** Changes a part's step of a kind; a step it has not yet gets first values that suit it. */
export function useStep<K extends Step['kind']>({ part, view }: StepProps, kind: K) {
  const step = stepIn(part, kind);
  const edit = (recipe: (step: StepOf<K>) => void, merge: string | null = null) =>
    dispatch(
      (job) => editStep(job, part.id, kind, measureOf(job, view), recipe),
      merge && `${kind}:${merge}:${part.id}`,
    );
  const set = (values: Partial<StepOf<K>>, merge: string | null = null) =>
    edit((s) => {
      Object.assign(s, values);
    }, merge);
  const turn = (on: boolean) =>
    edit((s) => {
      s.on = on;
    });
  return { step: step?.on ? step : null, edit, set, turn };
}
