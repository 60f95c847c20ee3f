/**
 * What is in a file that was written, as it is read back before the file is given out. The readers here know only what our writers
 * write, and share no code with them: a slip on one side is found by the other.
 */

/** A piece of a path as a file has it, from where the one before ends; mm, y upwards. */
export type ReadPiece =
  | { readonly kind: 'line'; readonly x: number; readonly y: number }
  | { readonly kind: 'quadratic'; readonly ax: number; readonly ay: number; readonly x: number; readonly y: number }
  | {
      readonly kind: 'cubic';
      readonly ax: number;
      readonly ay: number;
      readonly bx: number;
      readonly by: number;
      readonly x: number;
      readonly y: number;
    }
  /** `sweep` in radians, counter-clockwise positive. */
  | { readonly kind: 'arc'; readonly x: number; readonly y: number; readonly sweep: number };

/** A path: where it starts, and what it goes on with. */
export type ReadPath = {
  readonly x: number;
  readonly y: number;
  readonly pieces: readonly ReadPiece[];
  readonly closed: boolean;
};

/** A thing drawn, in the order of the file. */
export type ReadItem =
  | { readonly kind: 'path'; readonly layer: number; readonly filled: boolean; readonly paths: readonly ReadPath[] }
  /** `r` is null for a point. */
  | { readonly kind: 'dot'; readonly layer: number; readonly x: number; readonly y: number; readonly r: number | null };

/**
 * A layer of a file: what it is called there, and its colour "#rrggbb", null where the file has only numbered colours. `lineMm` is
 * how wide its lines are drawn, null where lines have no width.
 */
export type ReadLayer = { readonly name: string; readonly colour: string | null; readonly lineMm: number | null };

/** What a file says before what is drawn in it. */
export type ReadHead = {
  /** Size of the page in mm; null where the format has none. */
  readonly page: { readonly width: number; readonly height: number } | null;
  readonly layers: readonly ReadLayer[];
};

/** A file read back: its head, and its items one by one, so that large files need no room beside themselves. */
export type ReadBack = { readonly head: ReadHead; readonly items: Iterable<ReadItem> };

/** What a format has of a drawing. */
export type FormatKeeps = {
  /** Curves as they are; otherwise lines and arcs within the tolerance of their layer. */
  readonly curves: boolean;
  /** Areas as such; otherwise their outlines. */
  readonly areas: boolean;
  /** Names of layers as they are, or with signs and letters replaced, and cut; or only the number of their pen. */
  readonly names: 'whole' | 'cut' | 'pens';
  /** How dots that are circles are written. */
  readonly circles: 'circles' | 'paths';
  /**
   * Width of the grid that every place is rounded to, in mm, in formats that have nothing but chords and do not say which lines
   * are closed; null where places are exact.
   */
  readonly gridMm: number | null;
};

/** What the file is not: it can't be read as what we write. */
export class NotAsWritten extends Error {}

/** Text of a file's bytes, UTF-8. */
export const textOf = (bytes: Uint8Array): string => new TextDecoder('utf-8', { fatal: true }).decode(bytes);

/** A number as text; an error where it is none. */
export function numberOf(text: string | undefined): number {
  const value = text === undefined || text === '' ? Number.NaN : Number(text);
  if (!Number.isFinite(value)) throw new NotAsWritten(`“${text ?? ''}” is no number`);
  return value;
}
