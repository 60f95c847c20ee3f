/** The sheet after the cut: what is left standing, with the width of the beam or tool taken off. */
import type { Job, Operation, Part } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { offsetRegion } from '../geometry/offset/offset';
import { closedPath } from '../geometry/path';
import { line } from '../geometry/segment';
import { windingAt } from '../geometry/winding';
import { hasLettersAlone, outlinesGiven } from '../kinds/letters-alone';
import { isCut, workKind } from '../kinds/works';
import { grownInChords } from '../prepare/in-chords';
import { measureOutlines, nestAgain, type Outline } from '../prepare/outline';
import { type PieceKind, piecesOf } from '../prepare/pieces';
import { regionWithout, without } from '../prepare/without';
import { settingsOn } from '../shop/in-force';
import type { JobResult, Progress } from './evaluate';
import type { PartResult } from './part-result';

/** One piece that comes apart from the others: its outer outline first, then its holes. */
export type CutPiece = {
  /** The part it is of; null for the sheet that negatives are cut out of. */
  readonly partId: string | null;
  readonly kind: PieceKind;
  readonly areaMm2: number;
  readonly outlines: readonly Outline[];
};

/** How outlines are grown by distances, one after the other. */
type Grow = (outlines: readonly Outline[], ...distances: readonly number[]) => readonly Outline[];

/**
 * All pieces, part by part. Only what is cut comes apart; scrap is not among them. Yields how many parts are done. “In chords” they are
 * within `CHORDS_MM` of what they are exactly, for each time that half a cut is put on or taken off, and have no labels.
 */
export function* asCut(
  engine: ClipEngine,
  job: Job,
  result: JobResult,
  how: 'exact' | 'in chords' = 'exact',
): Generator<Progress, CutPiece[]> {
  const grown: Grow =
    how === 'exact'
      ? (outlines, ...distances) => distances.reduce((all, by) => grownBy(engine, all, by), outlines)
      : (outlines, ...distances) => grownInChords(engine, outlines, distances);
  const running = job.operations.filter((o) => o.on);
  const cuts = new Map(job.parts.flatMap((part) => (part.reference ? [] : cutOf(part, running, job))));
  const shown = result.parts.filter((p) => cuts.has(p.id) && p.solid.length > 0);
  const negatives = shown.filter((p) => p.keep === 'outside');
  const positives = shown.filter((p) => p.keep === 'inside');
  // What is cut out takes as much of what stays as its own cut is wide.
  const openings: (readonly Outline[])[] = [];
  for (const [done, part] of negatives.entries()) {
    yield { done, of: shown.length };
    const { half, isBeside, ofIt } = cuts.get(part.id) as PartCut;
    const cut = ofIt(part);
    openings.push(...eachOpening(grown(cut, ...(isBeside ? [-half] : []), half)));
  }
  const pieces: CutPiece[] = [];
  const inPlates = new Set<readonly Outline[]>();
  for (const [done, part] of positives.entries()) {
    yield { done: negatives.length + done, of: shown.length };
    const { half, isBeside, ofIt } = cuts.get(part.id) as PartCut;
    const cut = ofIt(part);
    // Openings in a plate are cut out of it; a part within an opening is cut out of what falls out there.
    const own = openings.filter((opening) => liesIn(opening, cut));
    for (const opening of own) inPlates.add(opening);
    pieces.push(...piecesOfKept(regionWithout(engine, grown(cut, ...(isBeside ? [half] : []), -half), own), part.id));
  }
  if (negatives.length === 0) return pieces;
  const inSheet = openings.filter((opening) => !inPlates.has(opening));
  return [...piecesOfKept(sheetWithout(engine, job, inSheet), null), ...pieces];
}

/** Openings one by one: each outer outline with all that lies in it. */
function eachOpening(outlines: readonly Outline[]): Outline[][] {
  const top = outlines.map((_, i) => {
    let at = i;
    for (let up = outlines[at]?.parent ?? -1; up >= 0; up = outlines[at]?.parent ?? -1) at = up;
    return at;
  });
  return [...new Set(top)].map((t) => nestAgain(outlines.filter((_, i) => top[i] === t)));
}

/** Whether an opening lies in what is kept of a part: where its outer outline begins. */
function liesIn(opening: readonly Outline[], kept: readonly Outline[]): boolean {
  const edge = opening.find((o) => o.depth === 0);
  const [s] = edge?.path.segments ?? [];
  if (!edge || !s) return false;
  return kept.reduce((sum, o) => sum + windingAt(o.path, s.x0, s.y0), 0) > 0;
}

/** How a part is cut: half the width of the cut in mm, and whether it runs beside what is kept. */
type PartCut = {
  readonly half: number;
  readonly isBeside: boolean;
  /** What of the part's shape is cut: all of it, but for letters that are given to something else. */
  readonly ofIt: (part: PartResult) => readonly Outline[];
};

/** By which cut a part comes out, with its id; nothing where it does not. */
function cutOf({ id, work }: Part, running: readonly Operation[], { sheet }: Job): [string, PartCut][] {
  if (work.length === 0 || !isCut(work, running)) return [];
  const cut = running.find(
    (o) => o.kind === 'cut' && work.some((w) => w.operation === o.id && workKind(w.what).comesOff),
  );
  const kerf = cut ? settingsOn(cut, sheet).kerf : sheet.kerf;
  const cutting = new Set(running.flatMap((o) => (o.kind === 'cut' ? [o.id] : [])));
  const entries = work.filter((w) => w.what === 'outline' && cutting.has(w.operation));
  const ofIt = (part: PartResult) =>
    hasLettersAlone(work, 'outline') ? nestAgain(outlinesGiven(part.solid, part, { work, entries })) : part.solid;
  return [[id, { half: (kerf ?? 0) / 2, isBeside: cut !== undefined && cut.kerfSide !== 'line', ofIt }]];
}

const grownBy = (engine: ClipEngine, outlines: readonly Outline[], by: number): readonly Outline[] =>
  by === 0 ? outlines : measureOutlines(offsetRegion(engine, outlines, { by, corners: 'round' }));

function piecesOfKept(cutAway: readonly Outline[], partId: string | null): CutPiece[] {
  return piecesOf(cutAway).map((piece) => ({
    partId,
    kind: piece.kind,
    areaMm2: piece.area,
    outlines: cutAway.filter((o, i) => i === piece.outline || (o.parent === piece.outline && o.depth % 2 === 1)),
  }));
}

/** The sheet without shapes; its own rim is not cut. */
function sheetWithout(
  engine: ClipEngine,
  { sheet: { width, height } }: Job,
  shapes: readonly (readonly Outline[])[],
): Outline[] {
  const path = closedPath([
    line(0, 0, width, 0),
    line(width, 0, width, height),
    line(width, height, 0, height),
    line(0, height, 0, 0),
  ]);
  return without(engine, path, shapes);
}
