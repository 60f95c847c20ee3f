/** What was computed of the document, as far as commands ask for it. */
import type { Around } from '@/core/commands/beside';
import type { MiddleOf } from '@/core/commands/changed';
import { applyMatrix, type Box, boxCentre, isEmptyBox, type Matrix, type Point } from '@/core/geometry/point';
import type { MemberView, PartView } from '@/worker/view';
import { useBench } from './store';

export { measureOf } from '@/worker/seen-in';

/** The part as it is seen now; undefined where it is not, or not yet. */
export const partView = (partId: string | null): PartView | undefined =>
  useBench.getState().view?.parts.find((p) => p.id === partId);

/** The member as it is seen now; undefined where it is not, or not yet. */
export const memberView = (partId: string | null, memberId: string | null): MemberView | undefined =>
  partView(partId)?.members.find((m) => m.id === memberId);

/** The middle of a part's outlines in its own coordinates; its origin where nothing is drawn. */
export const ownMiddle: MiddleOf = (partId) => {
  const box = partView(partId)?.ownBox;
  return box && !isEmptyBox(box) ? boxCentre(box) : { x: 0, y: 0 };
};

/** The four corners of a box after a matrix, counter-clockwise from the lower left. */
export function cornersOf(b: Box, m: Matrix): [Point, Point, Point, Point] {
  const at = (x: number, y: number) => applyMatrix(m, { x, y });
  return [at(b.minX, b.minY), at(b.maxX, b.minY), at(b.maxX, b.maxY), at(b.minX, b.maxY)];
}

/** What there is on the sheet, for new things that come beside a part; null for the last one. */
export function aroundNow(beside: string | null): Around {
  const { job, view } = useBench.getState();
  const seen = view?.parts.filter((p) => !isEmptyBox(p.size) && job.parts.some((part) => part.id === p.id)) ?? [];
  return {
    beside,
    boxes: new Map(seen.map((p) => [p.id, p.size])),
    capHeightOf: (partId, memberId) => memberView(partId, memberId)?.capHeightMm ?? undefined,
  };
}
