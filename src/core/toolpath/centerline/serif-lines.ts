/**
 * Serifs drawn as strokes: one from tip to tip that the line of the stem ends on, or, where a stem has a serif on one side alone,
 * one that the line of the stem turns into in a corner.
 */

import { isOnAnother, lineEnd, nearestOnLines } from '../../geometry/near-lines';
import { type OnPath, type Path, pathLength, reversePath } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { line, pointAt, quadratic, type Segment, subSegment, tangentAt, withEnds } from '../../geometry/segment';
import { crossingNear, segmentLength } from '../../geometry/segment-measures';
import type { SerifStroke } from './serifs';

/** The line of a stem is looked at this far back from its end, in heights of the serif and strokes of the letter. */
const BACK_HEIGHTS = 2;
const BACK_WIDTHS = 0.8;
/** A stroke that is bent by less than this share of its length is straight. */
const STRAIGHT = 0.004;
/** A line is looked at in pieces this long at least, of each of its segments. */
const PIECES = 12;

/** The segments of a stroke: bent where its edge is; one that belongs to one side of a stem goes on straight. */
function strokeOf({ points: [a, middle, b], isWhole }: SerifStroke, width: number): Segment[] {
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  const isStraight = Math.hypot(middle.x - x, middle.y - y) < STRAIGHT * distance(a, b);
  const first = isStraight
    ? line(a.x, a.y, b.x, b.y)
    : quadratic(a.x, a.y, 2 * middle.x - x, 2 * middle.y - y, b.x, b.y);
  if (isWhole) return [first];
  const way = tangentAt(first, 1);
  const far = ONWARDS * width;
  return [first, line(b.x, b.y, b.x + far * way.x, b.y + far * way.y)];
}
/** So many usual strokes. */
const ONWARDS = 3;

/** Where a segment first crosses another, going backwards along it down to `least`; the parameters on both, null where it does not. */
function lastCrossing(s: Segment, other: Segment, least: number): readonly [number, number] | null {
  const sides = (t: number): readonly [number, number] => {
    const p = pointAt(s, t);
    const [dx, dy] = [other.x1 - other.x0, other.y1 - other.y0];
    const size = dx * dx + dy * dy;
    return [dx * (p.y - other.y0) - dy * (p.x - other.x0), (dx * (p.x - other.x0) + dy * (p.y - other.y0)) / size];
  };
  let [after] = sides(1);
  for (let k = PIECES - 1; k >= 0 && (k + 1) / PIECES > least; k--) {
    const [side, along] = sides(k / PIECES);
    // A bent stroke leaves its chord by little: its ends are looked past by as much.
    if (side > 0 !== after > 0 && along > -0.2 && along < 1.2) {
      const t = (k + side / (side - after)) / PIECES;
      const found = crossingNear(s, other, t, Math.min(1, Math.max(0, along)));
      if (found && found[0] >= least && found.every((v) => v >= -1e-9 && v <= 1 + 1e-9)) return found;
    }
    after = side;
  }
  return null;
}

/** The part of a stroke from its tip to a place. */
const upTo = (stroke: readonly Segment[], { segment, t }: OnPath): Segment[] => [
  ...stroke.slice(0, segment),
  subSegment(stroke[segment] as Segment, 0, Math.max(LEAST_PART, t)),
];
const LEAST_PART = 1e-6;

/** A line with an end put on a stroke: where on that, and how far its end has moved. */
type EndedLine = { readonly path: Path; readonly on: OnPath; readonly far: number };

/** An open line with its end put on a stroke, and where on that; null where it does not come to it near its end. */
function endedOn(path: Path, stroke: readonly Segment[], back: number, onwards: number): EndedLine | null {
  const { segments } = path;
  const last = segments[segments.length - 1] as Segment;
  const way = tangentAt(last, 1);
  const beyond = onwards > 0 ? [line(last.x1, last.y1, last.x1 + onwards * way.x, last.y1 + onwards * way.y)] : [];
  const all = [...segments, ...beyond];
  let length = -onwards;
  for (let k = all.length - 1; k >= 0 && length < back; k--) {
    const s = all[k] as Segment;
    const size = segmentLength(s);
    for (const [segment, other] of stroke.entries()) {
      const found = lastCrossing(s, other, size > 0 ? 1 - (back - length) / size : 0);
      if (!found) continue;
      const piece = subSegment(s, 0, Math.max(LEAST_PART, Math.min(1, found[0])));
      const ended = withEnds(piece, { x: piece.x0, y: piece.y0 }, pointAt(other, found[1]));
      const far = Math.abs(length + size * (1 - found[0]));
      return { path: { segments: [...all.slice(0, k), ended], closed: false }, on: { segment, t: found[1] }, far };
    }
    length += size;
  }
  return null;
}

/** Where on a stroke the first of some lines crosses it; null where none does. */
function firstPassed(lines: readonly Path[], stroke: readonly Segment[]): OnPath | null {
  for (const [segment, other] of stroke.entries()) {
    const all = lines.flatMap((path) => path.segments.map((s) => lastCrossing(s, other, 0)?.[1] ?? Infinity));
    const t = Math.min(...all);
    if (Number.isFinite(t)) return { segment, t };
  }
  return null;
}

/** A straight stroke from the tip of a serif to the nearest place of some lines behind the side of its stem; null where that is far. */
function toNearest(lines: readonly Path[], { points: [tip, , side] }: SerifStroke, width: number): Segment[] | null {
  const best = nearestOnLines(lines, side, NEAR * width);
  return best && [line(tip.x, tip.y, best.x, best.y)];
}
/** In usual strokes. */
const NEAR = 1.2;

/** A letter whose serifs are put on one after another. */
class Serifed {
  private readonly strokes: Path[] = [];

  constructor(
    private drawn: readonly Path[],
    /** The usual width of its strokes. */
    private readonly width: number,
    /** Whether lines stop short of the ends of their strokes. */
    private readonly isShort: boolean,
  ) {}

  lines(): Path[] {
    return [...this.drawn, ...this.strokes];
  }

  put(serif: SerifStroke): void {
    const { drawn, width } = this;
    const stroke = strokeOf(serif, width);
    const back = BACK_HEIGHTS * serif.height + BACK_WIDTHS * width;
    const placeOf = ({ segment, t }: OnPath) => pointAt(stroke[segment] as Segment, t);
    const all = drawn.map((path) => this.ended(path, stroke, back));
    const first = all.reduce<OnPath | null>((a, e) => (!e || (a && isBefore(a, e.on)) ? a : e.on), null);
    // A serif on one side goes on to the first stem it comes to: what lies behind that ends where it does.
    const ended = all.map((e) =>
      e && first && (serif.isWhole || distance(placeOf(e.on), placeOf(first)) < SAME_STEM * width) ? e : null,
    );
    const met = ended.flatMap((e) => (e ? [e.on] : []));
    const junctions = met.map(placeOf);
    this.drawn = drawn.flatMap((path, k) => {
      const end = ended[k];
      if (end) return [end.path];
      return this.isLeftOver(path, junctions) ? [] : [path];
    });
    if (serif.isWhole) {
      this.strokes.push({ segments: stroke, closed: false });
      return;
    }
    // Where no line ends on it, it runs on to the one that passes by, or to the nearest.
    const on = first ?? firstPassed(drawn, stroke);
    const whole = on ? upTo(stroke, on) : (toNearest(drawn, serif, width) ?? stroke.slice(0, 1));
    const stem = met.length === 1 ? ended.find((e) => e !== null) : undefined;
    if (stem) this.turnInto(stem.path, { segments: whole, closed: false });
    else this.strokes.push({ segments: whole, closed: false });
  }

  /** A line with the end that comes to a stroke first put on it; null where neither does. */
  private ended(path: Path, stroke: readonly Segment[], back: number): EndedLine | null {
    if (path.closed || path.segments.length === 0) return null;
    const [forth, turned] = [path, reversePath(path)].map((way) =>
      isOnAnother(this.drawn, path, lineEnd(way), ON * this.width)
        ? null
        : endedOn(way, stroke, back, this.isShort ? BACK_WIDTHS * this.width : 0),
    );
    if (turned && (!forth || turned.far < forth.far)) return { ...turned, path: reversePath(turned.path) };
    return forth ?? null;
  }

  /** Whether a line is but what was left of the end of a stem that is put on a serif now. */
  private isLeftOver(path: Path, junctions: readonly Point[]): boolean {
    if (path.closed || pathLength(path) > LEFT_OVER * this.width) return false;
    return [path, reversePath(path)].some((way) =>
      junctions.some((j) => distance(lineEnd(way), j) < NEAR_END * this.width),
    );
  }

  /** The line of a stem turns into the stroke of a serif that ends where it does. */
  private turnInto(stem: Path, stroke: Path): void {
    const isAtEnd = distance(lineEnd(stroke), lineEnd(stem)) < SAME * this.width;
    const segments = isAtEnd
      ? [...stem.segments, ...reversePath(stroke).segments]
      : [...stroke.segments, ...stem.segments];
    this.drawn = this.drawn.map((path) => (path === stem ? { segments, closed: false } : path));
  }
}
/** In usual strokes: what is on a line, the same place, and lines that are left over from the end of a stem. */
const ON = 0.05;
const SAME = 1e-4;
const SAME_STEM = 0.6;
const LEFT_OVER = 1.2;
const NEAR_END = 0.5;

const isBefore = (a: OnPath, b: OnPath): boolean => a.segment < b.segment || (a.segment === b.segment && a.t < b.t);

/**
 * The lines of a letter whose serifs were taken off, with those of the serifs. `width` is the usual width of its strokes;
 * `isShort` where lines stop short of the ends of their strokes.
 */
export function withSerifLines(
  lines: readonly Path[],
  serifs: readonly SerifStroke[],
  width: number,
  isShort: boolean,
): Path[] {
  const letter = new Serifed(lines, width, isShort);
  for (const serif of serifs) letter.put(serif);
  return letter.lines();
}
