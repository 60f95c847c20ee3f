/** What is shown beside the sheet follows it: a key press is seen in the letters first, and in their figures a frame later. */
import { useDeferredValue } from 'react';
import type { JobView } from '@/worker/view';
import { useBench } from './store';

/** A page that is not looked at draws no frames; it waits this long, in ms. */
const UNSEEN_MS = 200;

/** Run something when the next frame has been drawn. */
export function afterFrame(run: () => void): void {
  let hasRun = false;
  const once = () => {
    if (!hasRun) run();
    hasRun = true;
  };
  requestAnimationFrame(() => setTimeout(once));
  setTimeout(once, UNSEEN_MS);
}

/** Something of the computed view, for what stands beside the sheet; drawing it gives way to the next key press. */
export const useBeside = <T>(select: (view: JobView | null) => T): T =>
  useDeferredValue(useBench((s) => select(s.viewBeside)));
