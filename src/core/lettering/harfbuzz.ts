/** HarfBuzz, loaded when first asked for: it shapes text and draws glyphs. */
import type { DrawFuncs, Face, Font } from 'harfbuzzjs';
import { closedPath, type Path } from '../geometry/path';
import { cubic, line, quadratic, type Segment } from '../geometry/segment';
import { LIMITS } from '../limits';

/** HarfBuzz's module, and what glyphs are drawn by. */
export type HarfBuzz = typeof import('harfbuzzjs') & { readonly draw: DrawFuncs };

let loading: Promise<HarfBuzz> | null = null;

/** HarfBuzz; the same every time. */
export function loadHarfBuzz(): Promise<HarfBuzz> {
  loading ??= import('harfbuzzjs').then((hb) => ({ ...hb, draw: drawFuncs(hb) }));
  return loading;
}

/** A record of a face's name table, in English where there is one, up to so many characters; '' where it has none. */
export function nameInFace(face: Face, id: number, most: number = LIMITS.nameCharacters): string {
  const entries = face.listNames().filter((n) => n.nameId === id);
  const entry = entries.find((n) => n.language.startsWith('en')) ?? entries[0];
  return entry ? printable(face.getName(entry.nameId, entry.language), most) : '';
}

/** A name as it can be kept and shown. */
const printable = (name: string, most: number): string =>
  name
    .replace(/[\p{Cc}\ufffd]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, most);

/** The closed outlines of a glyph as they are drawn; contours left open are closed with a line, empty ones dropped. */
class Outlines {
  readonly paths: Path[] = [];
  count = 0;
  private segments: Segment[] = [];
  private x = 0;
  private y = 0;
  private startX = 0;
  private startY = 0;

  moveTo(x: number, y: number): void {
    this.close();
    this.x = this.startX = x;
    this.y = this.startY = y;
  }

  lineTo(x: number, y: number): void {
    if (!this.isHere(x, y)) this.add(line(this.x, this.y, x, y), x, y);
  }

  quadraticTo(cx: number, cy: number, x: number, y: number): void {
    if (!this.isHere(cx, cy, x, y)) this.add(quadratic(this.x, this.y, cx, cy, x, y), x, y);
  }

  cubicTo(...[ax, ay, bx, by, x, y]: [number, number, number, number, number, number]): void {
    if (!this.isHere(ax, ay, bx, by, x, y)) this.add(cubic(this.x, this.y, ax, ay, bx, by, x, y), x, y);
  }

  close(): void {
    const { segments, x, y, startX, startY } = this;
    if (segments.length > 0) {
      if (x !== startX || y !== startY) segments.push(line(x, y, startX, startY));
      this.paths.push(closedPath(segments));
    }
    this.segments = [];
  }

  /** Whether a segment with these points is none: it stays where it begins. */
  private isHere(...points: number[]): boolean {
    return points.every((value, i) => value === (i % 2 === 0 ? this.x : this.y));
  }

  private add(segment: Segment, x: number, y: number): void {
    // What is beyond the limit is only counted.
    if (++this.count <= LIMITS.glyphSegments) this.segments.push(segment);
    this.x = x;
    this.y = y;
  }
}

function drawFuncs(hb: typeof import('harfbuzzjs')): DrawFuncs {
  const draw = new hb.DrawFuncs();
  draw.setMoveToFunc((x, y, to) => (to as Outlines).moveTo(x, y));
  draw.setLineToFunc((x, y, to) => (to as Outlines).lineTo(x, y));
  draw.setQuadraticToFunc((cx, cy, x, y, to) => (to as Outlines).quadraticTo(cx, cy, x, y));
  draw.setCubicToFunc((ax, ay, bx, by, x, y, to) => (to as Outlines).cubicTo(ax, ay, bx, by, x, y));
  draw.setClosePathFunc((to) => (to as Outlines).close());
  return draw;
}

/** The closed outlines of a glyph in font units; null where the face's data of it are broken, or come to too much. */
export function drawnGlyph(hb: HarfBuzz, font: Font, glyph: number): readonly Path[] | null {
  const outlines = new Outlines();
  const isDrawn = font.drawGlyphOrFail(glyph, hb.draw, outlines);
  outlines.close();
  if (!isDrawn || outlines.count > LIMITS.glyphSegments) return null;
  return outlines.paths;
}
