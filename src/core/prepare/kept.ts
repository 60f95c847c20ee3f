/** What is kept of a shape, or of the sheet without it, and the pieces that makes. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { closedPath, type Path, reversePath, transformPath } from '../geometry/path';
import { determinant, invert, type Matrix } from '../geometry/point';
import { line } from '../geometry/segment';
import type { Memory } from '../memo';
import type { Sheet } from '../schema/sheet';
import type { Outline } from './outline';
import { piecesOf } from './pieces';
import type { PreparedPart } from './prepared';
import { without } from './without';

/** The rim of a sheet in the coordinates of a part that lies on it as `matrix` says. */
export function rimOf({ width, height }: Pick<Sheet, 'width' | 'height'>, matrix: Matrix): Path {
  const rim = closedPath([
    line(0, 0, width, 0),
    line(width, 0, width, height),
    line(width, height, 0, height),
    line(0, height, 0, 0),
  ]);
  const own = transformPath(rim, invert(matrix));
  return determinant(matrix) < 0 ? reversePath(own) : own;
}

/** What is kept: the shape, or what lies within a rim without it; and its pieces. */
export function keptOf(shape: readonly Outline[], rim: Path | null, engine: ClipEngine, memory: Memory) {
  const kept = rim ? without(engine, rim, [shape], memory) : shape;
  return { kept, pieces: shape.length === 0 ? [] : piecesOf(kept) };
}

/** A part that is cut out of the sheet with what is kept of that; `rim` is the sheet's in the part's coordinates. */
export const onSheet = (prepared: PreparedPart, rim: Path, engine: ClipEngine, memory: Memory): PreparedPart => ({
  ...prepared,
  ...keptOf(prepared.solid, rim, engine, memory),
});
