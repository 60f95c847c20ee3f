/** What is chosen within a part: an island or one of its bridges, a dot, a place on a cut. */

/** An island by its letter; a bridge that holds none has `island` null. `nth` is which of its bridges; null for none. */
export type AtIsland = { readonly letter: string; readonly island: number | null; readonly nth: number | null };

/** A dot by where it would be by itself, on the sheet. */
export type AtDot = { readonly partId: string; readonly x: number; readonly y: number };

/** A place on a cut: of which operation and part, on which outline, and whether it is where that begins or which of its tabs. */
export type AtCut = {
  readonly operationId: string;
  readonly partId: string;
  readonly nth: number;
  readonly place: 'start' | number;
};
