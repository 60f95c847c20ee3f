/**
 * Places of a centerline that are worth a look: a kink where strokes go on through a joint, a part of the letter that has no
 * line, a joint where it is not sure which strokes belong together.
 */

import { turnInto } from '../../geometry/measure';
import type { MedialAxis } from '../../geometry/medial';
import { flattenPath, type Path, pathArea, pathBox, pathLength } from '../../geometry/path';
import { boxCentre, type Point } from '../../geometry/point';
import type { Segment } from '../../geometry/segment';
import type { Joint } from './joints';
import { distanceTo } from './track';

export type Uneven = Point & {
  readonly what: 'kink' | 'lost' | 'unsure' | 'loop';
  /** How far about it to look. */
  readonly r: number;
  /** How much a kink turns, in degrees; 0 for the others. */
  readonly turnDeg: number;
};

/** Nodes that turn by this much go on, but not smoothly; more is a corner. In degrees. */
const KINK_DEG = 10;
const CORNER_DEG = 38;
/** A kink belongs to a joint that is nearer than this many radii. */
const NEAR = 1.6;
/** A disc is lost when no line comes nearer to its middle than this share of its radius beyond it. */
const LOST = 1.15;
/** Discs smaller than this share of half the usual stroke are tips. */
const TIP = 0.7;
/** Discs lie so close that looking at every so many is enough. */
const EVERY = 4;

const nodesOf = ({ segments, closed }: Path): { readonly at: Point; readonly turnDeg: number }[] =>
  segments.flatMap((s, i) => {
    if (i === 0 && !closed) return [];
    const before = segments[(i + segments.length - 1) % segments.length] as Segment;
    return [{ at: { x: s.x0, y: s.y0 }, turnDeg: (turnInto(before, s) * 180) / Math.PI }];
  });

/** Uneven places of the lines of a region whose strokes are usually `width` wide. */
export function unevenPlaces(
  axis: MedialAxis,
  lines: readonly Path[],
  joints: readonly Joint[],
  width: number,
): Uneven[] {
  const half = width / 2;
  const out: Uneven[] = joints.filter((j) => j.unsure).map(({ x, y, r }) => ({ x, y, r, what: 'unsure', turnDeg: 0 }));
  for (const line of lines)
    for (const { at, turnDeg } of nodesOf(line)) {
      if (turnDeg < KINK_DEG || turnDeg > CORNER_DEG) continue;
      if (joints.some((j) => Math.hypot(j.x - at.x, j.y - at.y) < NEAR * j.r))
        out.push({ ...at, r: half, what: 'kink', turnDeg });
    }
  const flat = lines.map((p) => {
    const points = flattenPath(p, width / 50);
    return p.closed && points[0] ? [...points, points[0]] : points;
  });
  const lost: Uneven[] = [];
  for (let i = 0; i < axis.links.length; i += EVERY) {
    const { a, blunt } = axis.links[i] as MedialAxis['links'][number];
    const r = axis.r[a] as number;
    if (blunt || r < TIP * half) continue;
    const p = { x: axis.x[a] as number, y: axis.y[a] as number };
    if (lost.some((l) => Math.hypot(l.x - p.x, l.y - p.y) < 3 * half)) continue;
    if (flat.every((l) => distanceTo(p, l) > LOST * r)) lost.push({ ...p, r, what: 'lost', turnDeg: 0 });
  }
  return [...lost, ...out];
}

/** Loops whose inside is narrower than this share of the stroke may be none. */
const NARROW = 0.3;

/** Holes of a region that are nearly filled. */
export const narrowLoops = (region: readonly Path[], width: number): Uneven[] =>
  region.slice(1).flatMap((hole) => {
    if ((2 * Math.abs(pathArea(hole))) / pathLength(hole) > NARROW * width) return [];
    return [{ ...boxCentre(pathBox(hole)), r: width / 2, what: 'loop' as const, turnDeg: 0 }];
  });
