/** Arranging things by their bounds: how far each has to move. Lengths in mm. */
import { numberAt } from '../geometry/elements';
import { type Box, boxCentre } from '../geometry/point';

/** An edge or a middle that parts are aligned by. */
export type Edge = 'left' | 'centre' | 'right' | 'bottom' | 'middle' | 'top';

/** How far something is moved, in mm, y upwards. */
export type Move = { readonly dx: number; readonly dy: number };

const ACROSS: readonly Edge[] = ['left', 'centre', 'right'];

const edgeOf = (box: Box, edge: Edge): number => {
  const centre = boxCentre(box);
  return { left: box.minX, centre: centre.x, right: box.maxX, bottom: box.minY, middle: centre.y, top: box.maxY }[edge];
};

/** The move that brings an edge, or the middle, of a box to that of another. */
export function alignTo(box: Box, target: Box, edge: Edge): Move {
  const by = edgeOf(target, edge) - edgeOf(box, edge);
  return ACROSS.includes(edge) ? { dx: by, dy: 0 } : { dx: 0, dy: by };
}

/**
 * The moves after which the gaps between neighbours are equal, across or upright. The first and the last stay; with
 * less than three nothing moves. Things that overlap overlap equally.
 */
export function spaceEqually(boxes: readonly Box[], way: 'across' | 'upright'): Move[] {
  const [low, high] = way === 'across' ? (['minX', 'maxX'] as const) : (['minY', 'maxY'] as const);
  const order = boxes
    .map((_, i) => i)
    .sort((a, b) => middleAlong(boxes[a] as Box, way) - middleAlong(boxes[b] as Box, way));
  const moves: Move[] = boxes.map(() => ({ dx: 0, dy: 0 }));
  const first = boxes[numberAt(order, 0)];
  const last = boxes[numberAt(order, order.length - 1)];
  if (!first || !last || boxes.length < 3) return moves;
  const filled = boxes.reduce((sum, b) => sum + b[high] - b[low], 0);
  const gap = (last[high] - first[low] - filled) / (boxes.length - 1);
  let at = first[low];
  for (const i of order) {
    const box = boxes[i] as Box;
    const by = at - box[low];
    moves[i] = way === 'across' ? { dx: by, dy: 0 } : { dx: 0, dy: by };
    at += box[high] - box[low] + gap;
  }
  return moves;
}

const middleAlong = (box: Box, way: 'across' | 'upright'): number =>
  edgeOf(box, way === 'across' ? 'centre' : 'middle');

/** The moves that bring baselines to the height of the first. */
export const levelBaselines = (baselines: readonly number[]): Move[] =>
  baselines.map((y) => ({ dx: 0, dy: numberAt(baselines, 0) - y }));

/** A line that things snap to, and what it is. */
export type Guide = { readonly at: number; readonly words: string };

/** A line that what is dragged comes to lie on: how far it moves for that, where the line is, in mm, and its words. */
export type Snap = { readonly by: number; readonly at: number; readonly words: string };

/**
 * The least move that brings one of a thing's own lines onto a guide no farther than `reach`; null when none is near.
 * Of guides equally near the first counts, so that the more telling ones come first.
 */
export function snapTo(own: readonly Guide[], guides: readonly Guide[], reach: number): Snap | null {
  let best: Snap | null = null;
  for (const guide of guides)
    for (const line of own) {
      const by = guide.at - line.at;
      if (Math.abs(by) > reach || (best && Math.abs(by) >= Math.abs(best.by) - 1e-9)) continue;
      best = { by, at: guide.at, words: `${line.words} on ${guide.words}` };
    }
  return best;
}
