/** The same words bridged in several ways, side by side, with how readable they stay. */
import type { Job, StepOf } from '../document/schema';
import { withStep } from '../kinds/steps';
import type { FaceLookup, PreparedPart } from '../prepare/prepared';
import { meanReadability } from '../prepare/readability';
import type { Evaluator } from './evaluate';

type BridgeStep = StepOf<'bridge'>;

/** A part bridged in one of the ways that are compared, and what that way is called. */
export type BridgeVariant = {
  readonly values: Pick<BridgeStep, 'count' | 'direction'>;
  readonly prepared: PreparedPart;
  readonly bridges: number;
  /** Islands without a bridge. */
  readonly unheld: number;
  /** Mean readability of the letters with islands, 0 to 100. */
  readonly readability: number;
};

const VARIANTS: readonly BridgeVariant['values'][] = [
  { count: 1, direction: 'any' },
  { count: 2, direction: 'any' },
  { count: 1, direction: 'upright' },
  { count: 2, direction: 'upright' },
  { count: 1, direction: 'level' },
  { count: 2, direction: 'level' },
];

/** A part bridged by each variant of a step; what is placed by hand stays in all of them. */
export function* bridgeVariants(
  job: Job,
  partId: string,
  { step, evaluator, faces }: { readonly step: BridgeStep; readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<BridgeVariant> {
  for (const values of VARIANTS) {
    const parts = job.parts.map((part) =>
      part.id === partId ? { ...part, steps: withStep(part.steps, { ...step, ...values, on: true }) } : part,
    );
    const prepared = evaluator.prepare({ ...job, parts }, partId, faces);
    const notes = prepared?.bridged;
    if (!prepared || !notes) return;
    const withIslands = new Set(notes.islands.map((i) => i.label));
    yield {
      values,
      prepared,
      bridges: notes.bridges.length,
      unheld: notes.islands.filter((i) => !i.hangs && i.how === 'auto').length,
      readability: meanReadability(evaluator.readability(prepared).filter(({ label }) => withIslands.has(label))),
    };
  }
}
