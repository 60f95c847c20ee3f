/** A part made ready: members set, placed and combined into clean outlines; the region that is kept; its pieces. */

import type { Part, Sheet, StepOf } from '../document/schema';
import { sticks } from '../document/sticks';
import type { ClipEngine } from '../geometry/boolean/engine';
import { closedPath, type Path, regionBox, reversePath, transformPath } from '../geometry/path';
import { determinant, IDENTITY, invert, type Matrix, uniteBoxes } from '../geometry/point';
import { line } from '../geometry/segment';
import type { Memory } from '../memo';
import { bridge, unbridgedIslands } from './bridges/bridges';
import { combineMembers, type DrawnMember, sideBySide } from './combine';
import { framesOf } from './frames';
import { amountOf, handMade, labelledLike, nodesFrame, placed, sameAmount, unitOf } from './hand-made';
import { type PrepareContext, prepareMember, sourcesOf } from './member';
import { boundsOf, nestAgain, type Outline, relabel } from './outline';
import { piecesOf } from './pieces';
import type { PreparedMember, PreparedPart } from './prepared';
import type { Source } from './source';
import { applySteps } from './steps';
import { without } from './without';

const weldIsOn = (part: Part): boolean => part.steps.every((s) => s.kind !== 'weld' || s.on);

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

const totalArea = (outlines: readonly Outline[]): number => outlines.reduce((sum, o) => sum + o.area, 0);
/** Letters overlap when uniting them loses more than this share of their area. */
const OVERLAP_SHARE = 1e-6;

/**
 * Prepare one part in its own coordinates, all but its bridges. Pure: the same part, drawings and typefaces give the same
 * result, wherever the part lies. What is kept of a negative without a plate is not known before its sheet is: see `onSheet`.
 */
export function preparePart(part: Part, context: PrepareContext): PreparedPart {
  const copies = part.members.filter((member) => member.kind === 'copy').length;
  const solid = part.members.map((member) => prepareMember(member, true, copies, context));
  const sources = part.members.map((member, i) => sourcesOf(member, solid[i] as PreparedMember, part));
  const drawnFrom = (prepared: readonly PreparedMember[]): DrawnMember[] => {
    let firstLabel = 0;
    return part.members.flatMap((member, i) => {
      const outlines = relabel((prepared[i] as PreparedMember).outlines, 0, firstLabel);
      firstLabel += (sources[i] as Source[]).length;
      return outlines.length > 0 ? [{ member, outlines }] : [];
    });
  };
  const bare = combineMembers(drawnFrom(solid), context.engine);
  const stepped = applySteps(context.engine, bare, { part, members: solid, sources: sources.flat() });
  const { keep, notes } = stepped;
  let shape = stepped.shape;
  const byHand = part.steps.find((s): s is StepOf<'nodes'> => s.kind === 'nodes' && s.on);
  const first = solid[0];
  let lines = solid.flatMap((member) => member.lines);
  let handMadeNote: PreparedPart['handMade'] = null;
  if (byHand && first) {
    handMadeNote = {
      stale: !sameAmount(byHand.over, amountOf(shape, unitOf(first.layout?.capHeightMm ?? null, first.ownBox))),
      under: shape,
      underLines: lines,
    };
    const made = placed(handMade(context.engine, byHand.d, context.memory), nodesFrame(byHand, first));
    shape = labelledLike(made.outlines, stepped.shape);
    lines = [...made.lines];
  }
  let outlines = shape;
  let overlaps = false;
  if (!weldIsOn(part) && shape === bare && part.members.every((m) => m.role === 'join')) {
    const separate = sideBySide(drawnFrom(part.members.map((member) => prepareMember(member, false, copies, context))));
    overlaps = totalArea(separate) - totalArea(shape) > OVERLAP_SHARE * totalArea(shape);
    if (overlaps) outlines = nestAgain(separate);
  }
  const box = uniteBoxes(boundsOf(shape), regionBox(lines));
  return {
    id: part.id,
    matrix: IDENTITY,
    keep,
    solid: shape,
    sources: sources.flat(),
    frames: framesOf(part, solid, sources),
    members: solid,
    bare,
    outlines,
    lines,
    overlaps,
    handMade: handMadeNote,
    box,
    ownBox: box,
    notes,
    ...(keep === 'inside' ? keptOf(shape, null, context.engine, context.memory) : { kept: [], pieces: [] }),
  };
}

function keptOf(shape: readonly Outline[], rim: Path | null, engine: ClipEngine, memory: Memory) {
  const kept = rim ? without(engine, rim, [shape], memory) : shape;
  return { kept, pieces: shape.length === 0 ? [] : piecesOf(kept) };
}

/** A part that is cut out of the sheet with what is kept of that; `rim` is the sheet's in the part's coordinates. */
export const onSheet = (prepared: PreparedPart, rim: Path, engine: ClipEngine, memory: Memory): PreparedPart => ({
  ...prepared,
  ...keptOf(prepared.solid, rim, engine, memory),
});

/**
 * The part with its islands found and, where it has that step, bridged. `rim` is the sheet's, in the part's coordinates, for a
 * part that is cut out of it; null for others.
 */
export function withBridges(
  part: Part,
  prepared: PreparedPart,
  sheet: Pick<Sheet, 'leastWidth' | 'thickness'>,
  rim: Path | null,
  engine: ClipEngine,
  memory: Memory,
): PreparedPart {
  const step = part.steps.find((s): s is StepOf<'bridge'> => s.kind === 'bridge' && s.on);
  const setting = {
    stockInside: prepared.keep === 'inside',
    frames: prepared.frames,
    leastMm: sheet.leastWidth,
    thicknessMm: sheet.thickness,
    rims: rim ? [rim] : [],
  };
  if (!step || sticks(part) || prepared.overlaps) {
    const found = unbridgedIslands(prepared.solid, setting);
    return found ? { ...prepared, notes: { ...prepared.notes, bridged: found } } : prepared;
  }
  const { shape, notes } = bridge(prepared.solid, { ...setting, step }, memory, prepared);
  const withNotes = { ...prepared, notes: { ...prepared.notes, bridged: notes } };
  if (shape === prepared.solid) return withNotes;
  return { ...withNotes, solid: shape, outlines: shape, ...keptOf(shape, rim, engine, memory) };
}
