/** Winding numbers about curved closed paths, without flattening them. */
import { numberAt } from './elements';
import type { Path } from './path';
import { arcRadius, pointAt, type Segment } from './segment';
import { extremes } from './segment-measures';

/** Halvings that bring a crossing below the rounding of coordinates. */
const HALVINGS = 48;

/** A rising edge counts at its lower end, a falling one at its upper: edges that meet are counted once (Sunday 2001). */
const across = (from: number, to: number, y: number): number => (from <= y ? (to > y ? 1 : 0) : to <= y ? -1 : 0);

/** Crossings of a segment with the ray from a point to the right, rising ones positive. */
function crossings(s: Segment, x: number, y: number): number {
  // Bounds of the control points, which the segment does not leave; first upwards, which settles most.
  const r = s.kind === 'arc' ? arcRadius(s) : 0;
  let low = s.y0 < s.y1 ? s.y0 : s.y1;
  let high = s.y0 < s.y1 ? s.y1 : s.y0;
  if (s.kind === 'quadratic' || s.kind === 'cubic') {
    low = Math.min(low, s.ay);
    high = Math.max(high, s.ay);
  }
  if (s.kind === 'cubic') {
    low = Math.min(low, s.by);
    high = Math.max(high, s.by);
  }
  if (s.kind === 'arc') {
    low = s.cy - r;
    high = s.cy + r;
  }
  if (y < low || y > high) return 0;
  let minX = s.x0 < s.x1 ? s.x0 : s.x1;
  let right = s.x0 < s.x1 ? s.x1 : s.x0;
  if (s.kind === 'quadratic' || s.kind === 'cubic') {
    minX = Math.min(minX, s.ax);
    right = Math.max(right, s.ax);
  }
  if (s.kind === 'cubic') {
    minX = Math.min(minX, s.bx);
    right = Math.max(right, s.bx);
  }
  if (s.kind === 'arc') {
    minX = s.cx - r;
    right = s.cx + r;
  }
  if (right <= x) return 0;
  // Wholly to the right: what rises and falls between the ends cancels out.
  if (minX > x) return across(s.y0, s.y1, y);
  const stops = s.kind === 'line' ? [0, 1] : [0, ...extremes(s).sort((a, b) => a - b), 1];
  let sum = 0;
  let end = pointAt(s, 0);
  for (let i = 1; i < stops.length; i++) {
    const start = end;
    end = pointAt(s, numberAt(stops, i));
    const way = across(start.y, end.y, y);
    if (way === 0) continue;
    // Between two stops x runs one way too: where both ends lie on one side, so does the crossing.
    if (Math.max(start.x, end.x) <= x) continue;
    if (Math.min(start.x, end.x) > x || crossingX(s, numberAt(stops, i - 1), numberAt(stops, i), y, way > 0) > x)
      sum += way;
  }
  return sum;
}

/** Where a piece of a segment that rises, or falls, all the way meets a height. */
function crossingX(s: Segment, from: number, to: number, y: number, isRising: boolean): number {
  let [before, after] = [from, to];
  for (let k = 0; k < HALVINGS; k++) {
    const mid = (before + after) / 2;
    if (pointAt(s, mid).y <= y === isRising) before = mid;
    else after = mid;
  }
  return pointAt(s, (before + after) / 2).x;
}

/** Segments from which on it pays to sort them by where they lie, how many then share a band of heights, and in how many bands one lies, on the mean. */
const MANY = 48;
const IN_BAND = 4;
const BANDS_OF_ONE = 4;

/** The winding number of a closed path about points that do not lie on it: for asking about many. */
export function windingIn(path: Path): (x: number, y: number) => number {
  const { segments } = path;
  if (segments.length < MANY) return (x, y) => windingAt(path, x, y);
  const heights = segments.map(heightsOf);
  const low = heights.reduce((least, h) => Math.min(least, h[0]), Infinity);
  const high = heights.reduce((most, h) => Math.max(most, h[1]), -Infinity);
  // Of segments that are as tall as the path, as of a zigzag, each lies in every band.
  const tall = heights.reduce((sum, [from, to]) => sum + to - from, 0) / (high - low || 1);
  const count = Math.max(1, Math.ceil(Math.min(segments.length / IN_BAND, (BANDS_OF_ONE * segments.length) / tall)));
  const bandOf = (y: number): number =>
    Math.min(count - 1, Math.max(0, Math.floor(((y - low) / (high - low || 1)) * count)));
  const bands = Array.from({ length: count }, (): Segment[] => []);
  segments.forEach((s, i) => {
    const [from, to] = heights[i] as readonly [number, number];
    for (let band = bandOf(from); band <= bandOf(to); band++) bands[band]?.push(s);
  });
  return (x, y) => {
    if (!(y >= low && y <= high)) return 0;
    let winding = 0;
    for (const s of bands[bandOf(y)] ?? []) winding += crossings(s, x, y);
    return winding;
  };
}

/** Heights that a segment does not leave: of its ends and control points, of an arc those of its circle. */
function heightsOf(s: Segment): readonly [number, number] {
  if (s.kind === 'arc') {
    const r = arcRadius(s);
    return [Math.min(s.cy - r, s.y0, s.y1), Math.max(s.cy + r, s.y0, s.y1)];
  }
  if (s.kind === 'line') return [Math.min(s.y0, s.y1), Math.max(s.y0, s.y1)];
  if (s.kind === 'quadratic') return [Math.min(s.y0, s.ay, s.y1), Math.max(s.y0, s.ay, s.y1)];
  return [Math.min(s.y0, s.ay, s.by, s.y1), Math.max(s.y0, s.ay, s.by, s.y1)];
}

/** Winding number of a closed path about a point that does not lie on it. */
export function windingAt(path: Path, x: number, y: number): number {
  let winding = 0;
  for (const s of path.segments) winding += crossings(s, x, y);
  return winding;
}
