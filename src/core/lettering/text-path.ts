/** The line that words run along, as a path in the lettering's coordinates, in mm: letters stand on its left. */
import { ArcLength, type PathPlace } from '../geometry/arc-length';
import { numberAt } from '../geometry/elements';
import { closedPath, type Path, pathArea, pathBox, reversePath } from '../geometry/path';
import { boxCentre, boxHeight, type Point } from '../geometry/point';
import { arcAbout, cubic, pointAt, type Segment } from '../geometry/segment';
import { extremes } from '../geometry/segment-measures';
import { LIMITS } from '../limits';
import type { Along } from '../schema/along';
import type { Alignment } from './spec';

/** A line that words run along, and the place on it from which their start is measured. */
export type TextPath = { readonly path: Path; readonly from: PathPlace };

const WHOLE = 2 * Math.PI;

/** An arc as a whole circle through the origin, that runs to the right there; its middle is half of its length on. */
const circleThrough = (radius: number, bends: 'up' | 'down'): Path =>
  closedPath(
    bends === 'up'
      ? [arcAbout(0, -radius, radius, -Math.PI / 2, -Math.PI), arcAbout(0, -radius, radius, Math.PI / 2, -Math.PI)]
      : [arcAbout(0, radius, radius, Math.PI / 2, Math.PI), arcAbout(0, radius, radius, -Math.PI / 2, Math.PI)],
  );

/** A circle about the origin, clockwise from its lowest point. */
const circleAbout = (radius: number): Path =>
  closedPath([arcAbout(0, 0, radius, -Math.PI / 2, -Math.PI), arcAbout(0, 0, radius, Math.PI / 2, -Math.PI)]);

/** Half the angle at which an arc is as high as it can be for its length: where tan(θ/2) = θ. */
const HIGHEST = 2.331122370414423;

/**
 * Radius of an arc of a length whose middle is so high above its ends: of half-angle θ it is length/2 · (1 − cos θ)/θ high. No arc
 * is higher than one of half-angle 2.33; what asks for more gets that.
 */
export function radiusOfRise(length: number, rise: number): number {
  const height = (theta: number) => ((length / 2) * (1 - Math.cos(theta))) / theta;
  let [lo, hi] = [0, HIGHEST];
  for (let k = 0; k < 80; k++) {
    const mid = (lo + hi) / 2;
    if (height(mid) < rise) lo = mid;
    else hi = mid;
  }
  return length / 2 / hi;
}

/** How high the middle of an arc of a length is above its ends; of a radius so small that it goes around, as high as it can be. */
export function riseOfRadius(length: number, radius: number): number {
  const theta = Math.min(HIGHEST, length / 2 / radius);
  return ((length / 2) * (1 - Math.cos(theta))) / theta;
}

/** Cubics a crest of a wave is made of. */
const PIECES = 16;

/** A sine wave about the origin, wide enough for words of a length: cubics with its own slopes (Hermite). */
function waveOf({ length, height }: { readonly length: number; readonly height: number }, words: number): Path {
  const crests = Math.min(LIMITS.crests, Math.ceil(words / length / 2) + 1);
  const y = (x: number) => (height / 2) * Math.sin((WHOLE * x) / length);
  const slope = (x: number) => ((height / 2) * WHOLE * Math.cos((WHOLE * x) / length)) / length;
  const step = length / PIECES;
  const segments: Segment[] = [];
  for (let i = -crests * PIECES; i < crests * PIECES; i++) {
    const [a, b] = [i * step, (i + 1) * step];
    const third = step / 3;
    segments.push(cubic(a, y(a), a + third, y(a) + slope(a) * third, b - third, y(b) - slope(b) * third, b, y(b)));
  }
  return { segments, closed: false };
}

/** What the line of words is made from: how long the longest of them is in mm, and the line itself where it is another's or drawn. */
export type TextPathInput = {
  readonly along: Along;
  readonly align: Alignment;
  readonly lengthMm: number;
  readonly drawn: Path | null;
};

/** The line that words run along; null where there is none. */
export function textPathOf({ along, align, lengthMm, drawn }: TextPathInput): TextPath | null {
  const { line } = along;
  const middle = (path: Path): TextPath => {
    const curve = new ArcLength(path);
    return { path, from: curve.placeAt(curve.length / 2) };
  };
  switch (line.kind) {
    case 'arc':
      return middle(
        circleThrough(line.by === 'radius' ? line.mm : radiusOfRise(Math.max(lengthMm, 1e-6), line.mm), line.bends),
      );
    case 'circle':
      return middle(circleAbout(line.radius));
    case 'wave':
      return middle(waveOf(line, lengthMm));
    default: {
      if (!drawn || drawn.segments.length === 0) return null;
      // Outside is on the left of a closed line that runs clockwise.
      if (drawn.closed) {
        const path = pathArea(drawn) > 0 ? reversePath(drawn) : drawn;
        return { path, from: farthest(path, 1) };
      }
      const path = along.reversed ? reversePath(drawn) : drawn;
      if (align === 'centre') return middle(path);
      const last = path.segments.length - 1;
      return { path, from: align === 'left' ? { segment: 0, t: 0, beyond: 0 } : { segment: last, t: 1, beyond: 0 } };
    }
  }
}

/** The same line run the other way, from its lowest point. */
export function bottomOf({ path }: TextPath): TextPath {
  const reversed = reversePath(path);
  return { path: reversed, from: farthest(reversed, -1) };
}

/** Points this near to the highest, as a share of the height, are as high. */
const AS_HIGH = 1e-6;

/** The highest place of a path (`way` 1), or the lowest (−1); of several the one nearest to its middle. */
function farthest(path: Path, way: 1 | -1): PathPlace {
  const box = pathBox(path);
  const middle = boxCentre(box).x;
  const places = path.segments.flatMap((s, segment) => {
    const level = s.kind === 'line' && s.x0 !== s.x1 ? [Math.min(1, Math.max(0, (middle - s.x0) / (s.x1 - s.x0)))] : [];
    return [0, 1, ...extremes(s), ...level].map((t) => ({ segment, t, at: pointAt(s, t) }));
  });
  const height = ({ y }: Point) => way * y;
  const most = Math.max(...places.map((p) => height(p.at)));
  const among = places.filter((p) => height(p.at) >= most - AS_HIGH * boxHeight(box));
  const best = among.reduce((a, b) => (Math.abs(b.at.x - middle) < Math.abs(a.at.x - middle) ? b : a));
  return { segment: best.segment, t: best.t, beyond: 0 };
}

/** Outlines of a part that words can run along: the longest first, those that are closed before open lines. */
export function linesToRunAlong(outlines: readonly Path[], open: readonly Path[]): Path[] {
  const byLength = (paths: readonly Path[]): Path[] => {
    const lengths = paths.map((path) => new ArcLength(path).length);
    return paths
      .map((_, i) => i)
      .sort((a, b) => numberAt(lengths, b) - numberAt(lengths, a))
      .map((i) => paths[i] as Path);
  };
  return [...byLength(outlines), ...byLength(open)];
}
