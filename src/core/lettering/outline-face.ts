/** A TrueType or OpenType face ready for use, at one place of its axes. Built on HarfBuzz. */
import type { Face as HbFace } from 'harfbuzzjs';
import { type Path, regionBox } from '../geometry/path';
import { type Box, boxHeight } from '../geometry/point';
import { LIMITS } from '../limits';
import { type GlyphTable, isShallow } from './composites';
import type { Typeface } from './face';
import { drawnGlyph, type HarfBuzz, nameInFace } from './harfbuzz';
import { kerned, kerningOf } from './kern-table';
import type { Bytes } from './sfnt';

/** A face that claims to lean by more is not believed. */
const MOST_SLANT_DEG = 45;

/** Ids of the name table (OpenType specification, "name"). */
export const NAME = { family: 1, style: 2, typographicFamily: 16, typographicStyle: 17 } as const;

/** Where in the OS/2 table a bit says that the face is italic. */
const SELECTION = 62;

type Glyph = { readonly paths: readonly Path[]; readonly box: Box; readonly isBroken: boolean };

/** The glyph table of a TrueType face; null where its outlines are kept in another way. */
function glyphTable(tables: ReadonlyMap<string, Bytes>): GlyphTable | null {
  const [glyf, loca, head] = [tables.get('glyf'), tables.get('loca'), tables.get('head')];
  return glyf && loca && head ? { glyf, loca, isLong: head.u16(50) !== 0 } : null;
}

/** The typeface of a face; `axes` are places along its axes by their tags, others stay where the face has them. */
export function outlineFace(
  hb: HarfBuzz,
  face: HbFace,
  tables: ReadonlyMap<string, Bytes>,
  axes: Readonly<Record<string, number>>,
): Typeface {
  const font = new hb.Font(face);
  const variations = Object.entries(axes).map(([tag, value]) => new hb.Variation(tag, value));
  if (variations.length > 0) font.setVariations(variations);
  const extents = font.hExtents();
  const composites = glyphTable(tables);
  const glyphs = new Map<number, Glyph>();
  const glyphOf = (glyph: number): Glyph => {
    let known = glyphs.get(glyph);
    if (!known) {
      const isSound = composites === null || isShallow(composites, glyph, LIMITS.compositeDepth);
      const paths = isSound ? drawnGlyph(hb, font, glyph) : null;
      known = { paths: paths ?? [], box: regionBox(paths ?? []), isBroken: paths === null };
      glyphs.set(glyph, known);
    }
    return known;
  };
  const heightOf = (char: string): number => {
    const glyph = font.nominalGlyph(char.codePointAt(0) as number);
    return glyph ? boxHeight(glyphOf(glyph).box) : 0;
  };
  // A 16.16 fixed point number of degrees, negative where letters lean to the right (OpenType, post table).
  const slantDeg = 0 - (tables.get('post')?.fixed(4) ?? 0);
  // What OpenType says of kerning goes before the older table.
  const kerning = face.getTableFeatureTags('GPOS').includes('kern') ? null : kerningOf(tables.get('kern'));
  const isMark = (glyph: number) => face.getGlyphClass(glyph) === hb.GlyphClass.MARK;
  const unitsPerEm = face.upem > 0 ? face.upem : 1000;
  return {
    family: nameInFace(face, NAME.typographicFamily) || nameInFace(face, NAME.family) || 'Unnamed',
    weight: axes.wght ?? (tables.get('OS/2')?.u16(4) || 400),
    italic: ((tables.get('OS/2')?.u16(SELECTION) ?? 0) & 1) === 1,
    isSingleStroke: false,
    unitsPerEm,
    ascent: extents.ascender,
    descent: extents.descender,
    lineGap: extents.lineGap,
    slantDeg: Math.abs(slantDeg) <= MOST_SLANT_DEG ? slantDeg : 0,
    capHeight: heightOf('H') || heightOf('X') || heightOf('ה') || 0.7 * unitsPerEm,
    characters: () => [...face.collectUnicodes()],
    glyphs: () => Array.from({ length: Math.max(0, (tables.get('maxp')?.u16(4) ?? 0) - 1) }, (_, i) => i + 1),
    outline: (glyph) => glyphOf(glyph).paths,
    box: (glyph) => glyphOf(glyph).box,
    isBroken: (glyph) => glyphOf(glyph).isBroken,
    shape(text, direction, { ligatures, features }) {
      const buffer = new hb.Buffer();
      buffer.addText(text);
      buffer.setDirection(direction === 'rtl' ? hb.Direction.RTL : hb.Direction.LTR);
      buffer.guessSegmentProperties();
      hb.shape(font, buffer, [
        ...(ligatures ? [] : ['liga', 'clig'].map((tag) => new hb.Feature(tag, 0))),
        ...features.map(({ tag, value, from, to }) => new hb.Feature(tag, value, from, to)),
      ]);
      const shaped = buffer.getGlyphInfosAndPositions().map((g) => ({
        glyph: g.codepoint,
        cluster: g.cluster,
        advance: g.xAdvance ?? 0,
        dx: g.xOffset ?? 0,
        dy: g.yOffset ?? 0,
      }));
      const isKerned = kerning !== null && !features.some(({ tag, value }) => tag === 'kern' && value === 0);
      return isKerned ? kerned(shaped, kerning, isMark) : shaped;
    },
  };
}
