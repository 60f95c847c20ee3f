/** Glyphs of TrueType put together from others (OpenType specification, "glyf"): how deep they lie in each other. */
import type { Bytes } from './sfnt';

/** Flags of a component: its numbers are words, more follow, and how it is scaled. */
const WORDS = 0x0001;
const SCALED = 0x0008;
const MORE = 0x0020;
const SCALED_TWICE = 0x0040;
const SCALED_FOUR = 0x0080;

/** Where glyphs lie in a TrueType face. */
export type GlyphTable = { readonly glyf: Bytes; readonly loca: Bytes; readonly isLong: boolean };

/** The glyphs a glyph is put together from; none where it is drawn itself. */
function componentsOf({ glyf, loca, isLong }: GlyphTable, glyph: number): number[] {
  const start = isLong ? loca.u32(4 * glyph) : 2 * loca.u16(2 * glyph);
  const end = isLong ? loca.u32(4 * glyph + 4) : 2 * loca.u16(2 * glyph + 2);
  if (end <= start || glyf.i16(start) >= 0) return [];
  const out: number[] = [];
  for (let at = start + 10; at + 4 <= end; ) {
    const flags = glyf.u16(at);
    out.push(glyf.u16(at + 2));
    at += 4 + (flags & WORDS ? 4 : 2);
    at += flags & SCALED ? 2 : flags & SCALED_TWICE ? 4 : flags & SCALED_FOUR ? 8 : 0;
    if (!(flags & MORE)) break;
  }
  return out;
}

/** Whether a glyph is put together from others no deeper than `most`, and not from itself. */
export function isShallow(table: GlyphTable, glyph: number, most: number): boolean {
  // Each is looked at once a level: what is used again and again costs no more.
  let level: ReadonlySet<number> = new Set([glyph]);
  for (let depth = 0; depth <= most; depth++) {
    level = new Set([...level].flatMap((g) => componentsOf(table, g)));
    if (level.size === 0) return true;
  }
  return false;
}
