/**
 * Places of a centerline that are worth a look: a kink where strokes go on through a joint, a part of the letter that has no
 * line, a joint where it is not sure which strokes belong together.
 */

import { floatAt } from '../../geometry/elements';
import { turnInto } from '../../geometry/measure';
import type { MedialAxis } from '../../geometry/medial';
import { flattenPath, type Path, pathArea, pathBox, pathLength } from '../../geometry/path';
import { boxCentre, distance, type Point } from '../../geometry/point';
import type { Segment } from '../../geometry/segment';
import type { StrokeJoint } from './joints';
import { distanceTo } from './track';

/** A place of a centerline worth a look, and why. */
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
/** Corners nearer to each other than this, in halves of the usual stroke, are not the letter's. */
const JAG = 1;
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

const endsOf = ({ segments }: Path): Point[] => {
  const [first, last] = [segments[0] as Segment, segments[segments.length - 1] as Segment];
  return [
    { x: first.x0, y: first.y0 },
    { x: last.x1, y: last.y1 },
  ];
};

/** Uneven places of the lines of a region whose strokes are usually `width` wide. */
export function unevenPlaces(
  axis: MedialAxis,
  lines: readonly Path[],
  joints: readonly StrokeJoint[],
  width: number,
): Uneven[] {
  const half = width / 2;
  const out: Uneven[] = joints.filter((j) => j.unsure).map(({ x, y, r }) => ({ x, y, r, what: 'unsure', turnDeg: 0 }));
  const isAtJoint = (p: Point) => joints.some((j) => Math.hypot(j.x - p.x, j.y - p.y) < NEAR * j.r);
  for (const line of lines) {
    const nodes = nodesOf(line).filter(({ turnDeg }) => turnDeg >= KINK_DEG);
    nodes.forEach(({ at, turnDeg }, i) => {
      if (!isAtJoint(at)) return;
      if (turnDeg <= CORNER_DEG) out.push({ ...at, r: half, what: 'kink', turnDeg });
      const next = nodes[i + 1];
      // Two corners so near to each other are a jag.
      if (turnDeg > CORNER_DEG && next && next.turnDeg > CORNER_DEG && distance(next.at, at) < JAG * half)
        out.push({ ...at, r: half, what: 'unsure', turnDeg: 0 });
    });
    // So is one just before an end.
    for (const end of line.closed ? [] : endsOf(line))
      for (const { at, turnDeg } of nodes)
        if (turnDeg > CORNER_DEG && distance(at, end) < JAG * half)
          out.push({ ...at, r: half, what: 'unsure', turnDeg: 0 });
  }
  const flat = lines.map((p) => {
    const points = flattenPath(p, width / 50);
    return p.closed && points[0] ? [...points, points[0]] : points;
  });
  const lost: Uneven[] = [];
  for (let i = 0; i < axis.links.length; i += EVERY) {
    const { a, blunt } = axis.links[i] as MedialAxis['links'][number];
    const r = floatAt(axis.r, a);
    if (blunt || r < TIP * half) continue;
    const p = { x: floatAt(axis.x, a), y: floatAt(axis.y, a) };
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
