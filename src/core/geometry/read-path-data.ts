/** Paths read from SVG path data (SVG 1.1, 8.3), in one pass over its signs. */
import { beginsNumber, DecimalReader } from '../units/read-decimal';
import type { Path } from './path';
import { compose, type Matrix, rotation, scaling, translation } from './point';
import {
  arcAbout,
  arcBetween,
  cubic,
  line,
  quadratic,
  type Segment,
  transformSegment,
  WIDEST_BY_ENDS,
  withEnds,
} from './segment';

/** What path data gives; `damaged` where it was not read to its end. */
export type ReadPaths = { readonly paths: readonly Path[]; readonly damaged: boolean };

/** Path data; a fault in it ends it there, what came before is drawn (SVG 1.1, F.2). */
export function pathOf(data: string): ReadPaths {
  const drawn = new Drawn();
  const damaged = !new PathReader(data, drawn).read();
  return { paths: drawn.done(), damaged };
}

/** Paths as they are drawn, segment by segment. */
class Drawn {
  private readonly paths: Path[] = [];
  private segments: Segment[] = [];
  private startX = 0;
  private startY = 0;
  x = 0;
  y = 0;

  move(x: number, y: number): void {
    this.finish(false);
    this.startX = x;
    this.startY = y;
    this.x = x;
    this.y = y;
  }

  add(s: Segment): void {
    if (!isPoint(s)) this.segments.push(s);
    this.x = s.x1;
    this.y = s.y1;
  }

  close(): void {
    const { startX, startY } = this;
    if (this.x !== startX || this.y !== startY) this.add(line(this.x, this.y, startX, startY));
    this.finish(true);
    this.x = startX;
    this.y = startY;
  }

  done(): readonly Path[] {
    this.finish(false);
    return this.paths;
  }

  private finish(closed: boolean): void {
    if (this.segments.length === 0) return;
    this.paths.push({ segments: this.segments, closed });
    this.segments = [];
  }
}

/** Numbers that each command takes, by its small letter. */
const TAKES: Readonly<Record<string, number>> = { m: 2, z: 0, l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, a: 7 };
const MOST_TAKEN = 7;
const LETTERS = 128;
/** The same by the code of the letter; -1 for those that are no command. */
const TAKES_BY_CODE = Int8Array.from({ length: LETTERS }, (_, code) => TAKES[String.fromCharCode(code)] ?? -1);
/** What a capital lacks to its small letter. */
const SMALL = 32;

const [ZERO, COMMA] = [48, 44];
const [M, L, H, V, C, S, Q, T, A] = [...'mlhvcsqta'].map((letter) => letter.charCodeAt(0));

class PathReader {
  private at = 0;
  private readonly decimals = new DecimalReader();
  private readonly n = new Float64Array(MOST_TAKEN);
  /** Control points that a smooth curve goes on from: of a cubic or a quadratic before it, else where the pen is. */
  private cubicX = 0;
  private cubicY = 0;
  private quadraticX = 0;
  private quadraticY = 0;

  constructor(
    private readonly data: string,
    private readonly drawn: Drawn,
  ) {}

  /** Draws all there is; false where it breaks off. */
  read(): boolean {
    const { data } = this;
    this.skipSpace();
    let isFirst = true;
    while (this.at < data.length) {
      const letter = data.charCodeAt(this.at);
      const command = letter | SMALL;
      const takes = TAKES_BY_CODE[letter < LETTERS ? command : 0] as number;
      if (takes < 0 || (isFirst && command !== M)) return false;
      this.at++;
      this.skipSpace();
      if (takes === 0) {
        this.drawn.close();
        this.settle();
      } else if (!this.all(command, letter === command, takes)) return false;
      isFirst = false;
    }
    return true;
  }

  /** All that one command draws, whose numbers may come again and again. */
  private all(given: number, isRelative: boolean, takes: number): boolean {
    let command = given;
    for (;;) {
      for (let i = 0; i < takes; i++) {
        const value = command === A && (i === 3 || i === 4) ? this.flag() : this.number();
        if (Number.isNaN(value)) return false;
        this.n[i] = value;
        this.skipSpace();
        if (this.data.charCodeAt(this.at) === COMMA) {
          this.at++;
          this.skipSpace();
          // After a comma a number must follow.
          if (i === takes - 1 && !this.startsNumber()) {
            this.draw(command, isRelative);
            return false;
          }
        }
      }
      this.draw(command, isRelative);
      // More pairs of a move are lines.
      if (command === M) command = L as number;
      if (!this.startsNumber()) return true;
    }
  }

  private draw(command: number, isRelative: boolean): void {
    const { n, drawn } = this;
    const { x, y } = drawn;
    const [dx, dy] = isRelative ? [x, y] : [0, 0];
    const px = (n[0] as number) + dx;
    const py = (n[1] as number) + dy;
    switch (command) {
      case M:
        drawn.move(px, py);
        break;
      case L:
        drawn.add(line(x, y, px, py));
        break;
      case H:
        drawn.add(line(x, y, px, y));
        break;
      case V:
        drawn.add(line(x, y, x, (n[0] as number) + dy));
        break;
      case Q:
        this.quadratic(px, py, (n[2] as number) + dx, (n[3] as number) + dy);
        return;
      case T:
        this.quadratic(2 * x - this.quadraticX, 2 * y - this.quadraticY, px, py);
        return;
      case C:
        this.cubic(px, py, (n[2] as number) + dx, (n[3] as number) + dy, (n[4] as number) + dx, (n[5] as number) + dy);
        return;
      case S:
        this.cubic(2 * x - this.cubicX, 2 * y - this.cubicY, px, py, (n[2] as number) + dx, (n[3] as number) + dy);
        return;
      case A: {
        const [rx, ry, turn, large, clockwise] = n as unknown as [number, number, number, number, number];
        const [toX, toY] = [(n[5] as number) + dx, (n[6] as number) + dy];
        for (const piece of ellipticalArc(x, y, rx, ry, turn, large !== 0, clockwise !== 0, toX, toY)) drawn.add(piece);
        drawn.x = toX;
        drawn.y = toY;
      }
    }
    this.settle();
  }

  private cubic(ax: number, ay: number, bx: number, by: number, x1: number, y1: number): void {
    this.drawn.add(cubic(this.drawn.x, this.drawn.y, ax, ay, bx, by, x1, y1));
    this.settle();
    this.cubicX = bx;
    this.cubicY = by;
  }

  private quadratic(ax: number, ay: number, x1: number, y1: number): void {
    this.drawn.add(quadratic(this.drawn.x, this.drawn.y, ax, ay, x1, y1));
    this.settle();
    this.quadraticX = ax;
    this.quadraticY = ay;
  }

  /** What was drawn last has no control point that a smooth curve goes on from. */
  private settle(): void {
    const { x, y } = this.drawn;
    this.cubicX = x;
    this.cubicY = y;
    this.quadraticX = x;
    this.quadraticY = y;
  }

  private skipSpace(): void {
    for (; this.at < this.data.length; this.at++) if (!isSpace(this.data.charCodeAt(this.at))) return;
  }

  private startsNumber(): boolean {
    return beginsNumber(this.data.charCodeAt(this.at));
  }

  /** A flag of an arc, which needs nothing after it; NaN where there is none. */
  private flag(): number {
    const sign = this.data.charCodeAt(this.at);
    if (sign !== ZERO && sign !== ZERO + 1) return Number.NaN;
    this.at++;
    return sign - ZERO;
  }

  /** A number; NaN where there is none. */
  private number(): number {
    const value = this.decimals.read(this.data, this.at);
    this.at = this.decimals.end;
    return value;
  }
}

/** Blanks as path data has them; and those of other scripts, which come in by way of word processors. */
const isSpace = (sign: number): boolean =>
  sign === 32 || (sign >= 9 && sign <= 13) || (sign >= 160 && /\s/.test(String.fromCharCode(sign)));

function isPoint(s: Segment): boolean {
  if (s.x0 !== s.x1 || s.y0 !== s.y1) return false;
  if (s.kind === 'line') return true;
  if (s.kind === 'arc') return s.sweep === 0;
  const still = s.ax === s.x0 && s.ay === s.y0;
  return s.kind === 'quadratic' ? still : still && s.bx === s.x0 && s.by === s.y0;
}

/** An arc by its ends (SVG 1.1, F.6.5): one true arc on a circle, cubics on an ellipse. */
function ellipticalArc(
  x0: number,
  y0: number,
  radiusX: number,
  radiusY: number,
  turn: number,
  large: boolean,
  clockwise: boolean,
  x1: number,
  y1: number,
): readonly Segment[] {
  let [rx, ry] = [Math.abs(radiusX), Math.abs(radiusY)];
  if (x0 === x1 && y0 === y1) return [];
  if (rx === 0 || ry === 0) return [line(x0, y0, x1, y1)];
  const angle = rx === ry ? 0 : turn;
  const phi = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const hx = (cos * (x0 - x1) + sin * (y0 - y1)) / 2;
  const hy = (-sin * (x0 - x1) + cos * (y0 - y1)) / 2;
  const reach = (hx / rx) ** 2 + (hy / ry) ** 2;
  if (reach > 1) {
    rx *= Math.sqrt(reach);
    ry *= Math.sqrt(reach);
  }
  const [ux, uy] = [hx / rx, hy / ry];
  const apart = ux * ux + uy * uy;
  const k = (large === clockwise ? -1 : 1) * Math.sqrt(Math.max(0, 1 - apart) / apart);
  // Centre on the unit circle's axes.
  const [cx, cy] = [k * uy, -k * ux];
  const from = Math.atan2(uy - cy, ux - cx);
  let sweep = Math.atan2(-uy - cy, -ux - cx) - from;
  if (clockwise && sweep < 0) sweep += 2 * Math.PI;
  if (!clockwise && sweep > 0) sweep -= 2 * Math.PI;
  if (sweep === 0) return [line(x0, y0, x1, y1)];
  if (rx === ry && Math.abs(sweep) <= WIDEST_BY_ENDS) return [arcBetween({ x: x0, y: y0 }, { x: x1, y: y1 }, sweep)];
  const ellipseMatrix: Matrix = compose(scaling(rx, ry), rotation(angle));
  const middle = { x: (x0 + x1) / 2 + cos * cx * rx - sin * cy * ry, y: (y0 + y1) / 2 + sin * cx * rx + cos * cy * ry };
  const pieces = transformSegment(
    arcAbout(0, 0, 1, from, sweep),
    compose(ellipseMatrix, translation(middle.x, middle.y)),
  );
  return pieces.map((piece, i) =>
    withEnds(
      piece,
      i === 0 ? { x: x0, y: y0 } : { x: piece.x0, y: piece.y0 },
      i === pieces.length - 1 ? { x: x1, y: y1 } : { x: piece.x1, y: piece.y1 },
    ),
  );
}
