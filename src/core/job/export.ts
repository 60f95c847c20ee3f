/** From a computed job to files: the neutral drawing, the three formats, and what they are called. */

import type { Job, Operation } from '../document/schema';
import type { Drawing, DrawnShape, Layer } from '../formats/drawing';
import { type DxfVersion, writeDxf } from '../formats/dxf-write';
import { writePdf } from '../formats/pdf-write';
import { writeSvg } from '../formats/svg-write';
import { transformPath } from '../geometry/path';
import { applyMatrix, boxHeight, boxWidth, isEmptyBox, type Matrix, translation } from '../geometry/point';
import { strokePaths, transformStrokes } from '../toolpath/fill/strokes';
import { boxesOf, type JobResult, type OperationShape } from './evaluate';

export const FILE_FORMATS = ['svg', 'dxf', 'pdf'] as const;
export type FileFormat = (typeof FILE_FORMATS)[number];

export type ExportScope = {
  /** Only these parts; all when null. */
  readonly partIds: readonly string[] | null;
};

export const colourOf = (operation: Operation, job: Pick<Job, 'colourKey'>): string =>
  operation.colour ?? job.colourKey[operation.kind];

/** What a shape is in a file; `m` only moves. */
function drawn(shape: OperationShape, m: Matrix): DrawnShape[] {
  switch (shape.what) {
    case 'line':
      return [{ kind: 'stroke', path: transformPath(shape.path, m) }];
    case 'strokes':
      return strokePaths(transformStrokes(shape.strokes, m)).map((path) => ({ kind: 'stroke', path }));
    case 'dot':
      return [{ kind: 'dot', at: applyMatrix(m, shape.at), r: shape.r }];
    case 'fill':
      return [{ kind: 'fill', paths: shape.outlines.map((o) => transformPath(o.path, m)) }];
    case 'outline':
      return [{ kind: 'stroke', path: transformPath(shape.outline.path, m) }];
  }
}

/** The drawing that is exported, or null when nothing would be in it. What is off, hidden or empty is not. */
export function drawingOf(job: Job, result: JobResult, scope: ExportScope = { partIds: null }): Drawing | null {
  const wanted = (partId: string) => scope.partIds === null || scope.partIds.includes(partId);
  const chosen = result.operations
    .filter((o) => o.operation.on)
    .map((o) => ({ operation: o.operation, shapes: o.shapes.filter((s) => wanted(s.partId)) }))
    .filter((o) => o.shapes.length > 0);
  const box = boundsOf(chosen.flatMap((o) => o.shapes));
  if (isEmptyBox(box)) return null;
  const fitted = job.export.page === 'work';
  const m = fitted ? translation(-box.minX, -box.minY) : translation(0, 0);
  return {
    title: job.title,
    width: fitted ? boxWidth(box) : job.sheet.width,
    height: fitted ? boxHeight(box) : job.sheet.height,
    layers: chosen.map(
      ({ operation, shapes }): Layer => ({
        name: operation.name,
        kind: operation.kind,
        colour: colourOf(operation, job),
        tolerance: operation.kind === 'mark' ? job.export.markTolerance : job.export.arcTolerance,
        scan: operation.scan,
        shapes: shapes.flatMap((s) => drawn(s, m)),
      }),
    ),
  };
}

function boundsOf(shapes: readonly OperationShape[]) {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (const s of shapes)
    for (const box of boxesOf(s)) {
      minX = Math.min(minX, box.minX);
      minY = Math.min(minY, box.minY);
      maxX = Math.max(maxX, box.maxX);
      maxY = Math.max(maxY, box.maxY);
    }
  return { minX, minY, maxX, maxY };
}

/** The bytes of one file. */
export function writeFile(drawing: Drawing, format: FileFormat, settings: Job['export']): Uint8Array {
  switch (format) {
    case 'svg':
      return new TextEncoder().encode(writeSvg(drawing, settings.lineWidth));
    case 'pdf':
      return writePdf(drawing, settings.lineWidth);
    case 'dxf':
      return new TextEncoder().encode(writeDxf(drawing, settings.dxf satisfies DxfVersion));
  }
}

/** Letters, digits and single hyphens; no more than 60 characters. */
const slug = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}.]+/gu, '-')
    .replace(/^[-.]+|[-.]+$/g, '')
    .slice(0, 60)
    .replace(/-+$/, '');

/** "gate-sign_plate_steel-3mm.svg": job, piece when only one is exported, material and thickness. */
export function fileName(job: Job, format: FileFormat, scope: ExportScope = { partIds: null }): string {
  const only = scope.partIds?.length === 1 ? job.parts.find((p) => p.id === scope.partIds?.[0]) : undefined;
  const material = [job.sheet.material, job.sheet.thickness ? `${job.sheet.thickness}mm` : '']
    .filter(Boolean)
    .join(' ');
  const stem = [job.title, only?.name ?? '', material].map(slug).filter(Boolean).join('_');
  return `${stem || 'job'}.${format}`;
}
