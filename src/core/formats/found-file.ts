/**
 * A drawing as it was read, kept as JSON: what a job draws from, so that a file is read once and never anew. Paths are SVG
 * path data in mm, y upwards; clips are put to use before and are not kept.
 */
import { z } from 'zod';
import { KEPT_DIGITS, pathData } from '../geometry/path-data';
import { pathOf } from '../geometry/read-path-data';
import { LIMITS } from '../limits';
import type { ReadDrawing, ReadShape } from './read-drawing';

const colour = z.string().regex(/^#[0-9a-f]{6}$/);
const group = z.int().min(0).max(LIMITS.drawnGroups);

const fileSchema = z.strictObject({
  format: z.literal(1),
  source: z.string().max(LIMITS.nameCharacters),
  unit: z.string().max(LIMITS.nameCharacters),
  mmPerUnit: z.number().positive(),
  stated: z.boolean(),
  groups: z
    .array(
      z.strictObject({
        name: z.string().max(LIMITS.nameCharacters),
        colour,
        filled: z.boolean(),
        pen: z.int().min(1).max(LIMITS.pens).exactOptional(),
      }),
    )
    .max(LIMITS.drawnGroups),
  shapes: z.array(z.strictObject({ d: z.string(), group, rule: z.enum(['nonzero', 'evenodd']).nullable() })),
});

/** A drawing that was read, as JSON text: how it is kept beside its original, so that it need not be read again. */
export function writeFound(found: ReadDrawing): string {
  const shapes = found.shapes.map((shape) => ({
    d: pathData(shape.paths, null, KEPT_DIGITS),
    group: shape.group,
    rule: shape.fill?.rule ?? null,
  }));
  const { unit, mmPerUnit, stated } = found.claim;
  return JSON.stringify({ format: 1, source: found.format, unit, mmPerUnit, stated, groups: found.groups, shapes });
}

/** The shapes and groups of a kept drawing, or null when it is none. */
export function readFound(text: string): Pick<ReadDrawing, 'shapes' | 'groups'> | null {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return null;
  }
  const parsed = fileSchema.safeParse(json);
  if (!parsed.success) return null;
  const { groups } = parsed.data;
  const shapes = parsed.data.shapes.map(
    (shape): ReadShape => ({
      paths: pathOf(shape.d).paths,
      group: shape.group,
      fill: shape.rule && { colour: groups[shape.group]?.colour ?? '#000000', rule: shape.rule },
      stroke: null,
      clips: [],
    }),
  );
  return { shapes, groups };
}
