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
  for (let i = 1; i < stops.length; i++) {
    let before = numberAt(stops, i - 1);
    let after = numberAt(stops, i);
    const way = across(pointAt(s, before).y, pointAt(s, after).y, y);
    if (way === 0) continue;
    for (let k = 0; k < HALVINGS; k++) {
      const mid = (before + after) / 2;
      if (pointAt(s, mid).y <= y === way > 0) before = mid;
      else after = mid;
    }
    if (pointAt(s, (before + after) / 2).x > x) sum += way;
  }
  return sum;
}

/** Winding number of a closed path about a point that does not lie on it. */
export function windingAt(path: Path, x: number, y: number): number {
  let winding = 0;
  for (const s of path.segments) winding += crossings(s, x, y);
  return winding;
}
