/** One line down the middle of each stroke of a letter, or of any filled shape. */
import { fitPoints } from '../../geometry/fit-points';
import { medialAxis } from '../../geometry/medial';
import { type Path, pathLength, regionArea, regionBox } from '../../geometry/path';
import { boxCentre, type Point } from '../../geometry/point';
import { nearestParameter, pointAt, type Segment, withEnds } from '../../geometry/segment';
import { type EndStyle, withEndsMade } from './ends';
import { type Joint, type Stroke, strokesOf } from './joints';
import { skeletonOf } from './skeleton';
import { tracksOf } from './tracks';

export type CenterlineSettings = {
  /** How far a branch must reach beyond the stroke it comes from to count, in halves of that stroke. */
  readonly detail: number;
  /** How far lines may stray from the middle to be smooth: in the unit of the region, or as a share of the usual stroke. */
  readonly tolerance?: number | null;
  readonly smooth: number;
  readonly ends: EndStyle;
};

export type Dot = Point & { readonly r: number };

export type Centerline = {
  /** Open lines, and closed ones where a stroke runs into itself. */
  readonly lines: readonly Path[];
  readonly dots: readonly Dot[];
  readonly joints: readonly Joint[];
  /** The usual width of a stroke. */
  readonly width: number;
};

/** Points on the outlines, for each usual stroke width. */
const POINTS_PER_WIDTH = 10;
/** A shape is a dot when its area is this share of that of a circle as long around: a square is, a bar twice as long as wide is not. */
const ROUND = 0.74;

/** Centerline of one connected clean region, in its own unit. */
export function centerlineOf(region: readonly Path[], settings: CenterlineSettings): Centerline {
  const area = regionArea(region);
  const around = region.reduce((sum, p) => sum + pathLength(p), 0);
  if (!(area > 0)) return { lines: [], dots: [], joints: [], width: 0 };
  const width = (2 * area) / around;
  if (region.length === 1 && (4 * Math.PI * area) / around ** 2 > ROUND) {
    const r = Math.sqrt(area / Math.PI);
    return { lines: [], dots: [{ ...boxCentre(regionBox(region)), r }], joints: [], width: 2 * r };
  }
  const axis = medialAxis(region, width / POINTS_PER_WIDTH);
  if (!axis) return { lines: [], dots: [], joints: [], width };
  const skeleton = skeletonOf(axis, settings.detail, width / 2);
  const tracks = tracksOf(skeleton, width / 2);
  const { strokes, joints } = strokesOf(tracks, axis.samples);
  const fit = { tolerance: settings.tolerance ?? settings.smooth * width, reach: width / 2 };
  const ended = strokes.map((s) => withEndsMade(s, axis.samples, settings.ends));
  const lines = ended.map((s): Path => ({ segments: fitPoints(s.points, s.closed, fit), closed: s.closed }));
  return { lines: metExactly(ended, lines, width / 2).filter((l) => l.segments.length > 0), dots: [], joints, width };
}

/** Ends that meet another line are put exactly on it, now that it is smooth. */
function metExactly(strokes: readonly Stroke[], lines: readonly Path[], within: number): Path[] {
  const nearest = (p: Point, except: number): Point | null => {
    let best: Point | null = null;
    let least = within;
    lines.forEach((line, i) => {
      if (i === except) return;
      for (const s of line.segments) {
        const q = pointAt(s, nearestParameter(s, p.x, p.y));
        const d = Math.hypot(p.x - q.x, p.y - q.y);
        if (d < least) [best, least] = [q, d];
      }
    });
    return best;
  };
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
