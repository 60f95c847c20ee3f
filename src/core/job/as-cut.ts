/** The sheet after the cut: what is left standing, with the width of the beam or tool taken off. */
import type { Job } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { offsetRegion } from '../geometry/offset/offset';
import { closedPath } from '../geometry/path';
import { line } from '../geometry/segment';
import { isCut } from '../kinds/works';
import { measureOutlines, type Outline } from '../prepare/outline';
import { type PieceKind, piecesOf } from '../prepare/pieces';
import { without } from '../prepare/without';
import type { JobResult, Progress } from './evaluate';

/** One piece that comes apart from the others: its outer outline first, then its holes. */
export type CutPiece = {
  /** The part it is of; null for the sheet that negatives are cut out of. */
  readonly partId: string | null;
  readonly kind: PieceKind;
  readonly areaMm2: number;
  readonly outlines: readonly Outline[];
};

/** All pieces, part by part. Only what is cut comes apart; scrap is not among them. Yields how many parts are done. */
export function* asCut(engine: ClipEngine, job: Job, result: JobResult): Generator<Progress, CutPiece[]> {
  const half = (job.sheet.kerf ?? 0) / 2;
  const running = job.operations.filter((o) => o.on);
  const beside = new Set(running.filter((o) => o.kind === 'cut' && o.beside !== 'no').map((o) => o.id));
  /** Parts whose cut runs beside what is kept. */
  const kept = new Set(job.parts.filter((p) => p.work.some((w) => beside.has(w.operation))).map((p) => p.id));
  const cut = new Set(
    job.parts.flatMap((p) => (!p.reference && p.work.length > 0 && isCut(p.work, running) ? [p.id] : [])),
  );
  const shown = result.parts.filter((p) => cut.has(p.id) && p.solid.length > 0);
  const negatives = shown.filter((p) => p.keep === 'outside');
  const positives = shown.filter((p) => p.keep === 'inside');
  const pieces: CutPiece[] = [];
  for (const [done, part] of positives.entries()) {
    yield { done, of: shown.length };
    const solid = kept.has(part.id) ? grownBy(engine, part.solid, half) : part.solid;
    pieces.push(...piecesAfter(engine, solid, half, part.id));
  }
  if (negatives.length === 0) return pieces;
  yield { done: positives.length, of: shown.length };
  return [
    ...piecesAfter(
      engine,
      sheetWithout(
        engine,
        job,
        negatives.map((p) => (kept.has(p.id) ? grownBy(engine, p.solid, -half) : p.solid)),
        half,
      ),
      half,
      null,
    ),
    ...pieces,
  ];
}

const grownBy = (engine: ClipEngine, outlines: readonly Outline[], by: number): readonly Outline[] =>
  by === 0 ? outlines : measureOutlines(offsetRegion(engine, outlines, { by, corners: 'round' }));

function piecesAfter(engine: ClipEngine, kept: readonly Outline[], half: number, partId: string | null): CutPiece[] {
  const cutAway = grownBy(engine, kept, -half);
  return piecesOf(cutAway).map((piece) => ({
    partId,
    kind: piece.kind,
    areaMm2: piece.area,
    outlines: cutAway.filter((o, i) => i === piece.outline || (o.parent === piece.outline && o.depth % 2 === 1)),
  }));
}

/** The sheet without shapes; its own rim is not cut, so that it is taken larger by what is taken off afterwards. */
function sheetWithout(
  engine: ClipEngine,
  { sheet }: Job,
  shapes: readonly (readonly Outline[])[],
  rim: number,
): Outline[] {
  const [w, h] = [sheet.width + rim, sheet.height + rim];
  const path = closedPath([
    line(-rim, -rim, w, -rim),
    line(w, -rim, w, h),
    line(w, h, -rim, h),
    line(-rim, h, -rim, -rim),
  ]);
  return without(engine, path, shapes);
}
