/** The letter under a press, whose middle lines are then worked on. */
import { type Box, outsideBox, type Point } from '@/core/geometry/point';
import { select, setPointing, useBench } from '../store';
import { enterLines } from './hand';

/** The letter at a point, or else the nearest, of the selected part or of any that has middle lines. */
export function letterAt(p: Point): void {
  setPointing(null);
  const { view, selection } = useBench.getState();
  const found = (view?.parts ?? [])
    .filter((part) => selection.partId === null || part.id === selection.partId)
    .flatMap((part) => (part.centerline?.letters ?? []).map((letter) => ({ part, letter })))
    .sort(
      (a, b) =>
        outsideBox(p, a.letter.box) - outsideBox(p, b.letter.box) || areaOf(a.letter.box) - areaOf(b.letter.box),
    )[0];
  if (!found) return;
  select(found.part.id);
  enterLines(found.part.id, found.letter.key);
}

const areaOf = (b: Box): number => (b.maxX - b.minX) * (b.maxY - b.minY);
