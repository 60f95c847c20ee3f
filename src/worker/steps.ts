/** How what the core finds in steps is told to the runner. */
import type { PlacedPicture } from '../core/document/schema';
import { pathData } from '../core/geometry/path-data';
import type { Evaluator, Progress } from '../core/job/evaluate';

/** What yields the share done, as questions tell it. */
export function* withProgress<T>(steps: Generator<number, T>): Generator<Progress, T> {
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield { done: step.value, of: 1 };
  return step.value;
}

/** The edges of a picture as path data on the sheet. */
export function* edgeData(evaluator: Evaluator, picture: PlacedPicture): Generator<Progress, string> {
  return pathData(yield* withProgress(evaluator.edgesOf(picture)), null, 4);
}

/** What is found in one go. */
export const atOnce = <T>(find: () => T): Iterator<Progress, T> => ({
  next: () => ({ done: true, value: find() }),
});
