/** Words of plotter files (LB): how large, which way and from where they are written. As in the published HP-GL/2 reference. */
import type { Point } from '../../geometry/point';
import type { ReadText } from '../read-drawing';

const MM_PER_CM = 10;
/** Width of a letter and height of a capital where a file names none, in cm. */
const USUAL_CM = [0.19, 0.27] as const;
/** From letter to letter and from line to line, in widths and heights. */
const ACROSS = 1.5;
const DOWN = 2;

/** What a file has said so far of its words. */
export class LabelWriter {
  private widthMm: number = USUAL_CM[0] * MM_PER_CM;
  private heightMm: number = USUAL_CM[1] * MM_PER_CM;
  private angle = 0;
  private origin = 1;

  /** SI: size in cm. */
  sizeCm([width = USUAL_CM[0], height = USUAL_CM[1]]: readonly number[]): void {
    this.widthMm = Math.abs(width) * MM_PER_CM;
    this.heightMm = Math.abs(height) * MM_PER_CM;
  }

  /** SR: size in per cent of what lies between the plotter’s points. */
  sizeShare([width = 0.75, height = 1.5]: readonly number[], across: Point): void {
    this.widthMm = Math.abs((width / 100) * across.x);
    this.heightMm = Math.abs((height / 100) * across.y);
  }

  /** DI and DR: which way, as a run and a rise. */
  direction(run: number, rise: number): void {
    if (run !== 0 || rise !== 0) this.angle = Math.atan2(rise, run);
  }

  /** LO: which place of the words is at the pen, 1 to 9, 11 to 19. */
  place(number: number): void {
    if (number % 10 >= 1 && number >= 1 && number < 20) this.origin = Math.floor(number % 10);
  }

  /** CP: so many letters along and lines up from a place, or to the start of the next line where that is null. */
  moved(by: Point | null, at: Point, margin: Point, turn: number): Point {
    const [cos, sin] = [Math.cos(this.angle + turn), Math.sin(this.angle + turn)];
    const [along, up] = by ? [by.x * ACROSS * this.widthMm, by.y * DOWN * this.heightMm] : [0, -DOWN * this.heightMm];
    const from = by ? at : margin;
    return { x: from.x + along * cos - up * sin, y: from.y + along * sin + up * cos };
  }

  /** The lines of a label written at a place in mm, and where the pen is afterwards. `turn` is that of the whole drawing, in radians. */
  write(
    words: string,
    at: Point,
    turn: number,
  ): { readonly lines: readonly Omit<ReadText, 'group'>[]; readonly end: Point } {
    const [cos, sin] = [Math.cos(this.angle + turn), Math.sin(this.angle + turn)];
    const moved = (from: Point, along: number, up: number): Point => ({
      x: from.x + along * cos - up * sin,
      y: from.y + along * sin + up * cos,
    });
    const align = (['left', 'centre', 'right'] as const)[Math.floor((this.origin - 1) / 3)] ?? 'left';
    const low = [0, this.heightMm / 2, this.heightMm][(this.origin - 1) % 3] ?? 0;
    const rows = words.replace(/[^\P{Cc}\r\n]/gu, '').split(/\r?\n|\r/);
    const lines = rows.flatMap((text, row) => {
      if (text.trim() === '') return [];
      const { x, y } = moved(at, 0, -low - row * DOWN * this.heightMm);
      const matrix = { a: cos, b: sin, c: -sin, d: cos, e: x, f: y };
      return [{ text: text.trimEnd(), matrix, capitalMm: this.heightMm, align, face: '', bold: false, italic: false }];
    });
    const last = rows.at(-1) ?? '';
    return { lines, end: moved(at, last.length * ACROSS * this.widthMm, -(rows.length - 1) * DOWN * this.heightMm) };
  }
}
