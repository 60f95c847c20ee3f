/** Where a growing function of a positive factor comes to a value. */
import { finished } from '../memo';

/** How near a value is to be met, and between which arguments that is looked for. */
export type RootLimits = {
  /** The value is met to this. */
  readonly met: number;
  readonly least: number;
  readonly most: number;
};

/** Tries until a root is taken as good as it gets. */
export const ROUNDS = 24;

/**
 * The factor at which `of` comes to `target`, or the nearest tried where it never does. By the secant through the last two tries
 * (regula falsi kept in a bracket), which meets a straight function at the second; where that leaves the bracket, by its
 * geometric middle. `of` is asked for 1 first.
 */
export const factorFor = (of: (factor: number) => number, target: number, limits: RootLimits): number =>
  finished(factorSteps(of, target, limits));

/** The search for a factor in steps: yields the rounds done, of `ROUNDS` at most. */
export function* factorSteps(
  of: (factor: number) => number,
  target: number,
  { met, least, most }: RootLimits,
): Generator<number, number> {
  let [low, high] = [least, most];
  let best = { factor: 1, value: of(1) };
  let last = best;
  let next = last.value > 0 ? target / last.value : Math.sqrt(low * high);
  for (let round = 0; round < ROUNDS && Math.abs(best.value - target) > met; round++) {
    if (last.value > target) high = Math.min(high, last.factor);
    else low = Math.max(low, last.factor);
    if (high / low < 1 + 1e-12) break;
    yield round;
    const factor = next > low && next < high ? next : Math.sqrt(low * high);
    const value = of(factor);
    const slope = (value - last.value) / (factor - last.factor);
    last = { factor, value };
    if (Math.abs(value - target) < Math.abs(best.value - target)) best = last;
    next = slope > 0 ? factor + (target - value) / slope : Number.NaN;
  }
  return best.factor;
}
