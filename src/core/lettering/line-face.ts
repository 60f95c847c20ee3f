/**
 * One-line faces: each glyph is open paths that a tool runs along once. Read from JSON of our own (made by
 * scripts/line-faces.ts) and set letter by letter: such faces have neither kerning nor joined forms.
 */
import { z } from 'zod';
import type { Path } from '../geometry/path';
import { cubic, line, type Segment } from '../geometry/segment';
import type { Typeface } from './face';
import { glyphFace } from './glyph-face';

const coordinate = z.number().min(-20_000).max(20_000);
const pointSchema = z.tuple([coordinate, coordinate]);
const curveSchema = z.tuple([coordinate, coordinate, coordinate, coordinate, coordinate, coordinate]);

/** In font units, y upwards. */
const lineFaceSchema = z.strictObject({
  lineFace: z.literal(1),
  family: z.string().min(1).max(200),
  weight: z.int().min(1).max(1000),
  italic: z.boolean(),
  unitsPerEm: z.number().positive(),
  ascent: coordinate,
  descent: coordinate,
  slantDeg: z.number().min(-45).max(45),
  /** What has to go with the face wherever it goes. */
  notice: z.string().min(1),
  /** For each character its advance and its strokes: the start, then for each segment its end, for curves with the two controls before it. */
  glyphs: z.record(
    z.string(),
    z.tuple([coordinate, z.array(z.tuple([pointSchema], z.union([pointSchema, curveSchema])))]),
  ),
});

/** A single-stroke typeface as it is kept: glyphs as strokes. */
export type LineFaceFile = z.infer<typeof lineFaceSchema>;

/** A stroke of a glyph: its start, and what it goes on with. */
export type LineStroke = LineFaceFile['glyphs'][string][1][number];

const pathOf = ([start, ...further]: LineStroke): Path => {
  let [x, y] = start;
  const segments = further.map((n): Segment => {
    const [fromX, fromY] = [x, y];
    [x, y] = [n[n.length - 2] as number, n[n.length - 1] as number];
    return n.length === 2 ? line(fromX, fromY, x, y) : cubic(fromX, fromY, n[0], n[1], n[2], n[3], x, y);
  });
  return { segments, closed: false };
};

/** Whether a file's first bytes are those of a one-line face. */
export const seemsLineFace = (bytes: Uint8Array): boolean => bytes[0] === 0x7b;

/** Read a one-line face; null when the bytes are none. */
export function readLineFace(bytes: Uint8Array): Typeface | null {
  let data: unknown;
  try {
    data = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return null;
  }
  const read = lineFaceSchema.safeParse(data);
  if (!read.success) return null;
  const file = read.data;
  return glyphFace({
    family: file.family,
    weight: file.weight,
    italic: file.italic,
    isSingleStroke: true,
    unitsPerEm: file.unitsPerEm,
    ascent: file.ascent,
    descent: file.descent,
    slantDeg: file.slantDeg,
    glyphs: new Map(
      Object.entries(file.glyphs).map(([character, [advance, strokes]]) => [
        character,
        { advance, paths: strokes.map(pathOf) },
      ]),
    ),
  });
}
