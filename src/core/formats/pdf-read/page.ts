/**
 * What a page of a PDF draws, from its list of operators: lines, fills, clips, colours, layers, letters as outlines. Operators as in the
 * published PDF reference, in the form pdf.js has them.
 */
import { transformPath } from '../../geometry/path';
import { applyMatrix, compose, determinant, type Matrix, scaling } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { type Finder, ReadingStops, type ReadProgress, type ReadStroke } from '../read-drawing';
import { placedImage, rasterOf } from './image';
import { pathsOf } from './paths';
import { type GraphicsState, initialState, matrixOf, type Operators, type PdfFont } from './state';
import { glyphRun, type PdfGlyph } from './text';

/** Height of a capital as a share of the size, where the typeface itself is not at hand. */
const CAPITAL_SHARE = 0.7;
/** Lines of no width are drawn as thin as can be; this one is, in mm. */
const HAIRLINE_MM = 0.1;
/** Lines are as wide whatever their way within this share. */
const EVEN = 0.01;
/** Progress is told every so many operators. */
const OPERATORS_TOLD = 5_000;
/** Invisible, as words under a scanned page are. */
const INVISIBLE = 3;

/** What a page reader asks of the file. */
export type PageSource = {
  readonly mmPerUnit: number;
  /** Left, bottom, right and top of what is shown, in the page's numbers. */
  readonly box: readonly [number, number, number, number];
  /** Degrees the page is turned by when shown, clockwise. */
  readonly turn: number;
  readonly isVisible: (group: unknown) => boolean;
  readonly layerName: (id: string) => string;
  /** Fonts and outlines of letters by name; null where there is none. */
  readonly shared: (id: string) => unknown;
  /** Unpacked pictures by name; null where there is none. */
  readonly image: (id: string) => unknown;
};

type Ops = Readonly<Record<string, number>>;

/** What an operator does, with its arguments. */
// biome-ignore lint/suspicious/noExplicitAny: each operator has arguments of its own
type Handler = (...args: any[]) => void;

/** A stretch of marked content: the layer it is on, and whether that is shown. */
type Marked = { readonly layer: string | null; readonly isShown: boolean };

/** How a path is painted by an operator: its lines, its inside by a rule, and whether it is closed first. */
type Painting = {
  readonly isStroked: boolean;
  readonly rule: 'nonzero' | 'evenodd' | null;
  readonly isClosed: boolean;
};

const painting = (isStroked: boolean, rule: Painting['rule'], isClosed = false): Painting => ({
  isStroked,
  rule,
  isClosed,
});

/** From the page as shown, its lower left corner at 0, 0, to mm. */
function pageMatrix({ box: [x0, y0, x1, y1], turn, mmPerUnit }: PageSource): Matrix {
  const quarter = (((Math.round(turn / 90) % 4) + 4) % 4) as 0 | 1 | 2 | 3;
  const turned: Matrix = (
    [
      { a: 1, b: 0, c: 0, d: 1, e: -x0, f: -y0 },
      { a: 0, b: -1, c: 1, d: 0, e: -y0, f: x1 },
      { a: -1, b: 0, c: 0, d: -1, e: x1, f: y1 },
      { a: 0, b: 1, c: -1, d: 0, e: y1, f: -x0 },
    ] as const
  )[quarter];
  return compose(turned, scaling(mmPerUnit));
}

/** Reads pages of a file into a finder. */
export class PageReader {
  private state: GraphicsState;
  private readonly saved: GraphicsState[] = [];
  private readonly marked: Marked[] = [];
  /** How deep in groups that only mask others. */
  private masks = 0;
  private readonly groups: boolean[] = [];
  private clipRule: 'nonzero' | 'evenodd' | null = null;
  private textMatrix: Matrix = matrixOf(null);
  private lineMatrix: Matrix = this.textMatrix;
  private pen = { x: 0, y: 0 };
  private lineStart = this.pen;
  private depth = 0;
  private ran = 0;
  private readonly paintings: ReadonlyMap<number, Painting>;
  private readonly handlers: ReadonlyMap<number, Handler>;
  readonly page: { readonly width: number; readonly height: number };

  constructor(
    readonly finder: Finder,
    ops: Ops,
    private readonly source: PageSource,
  ) {
    this.state = initialState(pageMatrix(source));
    const [x0, y0, x1, y1] = source.box;
    const [across, up] = [(x1 - x0) * source.mmPerUnit, (y1 - y0) * source.mmPerUnit];
    this.page = source.turn % 180 === 0 ? { width: across, height: up } : { width: up, height: across };
    const named = <T>(entries: Readonly<Record<string, T>>) =>
      new Map(
        Object.entries(entries).flatMap(([name, value]) => (ops[name] === undefined ? [] : [[ops[name], value]])),
      );
    this.paintings = named({
      stroke: painting(true, null),
      closeStroke: painting(true, null, true),
      fill: painting(false, 'nonzero'),
      eoFill: painting(false, 'evenodd'),
      fillStroke: painting(true, 'nonzero'),
      eoFillStroke: painting(true, 'evenodd'),
      closeFillStroke: painting(true, 'nonzero', true),
      closeEOFillStroke: painting(true, 'evenodd', true),
      rawFillPath: painting(false, 'nonzero'),
      endPath: painting(false, null),
    });
    this.handlers = named(this.all());
  }

  /** Runs a list of operators. Throws `ReadingStops` where a limit is met. */
  run({ fnArray, argsArray }: Operators, progress: ReadProgress = () => {}): void {
    if (++this.depth > LIMITS.drawnDepth)
      throw new ReadingStops('Letters of this page draw themselves; what comes after them was left out.');
    for (let i = 0; i < fnArray.length; i++) {
      if (this.depth === 1 && i % OPERATORS_TOLD === 0) progress(i / fnArray.length);
      // Letters may be made of letters, which grows fast.
      if (++this.ran > 2 * LIMITS.pageOperators)
        throw new ReadingStops(
          'Letters of this page are drawn by far too many others; what comes after them was left out.',
        );
      this.handlers.get(fnArray[i] as number)?.(...(argsArray[i] ?? []));
    }
    this.depth--;
  }

  private all(): Readonly<Record<string, Handler>> {
    const set = (part: Partial<GraphicsState>) => {
      this.state = { ...this.state, ...part };
    };
    const number = (key: keyof GraphicsState) => (value: unknown) => set({ [key]: Number(value) || 0 });
    const pictures =
      (count: (...args: ArrayLike<unknown>[]) => number = () => 1): Handler =>
      (...args) => {
        if (this.isShown()) this.finder.unread('pictures', count(...args));
      };
    const setters = {
      setLineWidth: number('lineWidth'),
      setMiterLimit: number('miter'),
      setCharSpacing: number('letterSpacing'),
      setWordSpacing: number('wordSpacing'),
      setTextRise: number('rise'),
      setTextRenderingMode: number('textMode'),
      setLineCap: (cap: number) => set({ cap: (['butt', 'round', 'square'] as const)[cap] ?? 'butt' }),
      setLineJoin: (join: number) => set({ join: (['miter', 'round', 'bevel'] as const)[join] ?? 'miter' }),
      setDash: (dashes: ArrayLike<number> | null, offset: number) =>
        set({ dashes: Array.from(dashes ?? []).slice(0, LIMITS.dashes), dashOffset: Number(offset) || 0 }),
      setHScale: (share: number) => set({ across: share / 100 }),
      setLeading: (leading: number) => set({ leading: -leading }),
      setFont: (name: string, size: number) =>
        set({ font: this.source.shared(name) as PdfFont | null, fontSize: size }),
      setFillRGBColor: (colour: unknown) => set({ fill: colourOf(colour) }),
      setStrokeRGBColor: (colour: unknown) => set({ stroke: colourOf(colour) }),
      setFillTransparent: () => set({ fill: null }),
      setStrokeTransparent: () => set({ stroke: null }),
      setFillColorN: () => this.plain('fill'),
      setStrokeColorN: () => this.plain('stroke'),
    };
    return {
      ...setters,
      setGState: (entries: readonly (readonly [string, unknown])[]) => {
        for (const [key, value] of entries) this.setting(key, value, setters);
      },
      save: () => this.saved.push(this.state),
      restore: () => this.restore(),
      transform: (...numbers: number[]) => set({ matrix: compose(matrixOf(numbers), this.state.matrix) }),
      clip: () => {
        this.clipRule = 'nonzero';
      },
      eoClip: () => {
        this.clipRule = 'evenodd';
      },
      constructPath: (op: number, data: readonly [ArrayLike<number> | null]) => this.path(op, data[0] ?? []),
      paintFormXObjectBegin: (matrix: number[] | null, box: number[] | null) => {
        this.saved.push(this.state);
        set({ matrix: compose(matrixOf(matrix), this.state.matrix) });
        if (box && box.length >= 4) this.clipTo(rectangleRow(box), 'nonzero');
      },
      paintFormXObjectEnd: () => this.restore(),
      beginGroup: (group: { smask?: unknown } | undefined) => {
        const isMask = Boolean(group?.smask);
        if (isMask && this.isShown()) this.finder.unread('soft masks');
        this.groups.push(isMask);
        if (isMask) this.masks++;
        this.saved.push(this.state);
      },
      endGroup: () => {
        if (this.groups.pop()) this.masks--;
        this.restore();
      },
      beginMarkedContent: () => this.marked.push({ layer: null, isShown: true }),
      beginMarkedContentProps: (tag: string, group: { id?: string; ids?: string[] } | null) => {
        const id = tag === 'OC' ? (group?.id ?? group?.ids?.[0]) : undefined;
        this.marked.push({
          layer: id === undefined ? null : this.source.layerName(id),
          isShown: tag !== 'OC' || this.source.isVisible(group),
        });
      },
      endMarkedContent: () => this.marked.pop(),
      beginText: () => this.placeText(matrixOf(null)),
      // As six numbers, or as one row of them.
      setTextMatrix: (...args: (number | ArrayLike<number>)[]) =>
        this.placeText(matrixOf(typeof args[0] === 'number' ? (args as number[]) : args[0])),
      moveText: (x: number, y: number) => this.moveText(x, y),
      setLeadingMoveText: (x: number, y: number) => {
        set({ leading: y });
        this.moveText(x, y);
      },
      nextLine: () => this.moveText(0, this.state.leading),
      showText: (glyphs: readonly (PdfGlyph | number)[]) => this.write(glyphs),
      shadingFill: () => {
        if (this.isShown()) this.finder.unread('shades of colour');
      },
      paintImageXObject: (id: string) => this.image(this.source.image(id)),
      paintInlineImageXObject: (image: unknown) => this.image(image),
      paintImageMaskXObject: pictures(),
      paintSolidColorImageMask: pictures(),
      paintImageXObjectRepeat: pictures(),
      paintImageMaskXObjectRepeat: pictures(),
      paintInlineImageXObjectGroup: pictures((_, list) => list?.length ?? 1),
      paintImageMaskXObjectGroup: pictures((list) => list?.length ?? 1),
    };
  }

  /** An entry of an extended graphics state. */
  private setting(key: string, value: unknown, setters: Readonly<Record<string, Handler>>): void {
    const setter = { LW: 'setLineWidth', LC: 'setLineCap', LJ: 'setLineJoin', ML: 'setMiterLimit' }[key];
    if (setter) setters[setter]?.(value);
    else if (key === 'D' || key === 'Font') setters[key === 'D' ? 'setDash' : 'setFont']?.(...(value as unknown[]));
    else if (key === 'CA') this.state = { ...this.state, strokeAlpha: Number(value) };
    else if (key === 'ca') this.state = { ...this.state, fillAlpha: Number(value) };
  }

  private image(image: unknown): void {
    if (!this.isShown()) return;
    const raster = rasterOf(image);
    const picture = raster && placedImage(raster, this.state.matrix);
    if (picture) this.finder.picture(picture);
    else this.finder.unread(raster ? 'pictures that are stretched or slanted' : 'pictures');
  }

  private restore(): void {
    this.state = this.saved.pop() ?? this.state;
  }

  private plain(what: 'fill' | 'stroke'): void {
    if (this.isShown()) this.finder.unread('patterns, read as plain colour');
    this.state = { ...this.state, [what]: '#000000' };
  }

  private isShown(): boolean {
    return this.masks === 0 && this.marked.every((m) => m.isShown);
  }

  private layer(): string {
    return this.marked.findLast((m) => m.layer !== null)?.layer ?? '';
  }

  private path(op: number, row: ArrayLike<number>): void {
    const how = this.paintings.get(op);
    const rule = this.clipRule;
    this.clipRule = null;
    if (how && (how.isStroked || how.rule)) this.paint(row, how);
    if (rule) this.clipTo(row, rule);
  }

  private clipTo(row: ArrayLike<number>, rule: 'nonzero' | 'evenodd'): void {
    const paths = this.finder.sound(pathsOf(row, true).map((p) => transformPath(p, this.state.matrix)));
    const clips = [...this.state.clips, this.finder.clips.length];
    this.finder.clips.push([{ paths, rule, clips: [] }]);
    this.state = { ...this.state, clips };
  }

  /** Paints paths in their own numbers. */
  private paint(row: ArrayLike<number>, how: Painting, matrix = this.state.matrix): void {
    const { state } = this;
    const stroke = how.isStroked && state.strokeAlpha > 0 ? this.strokeOf(matrix) : null;
    const colour = how.rule && state.fillAlpha > 0 ? state.fill : null;
    const fill = colour && how.rule ? { colour, rule: how.rule } : null;
    if (!fill && !stroke) return;
    if (!this.isShown()) {
      if (this.masks === 0) this.finder.unread('shapes that are switched off');
      return;
    }
    const paths = pathsOf(row, how.isClosed || !stroke).map((p) => transformPath(p, matrix));
    if (paths.length === 0) {
      const [x, y] = [Number(row[1]), Number(row[2])];
      if (stroke && row.length > 0)
        this.finder.point(applyMatrix(matrix, { x, y }), { name: this.layer(), colour: stroke.colour });
      return;
    }
    this.tellSimplified(fill !== null, stroke !== null, matrix);
    const group = this.finder.groupOf(this.layer(), stroke?.colour ?? (colour as string), fill !== null);
    this.finder.shape({ paths, group, fill, stroke, clips: state.clips });
  }

  /** What is read more simply than it looks. */
  private tellSimplified(isFilled: boolean, isStroked: boolean, { a, b, c, d }: Matrix): void {
    const { fillAlpha, strokeAlpha } = this.state;
    if ((isFilled && fillAlpha < 1) || (isStroked && strokeAlpha < 1))
      this.finder.unread('see-through colours, read as full ones');
    const [across, up] = [Math.hypot(a, b), Math.hypot(c, d)];
    const isEven = Math.abs(across - up) <= EVEN * across && Math.abs(a * c + b * d) <= EVEN * across * up;
    if (isStroked && !isEven) this.finder.unread('lines wider one way than the other, read as of one width');
  }

  private strokeOf(matrix: Matrix): ReadStroke | null {
    const { stroke, lineWidth, cap, join, miter, dashes, dashOffset } = this.state;
    if (stroke === null) return null;
    const scale = Math.sqrt(Math.abs(determinant(matrix)));
    return {
      colour: stroke,
      widthMm: lineWidth * scale || HAIRLINE_MM,
      cap,
      join,
      miter,
      dashesMm: dashes.map((mm) => mm * scale),
      dashOffsetMm: dashOffset * scale,
    };
  }

  private placeText(matrix: Matrix): void {
    this.textMatrix = matrix;
    this.lineMatrix = matrix;
    this.pen = { x: 0, y: 0 };
    this.lineStart = { x: 0, y: 0 };
  }

  private moveText(x: number, y: number): void {
    this.lineStart = { x: this.lineStart.x + x, y: this.lineStart.y + y };
    this.pen = this.lineStart;
    this.textMatrix = this.lineMatrix;
  }

  private write(glyphs: readonly (PdfGlyph | number)[]): void {
    const { state } = this;
    if (!state.font || state.fontSize === 0) return;
    const run = glyphRun(state, glyphs, this.textMatrix, this.pen);
    this.pen = { x: this.pen.x + run.dx, y: this.pen.y + run.dy };
    if (run.words.trim() === '' && run.glyphs.length === 0) return;
    const mode = state.textMode % 4;
    if (mode === INVISIBLE) {
      if (state.textMode === INVISIBLE) this.finder.unread('words that are not shown');
      return;
    }
    if (state.font.missingFile) {
      this.setAnew(run.words, run.matrix);
      return;
    }
    const how = painting(mode === 1 || mode === 2, mode === 1 ? null : 'nonzero');
    for (const glyph of run.glyphs)
      if (glyph.kind === 'drawn') this.drawLetter(glyph.operators, glyph.matrix);
      else {
        const outline = this.source.shared(glyph.path) as { readonly path?: ArrayLike<number> } | null;
        if (outline?.path) this.letter(outline.path, how, glyph.matrix);
      }
  }

  /** The outlines of a letter, which are closed whatever they are painted with. */
  private letter(row: ArrayLike<number>, how: Painting, matrix: Matrix): void {
    if (row.length === 0) return;
    const { fontSize, lineWidth } = this.state;
    // Lines around letters are as wide as lines elsewhere.
    const within = this.state;
    this.state = { ...within, lineWidth: lineWidth / Math.abs(fontSize) };
    this.paint(row, { ...how, isClosed: true }, matrix);
    this.state = within;
  }

  /** A letter of a font whose letters are drawn by operators. */
  private drawLetter(operators: Operators, matrix: Matrix): void {
    const [before, text, line, pen, start] = [this.state, this.textMatrix, this.lineMatrix, this.pen, this.lineStart];
    const depth = this.saved.length;
    this.state = { ...before, matrix };
    this.run(operators);
    this.saved.length = Math.min(this.saved.length, depth);
    [this.state, this.textMatrix, this.lineMatrix, this.pen, this.lineStart] = [before, text, line, pen, start];
  }

  /** Words whose typeface is not in the file. */
  private setAnew(words: string, matrix: Matrix): void {
    const { font, fontSize, fill, stroke } = this.state;
    const colour = fill ?? stroke;
    if (!this.isShown() || words.trim() === '' || colour === null) return;
    this.finder.text({
      text: words.trim(),
      matrix,
      capitalMm: Math.abs(fontSize) * CAPITAL_SHARE,
      align: 'left',
      face: (font?.name ?? '').replace(/^[A-Z]{6}\+/, '').replace(/[-,].*$/, ''),
      bold: font?.bold === true || font?.black === true,
      italic: font?.italic === true,
      group: this.finder.groupOf(this.layer(), colour, true),
    });
  }
}

const rectangleRow = ([x0, y0, x1, y1]: readonly number[]): number[] =>
  [0, x0, y0, 1, x1, y0, 1, x1, y1, 1, x0, y1, 4].map((n) => n ?? 0);

/** "#rrggbb" as pdf.js has it; black for what is none. */
const colourOf = (colour: unknown): string =>
  typeof colour === 'string' && /^#[0-9a-f]{6}$/i.test(colour) ? colour.toLowerCase() : '#000000';
