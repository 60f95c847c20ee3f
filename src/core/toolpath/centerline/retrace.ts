/**
 * Stretches that a pen goes over twice so that it need not be lifted: where a line leaves another on the way back from its free
 * end, as an arch leaves its stem, the pen turns round at that end and runs along the line again to where the other leaves it.
 */

import { lineEnd, lineStart, nearestOnLine } from '../../geometry/near-lines';
import { type Path, reversePath } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { line, type Segment, spanOf, subSegment, tangentAt, withEnds } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';

/** A line leaves another from a place no farther from it than this, in strokes. */
const ON = 0.05;
/** It goes on in the direction of the way back within this, in radians. */
const ONWARDS = (75 * Math.PI) / 180;
/** No more than this is gone over twice at a time, in strokes. */
const MOST = 14;
/** A segment this many times as long as a gap at its start is bent to close it. */
const BENT = 4;

/** The part of an open line from its start to a place on it. */
const upTo = ({ segments }: Path, at: number, t: number): Path => ({
  segments: [...segments.slice(0, at), ...(t > 0 ? [subSegment(segments[at] as Segment, 0, t)] : [])],
  closed: false,
});

const lengthOf = ({ segments }: Path): number => segments.reduce((sum, s) => sum + segmentLength(s), 0);

type Joining = { readonly onto: number; readonly stem: Path; readonly back: Path; readonly afterStem: Path };

/** How line `i` can go on from the free end of another, by the shortest way back. */
function joiningOf(lines: readonly Path[], i: number, width: number): Joining | null {
  let best: Joining | null = null;
  let least = MOST * width;
  const isFree = (p: Point, of: number) => lines.every((l, k) => k === of || !nearestOnLine(l, p, ON * width));
  const branch = lines[i] as Path;
  if (branch.closed || branch.segments.length === 0) return null;
  for (const oriented of [branch, reversePath(branch)]) {
    const from = lineStart(oriented);
    const way = tangentAt(oriented.segments[0] as Segment, 0);
    lines.forEach((other, onto) => {
      if (onto === i || other.closed || other.segments.length === 0) return;
      for (const stem of [other, reversePath(other)]) {
        // Back from the end of the line to where the branch leaves it.
        const turned = reversePath(stem);
        const place = nearestOnLine(turned, from, ON * width);
        if (!place) continue;
        const back = upTo(turned, place.segment, place.t);
        const last = back.segments[back.segments.length - 1];
        const length = lengthOf(back);
        if (!last || length === 0 || length > least || !isFree(lineEnd(stem), onto)) continue;
        const into = tangentAt(last, 1);
        if (into.x * way.x + into.y * way.y < Math.cos(ONWARDS)) continue;
        [best, least] = [{ onto, stem, back, afterStem: oriented }, length];
      }
    });
  }
  return best;
}

/** The way back and the line that leaves it, which begins a little beside it: the line is bent onto it, or a short way goes there. */
function backAndOn(back: Path, branch: Path): readonly Segment[] {
  const [end, start] = [lineEnd(back), lineStart(branch)];
  const [first, ...others] = branch.segments as [Segment, ...Segment[]];
  const gap = distance(end, start);
  if (gap === 0) return [...back.segments, ...branch.segments];
  if (spanOf(first) < BENT * gap) return [...back.segments, line(end.x, end.y, start.x, start.y), ...branch.segments];
  return [...back.segments, withEnds(first, end, { x: first.x1, y: first.y1 }), ...others];
}

/** Lines of one letter, those that can be drawn on by going back over a stretch made one. */
export function retraced(lines: readonly Path[], width: number): Path[] {
  let unjoined = [...lines];
  for (let i = 0; i < unjoined.length; ) {
    const joining = joiningOf(unjoined, i, width);
    if (!joining) {
      i++;
      continue;
    }
    const { onto, stem, back, afterStem } = joining;
    const whole: Path = { segments: [...stem.segments, ...backAndOn(back, afterStem)], closed: false };
    unjoined = [...unjoined.filter((_, k) => k !== i && k !== onto), whole];
    i = 0;
  }
  return unjoined;
}
