/**
 * Ends that run into the middle of another line: one that overshoots it is cut back to it, one that stops short of it is
 * run on to it.
 */
import Flatbush from 'flatbush';
import type { Path } from '../../geometry/path';
import { growBox } from '../../geometry/point';
import { reverseSegment, type Segment } from '../../geometry/segment';
import { segmentBox } from '../../geometry/segment-measures';
import { meetLine } from './join';

/** Open paths whose ends were brought onto the lines they run into, and how many were. */
export type Teed = {
  readonly open: readonly Path[];
  /** Ends that were cut back or run on. */
  readonly tees: number;
};

/** Ends brought onto the lines that they run into, or nearly. `reach` is how far an end may be moved, in mm. */
export function trimTees(open: readonly Path[], loops: readonly Path[], reach: number): Teed {
  if (reach <= 0 || open.length === 0) return { open, tees: 0 };
  const owners: number[] = [];
  const segments: Segment[] = [];
  [...open, ...loops].forEach((path, i) => {
    for (const s of path.segments) {
      owners.push(i);
      segments.push(s);
    }
  });
  const index = new Flatbush(segments.length);
  for (const s of segments) {
    const b = segmentBox(s);
    index.add(b.minX, b.minY, b.maxX, b.maxY);
  }
  index.finish();
  let tees = 0;
  /** The path with its last end moved to the nearest line it runs into. */
  const ended = (path: Path, own: number): Path => {
    const last = path.segments[path.segments.length - 1] as Segment;
    const { minX, minY, maxX, maxY } = growBox({ minX: last.x1, minY: last.y1, maxX: last.x1, maxY: last.y1 }, reach);
    const near = index.search(minX, minY, maxX, maxY, (i) => owners[i] !== own);
    let best: ReturnType<typeof meetLine> = null;
    for (const i of near) {
      const met = meetLine(last, segments[i] as Segment, reach);
      if (met && (!best || met.moved < best.moved)) best = met;
    }
    // What lies on the other line already stays as it is.
    if (!best || best.moved < 1e-6) return path;
    tees++;
    return { ...path, segments: [...path.segments.slice(0, -1), ...best.pieces] };
  };
  const turned = (path: Path): Path => ({ ...path, segments: path.segments.map(reverseSegment).reverse() });
  const done = open.map((path, i) => turned(ended(turned(ended(path, i)), i)));
  return { open: done, tees };
}
