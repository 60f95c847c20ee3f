/** A typeface set glyph by glyph: a table from characters to glyphs, with neither joined forms nor features. */
import { alongOnce } from '../geometry/doubles';
import { type Path, regionBox } from '../geometry/path';
import { type Box, boxHeight, EMPTY_BOX } from '../geometry/point';
import type { ShapedGlyph, Typeface } from './face';

/** A glyph as it is read: what it advances by and its outlines or strokes, in font units. */
export type ReadGlyph = { readonly advance: number; readonly paths: readonly Path[]; readonly isBroken?: boolean };

/** What a typeface of glyphs is made from. */
export type GlyphFaceSource = Pick<
  Typeface,
  'family' | 'weight' | 'italic' | 'isSingleStroke' | 'unitsPerEm' | 'ascent' | 'descent' | 'slantDeg'
> & {
  /** By the characters each stands for; of several characters where it is a ligature. */
  readonly glyphs: ReadonlyMap<string, ReadGlyph>;
  /** How much nearer the second of two characters comes to the first, in font units. */
  readonly kern?: (first: string, second: string) => number;
};

/**
 * Strokes of a glyph along each other nearer than this are one, in em: faces drawn for plotters run back along a stem to reach its
 * other side, and a beam would burn it twice.
 */
const TWICE_EM = 0.001;

/** A glyph, and what is gone along of its strokes once that was asked for. */
type Glyph = ReadGlyph & { readonly characters: string; readonly box: Box; once: readonly Path[] | null };

/** A character with the marks that follow it. */
const WITH_MARKS = /\P{M}\p{M}*|\p{M}/gu;

/** A typeface of glyphs; strokes that run along each other are gone along once. */
export function glyphFace(source: GlyphFaceSource): Typeface {
  const { glyphs: read, kern, ...about } = source;
  // Glyph 0 stands for a character the face lacks.
  const glyphs: Glyph[] = [{ characters: '', advance: 0, paths: [], box: EMPTY_BOX, once: [] }];
  const byCharacters = new Map<string, number>();
  let longest = 1;
  for (const [characters, glyph] of read) {
    byCharacters.set(characters, glyphs.length);
    longest = Math.max(longest, [...characters].length);
    glyphs.push({ ...glyph, characters, box: regionBox(glyph.paths), once: null });
  }
  const of = (glyph: number) => glyphs[glyph] ?? (glyphs[0] as Glyph);
  const heightOf = (character: string) => boxHeight(of(byCharacters.get(character) ?? 0).box);
  return {
    ...about,
    lineGap: 0,
    capHeight: heightOf('H') || heightOf('X') || 0.7 * about.unitsPerEm,
    outline(glyph) {
      const drawn = of(glyph);
      // Few of a face's glyphs are ever set.
      drawn.once ??= about.isSingleStroke ? alongOnce(drawn.paths, TWICE_EM * about.unitsPerEm) : drawn.paths;
      return drawn.once;
    },
    box: (glyph) => of(glyph).box,
    characters: () =>
      [...byCharacters.keys()].flatMap((c) => ([...c].length === 1 ? (c.codePointAt(0) as number) : [])),
    glyphs: () => Array.from({ length: glyphs.length - 1 }, (_, i) => i + 1),
    isBroken: (glyph) => of(glyph).isBroken === true,
    shape(text, direction, { ligatures }) {
      const shaped: ShapedGlyph[] = [];
      const put = (glyph: number, cluster: number) => {
        const before = shaped[shaped.length - 1];
        if (before && kern)
          shaped[shaped.length - 1] = {
            ...before,
            advance: before.advance - kern(of(before.glyph).characters, of(glyph).characters),
          };
        shaped.push({ glyph, cluster, advance: of(glyph).advance, dx: 0, dy: 0 });
      };
      const marked = [...text.matchAll(WITH_MARKS)].map(({ 0: characters, index }) => ({ characters, index }));
      for (let i = 0; i < marked.length; ) {
        const joined = ligatures ? ligatureAt(byCharacters, marked, i, longest) : null;
        if (joined) {
          put(joined.glyph, marked[i]?.index ?? 0);
          i += joined.count;
          continue;
        }
        const { characters, index } = marked[i++] as (typeof marked)[number];
        const whole = byCharacters.get(characters.normalize('NFC'));
        let cluster = index;
        for (const character of whole === undefined ? characters : [characters]) {
          put(whole ?? byCharacters.get(character) ?? byCharacters.get(character.normalize('NFKC')) ?? 0, cluster);
          cluster += character.length;
        }
      }
      return direction === 'rtl' ? shaped.reverse() : shaped;
    },
  };
}

/** The glyph that stands for most of the characters from a place on, where it stands for more than one. */
function ligatureAt(
  byCharacters: ReadonlyMap<string, number>,
  marked: readonly { readonly characters: string }[],
  from: number,
  longest: number,
): { readonly glyph: number; readonly count: number } | null {
  for (let count = Math.min(longest, marked.length - from); count > 1; count--) {
    const glyph = byCharacters.get(
      marked
        .slice(from, from + count)
        .map((m) => m.characters)
        .join(''),
    );
    if (glyph !== undefined) return { glyph, count };
  }
  return null;
}
