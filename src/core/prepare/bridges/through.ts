/** Where a bridge put in by a press on the sheet would start. */
import { numberAt } from '../../geometry/elements';
import { applyMatrix, boxHeight, boxWidth, EMPTY_BOX, invert, type Point, uniteBoxes } from '../../geometry/point';
import { pointAt } from '../../geometry/segment';
import { nearestParameter } from '../../geometry/segment-measures';
import type { Outline } from '../outline';
import { VoidEdges } from './edges';
import { islandsOf, voidsOf } from './islands';
import type { BridgeGround, PinnedBridge } from './notes';
import { CHORD_MM } from './sites';

/** Where a bridge put in at a point of the sheet would start: on which letter and island; null when there is no gap. */
export function bridgeThrough(before: readonly Outline[], ground: BridgeGround, point: Point): PinnedBridge | null {
  const paths = [...before.map((o) => o.path), ...ground.rims];
  const edges = new VoidEdges(paths, !ground.stockInside, CHORD_MM, CHORD_MM);
  const islands = islandsOf(before, voidsOf(before, ground.stockInside), ground.frames);
  const byOutline = new Map(islands.map((island) => [island.outline, island]));
  const box = before.reduce((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const longest = Math.hypot(boxWidth(box), boxHeight(box));
  const found = gapAt(edges, point, { isIsland: (i) => byOutline.has(i), longest, outlines: before.keys() });
  if (!found) return null;
  const island = byOutline.get(found.outline);
  const label = island?.label ?? labelAt(before[found.outline] as Outline, found.at);
  const frame = ground.frames[label];
  if (!frame) return null;
  const { x, y } = applyMatrix(invert(frame.matrix), found.at);
  return { letter: frame.key, island: island?.rank ?? null, x, y, turn: null, width: null };
}

/** The source of the segment of an outline that is nearest to a point on it. */
function labelAt({ path, labels }: Outline, p: Point): number {
  let best = { distance: Infinity, label: -1 };
  path.segments.forEach((s, i) => {
    const q = pointAt(s, nearestParameter(s, p.x, p.y));
    const distance = Math.hypot(q.x - p.x, q.y - p.y);
    if (distance < best.distance) best = { distance, label: numberAt(labels, i) };
  });
  return best.label;
}

/**
 * A bridge through a point in a void: from the edge nearest to it to the one across; null when the point is in stock. It
 * starts on the island when one of the two is one.
 */
function gapAt(
  edges: VoidEdges,
  point: Point,
  {
    isIsland,
    longest,
    outlines,
  }: { readonly isIsland: (outline: number) => boolean; readonly longest: number; readonly outlines: Iterable<number> },
): { readonly outline: number; readonly at: Point } | null {
  const near = edges.nearest(point, outlines);
  if (!near) return null;
  const foot = edges.pointOn(near.chord, near.along);
  const into = edges.intoVoid(near.chord);
  const [dx, dy] = [point.x - foot.x, point.y - foot.y];
  if (dx * into.x + dy * into.y < 0) return null;
  const way = near.distance > 1e-6 ? { x: dx / near.distance, y: dy / near.distance } : into;
  const hit = edges.ray(foot, way, longest, near.chord);
  if (!hit) return null;
  const here = { outline: numberAt(edges.outline, near.chord), at: foot };
  const there = { outline: numberAt(edges.outline, hit.chord), at: edges.pointOn(hit.chord, hit.along) };
  return isIsland(there.outline) && !isIsland(here.outline) ? there : here;
}
