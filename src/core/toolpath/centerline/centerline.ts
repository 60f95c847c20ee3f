/** One line down the middle of each stroke of a letter, or of any filled shape. */
import { fitPoints } from '../../geometry/fit-points';
import { type MedialAxis, medialAxis } from '../../geometry/medial';
import { nearestOnLines } from '../../geometry/near-lines';
import { flattenPath, type Path, pathArea, pathBox, pathLength, regionArea } from '../../geometry/path';
import { boxCentre, type Point } from '../../geometry/point';
import { line, type Segment, withEnds } from '../../geometry/segment';
import type { Stroke } from './chain';
import { depthInside } from './depth-inside';
import { eased } from './ease';
import { SampledEdges } from './edges';
import { type EndStyle, withEndsMade } from './ends';
import { inkedParts } from './ink';
import { withoutJogs } from './jogs';
import { type StrokeJoint, strokesOf } from './joints';
import { marked } from './marks';
import { penRadius } from './pen';
import { explained, penStrokes } from './pen-strokes';
import { withSharpCorners } from './sharp-corners';
import { skeletonOf } from './skeleton';
import { polylineLength } from './track';
import { tracksOf } from './tracks';
import { narrowLoops, type Uneven, unevenPlaces } from './uneven';

/** How the middle lines of a region are to be, in the unit of the region. */
export type CenterlineSettings = {
  /** How far a branch must reach beyond the stroke it comes from to count, in halves of that stroke. */
  readonly detail: number;
  /** How far lines may stray from the middle to be smooth: in the unit of the region, or as a share of the usual stroke. */
  readonly tolerance?: number | null;
  readonly smooth: number;
  readonly ends: EndStyle;
  /**
   * Where the rest of its letter lies, for a piece that is no dot of it: one about as long as wide is a short stroke towards there
   * then, unless it is round. Null where it may be a dot.
   */
  readonly rest?: Point | null;
  /** Half the width of the pen that drew it, in the unit of the region, where it is known to be one pen: see penOf. */
  readonly pen?: number | null;
};

/** A stroke that is no longer than it is wide: a dot, with its radius. */
export type StrokeDot = Point & { readonly r: number };

/** The middle lines of a region, its dots, and places worth a look. */
export type Centerline = {
  /** Open lines, and closed ones where a stroke runs into itself. */
  readonly paths: readonly Path[];
  readonly dots: readonly StrokeDot[];
  /** Places worth a look. */
  readonly uneven: readonly Uneven[];
  /** The usual width of a stroke. */
  readonly width: number;
};

/** Points on the outlines, for each usual stroke width. */
const POINTS_PER_WIDTH = 10;
/** A shape is a dot when its area is this share of that of a circle as long around: a square is, a bar twice as long as wide is not. */
const ROUND = 0.74;
/** Holes of no more than this share of it are none of a stroke's. */
const PIN_HOLES = 0.005;
/** One from which on it is round, whatever it is part of. */
const SURELY_ROUND = 0.9;

/** Lines may lie beside the ink by this share of the usual width: outlines are looked at as chords. */
const BARE = 0.003;

/** Strokes shorter than this share of the usual width are none. */
const SPUR = 0.5;

/** Centerline of one connected clean region, in its own unit. */
export function centerlineOf(region: readonly Path[], settings: CenterlineSettings): Centerline {
  const area = regionArea(region);
  const around = region.reduce((sum, p) => sum + pathLength(p), 0);
  if (!(area > 0)) return { paths: [], dots: [], uneven: [], width: 0 };
  const width = (2 * area) / around;
  // A pin-hole makes no ring of a dot.
  const [outer, ...holes] = region as [Path, ...Path[]];
  const outerArea = pathArea(outer);
  const hasPinHoles = -holes.reduce((sum, hole) => sum + pathArea(hole), 0) < PIN_HOLES * outerArea;
  const roundness = (4 * Math.PI * outerArea) / pathLength(outer) ** 2;
  if (hasPinHoles && roundness > ROUND) {
    const r = Math.sqrt(outerArea / Math.PI);
    const centre = boxCentre(pathBox(outer));
    const { rest } = settings;
    const paths = rest && roundness < SURELY_ROUND ? across(outer, centre, rest) : [];
    return { paths, dots: paths.length > 0 ? [] : [{ ...centre, r }], uneven: [], width: 2 * r };
  }
  const axis = medialAxis(region, width / POINTS_PER_WIDTH);
  if (!axis) return { paths: [], dots: [], uneven: [], width };
  const { strokes, joints, byPen } = drawn(axis, settings, width / 2);
  const fit = { tolerance: settings.tolerance ?? settings.smooth * width, reach: width / 2 };
  const made = strokes.map((s) => withEndsMade(s, axis.samples, settings.ends));
  const long = made.filter((s) => s.closed || polylineLength(s.points) > SPUR * width);
  const ended = long.length > 0 ? long : made;
  const ink = { room: depthInside(axis.samples), bare: BARE * width, width };
  const isInked = (p: Point) => ink.room(p) > 0;
  const lines = ended.map((s): Path => {
    const { closed } = s;
    // What a pen drew is known as it is.
    if (byPen) return { segments: fitPoints(s.points, closed, fit), closed };
    const fitted = { segments: fitPoints(withoutJogs(s.points, closed, width / 2), closed, fit), closed };
    return eased(withSharpCorners(fitted, width, isInked), width);
  });
  const drawnLines = metExactly(ended, lines, width / 2).filter((l) => l.segments.length > 0);
  const met = inkedParts(drawnLines, ink, SPUR * width);
  const uneven = [...unevenPlaces(axis, met, joints, width), ...narrowLoops(region, width)];
  return { paths: met, dots: [], uneven, width };
}

/**
 * The line across a piece through its middle, from edge to edge, along those of its sides that lead most towards a place; none
 * where there is nowhere to go.
 */
function across(path: Path, { x, y }: Point, to: Point): Path[] {
  const size = Math.hypot(to.x - x, to.y - y);
  if (size === 0) return [];
  const towards = { x: (to.x - x) / size, y: (to.y - y) / size };
  const most = Math.max(...path.segments.map((s) => Math.hypot(s.x1 - s.x0, s.y1 - s.y0)));
  const sides = path.segments.flatMap((s): Point[] => {
    const length = Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
    return s.kind === 'line' && length > most / 2 ? [{ x: (s.x1 - s.x0) / length, y: (s.y1 - s.y0) / length }] : [];
  });
  const leads = (p: Point) => Math.abs(p.x * towards.x + p.y * towards.y);
  const { x: dx, y: dy } = sides.reduce((best, p) => (leads(p) > leads(best) ? p : best), sides[0] ?? towards);
  const points = flattenPath(path, size / 1000);
  let [back, on] = [0, 0];
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] as Point;
    const [a, b] = [dx * (p.y - y) - dy * (p.x - x), dx * (q.y - y) - dy * (q.x - x)];
    if (a > 0 === b > 0) return;
    const t = a / (a - b);
    const ahead = dx * (p.x + t * (q.x - p.x) - x) + dy * (p.y + t * (q.y - p.y) - y);
    [back, on] = [Math.min(back, ahead), Math.max(on, ahead)];
  });
  return [{ closed: false, segments: [line(x + back * dx, y + back * dy, x + on * dx, y + on * dy)] }];
}

/** The strokes of a region and where they meet: from the edges of its pen where one drew it, else from its axis. */
function drawn(
  axis: MedialAxis,
  { pen, detail }: CenterlineSettings,
  half: number,
): { readonly strokes: readonly Stroke[]; readonly joints: readonly StrokeJoint[]; readonly byPen: boolean } {
  const byAxis = () => ({ ...strokesOf(tracksOf(skeletonOf(axis, detail, half), half), axis.samples), byPen: false });
  if (!pen) return byAxis();
  const byPen = { ...penStrokes(new SampledEdges(axis.samples), pen, detail), byPen: true };
  const share = explained(axis.samples, byPen.strokes, pen);
  if (share > EXPLAINED) return byPen;
  const other = byAxis();
  return explained(axis.samples, other.strokes, pen) > share ? other : byPen;
}

/** Half the width of the pen that drew some connected regions, all in one unit; null where their strokes differ in width. */
export function penOf(regions: readonly (readonly Path[])[]): number | null {
  return penRadius(
    regions.slice(0, MOST_FOR_PEN).flatMap((region) => {
      const width = usualWidth(region);
      const axis = width > 0 ? medialAxis(region, width / POINTS_PER_WIDTH) : null;
      if (!axis) return [];
      return marked(skeletonOf(axis, AXIS_DETAIL, width / 2), new SampledEdges(axis.samples), width / 2).reliableRadii;
    }),
  );
}
/** So many regions are enough to tell. */
const MOST_FOR_PEN = 24;
/** A pen that leaves this share of the outline needs no second way of looking. */
const EXPLAINED = 0.9;

const usualWidth = (region: readonly Path[]): number =>
  (2 * regionArea(region)) / region.reduce((sum, p) => sum + pathLength(p), 0);

/** Ends that meet another line are put exactly on it, now that it is smooth. */
function metExactly(strokes: readonly Stroke[], lines: readonly Path[], within: number): Path[] {
  const nearest = (p: Point, except: number): Point | null =>
    nearestOnLines(
      lines.filter((_, i) => i !== except),
      p,
      within,
    );
  return lines.map((line, i) => {
    const { ends, closed } = strokes[i] as Stroke;
    if (closed || line.segments.length === 0) return line;
    const segments: Segment[] = [...line.segments];
    const [first, last] = [segments[0] as Segment, segments[segments.length - 1] as Segment];
    const start = ends[0] === 'met' ? nearest({ x: first.x0, y: first.y0 }, i) : null;
    if (start) segments[0] = withEnds(first, start, { x: first.x1, y: first.y1 });
    const moved = segments[segments.length - 1] as Segment;
    const end = ends[1] === 'met' ? nearest({ x: last.x1, y: last.y1 }, i) : null;
    if (end) segments[segments.length - 1] = withEnds(moved, { x: moved.x0, y: moved.y0 }, end);
    return { segments, closed };
  });
}

/** Branches that reach this far are part of the bare axis. */
const AXIS_DETAIL = 0.3;

/** The bare axis of a connected clean region as lines from point to point. */
export function axisLines(region: readonly Path[]): Path[] {
  const width = usualWidth(region);
  const axis = width > 0 ? medialAxis(region, width / POINTS_PER_WIDTH) : null;
  if (!axis) return [];
  return skeletonOf(axis, AXIS_DETAIL, width / 2).branches.map(({ points }) => ({
    closed: false,
    segments: points.slice(1).map((q, i) => line((points[i] as Point).x, (points[i] as Point).y, q.x, q.y)),
  }));
}
