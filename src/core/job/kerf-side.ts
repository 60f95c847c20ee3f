/**
 * Where a beam or tool runs so that what is kept comes out at its size: half the width of the cut away from it, outside of edges and inside
 * of holes. White that is narrower than the cut closes; corners into which no round beam gets are left rounded, as they would be anyway.
 */
import type { Operation, Part, Sheet } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { pathLength } from '../geometry/path';
import { type Box, determinant, EMPTY_BOX, uniteBoxes } from '../geometry/point';
import type { Memory, Stage } from '../memo';
import { offsetOutlines } from '../prepare/offset-outlines';
import { type Outline, transformOutlines, weighOutlines } from '../prepare/outline';
import type { PreparedPart } from '../prepare/prepared';
import { settingsOn } from '../shop/in-force';
import type { PartResult } from './part-result';
import { placedOn } from './places-on-outlines';

/** Outlines that are run along, with their bounds and their length together. */
export type RunAlong = { readonly outlines: readonly Outline[]; readonly box: Box; readonly lengthMm: number };

/** The side an outline is cut on: as the operation says, on the outline, or on the other side. */
export type CutSide = 'usual' | 'line' | 'other';

type Input = {
  readonly engine: ClipEngine;
  readonly own: PreparedPart;
  readonly by: number;
  readonly sides: Part['sides'];
};

/** Outlines of a part in its own coordinates, grown by so much; shrunk where that is negative. */
const GROWN: Stage<Input, readonly Outline[]> = {
  name: 'beside the outlines',
  key: ({ own, by, sides }, idOf) => `${idOf(own)}|${by}|${sides.length > 0 ? JSON.stringify(sides) : ''}`,
  run({ engine, own, by, sides }, memory) {
    const set = cutSidesOf(own, sides);
    const byOf = (i: number): number => ({ usual: by, line: 0, other: -by })[set[i] ?? 'usual'];
    return offsetOutlines(engine, own.outlines, { by, outerBy: byOf, holeBy: byOf, corners: 'round' }, memory);
  },
  weigh: weighOutlines,
};

/** Half the width of a cut in mm, where an operation runs beside what is kept; 0 where it runs on the outlines. */
export const halfKerf = (operation: Pick<Operation, 'kind' | 'kerfSide' | 'settings'>, sheet: Sheet): number =>
  operation.kerfSide === 'beside' ? (settingsOn(operation, sheet).kerf ?? 0) / 2 : 0;

/** Of each outline of a part the side it is cut on; of several that were said of one the last. */
export const cutSidesOf = (
  { outlines, frames }: Pick<PreparedPart, 'outlines' | 'frames'>,
  sides: Part['sides'],
): CutSide[] => placedOn(sides, frames, outlines).map((places) => places[places.length - 1]?.place.side ?? 'usual');

/** The outlines of a part that an operation runs along, on the sheet. */
export function besideKept(
  engine: ClipEngine,
  { part, result, half }: { readonly part: Part; readonly result: PartResult; readonly half: number },
  memory: Memory,
): RunAlong {
  const { matrix, own } = result;
  // What is cut out of a sheet that stays is kept outside of its outlines.
  const by = (part.keep === 'inside' ? half : -half) / Math.sqrt(Math.abs(determinant(matrix)));
  const outlines = transformOutlines(memory.get(GROWN, { engine, own, by, sides: part.sides }), matrix);
  return {
    outlines,
    box: outlines.map((o) => o.box).reduce(uniteBoxes, EMPTY_BOX),
    lengthMm: outlines.reduce((sum, o) => sum + pathLength(o.path), 0),
  };
}
