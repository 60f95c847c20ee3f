/** A page of paper that is written on from above downwards: words, lines, tables, drawings. In mm, 0, 0 at its lower left corner. */
import type { Drawing, Layer } from '../formats/drawing';
import { type Drawable, polyline } from '../geometry/drawable';
import { type Path, pathArea, regionBox, transformPath } from '../geometry/path';
import { translation } from '../geometry/point';
import { line } from '../geometry/segment';
import { brokenLines, type PaperFaces, wordOutlines } from './words';

/** Sizes of paper in mm. */
export const PAPERS = { a4: { width: 210, height: 297 }, letter: { width: 215.9, height: 279.4 } } as const;
/** A size of paper. */
export type PaperSize = { readonly width: number; readonly height: number };

/** The colour of what is read. */
export const INK = '#1F2A30';
/** The colour of what stands beside it. */
export const MUTED = '#5F6B72';
/** The colour of lines that part. */
const RULE = '#CFCABF';

/** Of letters so high a line is so many times as high. */
const LEADING = 1.35;

/** One page being written. */
export class Page {
  private readonly layers = new Map<string, Drawable[]>();

  constructor(
    readonly size: PaperSize,
    private readonly faces: PaperFaces,
  ) {}

  /** What is filled, in a colour. */
  fill(paths: readonly Path[], colour: string): void {
    if (paths.length === 0) return;
    const areaMm2 = paths.reduce((sum, p) => sum + pathArea(p), 0);
    this.on(colour).push({ kind: 'area', paths, box: regionBox(paths), areaMm2 });
  }

  /** A line along a path, in a colour. */
  stroke(path: Path, colour: string): void {
    if (path.segments.length > 0) this.on(colour).push(polyline(path));
  }

  /** A straight line. */
  rule(x0: number, y0: number, x1: number, y1: number, colour = RULE): void {
    this.stroke({ closed: false, segments: [line(x0, y0, x1, y1)] }, colour);
  }

  /** A filled rectangle from its lower left corner. */
  bar(x: number, y: number, width: number, height: number, colour: string): void {
    const corners = [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ] as const;
    const segments = corners.map(([x0, y0], i) => line(x0, y0, ...(corners[(i + 1) % 4] as readonly [number, number])));
    this.fill([{ closed: true, segments }], colour);
  }

  /** One line of words from x on, its baseline at y; gives how far it reaches. */
  words(
    text: string,
    x: number,
    y: number,
    { size = 3.4, bold = false, colour = INK, align = 'left' }: WordsLook = {},
  ): number {
    const set = wordOutlines(bold ? this.faces.bold : this.faces.plain, text, size);
    const from = align === 'left' ? x : align === 'right' ? x - set.widthMm : x - set.widthMm / 2;
    this.fill(
      set.paths.map((p) => transformPath(p, translation(from, y))),
      colour,
    );
    return from + set.widthMm;
  }

  /** Words in lines no wider than so many mm, from a baseline downwards; gives the baseline of the next. */
  block(text: string, x: number, y: number, mostMm: number, look: WordsLook = {}): number {
    const { size = 3.4, bold = false } = look;
    let at = y;
    for (const words of brokenLines(bold ? this.faces.bold : this.faces.plain, text, size, mostMm)) {
      this.words(words, x, at, look);
      at -= LEADING * size;
    }
    return at;
  }

  /** The page as it is written. */
  drawing(title: string): Drawing {
    return {
      title,
      width: this.size.width,
      height: this.size.height,
      layers: [...this.layers].map(
        ([colour, drawn], i): Layer => ({
          name: `${i + 1}`,
          kind: 'mark',
          colour,
          tolerance: 0.02,
          scan: null,
          pen: 1,
          drawn,
        }),
      ),
    };
  }

  private on(colour: string): Drawable[] {
    const drawn = this.layers.get(colour) ?? [];
    this.layers.set(colour, drawn);
    return drawn;
  }
}

/** How words look: their height in mm, weight, colour, and to which side of their place they stand. */
export type WordsLook = {
  readonly size?: number;
  readonly bold?: boolean;
  readonly colour?: string;
  readonly align?: 'left' | 'middle' | 'right';
};
