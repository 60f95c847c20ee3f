/**
 * Kerning as faces had it before OpenType (OpenType specification, "kern"; Apple's TrueType Reference, "kern"): pairs of glyphs, format 0.
 * HarfBuzz as it is built for the web leaves it out; it is done here as HarfBuzz does it.
 */
import type { ShapedGlyph } from './face';
import type { Bytes } from './sfnt';

/** How much two glyphs that follow each other come apart, in font units. */
export type Kerning = (first: number, second: number) => number;

/** A subtable: where its pairs begin, and whether it holds for words along a line. */
type Subtable = { readonly pairs: number; readonly end: number; readonly isHeld: boolean };

/** Headers of the table and of its subtables: as Microsoft has them, and as Apple does. */
function subtablesOf(kern: Bytes): Subtable[] {
  const isApples = kern.u16(0) === 1;
  const out: Subtable[] = [];
  const count = isApples ? kern.u32(4) : kern.u16(2);
  for (let i = 0, at = isApples ? 8 : 4; i < count && at < kern.length; i++) {
    const header = isApples ? 8 : 6;
    const size = isApples ? kern.u32(at) : kern.u16(at + 2);
    const coverage = kern.u16(at + 4);
    const isHeld = isApples ? (coverage & 0xe0ff) === 0 : (coverage & 0xff07) === 1;
    // The length of a table of very many pairs does not fit its field: the last one goes on to the end.
    const end = i === count - 1 ? kern.length : at + size;
    out.push({ pairs: at + header, end, isHeld });
    if (size < header) break;
    at += size;
  }
  return out;
}

const PAIR = 6;

/** The kerning of a table; null where it has none that is read. */
export function kerningOf(kern: Bytes | undefined): Kerning | null {
  if (!kern) return null;
  const byPair = new Map<number, number>();
  for (const { pairs, end, isHeld } of subtablesOf(kern)) {
    if (!isHeld) continue;
    const count = Math.min(kern.u16(pairs), Math.floor((Math.min(end, kern.length) - pairs - 8) / PAIR));
    for (let i = 0, at = pairs + 8; i < count; i++, at += PAIR) {
      const pair = kern.u16(at) * 65_536 + kern.u16(at + 2);
      byPair.set(pair, (byPair.get(pair) ?? 0) + kern.i16(at + 4));
    }
  }
  return byPair.size === 0 ? null : (first, second) => byPair.get(first * 65_536 + second) ?? 0;
}

/** Glyphs kerned: half of what two come apart is before the second, half after the first, as HarfBuzz has it; marks are passed over. */
export function kerned(
  glyphs: readonly ShapedGlyph[],
  kerning: Kerning,
  isMark: (glyph: number) => boolean,
): ShapedGlyph[] {
  const out = [...glyphs];
  let first = -1;
  for (const [i, { glyph }] of glyphs.entries()) {
    if (isMark(glyph)) continue;
    const before = out[first];
    const by = before ? kerning(before.glyph, glyph) : 0;
    if (before && by !== 0) {
      const half = by >> 1;
      const rest = by - half;
      out[first] = { ...before, advance: before.advance + half };
      const now = out[i] as ShapedGlyph;
      out[i] = { ...now, advance: now.advance + rest, dx: now.dx + rest };
    }
    first = i;
  }
  return out;
}
