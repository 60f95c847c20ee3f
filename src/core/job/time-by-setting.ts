/** How long a job takes by one setting of an operation: the same job with other values of it, each run in an order found quickly. */
import { type TimedSetting, timedSetting, valuesToTry, withTimedSetting } from '../commands/timed-settings';
import type { Job } from '../document/schema';
import type { FaceLookup } from '../prepare/prepared';
import type { Evaluator } from './evaluate';

/** What the operation takes at a value, in seconds; null where that is not known. */
export type TimeAt = { readonly value: number; readonly seconds: number | null };

/** Times by a setting, from its least value to its greatest, and that of now. */
export type TimeBySetting = { readonly now: number; readonly times: readonly TimeAt[] };

/** How long an operation takes by a setting; null where it has no such setting. Yields the share done. */
export function* timeBySetting(
  job: Job,
  { operationId, which }: { readonly operationId: string; readonly which: TimedSetting },
  evaluator: Evaluator,
  faces: FaceLookup,
): Generator<number, TimeBySetting | null> {
  const operation = job.operations.find((o) => o.id === operationId);
  const now = operation ? timedSetting(job, operation, which) : null;
  if (now === null) return null;
  const values = valuesToTry(job, which, now);
  const times: TimeAt[] = [];
  for (const [n, value] of values.entries()) {
    const steps = evaluator.steps(value === now ? job : withTimedSetting(job, operationId, which, value), faces);
    let step = steps.next();
    for (; !step.done; step = steps.next())
      yield (n + (0.7 * step.value.done) / Math.max(1, step.value.of)) / values.length;
    const run = step.value.run('quick');
    let ran = run.next();
    for (; !ran.done; ran = run.next()) yield (n + 0.7 + 0.3 * ran.value) / values.length;
    const own = ran.value.operations.find((o) => o.operation.id === operationId);
    times.push({ value, seconds: own?.times?.seconds ?? null });
  }
  return { now, times };
}
