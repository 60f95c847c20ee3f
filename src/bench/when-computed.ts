/** Waiting for the worker: what is done once the view is in step with the document. */
import { useBench } from './store';

/** Run something once the view is in step with the document: at once, or when the work under way is done. */
export function whenComputed(run: () => void): void {
  const inStep = ({ job, viewOf }: ReturnType<typeof useBench.getState>) => job === viewOf;
  if (inStep(useBench.getState())) {
    run();
    return;
  }
  const leave = useBench.subscribe((now) => {
    if (!inStep(now)) return;
    leave();
    run();
  });
}
