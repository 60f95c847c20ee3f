/**
 * What a kind of step is. One file says everything about a kind (steps/*.ts): its schema, the values that suit a part's size,
 * which of its lengths grow when the part is sized, what of it is anchored to letters, when in the row it is run and what it
 * does, and what is found about it. steps.ts lists the kinds in their order.
 */
import type { z } from 'zod';
import type { ClipEngine } from '../geometry/boolean/engine';
import type { Matrix } from '../geometry/point';
import type { Rule } from '../inspect/rule';
import type { Layout } from '../lettering/layout';
import type { LongStage, Memory } from '../memo';
import type { Mover } from '../prepare/mover';
import type { Outline } from '../prepare/outline';
import type { Keep, PreparedPart } from '../prepare/prepared';
import type { Source } from '../prepare/source';
import type { Member } from '../schema/members';

/**
 * What first values are made from, in mm: the height of a capital, or what stands for it, the least safe width and the
 * kerf.
 */
export type Measure = {
  readonly capHeightMm: number;
  readonly leastWidthMm: number | null;
  readonly kerfMm: number | null;
};

/** A length in mm to a tenth, never less than one. */
export const tenths = (mm: number): number => Math.max(0.1, Math.round(mm * 10) / 10);

/**
 * The row a part's steps are run in. Welding comes first, then outline steps as the part lists them, then outlines worked on by
 * hand, then bridges; what is drawn of the finished shape changes no outline. In a part's list no step of a later place stands
 * before one of an earlier place.
 */
export const STEP_PLACES = ['weld', 'outline', 'nodes', 'bridge', 'drawn'] as const;

/** Where in the row a step is run. */
export type StepPlace = (typeof STEP_PLACES)[number];

/** What a letter's name becomes when its words are edited. */
export type LetterKeys = {
  /** The key of the same letter in the new words; null when it is gone. A key of no letter stays. */
  readonly keyOf: (key: string) => string | null;
};

/** Entries anchored to letters, with their letters' new keys; those of letters that are gone go with them. */
export const onLetters = <T extends { letter: string }>(list: readonly T[], { keyOf }: LetterKeys): T[] =>
  list.flatMap((entry) => {
    const letter = keyOf(entry.letter);
    return letter === null ? [] : [{ ...entry, letter }];
  });

/** What rules of a step speak of: a part, and what its step left. */
export type StepSubject<S, N = unknown, D = unknown> = {
  readonly partId: string;
  /** What the part is called in a sentence. */
  readonly title: string;
  /** The step; undefined when the part has none. */
  readonly step: S | undefined;
  readonly part: PreparedPart;
  /** What the step noted; null when it was not run. */
  readonly note: N | null;
  /** What it draws; null when nothing. */
  readonly drawn: D | null;
  /** A length in the job's unit. */
  readonly length: (mm: number) => string;
};

/** How what a step's rule finds is mended: by changing the step, in place, by leaving it out, or by hand on the sheet. */
export type StepMend<S> = { readonly words: string } & (
  | { readonly step: (step: S) => void }
  | { readonly isLeftOut: true }
  | { readonly byHand: 'lines' }
);

type StepSchema = z.ZodObject<{ kind: z.ZodLiteral<string>; on: z.ZodDefault<z.ZodBoolean> } & z.ZodRawShape>;

type StepBasics<Z extends StepSchema, N, D> = {
  readonly kind: z.infer<Z>['kind'];
  /** What it is called in a sentence, with a small initial. */
  readonly word: string;
  readonly schema: Z;
  /** Whether a part has one at most. */
  readonly isSingle: boolean;
  /** Values that suit a size, where these differ from the schema's own. */
  readonly suited: (measure: Measure) => Partial<z.input<Z>>;
  /** Every length of it, in mm: whether it grows along when the part is sized. */
  readonly lengths: {
    readonly grows: readonly (keyof z.infer<Z> & string)[];
    readonly stays: readonly (keyof z.infer<Z> & string)[];
  };
  /** Sizes what else stays, where everything is to grow along: lengths within its lists. */
  readonly grow?: (step: z.infer<Z>, times: (mm: number) => number) => void;
  /** Carries what is anchored to letters over to edited words, in place. */
  readonly letters?: (step: z.infer<Z>, change: LetterKeys) => void;
  /** Whether a part with it can still be read letter by letter as it was set. */
  readonly keepsLetters: boolean;
  readonly rules: readonly Rule<StepSubject<z.infer<Z>, N, D>, StepMend<z.infer<Z>>>[];
};

/** A shape on its way through the outline steps. */
export type Stepped = {
  readonly shape: readonly Outline[];
  /** Whether the shape is what stays or what is cut away. */
  readonly keep: Keep;
};

/** What an outline step is given beside the shape. */
export type OutlineContext = {
  readonly engine: ClipEngine;
  /** What the part was set to keep, before any step. */
  readonly keep: Keep;
  readonly members: readonly {
    readonly role: Member['role'];
    readonly layout: Layout | null;
    readonly matrix: Matrix;
  }[];
  readonly sources: readonly Source[];
  /** Where what is reckoned again and again is kept. */
  readonly memory: Memory;
};

/** A step that makes a clean shape of a clean shape. */
export type OutlineStep<Z extends StepSchema, N> = StepBasics<Z, N, null> & {
  readonly place: 'outline';
  /** What it leaves unsaid stays as it was. */
  readonly run: (
    before: Stepped,
    step: z.infer<Z>,
    context: OutlineContext,
  ) => Partial<Stepped> & { readonly note?: N };
  /** A note where its part lies elsewhere. */
  readonly moved: (note: N, mover: Mover) => N;
};

/** What a step that draws is given: its settings, the finished shape, and what it is made from. */
export type DrawInput<S> = {
  readonly step: S;
  /** The part in its own coordinates. */
  readonly shape: PreparedPart;
  /** What it is made of and by which steps. */
  readonly part: DrawnPart;
  /** What kinds it needs have drawn. */
  readonly made: ReadonlyMap<string, object>;
  readonly engine: ClipEngine;
};

/** How something is drawn, remembered by what it hangs on. */
export type DrawStage<S, D> = Omit<LongStage<DrawInput<S>, D>, 'weigh'> & { readonly weigh: (drawn: D) => number };

/** What a step that draws knows of the part beside its shape. */
export type DrawnPart = {
  readonly id: string;
  readonly members: readonly Member[];
  /** Whether it is words as they were set, which can be read letter by letter. */
  readonly isAsSet: boolean;
};

/** A step that draws something of the finished shape, where some work asks for it, and changes no outline. */
export type DrawStep<Z extends StepSchema, D extends object> = StepBasics<Z, null, D> & {
  readonly place: 'drawn';
  /** The step with what the same steps of other parts say for it. */
  readonly completed?: (step: z.infer<Z>, others: readonly z.infer<Z>[]) => z.infer<Z>;
  /** Kinds that it is made from. */
  readonly needs?: (step: z.infer<Z>) => readonly string[];
  /** Whether it is drawn even where no work asks for it. */
  readonly isAlways?: boolean;
  /** Whether there is something to be drawn of a shape. */
  readonly canDraw?: (shape: PreparedPart) => boolean;
  /** What it draws; that says by itself what it weighs. */
  readonly draw: DrawStage<z.infer<Z>, D>;
  /** What was drawn where its part lies elsewhere. */
  readonly moved: (drawn: D, matrix: Matrix) => D;
};

/** A step with a place of its own in the row (weld, nodes, bridge). */
export type FixedStep<Z extends StepSchema> = StepBasics<Z, null, null> & {
  readonly place: Exclude<StepPlace, 'outline' | 'drawn'>;
};

/** A kind of step that changes outlines, with the place all of them have. */
export const outlineStep = <Z extends StepSchema, N>(step: Omit<OutlineStep<Z, N>, 'place'>): OutlineStep<Z, N> => ({
  ...step,
  place: 'outline',
});

/** A kind of step that draws something of the finished shape, with the place all of them have. */
export const drawStep = <Z extends StepSchema, D extends object>(
  step: Omit<DrawStep<Z, D>, 'place'>,
): DrawStep<Z, D> => ({
  ...step,
  place: 'drawn',
});

/** A kind of step with a place of its own, run by the part's own stages. */
export const fixedStep = <Z extends StepSchema>(step: FixedStep<Z>): FixedStep<Z> => step;

/** What a step noted about a part; null when it was not run. */
export const noteOf = <N>(
  { kind }: { readonly kind: string; readonly moved: (note: N, mover: Mover) => N },
  { notes }: Pick<PreparedPart, 'notes'>,
): N | null => (notes.get(kind)?.note as N | undefined) ?? null;

/** What a kind has drawn, among what the asking step needs; null when it has not. */
export const madeBy = <D extends object>(
  { kind }: { readonly kind: string; readonly moved: (drawn: D, matrix: Matrix) => D },
  made: ReadonlyMap<string, object>,
): D | null => (made.get(kind) as D | undefined) ?? null;
