/** The lines that words run along and the panels they fill, where these are drawn or outlines of other parts. */
import { type Path, transformPath } from '../geometry/path';
import { invert, type Matrix, scaling } from '../geometry/point';
import { pathOf } from '../geometry/read-path-data';
import type { FitInto } from '../lettering/fit';
import { linesToRunAlong } from '../lettering/text-path';
import type { Memory, Stage } from '../memo';
import type { Along } from '../schema/along';
import type { Fit } from '../schema/fit';
import { weighPaths } from './outline';
import type { PreparedPart, TroubleOf } from './prepared';

type DrawnInput = { readonly d: string; readonly scale: number };

/** The first line of path data. */
const DRAWN: Stage<DrawnInput, { readonly path: Path | null }> = {
  name: 'drawn line',
  key: ({ d, scale }) => `${scale}|${d}`,
  run({ d, scale }) {
    const path = pathOf(d).paths.find((p) => p.segments.length > 0);
    return { path: path ? transformPath(path, scaling(scale)) : null };
  },
  weigh: ({ path }) => (path ? weighPaths([path]) : 1),
};

type OutlineInput = { readonly original: PreparedPart; readonly outline: number; readonly matrix: Matrix };

/** An outline of another part in the coordinates of words that a matrix places. */
const OUTLINE: Stage<OutlineInput, { readonly path: Path | null }> = {
  name: 'line of a part',
  key: ({ original, outline, matrix }, idOf) => `${idOf(original)}|${outline}|${Object.values(matrix).join()}`,
  run({ original, outline, matrix }) {
    const path = linesToRunAlong(
      original.solid.map((o) => o.path),
      original.openPaths,
    )[outline];
    return { path: path ? transformPath(path, invert(matrix)) : null };
  },
  weigh: ({ path }) => (path ? weighPaths([path]) : 1),
};

/** What the line of words is asked for of. */
export type LineContext = {
  readonly memory: Memory;
  readonly copied: (partId: string) => PreparedPart | 'gone' | 'loop';
};

/** An outline of another part, in the coordinates of words that a matrix places; or why there is none. */
function outlineOf(
  { of, outline }: { readonly of: string; readonly outline: number },
  matrix: Matrix,
  { memory, copied }: LineContext,
): Path | 'gone' | 'loop' | 'no outline' {
  const original = copied(of);
  if (typeof original === 'string') return original;
  return memory.get(OUTLINE, { original, outline, matrix }).path ?? 'no outline';
}

/**
 * The line that words run along, in their own coordinates, where it is drawn or another part's; null for lines that are made for
 * the words. `matrix` places the words in their part.
 */
export function lineToRunAlong(
  along: Along | null,
  matrix: Matrix,
  context: LineContext,
): Path | null | TroubleOf<'no line'> {
  const line = along?.line;
  if (line?.kind === 'path') return context.memory.get(DRAWN, line).path ?? { kind: 'no line', why: 'nothing drawn' };
  if (line?.kind !== 'outline') return null;
  const found = outlineOf(line, matrix, context);
  return typeof found === 'string' ? { kind: 'no line', why: found } : found;
}

/** What words are fitted into, in their own coordinates. */
export function toFitInto(fit: Fit, matrix: Matrix, context: LineContext): FitInto | TroubleOf<'no panel'> {
  if (fit.to === 'box') return fit;
  const found = outlineOf(fit, matrix, context);
  if (typeof found === 'string') return { kind: 'no panel', why: found };
  return found.closed ? { panel: found } : { kind: 'no panel', why: 'no outline' };
}
