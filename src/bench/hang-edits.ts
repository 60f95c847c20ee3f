/** Saying by a press on the sheet where a part hangs. */
import { editStep } from '@/core/commands/steps';
import { applyMatrix, boxHeight, boxWidth, invert, type Point } from '@/core/geometry/point';
import { measureOf, partView } from './seen';
import { dispatch, setPointing, useBench } from './store';

/** Shares of bounds are kept to a ten thousandth. */
const share = (value: number): number => Math.round(value * 1e4) / 1e4;

/** Hang the part that is chosen at a point of the sheet. */
export function hangAt(at: Point): void {
  const { selection } = useBench.getState();
  const view = partView(selection.partId);
  setPointing(null);
  if (!view?.hanger) return;
  const { ownBox } = view.hanger;
  const own = applyMatrix(invert(view.matrix), at);
  dispatch((job) =>
    editStep(job, view.id, 'hang', measureOf(job, view), (step) => {
      // No farther away than the document takes.
      const within = (value: number) => Math.min(2, Math.max(-1, share(value)));
      step.x = within((own.x - ownBox.minX) / Math.max(1e-6, boxWidth(ownBox)));
      step.y = within((own.y - ownBox.minY) / Math.max(1e-6, boxHeight(ownBox)));
    }),
  );
}
