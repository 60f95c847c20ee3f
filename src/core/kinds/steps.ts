/** The kinds of steps, in the order in which new ones are put into a part. */
import { z } from 'zod';
import type { Matrix } from '../geometry/point';
import type { Mover } from '../prepare/mover';
import type { PreparedPart, StepNote } from '../prepare/prepared';
import {
  type DrawStage,
  type DrawStep,
  type LetterKeys,
  type Measure,
  type OutlineContext,
  type OutlineStep,
  STEP_PLACES,
  type Stepped,
} from './step';
import { barStep } from './steps/bar';
import { borderStep } from './steps/border';
import { bridgeStep } from './steps/bridge';
import { centerlineStep } from './steps/centerline';
import { dotsStep } from './steps/dots';
import { hangStep } from './steps/hang';
import { hatchStep } from './steps/hatch';
import { nodesStep } from './steps/nodes';
import { plateStep } from './steps/plate';
import { studsStep } from './steps/studs';
import { thickenStep } from './steps/thicken';
import { tieStep } from './steps/tie';
import { weldStep } from './steps/weld';

/**
 * Thickening comes before ties, so that ties have the width asked for; the border goes around everything, the plate around
 * what is cut out of it, what it hangs by is set into all of that, and bridges hold what is loose then.
 */
export const STEPS = [
  weldStep,
  thickenStep,
  barStep,
  tieStep,
  borderStep,
  plateStep,
  hangStep,
  nodesStep,
  bridgeStep,
  centerlineStep,
  dotsStep,
  hatchStep,
  studsStep,
] as const;

/** One of the kinds of steps. */
export type StepKind = (typeof STEPS)[number];
type SchemasOf<T extends readonly { readonly schema: unknown }[]> = { -readonly [I in keyof T]: T[I]['schema'] };

/** A step of any kind, told apart by `kind`. */
export const stepSchema = z.discriminatedUnion(
  'kind',
  STEPS.map((s) => s.schema) as unknown as SchemasOf<typeof STEPS>,
);

/** A step of any kind. */
export type Step = z.infer<typeof stepSchema>;

/** A step of one kind. */
export type StepOf<K extends Step['kind']> = Extract<Step, { kind: K }>;

/** The kinds that draw something of the finished shape. */
export type DrawKind = Extract<StepKind, { place: 'drawn' }>;

/** What of a step that draws is the same for every kind. */
export type AnyDrawStep = {
  readonly kind: DrawKind['kind'];
  readonly completed?: (step: Step, others: readonly Step[]) => Step;
  readonly needs?: (step: Step) => readonly string[];
  readonly isAlways?: boolean;
  readonly canDraw?: (shape: PreparedPart) => boolean;
  readonly draw: DrawStage<Step, object>;
  readonly moved: (drawn: object, matrix: Matrix) => object;
};

/** The kinds of steps that draw, in the order they are run in. */
export const DRAW_STEPS = STEPS.filter((s) => s.place === 'drawn') as unknown as readonly AnyDrawStep[];

const BY_KIND = new Map<string, StepKind>(STEPS.map((s) => [s.kind, s]));

/** All there is to say about the kind of a step. */
export const kindOf = (step: Pick<Step, 'kind'>): StepKind => BY_KIND.get(step.kind) as StepKind;

type Run = (before: Stepped, context: OutlineContext) => Partial<Stepped> & { readonly note?: StepNote | undefined };

/** What an outline step does; null for a step of another place. */
export function outlineStepOf(step: Step): Run | null {
  const kind = kindOf(step);
  if (kind.place !== 'outline') return null;
  const { run, moved } = kind as unknown as OutlineStep<typeof kind.schema, unknown>;
  return (before, context) => {
    const { note, ...done } = run(before, step as never, context);
    return note == null ? done : { ...done, note: noted(note, moved) };
  };
}

const noted = (note: unknown, moved: (note: unknown, mover: Mover) => unknown): StepNote => ({
  note,
  moved: (mover) => noted(moved(note, mover), moved),
});

/** The first step of a kind in a part. */
export const stepIn = <K extends Step['kind']>(
  { steps }: { readonly steps: readonly Step[] },
  kind: K,
): StepOf<K> | undefined => steps.find((s): s is StepOf<K> => s.kind === kind);

/** Sizes what a step keeps in lists, in place, where everything is to grow along. */
export function growAll(step: Step, times: (mm: number) => number): void {
  const { grow } = kindOf(step) as { readonly grow?: (step: Step, times: (mm: number) => number) => void };
  grow?.(step, times);
}

/** Carries what a step anchors to letters over to edited words, in place. */
export function carryLetters(step: Step, change: LetterKeys): void {
  const { letters } = kindOf(step) as { readonly letters?: (step: Step, change: LetterKeys) => void };
  letters?.(step, change);
}

const rank = (step: Step): number => STEPS.indexOf(kindOf(step));

/** The steps with the first of a kind replaced, or one put in where new ones go: before the first that comes later. */
export function withStep(steps: readonly Step[], step: Step): Step[] {
  const at = steps.findIndex((s) => s.kind === step.kind);
  if (at >= 0) return steps.map((s, i) => (i === at ? step : s));
  const next = steps.findIndex((s) => rank(s) > rank(step));
  const before = next < 0 ? steps.length : next;
  return [...steps.slice(0, before), step, ...steps.slice(before)];
}

/** A step of a kind, switched on, with values that suit the size. */
export function newStep<K extends Step['kind']>(kind: K, measure: Measure): StepOf<K> {
  const { schema, suited } = BY_KIND.get(kind) as StepKind;
  return schema.parse({ kind, ...suited(measure) }) as StepOf<K>;
}

/** What is wrong with a list of steps, by the index of the step: two of a kind of which there is one, or a place out of order. */
export function stepTroubles(steps: readonly Step[]): { readonly at: number; readonly sentence: string }[] {
  return steps.flatMap((step, at) => {
    const { isSingle, word, place } = kindOf(step);
    if (isSingle && steps.findIndex((s) => s.kind === step.kind) < at)
      return [{ at, sentence: `a part has one step “${step.kind}” at most` }];
    const before = steps.slice(0, at).find((s) => STEP_PLACES.indexOf(kindOf(s).place) > STEP_PLACES.indexOf(place));
    return before ? [{ at, sentence: `${word} can’t come after “${before.kind}”` }] : [];
  });
}

/** What is drawn of a part by each step that draws; null by those that are not asked for, or have nothing to draw. */
export type Linework = { readonly [S in DrawKind as S['kind']]: DrawnBy<S> | null };
type DrawnBy<S> = S extends DrawStep<infer _Z, infer D> ? D : never;

/** What a part has drawn where none of its steps draws. */
export const NO_LINEWORK = Object.fromEntries(DRAW_STEPS.map((s) => [s.kind, null])) as Linework;
