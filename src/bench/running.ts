/** Keeps how the job is run in step with the document: first in an order found quickly, then, when nothing is done for a while, in that of its files. */
import { computing } from '@/worker/client';
import { useBench } from './store';

/** The order of the files is searched for when nothing was changed for so long, in ms. */
const QUIET_MS = 700;
/** How much longer it takes is shown for so long, in ms. */
const SHOWN_MS = 6_000;
/** Differences smaller than this are none, in seconds. */
const LEAST_S = 0.05;

/** Stations where the order and the way between are shown. */
const SHOWN_AT = new Set(['assign', 'prove']);

/** Starts asking how the job is run; `isStopped` says when nobody looks any more. */
export function followRun(isStopped: () => boolean): { readonly ask: () => Promise<void>; readonly stop: () => void } {
  let later: ReturnType<typeof setTimeout> | undefined;
  let shown: ReturnType<typeof setTimeout> | undefined;
  /** What the document took before it was changed, by an order found as quickly. */
  let before: { readonly job: unknown; readonly seconds: number; readonly unknown: string } | null = null;
  const ask = async () => {
    const { job, station, run } = useBench.getState();
    // What is known of a document is shown at every station.
    if (run && before?.job === job && (job.machine || SHOWN_AT.has(station))) return;
    clearTimeout(later);
    // Without a machine nothing takes time, and only where it is shown is the order asked for.
    if (!job.machine && !SHOWN_AT.has(station)) {
      // Telling what is known already would ask every part of the page whether it is to be drawn.
      if (run) useBench.setState({ run: null, runDiffers: null });
      return;
    }
    const isOld = () => isStopped() || useBench.getState().job !== job;
    try {
      const quick = await computing().running(job, 'quick');
      if (!quick || isOld()) return;
      // Where the time of an operation was not known before, or is not now, nothing can be said of what became longer.
      const unknown = quick.unknown.join('\n');
      const differs = before && before.unknown === unknown ? quick.seconds - before.seconds : 0;
      before = { job, seconds: quick.seconds, unknown };
      useBench.setState({ run: quick });
      if (Math.abs(differs) >= LEAST_S) {
        clearTimeout(shown);
        useBench.setState({ runDiffers: differs });
        shown = setTimeout(() => useBench.setState({ runDiffers: null }), SHOWN_MS);
      }
      later = setTimeout(async () => {
        const full = await computing()
          .running(job, 'full')
          .catch(() => null);
        if (full && !isOld()) useBench.setState({ run: full });
      }, QUIET_MS);
    } catch {
      // The evaluation of the document says what is wrong with it.
    }
  };
  const stop = () => {
    clearTimeout(later);
    clearTimeout(shown);
  };
  return { ask, stop };
}

/** Show the order in which things are run on the sheet, or not. */
export const setShowsOrder = (showsOrder: boolean): void => useBench.setState({ showsOrder });
