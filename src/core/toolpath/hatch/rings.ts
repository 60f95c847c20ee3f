/** Rings that follow an outline inwards, run into each other from the innermost to the edge. */
import type { ClipEngine } from '../../geometry/boolean/engine';
import { offsetRegion } from '../../geometry/offset/offset';
import { cutOpen, type Path } from '../../geometry/path';
import type { Box, Point } from '../../geometry/point';
import { line, pointAt, type Segment } from '../../geometry/segment';
import { nearestParameter, segmentBox } from '../../geometry/segment-measures';
import { measureOutlines, type Outline } from '../../prepare/outline';

/** A ring and those just inside it. */
type Ring = { readonly path: Path; readonly boxes: readonly Box[]; readonly level: number; readonly inner: Ring[] };

/** A ring is just inside another when it comes this near it, in spacings. */
const NEXT_TO = 1.02;

/**
 * Rings of a region, the first of them its own outlines, each `spacing` mm inside the one before, at most `most`. As open
 * paths: each runs round its innermost ring and on to the next, as far as one leads to another. Yields the rings found, after
 * every level of them and while they are joined.
 */
export function* ringsOf(
  engine: ClipEngine,
  outlines: readonly Outline[],
  spacing: number,
  most: number,
): Generator<number, { readonly paths: Path[]; readonly rings: number; readonly isCutShort: boolean }> {
  let level = outlines;
  let before: Ring[] = [];
  const roots: Ring[] = [];
  let [rings, depth] = [0, 0];
  while (level.length > 0 && rings + level.length <= most) {
    const now: Ring[] = level.map(({ path }) => ({
      path,
      boxes: path.segments.map(segmentBox),
      level: depth,
      inner: [],
    }));
    for (const ring of now) {
      const around = depth === 0 ? null : nextTo(ring, before, spacing);
      if (around) around.inner.push(ring);
      else roots.push(ring);
    }
    rings += level.length;
    before = now;
    depth++;
    yield rings;
    level = measureOutlines(offsetRegion(engine, level, { by: -spacing, corners: 'round' }));
  }
  const paths: Path[] = [];
  for (const root of roots) paths.push(...(yield* chainsOf(root, NEXT_TO * spacing, rings)));
  return { paths, rings, isCutShort: level.length > 0 };
}

/** The ring of the level before that one lies just inside of. */
function nextTo(ring: Ring, before: readonly Ring[], spacing: number): Ring | null {
  const first = ring.path.segments[0] as Segment;
  const p = { x: first.x0, y: first.y0 };
  let [best, least] = [null as Ring | null, NEXT_TO * spacing];
  for (const other of before) {
    const near = nearestOn(other, p, least);
    if (near && near.distance <= least) [best, least] = [other, near.distance];
  }
  return best;
}

/** So many rings are joined between two times of progress. */
const A_TURN = 24;

type Place = { readonly segment: number; readonly t: number; readonly at: Point; readonly distance: number };

/** The point of a ring nearest to a point, when it is within a distance. */
function nearestOn({ path, boxes }: Ring, p: Point, within: number): Place | null {
  let found: Place | null = null;
  let least = within;
  path.segments.forEach((s, segment) => {
    const b = boxes[segment] as Box;
    if (p.x < b.minX - least || p.x > b.maxX + least || p.y < b.minY - least || p.y > b.maxY + least) return;
    const t = nearestParameter(s, p.x, p.y);
    const at = pointAt(s, t);
    const distance = Math.hypot(at.x - p.x, at.y - p.y);
    if (distance > least) return;
    least = distance;
    found = { segment, t, at, distance };
  });
  return found;
}

/**
 * Runs of rings, the innermost first: where several lie in one, the last of them goes on into it. A run that ends farther from
 * the next ring than `within` ends there: a longer link might leave the shape, as where a ring has two outlines around it.
 */
function* chainsOf(root: Ring, within: number, rings: number): Generator<number, Path[]> {
  const done: Path[] = [];
  let looked = 0;
  // Without recursion: rings are as deep as the letter is wide.
  const open = new Map<Ring, Segment[]>();
  const toVisit: { readonly ring: Ring; seen: boolean }[] = [{ ring: root, seen: false }];
  for (let top = toVisit.at(-1); top; top = toVisit.at(-1)) {
    if (!top.seen) {
      top.seen = true;
      for (const inner of top.ring.inner) toVisit.push({ ring: inner, seen: false });
      continue;
    }
    toVisit.pop();
    if (++looked % A_TURN === 0) yield rings;
    const { ring } = top;
    const runs = ring.inner.map((inner) => open.get(inner) as Segment[]);
    const goesOn = runs.pop();
    for (const run of runs) done.push({ segments: run, closed: false });
    const last = goesOn?.at(-1);
    const place = last && nearestOn(ring, { x: last.x1, y: last.y1 }, within);
    if (!goesOn || !last || !place) {
      if (goesOn) done.push({ segments: goesOn, closed: false });
      open.set(ring, cutOpen(ring.path, 0, 0));
    } else {
      // It goes on in the same list: a copy for every ring would take time in the square of their number.
      goesOn.push(line(last.x1, last.y1, place.at.x, place.at.y));
      for (const s of cutOpen(ring.path, place.segment, place.t)) goesOn.push(s);
      open.set(ring, goesOn);
    }
  }
  done.push({ segments: open.get(root) as Segment[], closed: false });
  return done;
}
