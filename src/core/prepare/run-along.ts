/** The line that words run along, where it is drawn or an outline of another part. */
import { type Path, transformPath } from '../geometry/path';
import { pathOf } from '../geometry/path-data';
import { invert, type Matrix, scaling } from '../geometry/point';
import { linesToRunAlong } from '../lettering/text-path';
import type { Memory, Stage } from '../memo';
import type { Along } from '../schema/along';
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

/**
 * The line that words run along, in their own coordinates, where it is drawn or another part's; null for lines that are made for
 * the words. `matrix` places the words in their part.
 */
export function lineToRunAlong(
  along: Along | null,
  matrix: Matrix,
  { memory, copied }: LineContext,
): Path | null | TroubleOf<'no line'> {
  const line = along?.line;
  if (line?.kind === 'path') return memory.get(DRAWN, line).path ?? { kind: 'no line', why: 'nothing drawn' };
  if (line?.kind !== 'outline') return null;
  const original = copied(line.of);
  if (typeof original === 'string') return { kind: 'no line', why: original };
  const { path } = memory.get(OUTLINE, { original, outline: line.outline, matrix });
  return path ?? { kind: 'no line', why: 'no outline' };
}
