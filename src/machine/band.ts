/**
 * What a cut takes away: everything within half its width of the line it runs along, as polygons to be united by the rule that counts
 * how often they go round. The band is the sum of a quadrangle for each chord and a wedge for each corner, all going round once the
 * same way, so that the polygon along its edges winds round each place of it at least once, and round no other.
 */
import type { TaggedPolygon } from '../core/geometry/boolean/engine';
import { flattenPath, type Path } from '../core/geometry/path';
import type { Point } from '../core/geometry/point';

/** How far chords stray from curves, and from the round of corners, in mm. */
export const CHORD_MM = 0.02;
/** Points nearer to each other than this, in mm, are one. */
const SAME_MM = 1e-4;
/** Corners that turn by less than this, in radians, are drawn out to a point where there is room: they are none of the line's own. */
const SLIGHT = 0.35;
/** Inside of corners that turn by more than this, in radians, edges meet too far off to be looked for. */
const SHARP = 2.9;

/** A direction of length 1. */
type Way = { readonly x: number; readonly y: number };

/** Where the band of a path is, as tagged polygons; `half` of its width in mm, more than 0. */
export function bandOf(path: Path, half: number, tag: number): TaggedPolygon[] {
  const points = apart(flattenPath(path, CHORD_MM), path.closed);
  if (points.length < 2) return points[0] ? [discAt(points[0], half, tag)] : [];
  const n = points.length;
  const at = (i: number): Point => points[(i + n) % n] as Point;
  const chords = path.closed ? n : n - 1;
  const lengths = Array.from({ length: chords }, (_, i) => lengthOf(at(i), at(i + 1)));
  const ways = lengths.map((length, i) => wayFrom(at(i), at(i + 1), length));
  const way = (i: number): Way => ways[(i + chords) % chords] as Way;
  const room = (i: number): number =>
    Math.min(lengths[(i - 1 + chords) % chords] as number, lengths[i % chords] as number);
  const cornerAt = (i: number) => ({ at: at(i), before: way(i - 1), after: way(i), half, room: room(i) });
  const cornerBack = (i: number) => ({ at: at(i), before: back(way(i)), after: back(way(i - 1)), half, room: room(i) });
  const out = new Places(tag);
  if (path.closed) {
    const other = new Places(tag);
    for (let i = 0; i < n; i++) corner(out, cornerAt(i));
    for (let i = n - 1; i >= 0; i--) corner(other, cornerBack(i));
    return [out.polygon(), other.polygon()];
  }
  // Out along the right, round the end, back along the left, round the start.
  round(out, at(0), { from: back(turnedRight(way(0))), turn: Math.PI, half });
  for (let i = 1; i < n - 1; i++) corner(out, cornerAt(i));
  round(out, at(n - 1), { from: turnedRight(way(n - 2)), turn: Math.PI, half });
  for (let i = n - 2; i > 0; i--) corner(out, cornerBack(i));
  return [out.polygon()];
}

/** What a point takes away. */
export function discAt(at: Point, half: number, tag: number): TaggedPolygon {
  const out = new Places(tag);
  round(out, at, { from: { x: 1, y: 0 }, turn: 2 * Math.PI, half });
  return out.polygon();
}

/** Places of a polygon, each with a tag. */
class Places {
  private readonly numbers: number[] = [];
  constructor(private readonly tag: number) {}

  add(x: number, y: number): void {
    this.numbers.push(x, y, this.tag);
  }

  polygon(): TaggedPolygon {
    return Float64Array.from(this.numbers);
  }
}

const apart = (points: readonly Point[], closed: boolean): Point[] => {
  const out: Point[] = [];
  for (const p of points) {
    const last = out[out.length - 1];
    if (!last || Math.hypot(p.x - last.x, p.y - last.y) > SAME_MM) out.push(p);
  }
  const [first, last] = [out[0], out[out.length - 1]];
  if (closed && out.length > 1 && first && last && Math.hypot(first.x - last.x, first.y - last.y) <= SAME_MM) out.pop();
  return out;
};

function lengthOf(p: Point, q: Point): number {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  return Math.sqrt(dx * dx + dy * dy);
}

function wayFrom(p: Point, q: Point, length: number): Way {
  return { x: (q.x - p.x) / length, y: (q.y - p.y) / length };
}

const back = ({ x, y }: Way): Way => ({ x: -x, y: -y });
const turnedRight = ({ x, y }: Way): Way => ({ x: y, y: -x });

/** A corner of a line: how it comes in and goes on, half the width, and the length of the shorter chord beside it. */
type Corner = {
  readonly at: Point;
  readonly before: Way;
  readonly after: Way;
  readonly half: number;
  readonly room: number;
};

/** The edge to the right of a line, round a corner of it. */
function corner(out: Places, { at, before, after, half, room }: Corner): void {
  const turn = Math.atan2(before.x * after.y - before.y * after.x, before.x * after.x + before.y * after.y);
  const [from, to] = [turnedRight(before), turnedRight(after)];
  if (turn > SLIGHT) {
    round(out, at, { from, turn, half });
    return;
  }
  // Out the arc is hardly longer than its chord; in the edges meet, where there is room before their chords end.
  if (turn >= 0 || (turn > -SHARP && room > -2 * half * Math.tan(turn / 2))) {
    const k = half / (2 * Math.cos(turn / 2) ** 2);
    out.add(at.x + k * (from.x + to.x), at.y + k * (from.y + to.y));
    return;
  }
  // By way of the corner, so that each chord keeps its own quadrangle.
  out.add(at.x + half * from.x, at.y + half * from.y);
  out.add(at.x, at.y);
  out.add(at.x + half * to.x, at.y + half * to.y);
}

/** Part of a circle, counter-clockwise. */
function round(
  out: Places,
  at: Point,
  { from, turn, half }: { readonly from: Way; readonly turn: number; readonly half: number },
): void {
  const step = Math.min(Math.PI / 6, 2 * Math.acos(Math.max(0, 1 - CHORD_MM / Math.max(half, CHORD_MM))));
  const n = Math.max(1, Math.ceil(turn / step));
  for (let i = 0; i <= n; i++) {
    const [cos, sin] = [Math.cos((turn * i) / n), Math.sin((turn * i) / n)];
    out.add(at.x + half * (cos * from.x - sin * from.y), at.y + half * (sin * from.x + cos * from.y));
  }
}
