/** What is typed into a field against the value it has: the value may follow what is typed a moment later. */

/** Values this near to each other are the same but for rounding; values are rounded to 0.0001. */
const SAME = 1.5e-4;

/**
 * Whether a value that a field is given has come from elsewhere (undo, the sheet), so that it replaces what is being typed: it is
 * neither the one that was sent last nor what comes of one that was sent before it.
 */
export const isFromElsewhere = (value: number, last: number, before: readonly number[]): boolean =>
  Math.abs(value - last) > 1e-9 && !before.some((sent) => Math.abs(value - sent) <= SAME);
