/** A bar under or through each line of the lettering of a part, as long as the line, and bent as it is. */
import { ArcLength } from '../geometry/arc-length';
import { closedPath, joinedExactly, type Path, reversePath, transformPath } from '../geometry/path';
import { boxCentre, boxWidth, compose, type Matrix, translation } from '../geometry/point';
import { arcAbout, line, type Segment } from '../geometry/segment';
import type { BaselineTrack } from '../lettering/bend';
import type { Layout } from '../lettering/layout';
import { roundedRectangle } from './shape';

/** Lengths in mm. */
export type BarSettings = {
  readonly at: 'under' | 'through';
  readonly height: number;
  /** How deep letters stand in it, and how far it reaches beyond the words. */
  readonly overlap: number;
  readonly beyond: number;
  readonly ends: 'square' | 'round';
};

/** Where a bar through the letters lies: its middle, as a share of the capital height above the baseline. */
const THROUGH = 0.34;

/** The bars of one lettering, on the sheet. */
export function barsOf(layout: Layout, matrix: Matrix, step: BarSettings): Path[] {
  return layout.lines.flatMap((words) => {
    /** Its middle from the baseline. */
    const middle = step.at === 'under' ? step.overlap - step.height / 2 : THROUGH * (words.capital * layout.scale);
    if (words.track) {
      const bar = bentBar(words.track, middle, step);
      return bar ? [transformPath(bar, matrix)] : [];
    }
    const length = boxWidth(words.box) * layout.scale + 2 * step.beyond;
    if (length <= 0) return [];
    const corner = step.ends === 'round' ? Math.min(step.height, length) / 2 : 0;
    return [
      transformPath(
        roundedRectangle(length, step.height, corner),
        compose(translation(boxCentre(words.box).x * layout.scale, words.y * layout.scale + middle), matrix),
      ),
    ];
  });
}

/** A bar along a curve, its middle so far to the left of the baseline; null where it would have no length. */
function bentBar(
  { curve, from, to }: BaselineTrack,
  middle: number,
  { height, beyond, ends }: BarSettings,
): Path | null {
  const half = height / 2;
  const inset = ends === 'round' ? half : 0;
  const start = from - beyond + inset;
  // Once around a closed line is enough, however long the words are.
  const end = Math.min(to + beyond - inset, curve.path.closed ? start + curve.length : Infinity);
  if (end <= start) return null;
  const side = (left: number): Path => {
    const edge = new ArcLength(curve.path, curve.left + left);
    const place = (run: number) => edge.lengthTo(curve.placeAt(run));
    // Once around a closed line is not nothing.
    const around = curve.path.closed ? Math.floor(end / curve.length) - Math.floor(start / curve.length) : 0;
    return edge.between(place(start), place(end) + around * edge.length);
  };
  const [lower, upper] = [side(middle - half), reversePath(side(middle + half))];
  return joinedExactly(
    closedPath([...lower.segments, ...capOf(lower, upper, ends), ...upper.segments, ...capOf(upper, lower, ends)]),
  );
}

/** What closes a bar from the end of one side to the start of the other. */
function capOf(before: Path, after: Path, ends: BarSettings['ends']): Segment[] {
  const [a, b] = [before.segments[before.segments.length - 1], after.segments[0]];
  if (!a || !b) return [];
  if (ends === 'square') return [line(a.x1, a.y1, b.x0, b.y0)];
  const [cx, cy] = [(a.x1 + b.x0) / 2, (a.y1 + b.y0) / 2];
  return [arcAbout(cx, cy, Math.hypot(a.x1 - cx, a.y1 - cy), Math.atan2(a.y1 - cy, a.x1 - cx), Math.PI)];
}
