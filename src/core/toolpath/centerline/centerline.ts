/** One line down the middle of each stroke of a letter, or of any filled shape. */
import { medialAxis } from '../../geometry/medial';
import { type Path, pathLength, regionArea, regionBox } from '../../geometry/path';
import { boxCentre, type Point } from '../../geometry/point';
import { type EndStyle, withEndsMade } from './ends';
import { type Joint, type Stroke, strokesOf } from './joints';
import { skeletonOf } from './skeleton';
import { tracksOf } from './tracks';

export type CenterlineSettings = {
  /** How far a branch must reach beyond the stroke it comes from to count, in halves of that stroke. */
  readonly detail: number;
  /** How far lines may stray from the middle to be smooth, in the unit of the region. */
  readonly tolerance: number;
  readonly ends: EndStyle;
};

export type Dot = Point & { readonly r: number };

export type Centerline = {
  readonly strokes: readonly Stroke[];
  readonly dots: readonly Dot[];
  readonly joints: readonly Joint[];
};

/** Points on the outlines, for each usual stroke width. */
const POINTS_PER_WIDTH = 10;

/** A shape is a dot when its area is this share of that of a circle as long around: a square is, a bar twice as long as wide is not. */
const ROUND = 0.74;

/** Centerline of one connected clean region. */
export function centerlineOf(region: readonly Path[], settings: CenterlineSettings): Centerline {
  const area = regionArea(region);
  const around = region.reduce((sum, p) => sum + pathLength(p), 0);
  if (!(area > 0)) return { strokes: [], dots: [], joints: [] };
  if (region.length === 1 && (4 * Math.PI * area) / around ** 2 > ROUND) {
    const box = regionBox(region);
    return { strokes: [], dots: [{ ...boxCentre(box), r: Math.sqrt(area / Math.PI) }], joints: [] };
  }
  const width = (2 * area) / around;
  const axis = medialAxis(region, width / POINTS_PER_WIDTH);
  if (!axis) return { strokes: [], dots: [], joints: [] };
  const skeleton = skeletonOf(axis, settings.detail);
  const tracks = tracksOf(skeleton, width / 2);
  const { strokes, joints } = strokesOf(tracks);
  return { strokes: strokes.map((s) => withEndsMade(s, axis.samples, settings.ends)), dots: [], joints };
}
