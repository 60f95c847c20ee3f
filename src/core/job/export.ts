/** From a computed job to files: the neutral drawing and its formats. */

import { colourOf } from '../document/colour-of';
import { pensOf } from '../document/pens';
import type { Job } from '../document/schema';
import type { Drawing, Frame, Layer } from '../formats/drawing';
import { type FileFormat, writtenFormat } from '../formats/written';
import { drawnBox, moveDrawable } from '../geometry/drawable';
import { boxHeight, boxWidth, isEmptyBox, translation } from '../geometry/point';
import type { JobResult } from './evaluate';

/** Of which parts files are written, and when. */
export type ExportScope = {
  /** Only these parts; all when null. */
  readonly partIds: readonly string[] | null;
  /** The day they are written, "2026-05-04", which is kept in them; left out where nobody says. */
  readonly date?: string;
};

/** The drawing that is exported, or null when nothing would be in it. What is off, hidden or empty is not. */
export function drawingOf(
  job: Job,
  result: JobResult,
  scope: ExportScope = { partIds: null },
  { page, origin, roomMm }: Frame = { page: job.export.page, origin: 'corner', roomMm: 0 },
): Drawing | null {
  const wanted = (partId: string) => scope.partIds === null || scope.partIds.includes(partId);
  const chosen = result.operations
    .filter((o) => o.operation.on)
    .map(({ operation, drawn }) => ({ operation, drawn: drawn.filter((d) => wanted(d.partId)).map((d) => d.drawable) }))
    .filter((o) => o.drawn.length > 0);
  const box = drawnBox(chosen.flatMap((o) => o.drawn));
  if (isEmptyBox(box)) return null;
  const fitted = page === 'work';
  const width = fitted ? boxWidth(box) + 2 * roomMm : job.sheet.width;
  const height = fitted ? boxHeight(box) + 2 * roomMm : job.sheet.height;
  const corner = origin === 'middle' ? { x: -width / 2, y: -height / 2 } : { x: 0, y: 0 };
  const m = fitted
    ? translation(corner.x + roomMm - box.minX, corner.y + roomMm - box.minY)
    : translation(corner.x, corner.y);
  const pens = pensOf(job.operations);
  return {
    title: job.title,
    ...(scope.date && { date: scope.date }),
    width,
    height,
    layers: chosen.map(
      ({ operation, drawn }): Layer => ({
        name: operation.name,
        kind: operation.kind,
        colour: colourOf(operation, job),
        tolerance: operation.kind === 'mark' ? job.export.markTolerance : job.export.arcTolerance,
        scan: operation.scan,
        pen: pens.get(operation.id) ?? 1,
        drawn: drawn.map((d) => moveDrawable(d, m)),
      }),
    ),
  };
}

/** The bytes of one file. */
export const writeFile = (drawing: Drawing, format: FileFormat, settings: Job['export']): Uint8Array =>
  writtenFormat(format).write(drawing, settings);
