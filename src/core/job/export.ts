/** From a computed job to files: the neutral drawing, the formats, and what they are called. */

import { colourOf } from '../document/colour-of';
import { pensOf } from '../document/pens';
import type { Job } from '../document/schema';
import type { Drawing, Frame, Layer } from '../formats/drawing';
import { type FileFormat, writtenFormat } from '../formats/written';
import { drawnBox, moveDrawable } from '../geometry/drawable';
import { boxHeight, boxWidth, isEmptyBox, translation } from '../geometry/point';
import { LIMITS } from '../limits';
import { decimal } from '../units/decimal';
import type { JobResult } from './evaluate';
import { TAKEN_ALONG } from './taken-along';

/** Of which parts files are written. */
export type ExportScope = {
  /** Only these parts; all when null. */
  readonly partIds: readonly string[] | null;
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

/** Letters, digits and single hyphens; no more bytes than a name may have of it. */
function slug(text: string): string {
  const plain = text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}.]+/gu, '-')
    .replace(/^[-.]+|[-.]+$/g, '');
  let bytes = 0;
  let cut = '';
  for (const character of plain) {
    bytes += new TextEncoder().encode(character).length;
    if (bytes > LIMITS.fileNamePartBytes) break;
    cut += character;
  }
  return cut.replace(/[-.]+$/, '');
}

/** Names that are devices on some disks, whatever their ending. */
const DEVICE = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/;

/** "gate-sign_plate_steel-3mm.svg": job, piece when only one is exported, material and thickness. */
export function fileName(job: Job, format: FileFormat, scope: ExportScope = { partIds: null }): string {
  const only = scope.partIds?.length === 1 ? job.parts.find((p) => p.id === scope.partIds?.[0]) : undefined;
  return `${stemOf(job, only?.name ?? '')}.${writtenFormat(format).ending}`;
}

/** The name of a file that a job is taken along in. */
export const takenName = (job: Job): string => `${stemOf(job, '')}${TAKEN_ALONG}`;

function stemOf({ title, sheet: { material, thickness } }: Job, piece: string): string {
  const stock = [material, thickness ? `${decimal(thickness, 3)}mm` : ''].filter(Boolean).join(' ');
  const stem = [title, piece, stock].map(slug).filter(Boolean).join('_');
  return `${DEVICE.test(stem) ? 'job-' : ''}${stem || 'job'}`;
}
