/**
 * Words as large as a box or a panel holds within a margin, centred in it: by the bounds of their ink, by its weight, or by their
 * capitals and baselines.
 */
import { convexHull, middleOfWeights, weightOf } from '../geometry/centroid';
import { flattenPath, type Path, pathBox } from '../geometry/path';
import { type Box, boxCentre, boxHeight, boxWidth, isEmptyBox, type Point } from '../geometry/point';
import { windingAt } from '../geometry/winding';
import type { Fit } from '../schema/fit';
import { type Layout, letterPaths } from './layout';

/** What words are fitted into, in their own coordinates, in mm: a box about their origin, or a panel. */
export type FitInto = { readonly width: number; readonly height: number } | { readonly panel: Path };

/** How words fit: set so large, and moved so far in their own coordinates; null where there is no room. */
export type Fitted = { readonly layout: Layout; readonly shift: Point } | null;

/** Rounds of setting until the size is settled, and how well: overlaps and lines are in mm and do not grow along. */
const ROUNDS = 24;
const SETTLED = 1e-7;
/** Halvings of the size that a panel holds. */
const HALVINGS = 48;
/** Chords of ink and panels stray from the curves by this, in mm. */
const CHORD_MM = 0.01;
/** Words are first tried so large, as a share of what they are fitted into. */
const FIRST = 0.25;
const LEAST_MM = 1e-3;

/** Fit words. `layoutAt` sets them with capitals of a height in mm. */
export function fitLettering(
  layoutAt: (capitalMm: number) => Layout,
  into: FitInto,
  { margin, centre }: Pick<Fit, 'margin' | 'centre'>,
): Fitted {
  const bounds = boundsOf(into);
  if (Math.min(boxWidth(bounds), boxHeight(bounds)) <= 2 * margin) return null;
  const target = boxCentre(bounds);
  let capital = FIRST * Math.min(boxWidth(bounds), boxHeight(bounds));
  let layout = layoutAt(capital);
  if (isEmptyBox(layout.box)) return { layout, shift: { x: 0, y: 0 } };
  const holds = 'panel' in into ? panelHolds(into.panel, margin) : boxHolds(bounds, margin);
  for (let round = 0; round < ROUNDS; round++) {
    const factor = holds(layout, middleOf(layout, centre), target);
    if (factor * capital < LEAST_MM) return null;
    const isSettled = Math.abs(factor - 1) < SETTLED;
    if (isSettled) break;
    capital *= factor;
    layout = layoutAt(capital);
  }
  const middle = middleOf(layout, centre);
  return { layout, shift: { x: target.x - middle.x, y: target.y - middle.y } };
}

function boundsOf(into: FitInto): Box {
  if ('panel' in into) return pathBox(into.panel);
  const { width, height } = into;
  return { minX: -width / 2, maxX: width / 2, minY: -height / 2, maxY: height / 2 };
}

/** The place of words that is put in the middle, in mm. */
function middleOf(layout: Layout, centre: Fit['centre']): Point {
  const ink = boxCentre(layout.box);
  if (centre === 'ink') return ink;
  if (centre === 'weight') {
    const tolerance = layout.capHeightMm / 1000;
    const weights = layout.letters.map((letter) => weightOf(letterPaths({ ...layout, letters: [letter] }), tolerance));
    return middleOfWeights(weights) ?? ink;
  }
  const [first, last] = [layout.lines[0], layout.lines[layout.lines.length - 1]];
  if (!first || !last || first.track) return ink;
  return { x: ink.x, y: (layout.scale * (first.y + first.capital + last.y)) / 2 };
}

/** How many times as large words can be about their middle, which lies at a place, and still be held. */
type Holds = (layout: Layout, middle: Point, target: Point) => number;

const boxHolds =
  (box: Box, margin: number): Holds =>
  ({ box: ink }, middle) => {
    const [across, upright] = [boxWidth(box) / 2 - margin, boxHeight(box) / 2 - margin];
    const wide = Math.max(middle.x - ink.minX, ink.maxX - middle.x);
    const high = Math.max(middle.y - ink.minY, ink.maxY - middle.y);
    return Math.min(wide > 0 ? across / wide : Infinity, high > 0 ? upright / high : Infinity);
  };

/** A panel holds what lies in it with the margin to its outline, none of its corners reaching into the words. */
function panelHolds(panel: Path, margin: number): Holds {
  const outline = flattenPath(panel, CHORD_MM);
  const reach = boxWidth(pathBox(panel)) + boxHeight(pathBox(panel));
  return (layout, middle, target) => {
    const hull = convexHull(letterPaths(layout).flatMap((path) => flattenPath(path, CHORD_MM)));
    const fits = (factor: number): boolean => {
      const words = hull.map((p) => ({
        x: target.x + factor * (p.x - middle.x),
        y: target.y + factor * (p.y - middle.y),
      }));
      return (
        words.every(({ x, y }) => windingAt(panel, x, y) !== 0 && distanceTo(outline, x, y) >= margin) &&
        outline.every(({ x, y }) => !isWithin(words, x, y) && distanceTo(words, x, y) >= margin)
      );
    };
    const size = Math.max(boxWidth(layout.box), boxHeight(layout.box));
    let [lo, hi] = [0, reach / size];
    for (let k = 0; k < HALVINGS; k++) {
      const mid = (lo + hi) / 2;
      if (fits(mid)) lo = mid;
      else hi = mid;
    }
    return lo;
  };
}

/** Whether a point lies in a convex polygon that runs counter-clockwise. */
const isWithin = (polygon: readonly Point[], x: number, y: number): boolean =>
  polygon.length > 2 &&
  polygon.every((a, i) => {
    const b = polygon[(i + 1) % polygon.length] as Point;
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) > 0;
  });

/** Distance from a point to a closed polygon. */
function distanceTo(polygon: readonly Point[], x: number, y: number): number {
  let least = Infinity;
  for (let i = 0; i < polygon.length; i++) {
    const a = polygon[i] as Point;
    const b = polygon[(i + 1) % polygon.length] as Point;
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const length = dx * dx + dy * dy;
    const t = length === 0 ? 0 : Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / length));
    least = Math.min(least, (a.x + t * dx - x) ** 2 + (a.y + t * dy - y) ** 2);
  }
  return Math.sqrt(least);
}
