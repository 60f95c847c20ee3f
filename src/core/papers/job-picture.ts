/** A job drawn on paper or for a customer: what is kept in the colour of the stock, what is worked on it in the colours of operations. */

import type { Job, OperationKind } from '../document/schema';
import { circleAt } from '../formats/drawing';
import type { ClipEngine } from '../geometry/boolean/engine';
import { drawnPaths, isHatch } from '../geometry/drawable';
import { type Path, transformPath } from '../geometry/path';
import { type Box, boxHeight, boxWidth, determinant, isEmptyBox, type Matrix, uniteBoxes } from '../geometry/point';
import { asCut } from '../job/as-cut';
import type { JobResult } from '../job/evaluate';
import { finished } from '../memo';

/** Colours of operations on paper: those of the screen in its light scheme. */
export const OPERATION_INK: Readonly<Record<OperationKind, string>> = {
  cut: '#3730A3',
  score: '#0F766E',
  engrave: '#92400E',
  mark: '#BE185D',
};

/** What is drawn of a job, on the sheet: regions that are filled by the non-zero rule, and lines. */
export type JobShapes = {
  /** Pieces that are kept, after the cut. */
  readonly kept: readonly (readonly Path[])[];
  readonly areas: readonly { readonly kind: OperationKind; readonly paths: readonly Path[] }[];
  readonly lines: readonly { readonly kind: OperationKind; readonly path: Path }[];
  readonly box: Box;
  /** Area of all pieces that are kept, in mm², and how many there are; the sheet that stays is none of them. */
  readonly keptMm2: number;
  readonly pieces: number;
};

/** A point is shown as a circle this large, in mm. */
const POINT_MM = 0.3;

/** What is drawn of a job. Lines that fill are the area that they fill. */
export function shapesOf(engine: ClipEngine, job: Job, result: JobResult): JobShapes {
  const pieces = finished(asCut(engine, job, result));
  const own = pieces.filter((p) => p.partId !== null && p.kind !== 'island');
  const areas: { kind: OperationKind; paths: readonly Path[] }[] = [];
  const lines: { kind: OperationKind; path: Path }[] = [];
  const outlinesOf = new Map(result.parts.map((part) => [part.id, part.outlines.map((o) => o.path)]));
  for (const { operation, drawn, filledOnly } of result.operations) {
    if (!operation.on) continue;
    const { kind } = operation;
    const filled = new Set<string>();
    for (const { partId, drawable } of drawn) {
      if (drawable.kind === 'area') areas.push({ kind, paths: drawable.paths });
      else if (isHatch(drawable)) {
        if (filled.has(partId)) continue;
        filled.add(partId);
        const only = filledOnly.find((f) => f.partId === partId)?.outlines.map((o) => o.path);
        areas.push({ kind, paths: only ?? outlinesOf.get(partId) ?? [] });
      } else {
        const paths = drawable.kind === 'dot' ? [circleAt(drawable.at, drawable.r ?? POINT_MM)] : drawnPaths(drawable);
        for (const path of paths) lines.push({ kind, path });
      }
    }
  }
  const sheet = pieces.filter((p) => p.partId === null && p.kind === 'main');
  return {
    kept: [...sheet, ...own].map((p) => p.outlines.map((o) => o.path)),
    areas,
    lines,
    // A sheet that is cut through is seen as a whole.
    box:
      sheet.length > 0
        ? sheet.reduce((box, p) => uniteBoxes(box, p.outlines[0]?.box as Box), result.workBox)
        : result.workBox,
    keptMm2: own.reduce((sum, p) => sum + p.areaMm2, 0),
    pieces: own.length,
  };
}

/** Ratios that drawings are made at: how many times as small as the thing. */
const RATIOS = [0.2, 0.5, 1, 2, 2.5, 5, 10, 20, 25, 50, 100, 200];

/** The largest of the usual ratios at which a box fits into a width and a height. */
export const ratioFor = (box: Box, width: number, height: number): number =>
  RATIOS.find((r) => boxWidth(box) / r <= width && boxHeight(box) / r <= height) ??
  (RATIOS[RATIOS.length - 1] as number);

/** "1 : 5", "2 : 1". */
export const ratioWords = (ratio: number): string => (ratio >= 1 ? `1 : ${ratio}` : `${1 / ratio} : 1`);

/** Shapes where a matrix takes them. */
export function movedShapes(shapes: JobShapes, m: Matrix): Pick<JobShapes, 'kept' | 'areas' | 'lines'> {
  const closed = (path: Path) => transformPath(path, m, determinant(m) < 0);
  return {
    kept: shapes.kept.map((paths) => paths.map(closed)),
    areas: shapes.areas.map(({ kind, paths }) => ({ kind, paths: paths.map(closed) })),
    lines: shapes.lines.map(({ kind, path }) => ({ kind, path: transformPath(path, m) })),
  };
}

/** Whether there is anything to draw. */
export const isNothing = ({ box }: JobShapes): boolean => isEmptyBox(box);
