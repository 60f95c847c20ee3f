/** What looks like a line of the pen and is none: the edge across a cut-off end, and slivers beside another line. */

import type { Samples } from '../../geometry/medial';
import { distance } from '../../geometry/point';
import { type Cap, capAt } from './caps';
import type { DepthInside } from './depth-inside';
import type { PenLine } from './pen-line';
import { rayOf } from './rays';
import { distanceTo, polylineLength, type TrackPoint } from './track';

/** What leaves another line and ends after fewer radii than this is its edge bending, no stroke. */
const SLIVER = 0.6;
/** The way back lies no farther than this beside the way there, in radii. */
const RETRACED = 0.4;
/** A cut-off end is as wide as the pen, within these. */
const CUT_WIDTH = [1.8, 2.2] as const;
/** The edge across a cut-off end: no longer than this, this far ahead of the end and beside it, in radii. */
const CAP_LENGTH = 1.4;
const CAP_AHEAD = [0.5, 1.6] as const;
const CAP_BESIDE = 1.35;
const CAP_ACROSS = Math.cos((45 * Math.PI) / 180);
/** The corners of an end turn by this much, in radians. */
const CORNER = (35 * Math.PI) / 180;

/** A cut-off end of which one corner is hidden: the other is square within this, its edges this long, in radii. */
const SQUARE = (8 * Math.PI) / 180;
const CUT_EDGE = [1.35, 1.95] as const;
const SIDE_EDGE = 0.7;
/** Before it, there is this room for the pen, in radii. */
const CUT_ROOM = 0.9;

/**
 * Cut-off ends of which another stroke hides one corner: at the other, a side of the stroke ends square, and what is seen of the cut runs
 * straight for most of the pen's width, but not for all.
 */
function halfCaps(s: Samples, r: number, room: DepthInside): Cap[] {
  const caps: Cap[] = [];
  for (let i = 0; i < s.x.length; i++) {
    if (Math.abs((s.turn[i] as number) - Math.PI / 2) > SQUARE) continue;
    for (const [along, back] of [
      [s.next, s.previous],
      [s.previous, s.next],
    ] as const) {
      const [cut, side] = [straightFrom(s, i, along, r), straightFrom(s, i, back, r)];
      if (cut.length < CUT_EDGE[0] * r || cut.length > CUT_EDGE[1] * r || side.length < SIDE_EDGE * r) continue;
      // Where another stroke begins to hide it, the outline turns inwards.
      if (turnAbout(s, cut.end, along === s.next ? s.previous : s.next) > -HIDES) continue;
      const [x, y] = [(s.x[i] as number) + r * cut.dx, (s.y[i] as number) + r * cut.dy];
      if (room({ x: x + r * side.dx, y: y + r * side.dy }) < CUT_ROOM * r) continue;
      const straight = Math.min(side.length, r);
      caps.push({ x, y, dx: -side.dx, dy: -side.dy, straight, width: 2 * r, corners: [i, i], spread: 0 });
    }
  }
  return caps;
}

/** How far an outline turns at a sample and the one before it, in radians; negative inwards. */
const turnAbout = (s: Samples, i: number, back: ArrayLike<number>): number =>
  (s.turn[i] as number) + (s.turn[back[i] as number] as number);
const HIDES = (15 * Math.PI) / 180;

/** The straight edge that leads from a corner: its direction and its length, three radii at most. */
function straightFrom(s: Samples, corner: number, step: ArrayLike<number>, r: number) {
  const to = (i: number): readonly [number, number] => [
    (s.x[i] as number) - (s.x[corner] as number),
    (s.y[i] as number) - (s.y[corner] as number),
  ];
  let i = step[corner] as number;
  const [x, y] = to(i);
  const size = Math.hypot(x, y) || 1;
  const [dx, dy] = [x / size, y / size];
  let length = 0;
  for (; i !== corner && length < 3 * r; i = step[i] as number) {
    const [px, py] = to(i);
    if (Math.abs(dx * py - dy * px) > STRAYS * r) break;
    length = dx * px + dy * py;
  }
  return { dx, dy, length, end: i };
}
const STRAYS = 0.04;

/** The ends that are cut off as wide as the pen, those with a hidden corner too. */
export function capsOf(s: Samples, r: number, room: DepthInside): Cap[] {
  const whole = wholeCaps(s, r);
  // A pen that leaves no end cut off has round ends.
  if (whole.length === 0) return [];
  const corners = new Set(whole.flatMap((c) => c.corners));
  return [...whole, ...halfCaps(s, r, room).filter((c) => !corners.has(c.corners[0]))];
}

function wholeCaps(s: Samples, r: number): Cap[] {
  const caps = new Map<string, Cap>();
  for (let i = 0; i < s.x.length; i++) {
    if ((s.turn[i] as number) < CORNER) continue;
    const cap = capAt(s, i, r);
    if (cap && cap.width > CUT_WIDTH[0] * r && cap.width < CUT_WIDTH[1] * r) caps.set(cap.corners.join(), cap);
  }
  return [...caps.values()];
}

/** Whether a line comes from the edge across one of these ends. */
export const isAcross = ({ points, ends }: PenLine, caps: readonly Cap[], s: Samples, r: number): boolean =>
  !ends.includes('tip') &&
  caps.some(({ x, y, dx, dy, corners: [a, b] }) => {
    if (a === b) return false;
    const [wx, wy] = [(s.x[b] as number) - (s.x[a] as number), (s.y[b] as number) - (s.y[a] as number)];
    const size = Math.hypot(wx, wy);
    // Places half a pen inside that edge.
    return points.every((p) => {
      const [px, py] = [p.x - x, p.y - y];
      const across = Math.abs(px * wy - py * wx) / size;
      return px * dx + py * dy < 0 && Math.abs(across - r) < 0.1 * r && Math.abs(px * wx + py * wy) / size < size / 2;
    });
  });

/** Whether a line is but a short stretch, for a pen of radius `r`, between a line it leaves and a place where no edge is seen. */
export const isSliver = ({ points, ends }: PenLine, r: number): boolean =>
  ends.includes('on') && ends.includes('hidden') && polylineLength(points) < SLIVER * r;

/** Whether a line is one of these again, a little beside it: the pen went there and back. */
export const isRetraced = ({ points, ends, closed }: PenLine, before: readonly PenLine[], r: number): boolean =>
  !closed &&
  !ends.includes('tip') &&
  before.some((other) => !other.closed && points.every((p) => distanceTo(p, other.points) < RETRACED * r));

/** Whether a line comes from the edge across the end of another: its edge lies ahead of that end, within its width. */
export function isCap(line: PenLine, all: readonly PenLine[], r: number): boolean {
  const { points, ends, closed } = line;
  if (closed || ends.includes('tip') || polylineLength(points) > CAP_LENGTH * r) return false;
  const first = points[0] as TrackPoint;
  const last = points[points.length - 1] as TrackPoint;
  const size = distance(first, last) || 1;
  const [ux, uy] = [(last.x - first.x) / size, (last.y - first.y) / size];
  return all.some((other) => {
    if (other === line || other.closed || polylineLength(other.points) < polylineLength(points)) return false;
    return ([0, 1] as const).some((end) => {
      if (other.ends[end] !== 'hidden') return false;
      const ray = rayOf(other.points, end);
      if (Math.abs(ux * ray.dx + uy * ray.dy) > CAP_ACROSS) return false;
      // Its edge lies half a pen ahead of it as seen from the end.
      const side = Math.sign(-uy * ray.dx + ux * ray.dy);
      return [first, last].every((p) => {
        const [x, y] = [p.x - side * r * uy - ray.x, p.y + side * r * ux - ray.y];
        const along = x * ray.dx + y * ray.dy;
        return (
          along > CAP_AHEAD[0] * r && along < CAP_AHEAD[1] * r && Math.abs(x * ray.dy - y * ray.dx) < CAP_BESIDE * r
        );
      });
    });
  });
}
