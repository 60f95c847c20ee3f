/** One outline of a picture as few segments: lines and curves between its corners, smooth elsewhere. */
import { closedPath, type Path } from '../geometry/path';
import { line, type Segment } from '../geometry/segment';
import { type Corner, cornersOf, type EdgeQuality, type Outlined } from './corners';
import { fitPiece, fitRing } from './fit';
import { pointsBetween, trackLength } from './track';

/** How closely an outline is followed, in pixels, and how well its edge is told. */
export type OutlineSettings = EdgeQuality & { readonly tolerance: number };

/** The path of an outline, in pixels like its points; null where it comes to nothing. */
export function outlinePath(outline: Outlined, settings: OutlineSettings): Path | null {
  const { track } = outline;
  const corners = cornersOf(outline, settings);
  const length = trackLength(track);
  const segments: Segment[] = [];
  if (corners.length === 0) segments.push(...fitRing(pointsBetween(track, -1e-9, length - 1e-9), settings));
  else
    corners.forEach((from, i) => {
      const to: Corner = corners[i + 1] ?? { ...(corners[0] as Corner), at: (corners[0] as Corner).at + length };
      const between = pointsBetween(track, from.at + from.reach, to.at - to.reach);
      if (between.length === 0) segments.push(line(from.x, from.y, to.x, to.y));
      else segments.push(...fitPiece([from, ...between, to], settings));
    });
  return segments.length > 1 ? closedPath(segments) : null;
}
