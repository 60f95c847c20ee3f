/** All rules that yield findings, in the order in which what they find is listed. */
import type { Rule } from '../inspect/rule';
import type { StepMend, StepSubject } from '../kinds/step';
import { STEPS, type Step } from '../kinds/steps';
import { CLOSING_RULES } from './closing';
import { HOLD_RULES } from './hold';
import { HOLE_RULES } from './holes';
import { JOB_RULES } from './job';
import { MEMBER_RULES } from './members';
import { PLACE_RULES } from './place';
import type { AnyMend, PartSubject } from './rule';
import { STRENGTH_RULES } from './strength';
import { TRACE_RULES } from './traces';
import { WORK_RULES } from './work';

export { JOB_RULES };

type PartRules = { readonly about: 'part'; readonly rules: readonly Rule<PartSubject, AnyMend>[] };
/** Rules about what a kind of step did. */
type StepRules = {
  readonly about: 'step';
  readonly kind: Step['kind'];
  readonly rules: readonly Rule<StepSubject<Step>, StepMend<Step>>[];
};

const part = (rules: PartRules['rules']): PartRules => ({ about: 'part', rules });
const ofSteps = (isDrawn: boolean): StepRules[] =>
  STEPS.filter(({ place, rules }) => (place === 'drawn') === isDrawn && rules.length > 0).map(
    ({ kind, rules }): StepRules => ({ about: 'step', kind, rules: rules as unknown as StepRules['rules'] }),
  );

/** Rules about a part by itself. */
export const PART_RULES: readonly (PartRules | StepRules)[] = [
  part(MEMBER_RULES),
  part(TRACE_RULES),
  part(PLACE_RULES),
  ...ofSteps(false),
  part(CLOSING_RULES),
  part(HOLD_RULES),
  part(STRENGTH_RULES),
  part(HOLE_RULES),
  ...ofSteps(true),
  part(WORK_RULES),
];

/** How what a rule finds is mended: by a command, or as its step says. */
export type RuleMend =
  | { readonly by: 'command'; readonly mend: AnyMend }
  | { readonly by: 'step'; readonly kind: Step['kind']; readonly mend: StepMend<Step> };

function* mends(): Generator<[string, RuleMend]> {
  for (const { code, mend } of JOB_RULES) if (mend) yield [code, { by: 'command', mend }];
  for (const of of PART_RULES)
    if (of.about === 'part') {
      for (const { code, mend } of of.rules) if (mend) yield [code, { by: 'command', mend }];
    } else for (const { code, mend } of of.rules) if (mend) yield [code, { by: 'step', kind: of.kind, mend }];
}

/** By the code of a finding. */
export const MENDS: ReadonlyMap<string, RuleMend> = new Map(mends());

type Alike = { readonly code: string; readonly many?: (count: number) => string };

/** What is said of several findings of a code in one sentence, where it is said. */
export const MANY: ReadonlyMap<string, (count: number) => string> = new Map(
  [...JOB_RULES, ...PART_RULES.flatMap(({ rules }): readonly Alike[] => rules)].flatMap(({ code, many }: Alike) =>
    many ? [[code, many] as const] : [],
  ),
);
