/** Fillings of prepared parts, held by content: lines with their cover, tools tried, and the room each tip has. */
import type { StepOf } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { uniteLabelled } from '../geometry/boolean/union';
import { countSegments, type Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import { measureOutlines, type Outline } from '../prepare/outline';
import type { PreparedPart } from '../prepare/part';
import { ResultCache } from '../result-cache';
import { type FillLines, fillLines, type HatchStep } from '../toolpath/fill/fill-lines';
import { type PartFill, partFill, shareFrom } from '../toolpath/fill/part-fill';
import { type Reach, reachOf } from '../toolpath/fill/reach';
import { flatness, type Room, roomOf, rowStep } from '../toolpath/fill/room';
import { widthOf } from '../toolpath/fill/tool';

/** The lines a tool would take, and what it cannot reach. */
export type ToolTry = { readonly lines: FillLines; readonly reach: Reach };

/** Numbers of lines, rings and edges that are held, some eight bytes each. */
const NUMBERS_HELD = 16_000_000;
/** Numbers a segment of a path takes, with what is around them. */
const NUMBERS_PER_SEGMENT = 16;
const ROOMS_HELD = 120;

export class Fillings {
  private readonly fills: ResultCache<PartFill>;
  private readonly tries: ResultCache<ToolTry>;
  private readonly rooms = new ResultCache<Room>(ROOMS_HELD);
  private readonly united = new WeakMap<PreparedPart, readonly Outline[]>();

  /** `serial` tells prepared parts apart by a number; `numbersHeld` is how much is held, of fillings and of tries each. */
  constructor(
    private readonly engine: ClipEngine,
    private readonly serial: (of: object) => number,
    numbersHeld = NUMBERS_HELD,
  ) {
    this.fills = new ResultCache(numbersHeld, (fill) => numbersOf(fill) + fill.rest.xy.length);
    this.tries = new ResultCache(numbersHeld, ({ lines }) => numbersOf(lines));
  }

  /** A part filled; yields the share done. */
  *of(part: PreparedPart, step: HatchStep): Generator<number, PartFill> {
    const key = this.key(part, step);
    const known = this.fills.find(key);
    if (known) return known;
    yield 0.02;
    const room = this.roomOf(part, widthOf(step.tool));
    yield 0.1;
    const fill = yield* shareFrom(partFill(this.engine, this.outlinesOf(part), originOf(part), step, room), 0.1, 1);
    return this.fills.get(key, () => fill);
  }

  /** The lines of a step, and what its tool cannot reach, without their cover; yields the share done. */
  *tried(part: PreparedPart, step: HatchStep): Generator<number, ToolTry> {
    const key = this.key(part, { ...step, on: true, rest: false });
    const known = this.tries.find(key);
    if (known) return known;
    yield 0.02;
    const widthMm = widthOf(step.tool);
    const room = this.roomOf(part, widthMm);
    yield 0.1;
    const lines = yield* shareFrom(fillLines(this.engine, originOf(part), step, room), 0.1, 1);
    const outlines = this.outlinesOf(part);
    const reach = reachOf(outlines, room.reached, rowStep(widthMm, outlines), flatness(widthMm));
    return this.tries.get(key, () => ({ lines, reach }));
  }

  /** What may be left changes what is said of a filling, not the filling. */
  private key(part: PreparedPart, step: StepOf<'hatch'>): string {
    return JSON.stringify([this.serial(part), { ...step, mostMissed: 0 }]);
  }

  private roomOf(part: PreparedPart, widthMm: number): Room {
    return this.rooms.get(`${this.serial(part)}|${widthMm}`, () => roomOf(this.engine, this.outlinesOf(part), widthMm));
  }

  /** What is filled: overlaps that are left in the outlines are filled as one. */
  private outlinesOf(part: PreparedPart): readonly Outline[] {
    if (!part.overlaps) return part.outlines;
    let united = this.united.get(part);
    if (!united) {
      const groups: Path[][] = part.sources.map(() => []);
      for (const { path, labels } of part.outlines) groups[Math.max(0, labels[0] ?? 0)]?.push(path);
      united = measureOutlines(uniteLabelled(this.engine, groups));
      this.united.set(part, united);
    }
    return united;
  }
}

/** How many numbers the lines of a filling take in memory; rings and the pass along the edge are paths, not arrays. */
const numbersOf = ({ strokes, rings, edge }: FillLines): number =>
  strokes.xy.length + NUMBERS_PER_SEGMENT * (countSegments(rings) + countSegments(edge));

/** Lines that fill pass through the first letter's origin, so that they go along with it. */
const originOf = ({ frames }: PreparedPart): Point => ({ x: frames[0]?.matrix.e ?? 0, y: frames[0]?.matrix.f ?? 0 });
