/** From a computed job to files: the neutral drawing and its formats. */

import { colourOf } from '../document/colour-of';
import { pensOf } from '../document/pens';
import type { Job, Operation, Part } from '../document/schema';
import type { Drawing, Frame, Layer } from '../formats/drawing';
import { type FileFormat, writtenFormat } from '../formats/written';
import { type Drawable, drawnBox, moveDrawable } from '../geometry/drawable';
import { pathArea } from '../geometry/path';
import { boxHeight, boxWidth, compose, isEmptyBox, type Matrix, scaling, translation } from '../geometry/point';
import { finished } from '../memo';
import { layerSettings } from '../shop/layer-settings';
import type { DrawnWork } from './drawn';
import type { JobResult } from './evaluate';
import { cutSidesOf } from './kerf-side';
import type { PartResult } from './part-result';

/** Of which parts files are written, and when. */
export type ExportScope = {
  /** Only these parts; all when null. */
  readonly partIds: readonly string[] | null;
  /** The day they are written, "2026-05-04", which is kept in them; left out where nobody says. */
  readonly date?: string;
  /** The row of the roster that it is a job of, in names of files; left out where it is none. */
  readonly row?: string;
  /** Only this operation, on the page that all of them have; all when left out. */
  readonly operationId?: string;
};

/** A drawing with the operation that each of its layers is of, and where it lies: from the sheet to the drawing. */
export type LaidOut = {
  readonly drawing: Drawing;
  readonly operations: readonly Operation[];
  readonly matrix: Matrix;
};

/** The drawing that is exported, or null when nothing would be in it. What is off, hidden or empty is not. */
export function drawingOf(...args: Parameters<typeof laidOut>): Drawing | null {
  return laidOut(...args)?.drawing ?? null;
}

/** The same with what it is of and where it lies. */
export function laidOut(
  job: Job,
  result: JobResult,
  scope: ExportScope = { partIds: null },
  { page, origin, roomMm }: Frame = { page: job.export.page, origin: 'corner', roomMm: 0 },
): LaidOut | null {
  const wanted = (partId: string) => scope.partIds === null || scope.partIds.includes(partId);
  const chosen = finished(result.run('full'))
    .operations.flatMap(({ operation, drawn }) =>
      bySide(
        operation,
        drawn.filter((d) => wanted(d.partId)),
        { parts: result.parts, jobParts: job.parts },
      ),
    )
    .filter((o) => o.drawn.length > 0);
  const box = drawnBox(chosen.flatMap((o) => o.drawn));
  if (isEmptyBox(box)) return null;
  const fitted = page === 'work';
  const width = fitted ? boxWidth(box) + 2 * roomMm : job.sheet.width;
  const height = fitted ? boxHeight(box) + 2 * roomMm : job.sheet.height;
  const corner = origin === 'middle' ? { x: -width / 2, y: -height / 2 } : { x: 0, y: 0 };
  const laid = fitted
    ? translation(corner.x + roomMm - box.minX, corner.y + roomMm - box.minY)
    : translation(corner.x, corner.y);
  const { mirrored } = job.export;
  // Seen from behind the page stays where it is.
  const m = mirrored ? compose(laid, { ...scaling(-1, 1), e: 2 * corner.x + width }) : laid;
  const pens = pensOf(job.operations);
  const written = chosen.filter(
    ({ operation }) => scope.operationId === undefined || operation.id === scope.operationId,
  );
  if (written.length === 0) return null;
  const drawing: Drawing = {
    title: job.title,
    ...(scope.date && { date: scope.date }),
    width,
    height,
    layers: written.map(
      ({ operation, side, drawn }): Layer => ({
        name: side ? `${operation.name} ${side}` : operation.name,
        ...(side && { side }),
        kind: operation.kind,
        colour: colourOf(operation, job),
        tolerance: operation.kind === 'mark' ? job.export.markTolerance : job.export.arcTolerance,
        scan: operation.scan && mirrored ? { ...operation.scan, direction: -operation.scan.direction } : operation.scan,
        pen: pens.get(operation.id) ?? 1,
        drawn: drawn.map((d) => moveDrawable(d, m)),
        settings: layerSettings(operation, job.sheet, job.machine?.kind ?? null),
      }),
    ),
  };
  return { drawing, operations: written.map(({ operation }) => operation), matrix: m };
}

type OnSide = { readonly operation: Operation; readonly side: Layer['side']; readonly drawn: readonly Drawable[] };

/**
 * What an operation draws, by the name of its layer: in one, or where the machine is to keep beside the outlines by itself in one for each
 * side, holes first.
 */
function bySide(
  operation: Operation,
  drawn: readonly DrawnWork[],
  { parts, jobParts }: { readonly parts: readonly PartResult[]; readonly jobParts: readonly Part[] },
): OnSide[] {
  const all = drawn.map((d) => d.drawable);
  if (operation.kerfSide !== 'machine') return [{ operation, side: undefined, drawn: all }];
  const made = new Map(parts.map((part) => [part.id, part]));
  const set = new Map(jobParts.map((part) => [part.id, part.sides]));
  const sideOf = ({ partId, drawable }: DrawnWork): Layer['side'] => {
    const part = made.get(partId);
    if (drawable.kind !== 'outline' || !part) return undefined;
    const sides = set.get(partId) ?? [];
    // Outlines that are drawn have the bounds of those of the part.
    const nth = sides.length > 0 ? part.outlines.findIndex((o) => o.box === drawable.box) : -1;
    const own = nth >= 0 ? cutSidesOf(part, sides)[nth] : 'usual';
    if (own === 'line') return undefined;
    const isEdge = pathArea(drawable.path) > 0;
    // What is cut out of a sheet that stays is kept outside of its outlines.
    const isOutside = isEdge === (part.keep === 'inside');
    return isOutside === (own === 'usual') ? 'outside' : 'inside';
  };
  return ([undefined, 'inside', 'outside'] as const).map((side) => ({
    operation,
    side,
    drawn: drawn.filter((d) => sideOf(d) === side).map((d) => d.drawable),
  }));
}

/** The bytes of one file. */
export const writeFile = (drawing: Drawing, format: FileFormat, settings: Job['export']): Uint8Array =>
  writtenFormat(format).write(drawing, settings);
