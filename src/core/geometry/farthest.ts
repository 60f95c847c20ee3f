/**
 * The farthest `j` up to `most` for which `fits(j)`, by doubling steps, then halving; `good` is taken to fit. Where what fits is not
 * all there is up to some place, one of the places where it ceases to.
 */
export function farthest(good: number, most: number, fits: (j: number) => boolean, firstStep = 1): number {
  let [best, step] = [Math.min(good, most), firstStep];
  while (best < most) {
    const next = Math.min(most, best + step);
    if (fits(next)) {
      best = next;
      step *= 2;
      continue;
    }
    let bad = next;
    while (bad - best > 1) {
      const middle = (best + bad) >> 1;
      if (fits(middle)) best = middle;
      else bad = middle;
    }
    return best;
  }
  return best;
}
