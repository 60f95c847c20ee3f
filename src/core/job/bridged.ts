/** A part with its islands found and bridged. */
import type { Part, Sheet } from '../document/schema';
import { sticks } from '../document/sticks';
import type { ClipEngine } from '../geometry/boolean/engine';
import type { Path } from '../geometry/path';
import { stepIn } from '../kinds/steps';
import type { Memory } from '../memo';
import { bridgeIslands, unbridgedIslands } from '../prepare/bridges/bridges';
import { keptOf } from '../prepare/kept';
import type { PreparedPart } from '../prepare/prepared';

/**
 * The part with its islands found and, where it has that step, bridged. `rim` is the sheet's, in the part's coordinates, for a
 * part that is cut out of it; null for others.
 */
export function withBridges(
  part: Part,
  prepared: PreparedPart,
  {
    sheet,
    rim,
    engine,
    memory,
  }: {
    readonly sheet: Pick<Sheet, 'leastWidth' | 'thickness'>;
    readonly rim: Path | null;
    readonly engine: ClipEngine;
    readonly memory: Memory;
  },
): PreparedPart {
  const step = stepIn(part, 'bridge');
  const setting = {
    stockInside: prepared.keep === 'inside',
    frames: prepared.frames,
    leastMm: sheet.leastWidth,
    thicknessMm: sheet.thickness,
    rims: rim ? [rim] : [],
  };
  if (!step?.on || sticks(part) || prepared.overlaps) {
    const found = unbridgedIslands(prepared.solid, setting);
    return found ? { ...prepared, bridged: found } : prepared;
  }
  const { shape, cut, notes } = bridgeIslands(prepared.solid, { ...setting, step }, memory, prepared);
  const withNotes = { ...prepared, bridged: notes };
  if (shape === prepared.solid) return withNotes;
  return { ...withNotes, solid: shape, outlines: cut, ...keptOf(shape, rim, engine, memory) };
}
