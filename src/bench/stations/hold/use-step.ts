import { type Common, common, forParts } from '@/core/commands/several';
import { editStep } from '@/core/commands/steps';
import type { Job, Part, Step, StepOf } from '@/core/document/schema';
import type { Measure } from '@/core/kinds/step';
import { stepIn } from '@/core/kinds/steps';
import type { PartView } from '@/worker/view';
import { measureOf } from '../../seen';
import { dispatch } from '../../store';

/** A part and what was computed of it. */
export type Shown = { readonly part: Part; readonly view: PartView };

/** What the panel of a step is given. */
export type StepProps = Shown & {
  /** Further parts that are chosen: what is set is set for all, and what differs is shown as mixed. */
  readonly also?: readonly Shown[];
};

/** All parts that a panel is for. */
export const shownIn = ({ part, view, also = [] }: StepProps): Shown[] => [{ part, view }, ...also];

/** Edit all parts that a panel is for as one change. */
export function editAll(
  props: StepProps,
  edit: (job: Job, partId: string, measure: Measure) => Job,
  merge: string | null = null,
): void {
  const all = shownIn(props);
  const views = new Map(all.map(({ part, view }) => [part.id, view]));
  const ids = [...views.keys()];
  dispatch(
    (job) => forParts(job, ids, (now, id) => edit(now, id, measureOf(now, views.get(id)))),
    merge && `${merge}:${ids.join()}`,
  );
}

/** Changes a step of a kind of all parts a panel is for; a part that has none yet gets first values that suit it. */
export function useStep<K extends Step['kind']>(props: StepProps, kind: K) {
  const steps = shownIn(props).map(({ part }) => stepIn(part, kind) ?? null);
  const { value: isOn, mixed } = common(steps.map((step) => step?.on === true));
  const edit = (recipe: (step: StepOf<K>) => void, merge: string | null = null) =>
    editAll(props, (job, id, measure) => editStep(job, id, kind, measure, recipe), merge && `${kind}:${merge}`);
  const set = (values: Partial<StepOf<K>>, merge: string | null = null) =>
    edit((s) => {
      Object.assign(s, values);
    }, merge);
  const turn = (on: boolean) =>
    edit((s) => {
      s.on = on;
    });
  return {
    /** The step that is on, of the first; null where it is off, or on for some only. */
    step: isOn && !mixed ? (steps[0] as StepOf<K>) : null,
    /** Whether it is on, for a switch. */
    switched: { on: isOn && !mixed, mixed },
    /** A value of it where it is on, for a field. */
    at: <F extends keyof StepOf<K>>(key: F): Common<StepOf<K>[F]> =>
      common(steps.map((step) => (step as StepOf<K>)?.[key])),
    edit,
    set,
    turn,
  };
}
