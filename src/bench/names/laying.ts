/** Laying the names on sheets: searched for by the worker of the rows while the user looks, and kept when it ends or is stopped. */
import { proxy } from 'comlink';
import { create } from 'zustand';
import { newLayout, setFilled, setLayout, setPlaces } from '@/core/commands/layout';
import type { Job } from '@/core/document/schema';
import type { LaidRows } from '@/core/job/lay-out';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import { dispatchDocument, say, useBench } from '../store';

type LayingState = {
  /** The layout as it is while it is searched for; null when none is. */
  readonly now: LaidRows | null;
  readonly share: number | null;
  /** What came of the last search, and the document it is of. */
  readonly last: { readonly of: Job; readonly laid: LaidRows } | null;
};

/** The search under way. */
export const useLaying = create<LayingState>(() => ({ now: null, share: null, last: null }));

/** Moves of a search. */
const MOVES = 20_000;

/** Lay all names anew, as the job says. */
export async function layOut(): Promise<void> {
  const before = useBench.getState().document;
  if (!before.layout) dispatchDocument((job) => setLayout(job, newLayout()));
  const { document } = useBench.getState();
  if (!document.layout) return;
  useLaying.setState({ now: null, share: 0 });
  // Progress may still be on its way when the result is there.
  let isDone = false;
  const isOld = () => isDone || useBench.getState().document !== document;
  // What is searched for is of no use any more once the names were changed.
  const leave = useBench.subscribe((now) => {
    if (now.document !== document) stopLaying();
  });
  try {
    const laid = await computingRows().layOut(
      document,
      { layout: document.layout, moves: MOVES, today: today() },
      proxy((now: LaidRows) => {
        if (!isOld()) useLaying.setState({ now });
      }),
      proxy((share: number) => {
        if (!isOld()) useLaying.setState({ share });
      }),
    );
    if (!laid) return;
    if (useBench.getState().document !== document) {
      say('The names were changed meanwhile; press again to lay them out.');
      return;
    }
    dispatchDocument((job) => setPlaces(job, laid.places));
    useLaying.setState({ last: { of: useBench.getState().document, laid } });
  } catch (reason) {
    say(`They could not be laid out: ${reason instanceof Error ? reason.message : 'the worker stopped'}.`);
  } finally {
    leave();
    isDone = true;
    useLaying.setState({ now: null, share: null });
  }
}

/** Make a row as often as goes on one sheet. */
export async function fillSheet(rowId: string): Promise<void> {
  const before = useBench.getState().document;
  if (!before.layout) dispatchDocument((job) => setLayout(job, newLayout()));
  const { document } = useBench.getState();
  if (!document.layout) return;
  useLaying.setState({ now: null, share: 0 });
  try {
    const filled = await computingRows().fillSheet(document, { rowId, layout: document.layout, today: today() });
    if (!filled || useBench.getState().document !== document) return;
    if (filled.copies === 0) say('It is larger than the sheet within its margin, or is cut out of the sheet itself.');
    else dispatchDocument((job) => setFilled(job, rowId, filled.copies, filled.places));
  } catch (reason) {
    say(`It could not be laid out: ${reason instanceof Error ? reason.message : 'the worker stopped'}.`);
  } finally {
    useLaying.setState({ now: null, share: null });
  }
}

/** End the search; the best layout it found is kept. */
export const stopLaying = (): void => void computingRows().stopLaying(useBench.getState().document);
