/** A typeface ready for use: metrics, shaping and glyph outlines, in font units. Built on HarfBuzz. */
import type { Face as HbFace, Font as HbFont } from 'harfbuzzjs';
import { closedPath, type Path, regionBox } from '../geometry/path';
import { type Box, boxHeight } from '../geometry/point';
import { cubic, line, quadratic, type Segment } from '../geometry/segment';
import { LIMITS } from '../limits';
import type { Typeface } from './face';
import { readLineFace, seemsLineFace } from './line-face';

/** A typeface that was loaded, or a sentence why it could not be. */
export type TypefaceLoad =
  | { readonly ok: true; readonly typeface: Typeface }
  | { readonly ok: false; readonly sentence: string };

type HarfBuzz = typeof import('harfbuzzjs');
let harfbuzz: Promise<HarfBuzz> | null = null;
const loadHarfBuzz = (): Promise<HarfBuzz> => {
  harfbuzz ??= import('harfbuzzjs');
  return harfbuzz;
};

const tagOf = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 4));
const SFNT_TAGS = new Set(['\0\x01\0\0', 'OTTO', 'true', 'ttcf']);

/** Read a TrueType or OpenType file, or a one-line face. Bad files give a sentence, never an exception. */
export async function loadTypeface(bytes: Uint8Array): Promise<TypefaceLoad> {
  if (bytes.length > LIMITS.typefaceBytes) return { ok: false, sentence: 'The typeface file is larger than 32 MB.' };
  if (seemsLineFace(bytes)) {
    const face = readLineFace(bytes);
    return face
      ? { ok: true, typeface: face }
      : { ok: false, sentence: 'The file is not a one-line typeface we can read.' };
  }
  if (bytes.length < 12 || !SFNT_TAGS.has(tagOf(bytes)))
    return { ok: false, sentence: 'The file is not a TrueType or OpenType typeface.' };
  const hb = await loadHarfBuzz();
  const face = new hb.Face(new hb.Blob(bytes));
  const font = new hb.Font(face);
  if (face.collectUnicodes().length === 0)
    return { ok: false, sentence: 'The typeface file holds no characters, or is damaged.' };
  return { ok: true, typeface: buildTypeface(hb, face, font) };
}

/** A face that claims to lean by more is not believed. */
const MOST_SLANT_DEG = 45;

function buildTypeface(hb: HarfBuzz, face: HbFace, font: HbFont): Typeface {
  const extents = font.hExtents();
  const glyphs = new Map<number, { readonly paths: readonly Path[]; readonly box: Box }>();
  const glyphOf = (glyph: number) => {
    let known = glyphs.get(glyph);
    if (!known) {
      const paths = pathsOf(font.glyphToJson(glyph));
      known = { paths, box: regionBox(paths) };
      glyphs.set(glyph, known);
    }
    return known;
  };
  const heightOf = (char: string): number => {
    const glyph = font.nominalGlyph(char.codePointAt(0) as number);
    return glyph ? boxHeight(glyphOf(glyph).box) : 0;
  };
  const os2 = face.referenceTable('OS/2');
  const view = os2 && new DataView(os2.buffer, os2.byteOffset, os2.byteLength);
  const post = face.referenceTable('post');
  const postView = post && new DataView(post.buffer, post.byteOffset, post.byteLength);
  // A 16.16 fixed point number of degrees, negative where letters lean to the right (OpenType, post table).
  const slantDeg = postView && postView.byteLength > 8 ? -postView.getInt32(4) / 65536 : 0;
  return {
    family: nameOf(face, 16) || nameOf(face, 1) || 'Unnamed',
    weight: view && view.byteLength > 6 ? view.getUint16(4) : 400,
    italic: view && view.byteLength > 64 ? (view.getUint16(62) & 1) === 1 : false,
    isSingleStroke: false,
    unitsPerEm: face.upem,
    ascent: extents.ascender,
    descent: extents.descender,
    lineGap: extents.lineGap,
    slantDeg: Math.abs(slantDeg) <= MOST_SLANT_DEG ? slantDeg : 0,
    capHeight: heightOf('H') || heightOf('X') || heightOf('ה') || 0.7 * face.upem,
    outline: (glyph) => glyphOf(glyph).paths,
    box: (glyph) => glyphOf(glyph).box,
    shape(text, direction, ligatures) {
      const buffer = new hb.Buffer();
      buffer.addText(text);
      buffer.setDirection(direction === 'rtl' ? hb.Direction.RTL : hb.Direction.LTR);
      buffer.guessSegmentProperties();
      hb.shape(font, buffer, ligatures ? [] : ['liga', 'clig'].map((tag) => new hb.Feature(tag, 0)));
      return buffer.getGlyphInfosAndPositions().map((g) => ({
        glyph: g.codepoint,
        cluster: g.cluster,
        advance: g.xAdvance ?? 0,
        dx: g.xOffset ?? 0,
        dy: g.yOffset ?? 0,
      }));
    },
  };
}

/** A record of the name table, in English where there is one. */
function nameOf(face: HbFace, id: number): string {
  const entries = face.listNames().filter((n) => n.nameId === id);
  const entry = entries.find((n) => n.language.startsWith('en')) ?? entries[0];
  return entry ? face.getName(entry.nameId, entry.language) : '';
}

/** Draw commands → closed paths; contours left open are closed with a line, empty ones dropped. */
function pathsOf(commands: readonly { type: string; values: readonly number[] }[]): Path[] {
  const paths: Path[] = [];
  let segments: Segment[] = [];
  let x = 0;
  let y = 0;
  let startX = 0;
  let startY = 0;
  const finish = () => {
    if (segments.length > 0) {
      if (x !== startX || y !== startY) segments.push(line(x, y, startX, startY));
      paths.push(closedPath(segments));
    }
    segments = [];
  };
  for (const { type, values } of commands) {
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = values;
    if (type === 'M') {
      finish();
      x = startX = a;
      y = startY = b;
    } else if (type === 'L') {
      if (a !== x || b !== y) segments.push(line(x, y, a, b));
      x = a;
      y = b;
    } else if (type === 'Q') {
      segments.push(quadratic(x, y, a, b, c, d));
      x = c;
      y = d;
    } else if (type === 'C') {
      segments.push(cubic(x, y, a, b, c, d, e, f));
      x = e;
      y = f;
    } else finish();
  }
  finish();
  return paths;
}
