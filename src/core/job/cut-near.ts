/** The cut that is nearest to a point of the sheet, and the letter there, for what is put on it by hand. */
import { nearestOnLine } from '../geometry/near-lines';
import type { Path } from '../geometry/path';
import { applyMatrix, invert, type Point } from '../geometry/point';
import type { StartPlace } from '../schema/cut-places';
import { letterAt } from './cut-paths';
import type { JobResult } from './evaluate';

/** A cut by its operation, its part, and which of the part's outlines it runs along. */
export type CutNear = {
  readonly operationId: string;
  readonly partId: string;
  readonly nth: number;
  /** The point as a place on the letter that is nearest to it. */
  readonly place: StartPlace;
};

/** A cut by its operation, its part, and which of the part's outlines it runs along. */
type OfCut = Omit<CutNear, 'place'>;

/** The outline that a cut runs along; null where there is no such cut. */
export const cutLine = ({ operations }: JobResult, { operationId, partId, nth }: OfCut): Path | null =>
  operations.find((o) => o.operation.id === operationId)?.cuts.filter((c) => c.partId === partId)[nth]?.outline ?? null;

/** Of the cuts of which more is asked than to go along outlines, the one nearest to a point; of one part where that is given. Null where there is none. */
export function cutNear({ operations, parts }: JobResult, at: Point, partId: string | null): CutNear | null {
  let best: OfCut | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const { operation, cuts } of operations) {
    const counts = new Map<string, number>();
    for (const cut of cuts) {
      const nth = counts.get(cut.partId) ?? 0;
      counts.set(cut.partId, nth + 1);
      if (!operation.on || (partId !== null && cut.partId !== partId)) continue;
      const nearest = nearestOnLine(cut.outline, at, least);
      if (!nearest) continue;
      least = Math.hypot(nearest.at.x - at.x, nearest.at.y - at.y);
      best = { operationId: operation.id, partId: cut.partId, nth };
    }
  }
  const part = parts.find((p) => p.id === best?.partId);
  if (!best || !part) return null;
  let letter = '';
  least = Number.POSITIVE_INFINITY;
  for (const outline of part.outlines) {
    const nearest = nearestOnLine(outline.path, at, least);
    if (!nearest) continue;
    least = Math.hypot(nearest.at.x - at.x, nearest.at.y - at.y);
    letter = letterAt(outline, nearest.segment, part);
  }
  const frame = part.frames.find(({ key }) => key === letter);
  return frame ? { ...best, place: { letter, ...applyMatrix(invert(frame.matrix), at) } } : null;
}
