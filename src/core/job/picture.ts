/** The picture of a job for lists: a true drawing of its sheet, small enough to keep beside the document. */
import { z } from 'zod';
import type { Job } from '../document/schema';
import { circleAt } from '../formats/drawing';
import { drawnPaths, isHatch } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import { pathData } from '../geometry/path-data';
import { boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { LIMITS } from '../limits';
import type { JobResult, Progress } from './evaluate';

/** A job's drawing for lists. y downwards, in mm. Path data is checked to be nothing but path data. */
export const pictureSchema = z.strictObject({
  width: z.number().positive(),
  height: z.number().positive(),
  /** Where the work lies, y downwards; left out where there is none, or the picture is older. */
  work: z.strictObject({ x: z.number(), y: z.number(), width: z.number(), height: z.number() }).optional(),
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

/** A job's drawing for lists: few shapes, with few digits. */
export type Picture = z.infer<typeof pictureSchema>;

/** Decimal places: a list shows a job a few hundred pixels wide. */
const DIGITS = 2;
/** A point is shown as a circle this large, in mm. */
const POINT_MM = 0.3;

/** The picture; yields how many operations are drawn of it. */
export function* pictureOf(job: Job, result: JobResult): Generator<Progress, Picture> {
  const shapes: Picture['shapes'] = [];
  let size = 0;
  const add = (kind: Picture['shapes'][number]['kind'], fill: boolean, paths: readonly Path[]) => {
    const d = pathData(paths, job.sheet.height, DIGITS);
    size += d.length;
    // What no longer fits is left out; the job itself is not touched.
    if (size < LIMITS.pictureBytes / 2) shapes.push({ kind, fill, d });
  };
  let done = 0;
  const worked = new Set<string>();
  const outlinesOf = new Map(result.parts.map((part) => [part.id, part.outlines.map((o) => o.path)]));
  for (const { operation, drawn, filledOnly } of result.operations) {
    const only = new Map(filledOnly.map((f) => [f.partId, f.outlines.map((o) => o.path)]));
    const filled = new Set<string>();
    const byPart = new Map<string, Path[]>();
    for (const { partId, drawable } of drawn) {
      worked.add(partId);
      if (drawable.kind === 'area') add(operation.kind, true, drawable.paths);
      // Lines this close are an area at the size of a list.
      else if (isHatch(drawable)) {
        if (!filled.has(partId)) add(operation.kind, true, only.get(partId) ?? outlinesOf.get(partId) ?? []);
        filled.add(partId);
      } else {
        const paths = drawable.kind === 'dot' ? [circleAt(drawable.at, drawable.r ?? POINT_MM)] : drawnPaths(drawable);
        const list = byPart.get(partId);
        if (list) list.push(...paths);
        else byPart.set(partId, [...paths]);
      }
    }
    for (const paths of byPart.values()) {
      add(operation.kind, false, paths);
      yield { done, of: result.operations.length };
    }
    done++;
  }
  for (const part of result.parts)
    if (!worked.has(part.id) && part.outlines.length + part.openPaths.length > 0)
      add('none', false, [...part.outlines.map((o) => o.path), ...part.openPaths]);
  const box = result.workBox;
  const digits = (mm: number) => Math.round(mm * 100) / 100;
  const work = isEmptyBox(box)
    ? {}
    : {
        work: {
          x: digits(box.minX),
          y: digits(job.sheet.height - box.maxY),
          width: digits(boxWidth(box)),
          height: digits(boxHeight(box)),
        },
      };
  return { width: job.sheet.width, height: job.sheet.height, ...work, shapes };
}
