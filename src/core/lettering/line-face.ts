/**
 * One-line faces: each glyph is open paths that a tool runs along once. Read from JSON of our own (made by
 * scripts/line-faces.ts) and set letter by letter: such faces have neither kerning nor joined forms.
 */
import { z } from 'zod';
import { alongOnce } from '../geometry/doubles';
import { type Path, regionBox } from '../geometry/path';
import { type Box, boxHeight, EMPTY_BOX } from '../geometry/point';
import { cubic, line, type Segment } from '../geometry/segment';
import type { ShapedGlyph, Typeface } from './face';

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

/**
 * Strokes of a glyph along each other nearer than this are one, in em: faces drawn for plotters run back along a stem to reach its
 * other side, and a beam would burn it twice.
 */
const TWICE_EM = 0.001;

/** A glyph, and what is gone along of its strokes once that was asked for. */
type Glyph = {
  readonly advance: number;
  readonly strokes: readonly Path[];
  readonly box: Box;
  once: readonly Path[] | null;
};

/** A character with the marks that follow it. */
const WITH_MARKS = /\P{M}\p{M}*|\p{M}/gu;

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
  // Glyph 0 stands for a character the face lacks.
  const glyphs: Glyph[] = [{ advance: 0, strokes: [], box: EMPTY_BOX, once: [] }];
  const byCharacter = new Map<string, number>();
  for (const [character, [advance, strokes]] of Object.entries(file.glyphs)) {
    const paths = strokes.map(pathOf);
    byCharacter.set(character, glyphs.length);
    glyphs.push({ advance, strokes: paths, box: regionBox(paths), once: null });
  }
  const of = (glyph: number) => glyphs[glyph] ?? (glyphs[0] as Glyph);
  const heightOf = (character: string) => boxHeight(of(byCharacter.get(character) ?? 0).box);
  return {
    family: file.family,
    weight: file.weight,
    italic: file.italic,
    isSingleStroke: true,
    unitsPerEm: file.unitsPerEm,
    ascent: file.ascent,
    descent: file.descent,
    lineGap: 0,
    slantDeg: file.slantDeg,
    capHeight: heightOf('H') || heightOf('X') || 0.7 * file.unitsPerEm,
    outline(glyph) {
      const drawn = of(glyph);
      // Few of a face's glyphs are ever set.
      drawn.once ??= alongOnce(drawn.strokes, TWICE_EM * file.unitsPerEm);
      return drawn.once;
    },
    box: (glyph) => of(glyph).box,
    shape(text, direction) {
      const shaped: ShapedGlyph[] = [];
      for (const { 0: marked, index } of text.matchAll(WITH_MARKS)) {
        const whole = byCharacter.get(marked.normalize('NFC'));
        let cluster = index;
        for (const character of whole === undefined ? marked : [marked]) {
          const glyph = whole ?? byCharacter.get(character) ?? byCharacter.get(character.normalize('NFKC')) ?? 0;
          shaped.push({ glyph, cluster, advance: of(glyph).advance, dx: 0, dy: 0 });
          cluster += character.length;
        }
      }
      return direction === 'rtl' ? shaped.reverse() : shaped;
    },
  };
}
