/** Many short lines held compactly: a hatch has hundreds of thousands. */
import { floatAt, intAt } from './elements';
import type { Path } from './path';
import { type Box, EMPTY_BOX, type Matrix } from './point';
import { line } from './segment';

/** Polylines in the order they are drawn: points as x, y pairs, those of polyline i from start[i] to start[i + 1]. */
export type Strokes = { readonly xy: Float64Array; readonly start: Int32Array };

/** No strokes at all. */
export const NO_STROKES: Strokes = { xy: new Float64Array(0), start: new Int32Array(1) };

/** How many strokes there are. */
export const countStrokes = (s: Strokes): number => s.start.length - 1;

/** Points this near each other are one, in mm: twice what is too short to be drawn, so that no turn makes it so. */
export const STILL_MM = 2e-6;

/** Gathers polylines point by point. */
export class StrokeBuilder {
  private xy = new Float64Array(1024);
  private start = new Int32Array(256);
  private points = 0;
  private strokes = 0;

  /** Goes on to a point; one that is where the stroke is already adds nothing. */
  add(x: number, y: number): void {
    const at = 2 * this.points;
    if (
      this.points > intAt(this.start, this.strokes) &&
      Math.abs(x - floatAt(this.xy, at - 2)) < STILL_MM &&
      Math.abs(y - floatAt(this.xy, at - 1)) < STILL_MM
    )
      return;
    if (at + 2 > this.xy.length) {
      const larger = new Float64Array(2 * this.xy.length);
      larger.set(this.xy);
      this.xy = larger;
    }
    this.xy[at] = x;
    this.xy[at + 1] = y;
    this.points++;
  }

  /** Ends the polyline; one of fewer than two points is dropped. */
  lift(): void {
    const first = intAt(this.start, this.strokes);
    if (this.points - first < 2) {
      this.points = first;
      return;
    }
    if (this.strokes + 2 > this.start.length) {
      const larger = new Int32Array(2 * this.start.length);
      larger.set(this.start);
      this.start = larger;
    }
    this.strokes++;
    this.start[this.strokes] = this.points;
  }

  done(): Strokes {
    this.lift();
    return { xy: this.xy.slice(0, 2 * this.points), start: this.start.slice(0, this.strokes + 1) };
  }
}

/** Length of all polylines, and of the ways between them, in mm. */
export function lengthsOf({ xy, start }: Strokes): { drawn: number; travel: number } {
  let [drawn, travel] = [0, 0];
  for (let s = 0; s + 1 < start.length; s++) {
    const [a, b] = [intAt(start, s), intAt(start, s + 1)];
    if (s > 0)
      travel += Math.hypot(
        floatAt(xy, 2 * a) - floatAt(xy, 2 * a - 2),
        floatAt(xy, 2 * a + 1) - floatAt(xy, 2 * a - 1),
      );
    for (let i = a + 1; i < b; i++)
      drawn += Math.hypot(floatAt(xy, 2 * i) - floatAt(xy, 2 * i - 2), floatAt(xy, 2 * i + 1) - floatAt(xy, 2 * i - 1));
  }
  return { drawn, travel };
}

/** Bounds of all points of strokes. */
export function strokesBox({ xy }: Strokes): Box {
  let { minX, minY, maxX, maxY } = EMPTY_BOX;
  for (let i = 0; i < xy.length; i += 2) {
    const [x, y] = [floatAt(xy, i), floatAt(xy, i + 1)];
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  return { minX, minY, maxX, maxY };
}

/** One of the polylines, by its number, as an open path. */
function strokePath({ xy, start }: Strokes, s: number): Path {
  const segments = [];
  for (let i = intAt(start, s) + 1; i < intAt(start, s + 1); i++)
    segments.push(line(floatAt(xy, 2 * i - 2), floatAt(xy, 2 * i - 1), floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1)));
  return { segments, closed: false };
}

/** Each polyline as an open path. */
export const strokePaths = (strokes: Strokes): Path[] =>
  Array.from({ length: countStrokes(strokes) }, (_, s) => strokePath(strokes, s));

/** Strokes turned about the origin. */
export const turnStrokes = (s: Strokes, { cos, sin }: { readonly cos: number; readonly sin: number }): Strokes =>
  transformStrokes(s, { a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0 });

/** Strokes where a matrix takes them. */
export function transformStrokes({ xy, start }: Strokes, m: Matrix): Strokes {
  const out = new Float64Array(xy.length);
  for (let i = 0; i < xy.length; i += 2) {
    const [x, y] = [floatAt(xy, i), floatAt(xy, i + 1)];
    out[i] = m.a * x + m.c * y + m.e;
    out[i + 1] = m.b * x + m.d * y + m.f;
  }
  return { xy: out, start };
}

/** Several, one after the other. */
export function joinStrokes(all: readonly Strokes[]): Strokes {
  const used = all.filter((s) => countStrokes(s) > 0);
  if (used.length <= 1) return used[0] ?? NO_STROKES;
  const xy = new Float64Array(used.reduce((sum, s) => sum + s.xy.length, 0));
  const start = new Int32Array(used.reduce((sum, s) => sum + countStrokes(s), 1));
  let [points, strokes] = [0, 0];
  for (const s of used) {
    xy.set(s.xy, 2 * points);
    for (let i = 1; i < s.start.length; i++) start[strokes + i] = points + intAt(s.start, i);
    points += s.xy.length / 2;
    strokes += countStrokes(s);
  }
  return { xy, start };
}
