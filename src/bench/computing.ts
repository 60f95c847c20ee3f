/** Keeps the computed view in step with the document: the newest wins, the last picture stays until the new one is there. */
import { proxy } from 'comlink';
import { fieldFindings, ofRow } from '@/core/job/rows';
import { placeOfRow } from '@/core/roster/in-row';
import { today } from '@/ui/when';
import { computing } from '@/worker/client';
import { applyUpdate, type JobView } from '@/worker/view';
import { afterFrame } from './beside';
import { followRun } from './running';
import { useBench } from './store';

/** Progress is shown only for work longer than this, in ms. */
const QUIET_MS = 150;
/** A typeface that could not be fetched is asked for again after this, in ms. */
const RETRY_MS = 6_000;

/** A view with what is found about the row in hand: about its fields too, and nothing about a place where it is not laid. */
function ofRowInHand(view: JobView): JobView {
  const { document, rowId } = useBench.getState();
  if (document.roster === null) return view;
  const found = fieldFindings(document, placeOfRow(document, rowId), { today: today() });
  const others = ofRow(document, view.findings);
  return found.length > 0 || others !== view.findings ? { ...view, findings: [...found, ...others] } : view;
}

/** Start following the document; returns how to stop. */
export function followDocument(): () => void {
  let stopped = false;
  let heldSerial: number | null = null;
  let retry: ReturnType<typeof setTimeout> | undefined;
  const compute = async () => {
    const { job } = useBench.getState();
    const began = performance.now();
    clearTimeout(retry);
    // Progress may still be on its way when the result is there.
    let isDone = false;
    try {
      const update = await computing().evaluate(
        job,
        heldSerial,
        proxy((done: number, of: number) => {
          if (!isDone && performance.now() - began > QUIET_MS && useBench.getState().job === job)
            useBench.setState({ progress: { done, of } });
        }),
      );
      isDone = true;
      if (stopped || update === null) return;
      heldSerial = update.serial;
      const view = ofRowInHand(applyUpdate(update, useBench.getState().view));
      useBench.setState({ view, viewOf: job, progress: null, workerFault: null });
      // The worker finds the order while the page draws the sheet.
      void run.ask();
      afterFrame(() => {
        if (!stopped) useBench.setState({ viewBeside: useBench.getState().view });
      });
      if (view.findings.some((f) => f.code === 'no-typeface' || f.code === 'words-as-they-came'))
        retry = setTimeout(() => void compute(), RETRY_MS);
    } catch (reason) {
      isDone = true;
      if (!stopped)
        useBench.setState({
          progress: null,
          workerFault: `This could not be computed: ${reason instanceof Error ? reason.message : 'the worker stopped'}. The job itself is safe.`,
        });
    }
  };
  const run = followRun(() => stopped);
  const cut = async () => {
    const { job, look } = useBench.getState();
    if (look !== 'cut') return;
    try {
      const cutPieces = await computing().asCut(job);
      if (!stopped && cutPieces) useBench.setState({ cutPieces });
    } catch {
      // The evaluation of the document says what is wrong with it.
    }
  };
  void compute();
  void cut();
  const leave = useBench.subscribe((now, before) => {
    if (now.job !== before.job) void compute();
    if (now.job !== before.job || now.look !== before.look) void cut();
    if (now.station !== before.station) void run.ask();
  });
  return () => {
    stopped = true;
    run.stop();
    clearTimeout(retry);
    leave();
  };
}
