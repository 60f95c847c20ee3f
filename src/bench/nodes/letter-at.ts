/** The letter under a press, whose middle lines are then worked on. */
import type { Box, Point } from '@/core/geometry/point';
import { pointAt, select, useBench } from '../store';
import { enterLines } from './hand';

/** The letter at a point, or else the nearest, of the selected part or of any that has middle lines. */
export function letterAt(p: Point): void {
  pointAt(null);
  const { view, selection } = useBench.getState();
  const found = (view?.parts ?? [])
    .filter((part) => selection.partId === null || part.id === selection.partId)
    .flatMap((part) => (part.centerline?.letters ?? []).map((letter) => ({ part, letter })))
    .sort((a, b) => away(p, a.letter.box) - away(p, b.letter.box) || areaOf(a.letter.box) - areaOf(b.letter.box))[0];
  if (!found) return;
  select(found.part.id);
  enterLines(found.part.id, found.letter.key);
}

/** How far a point is outside a box; 0 within it. */
const away = (p: Point, b: Box): number =>
  Math.hypot(Math.max(b.minX - p.x, 0, p.x - b.maxX), Math.max(b.minY - p.y, 0, p.y - b.maxY));

const areaOf = (b: Box): number => (b.maxX - b.minX) * (b.maxY - b.minY);
