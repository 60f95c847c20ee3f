/**
 * Serifs drawn as strokes: one from tip to tip that the line of the stem ends on, or, where a stem has a serif on one side alone,
 * one that the line of the stem turns into in a corner.
 */
import { type Path, reversePath } from '../../geometry/path';
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

const strokeOf = ({ points: [a, middle, b] }: SerifStroke): Segment => {
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  if (Math.hypot(middle.x - x, middle.y - y) < STRAIGHT * distance(a, b)) return line(a.x, a.y, b.x, b.y);
  return quadratic(a.x, a.y, 2 * middle.x - x, 2 * middle.y - y, b.x, b.y);
};

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

/** An open line with its end put on a stroke, and where on that; null where it does not come to it near its end. */
function endedOn(path: Path, stroke: Segment, back: number): { readonly path: Path; readonly t: number } | null {
  const { segments } = path;
  const last = segments[segments.length - 1] as Segment;
  const way = tangentAt(last, 1);
  // One that stops short of the end of its stem goes on straight.
  const onwards = line(last.x1, last.y1, last.x1 + back * way.x, last.y1 + back * way.y);
  let length = -back;
  for (let k = segments.length; k >= 0 && length < back; k--) {
    const s = segments[k] ?? onwards;
    const size = segmentLength(s);
    const found = lastCrossing(s, stroke, size > 0 ? 1 - (back - length) / size : 0);
    if (found) {
      const at = pointAt(stroke, found[1]);
      const piece = subSegment(s, 0, Math.max(1e-6, Math.min(1, found[0])));
      const ended = withEnds(piece, { x: piece.x0, y: piece.y0 }, at);
      return { path: { segments: [...segments.slice(0, k), ended], closed: false }, t: found[1] };
    }
    length += size;
  }
  return null;
}

/** Where on a stroke the first of some lines crosses it; null where none does. */
function firstPassed(lines: readonly Path[], stroke: Segment): number | null {
  const all = lines.flatMap((path) => path.segments.map((s) => lastCrossing(s, stroke, 0)?.[1] ?? Infinity));
  const least = Math.min(...all);
  return Number.isFinite(least) ? least : null;
}

/** The lines of a letter whose serifs were taken off, and those of the serifs; `width` is the usual width of its strokes. */
export function withSerifLines(lines: readonly Path[], serifs: readonly SerifStroke[], width: number): Path[] {
  let drawn = [...lines];
  const strokes: Path[] = [];
  for (const serif of serifs) {
    const stroke = strokeOf(serif);
    const back = BACK_HEIGHTS * serif.height + BACK_WIDTHS * width;
    const met: number[] = [];
    const ended = drawn.map((path): Path => {
      if (path.closed || path.segments.length === 0) return path;
      let made = path;
      for (const end of [1, 0] as const) {
        const found = endedOn(end === 1 ? made : reversePath(made), stroke, back);
        if (!found) continue;
        met.push(found.t);
        made = end === 1 ? found.path : reversePath(found.path);
      }
      return made;
    });
    if (serif.isWhole) {
      drawn = ended;
      strokes.push({ segments: [stroke], closed: false });
      continue;
    }
    // Where no line ends on it, it runs on to the one that passes by, or to the side of the stem.
    const t = met.length > 0 ? Math.min(...met) : firstPassed(drawn, stroke);
    const { x, y } = serif.points[0];
    const whole = t === null ? line(x, y, serif.to.x, serif.to.y) : subSegment(stroke, 0, t);
    // The line of the stem turns into it.
    const i = ended.findIndex((path, k) => path !== drawn[k]);
    const stem = ended[i];
    if (met.length !== 1 || !stem) {
      drawn = met.length > 0 ? ended : drawn;
      strokes.push({ segments: [whole], closed: false });
      continue;
    }
    const end: Point = { x: whole.x1, y: whole.y1 };
    const last = stem.segments[stem.segments.length - 1] as Segment;
    const isAtEnd = distance(end, { x: last.x1, y: last.y1 }) < 1e-6;
    const turned = reversePath({ segments: [whole], closed: false }).segments;
    drawn = ended.map((path, k) => {
      if (k !== i) return path;
      return { segments: isAtEnd ? [...path.segments, ...turned] : [whole, ...path.segments], closed: false };
    });
  }
  return [...drawn, ...strokes];
}
