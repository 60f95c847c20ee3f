/** The picture of a job for lists: a true drawing of its sheet, small enough to keep beside the document. */
import { z } from 'zod';
import type { Job } from '../document/schema';
import { circleAt } from '../formats/drawing';
import { pathData } from '../formats/path-data';
import { LIMITS } from '../limits';
import type { JobResult } from './evaluate';

/** y downwards, in mm. Path data is checked to be nothing but path data. */
export const pictureSchema = z.strictObject({
  width: z.number().positive(),
  height: z.number().positive(),
  shapes: z
    .array(
      z.strictObject({
        kind: z.enum(['cut', 'score', 'engrave', 'mark', 'none']),
        fill: z.boolean(),
        d: z.string().regex(/^[MLQCAZ0-9 .-]*$/),
      }),
    )
    .max(5_000),
});

export type Picture = z.infer<typeof pictureSchema>;

/** Decimal places: a list shows a job a few hundred pixels wide. */
const DIGITS = 2;
/** A point is shown as a circle this large, in mm. */
const POINT_MM = 0.3;

export function pictureOf(job: Job, result: JobResult): Picture {
  const shapes: Picture['shapes'] = [];
  let size = 0;
  const add = (kind: Picture['shapes'][number]['kind'], fill: boolean, paths: Parameters<typeof pathData>[0]) => {
    const d = pathData(paths, job.sheet.height, DIGITS);
    size += d.length;
    // What no longer fits is left out; the job itself is not touched.
    if (size < LIMITS.pictureBytes / 2) shapes.push({ kind, fill, d });
  };
  const worked = new Set<string>();
  const outlinesOf = new Map(result.parts.map((part) => [part.id, part.outlines]));
  for (const { operation, shapes: drawn } of result.operations) {
    const filled = new Set<string>();
    const byPart = new Map<string, Parameters<typeof pathData>[0][number][]>();
    for (const shape of drawn) {
      worked.add(shape.partId);
      if (shape.what === 'fill')
        add(
          operation.kind,
          true,
          shape.outlines.map((o) => o.path),
        );
      // Lines this close are an area at the size of a list.
      else if (shape.what === 'strokes') {
        if (!filled.has(shape.partId))
          add(
            operation.kind,
            true,
            (outlinesOf.get(shape.partId) ?? []).map((o) => o.path),
          );
        filled.add(shape.partId);
      } else {
        const path =
          shape.what === 'line'
            ? shape.path
            : shape.what === 'dot'
              ? circleAt(shape.at, shape.r ?? POINT_MM)
              : shape.outline.path;
        const list = byPart.get(shape.partId);
        if (list) list.push(path);
        else byPart.set(shape.partId, [path]);
      }
    }
    for (const paths of byPart.values()) add(operation.kind, false, paths);
  }
  for (const part of result.parts)
    if (!worked.has(part.id) && part.outlines.length + part.lines.length > 0)
      add('none', false, [...part.outlines.map((o) => o.path), ...part.lines]);
  return { width: job.sheet.width, height: job.sheet.height, shapes };
}
