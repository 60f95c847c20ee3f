/** What lies on the table after a file was run, against what the job means to keep, and what came free before its work was done. */
import type { Table } from '../../machine/table';
import { numberAt } from '../geometry/elements';
import { inkRowsOf } from '../geometry/ink-rows';
import { pathLength } from '../geometry/path';
import { applyMatrix, type Box, boxHeight, type Matrix, type Point, transformedBox } from '../geometry/point';
import type { CutPiece } from '../job/as-cut';

/** A piece that is meant to be kept: of which part, and whether something holds it in the sheet. */
export type MeantPiece = CutPiece & {
  /** What it is called in a sentence. */
  readonly called: string;
  /** Held by tabs, so that it lies with the sheet. */
  readonly isHeld: boolean;
  /** Whether its size may be something else: outlines of it are cut on a side that was chosen. */
  readonly isAnySize: boolean;
};

/** Something on the table that is not meant: a sentence, and its place in mm. */
export type OnTable = {
  readonly code: 'gone' | 'joined' | 'held' | 'larger' | 'smaller';
  readonly sentence: string;
  readonly box: Box;
};

/** How far edges of pieces may be from where they are meant: curves on both sides are chords, and are written within this, in mm. */
const EDGE_MM = 0.05;
/** Areas that differ by less than this, in mm², are one. */
const AREA_MM2 = 0.05;

/** Places inside of a piece: in the middle of the longest of some rows through it. Some of them may lie near an edge. */
function placesInside({ outlines }: Pick<CutPiece, 'outlines'>): Point[] {
  const [edge] = outlines;
  if (!edge) return [];
  const step = boxHeight(edge.box) / ROWS;
  if (!(step > 0)) return [];
  const { first, rows } = inkRowsOf(
    outlines.map((o) => o.path),
    step,
  );
  const all: { readonly at: Point; readonly length: number }[] = [];
  rows.forEach((row, k) => {
    // The lowest and the highest may lie along an edge.
    if (k === 0 || k === rows.length - 1) return;
    for (let i = 0; i + 1 < row.length; i += 2) {
      const [from, to] = [numberAt(row, i), numberAt(row, i + 1)];
      all.push({ at: { x: (from + to) / 2, y: (first + k + 0.5) * step }, length: to - from });
    }
  });
  return all
    .sort((a, b) => b.length - a.length)
    .slice(0, MOST_PLACES)
    .map(({ at }) => at);
}

/** The piece on the table that most of some places lie in; null where none does. */
function pieceOf(places: readonly Point[], table: Table): number | null {
  const votes = new Map<number, number>();
  for (const at of places) {
    const found = table.pieceAt(at);
    if (found !== null) votes.set(found, (votes.get(found) ?? 0) + 1);
  }
  return [...votes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

const MOST_PLACES = 9;
const ROWS = 15;
const mm2 = (value: number): string => `${Number(value.toPrecision(2))} mm²`;

/**
 * What lies there otherwise than meant, and the numbers of the pieces that are meant. `matrix` leads from the sheet to the file; `slitsMm2`
 * is what lines that are no outlines may take of pieces, `toleranceMm` how far the file’s curves may stray.
 */
export function onTable(
  pieces: readonly MeantPiece[],
  table: Table,
  {
    matrix,
    slitsMm2,
    toleranceMm,
  }: { readonly matrix: Matrix; readonly slitsMm2: number; readonly toleranceMm: number },
): { readonly found: readonly OnTable[]; readonly kept: ReadonlySet<number> } {
  const out: OnTable[] = [];
  const kept = new Set<number>();
  const owner = new Map<number, MeantPiece>();
  for (const piece of pieces) {
    // What stays of the sheet is what nothing frees; parts that are cut out of it lie in it as drawn.
    if (piece.partId === null && piece.kind === 'main') {
      for (const [i, { freeAfter }] of table.pieces.entries()) if (freeAfter === null) kept.add(i);
      continue;
    }
    const box = transformedBox(piece.outlines[0]?.box as Box, matrix);
    const places = placesInside(piece).map((at) => applyMatrix(matrix, at));
    const found = pieceOf(places, table);
    const lying = found === null ? undefined : table.pieces[found];
    const edge = piece.outlines.reduce((sum, o) => sum + pathLength(o.path), 0);
    // What is hardly wider than edges may stray is there or not, as it happens.
    if (!lying && piece.areaMm2 < AREA_MM2 + (EDGE_MM + toleranceMm) * edge) continue;
    if (found === null || !lying) {
      out.push({ code: 'gone', sentence: `${piece.called} is not there: it is cut away.`, box });
      continue;
    }
    // An island is to be kept, but whatever comes free there is lost; a finding of the job tells.
    if (piece.kind !== 'island') kept.add(found);
    if (piece.isHeld) continue;
    const other = owner.get(found);
    owner.set(found, piece);
    if (other) {
      out.push({ code: 'joined', sentence: `${other.called} and ${piece.called} hang together.`, box });
      continue;
    }
    if (lying.freeAfter === null) {
      out.push({ code: 'held', sentence: `${piece.called} does not come free: something still holds it.`, box });
      continue;
    }
    if (piece.isAnySize) continue;
    const within = AREA_MM2 + (EDGE_MM + toleranceMm) * lying.edgeMm;
    const more = lying.areaMm2 - piece.areaMm2;
    if (more > within)
      out.push({ code: 'larger', sentence: `${piece.called} comes out ${mm2(more)} larger than meant.`, box });
    else if (-more > within + slitsMm2)
      out.push({ code: 'smaller', sentence: `${piece.called} comes out ${mm2(-more)} smaller than meant.`, box });
  }
  return { found: out, kept };
}
