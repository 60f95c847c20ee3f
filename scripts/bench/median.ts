/** Times of a benchmark. */

export const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

/** Median of some runs in ms, after two that are not counted. `before` is not timed. */
export function median<T>(runs: number, before: () => T, run: (given: T) => void): number {
  const times: number[] = [];
  for (let i = 0; i < runs + 2; i++) {
    const given = before();
    const began = performance.now();
    run(given);
    if (i >= 2) times.push(performance.now() - began);
  }
  return middle(times);
}
