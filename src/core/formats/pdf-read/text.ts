/** Words of a PDF page: outlines of the letters of a font that is in the file, and words to be set where it is not. */
import { compose, type Matrix, scaling, translation } from '../../geometry/point';
import type { GraphicsState, Operators, PdfFont } from './state';

/** A letter as pdf.js hands it over; numbers between letters move the pen, in thousandths of the size. */
export type PdfGlyph = {
  readonly fontChar?: string;
  readonly unicode?: string;
  readonly width?: number;
  readonly isSpace?: boolean;
  readonly isInFont?: boolean;
  readonly accent?: { readonly fontChar: string; readonly offset: { readonly x: number; readonly y: number } };
  readonly vmetric?: readonly number[];
  readonly operatorListId?: string;
};

/** A letter in its place: outlines in ems, or operators in the font's own numbers, and from there to mm. */
export type PlacedGlyph =
  | { readonly kind: 'outline'; readonly path: string; readonly matrix: Matrix }
  | { readonly kind: 'drawn'; readonly operators: Operators; readonly matrix: Matrix };

/** Letters of one run, the words they are where their font is not in the file, and how far the pen moved. */
export type GlyphRun = {
  readonly glyphs: readonly PlacedGlyph[];
  readonly words: string;
  /** From the run's own axes, in points of text, to mm. */
  readonly matrix: Matrix;
  readonly dx: number;
  readonly dy: number;
};

const THOUSANDTH = 0.001;

/** One run of letters from where the pen is. `text` is the text matrix, `at` the pen's place in it. */
export function glyphRun(
  state: GraphicsState,
  glyphs: readonly (PdfGlyph | number)[],
  text: Matrix,
  at: { readonly x: number; readonly y: number },
): GlyphRun {
  const font = state.font as PdfFont;
  const size = Math.abs(state.fontSize);
  // A size below nothing turns letters over and writes to the left.
  const way = state.fontSize < 0 ? -1 : 1;
  const scale = font.fontMatrix?.[0] || THOUSANDTH;
  const isDown = font.vertical === true;
  const base = compose(
    scaling(state.across * way, way),
    compose(translation(at.x, at.y + state.rise), compose(text, state.matrix)),
  );
  const placed: PlacedGlyph[] = [];
  let words = '';
  let pen = 0;
  for (const glyph of glyphs) {
    if (typeof glyph === 'number') {
      pen += ((isDown ? 1 : -1) * glyph * size) / 1000;
      if (glyph < -WORD_GAP) words += ' ';
      continue;
    }
    const spacing = (glyph.isSpace ? state.wordSpacing : 0) + state.letterSpacing;
    const width = glyph.width ?? 0;
    words += glyph.unicode ?? '';
    let [x, y] = [pen, 0];
    let step = width * size * scale + spacing * way;
    if (isDown) {
      const metric = glyph.vmetric ?? font.defaultVMetrics ?? [];
      x = -(glyph.vmetric ? (metric[1] ?? 0) : width * 0.5) * size * scale;
      y = -(pen + (metric[2] ?? 0) * size * scale);
      step = -(metric[0] ?? -1000) * size * scale - spacing * way;
    }
    const put = (char: string, dx: number, dy: number) =>
      placed.push({
        kind: 'outline',
        path: `${font.loadedName}_path_${char}`,
        matrix: compose(scaling(size), compose(translation(x + dx, y + dy), base)),
      });
    if (font.isType3Font) {
      const operators = font.charProcOperatorList?.[glyph.operatorListId ?? ''];
      const own = matrixOfFont(font);
      if (operators)
        placed.push({
          kind: 'drawn',
          operators,
          matrix: compose(own, compose(scaling(size), compose(translation(x, y), base))),
        });
    } else if (!font.missingFile && glyph.isInFont !== false && glyph.fontChar !== undefined) {
      put(glyph.fontChar, 0, 0);
      if (glyph.accent) put(glyph.accent.fontChar, size * glyph.accent.offset.x, size * glyph.accent.offset.y);
    }
    pen += step;
  }
  return {
    glyphs: placed,
    words,
    matrix: base,
    dx: isDown ? 0 : pen * state.across * way,
    dy: isDown ? -pen : 0,
  };
}

/** A move between letters wider than this, in thousandths of the size, is a blank. */
const WORD_GAP = 200;

function matrixOfFont({ fontMatrix }: PdfFont): Matrix {
  const [a = THOUSANDTH, b = 0, c = 0, d = THOUSANDTH, e = 0, f = 0] = fontMatrix ?? [];
  return { a, b, c, d, e, f };
}
