/** Mending what was found in rows, by the worker that looks them over. */

import { proxy } from 'comlink';
import { create } from 'zustand';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import type { RowMend } from '@/worker/rows';
import { dispatchDocument, say, useBench } from '../store';

/** The mend under way. */
export const useMending = create<{ readonly busy: { readonly done: number; readonly of: number } | null }>(() => ({
  busy: null,
}));

/** Mend findings of rows; what was changed meanwhile stays, and is mended when it is pressed again. */
export async function mendRows(mend: RowMend): Promise<void> {
  const { document } = useBench.getState();
  // Progress may still be on its way when the result is there.
  let isDone = false;
  useMending.setState({ busy: { done: 0, of: mend.rowIds.length } });
  try {
    const made = await computingRows().mendRows(
      document,
      mend,
      today(),
      proxy((done: number, of: number) => {
        if (!isDone) useMending.setState({ busy: { done, of } });
      }),
    );
    if (!made) return;
    if (useBench.getState().document !== document) say('The job was changed meanwhile; press again to mend it.');
    else if (made.mended === 0) say('There is no way to mend this in one press here.');
    else {
      dispatchDocument(() => made.job);
      say(`Mended in ${made.mended === 1 ? 'one row' : `${made.mended} rows`}. Undo takes it back.`);
    }
  } catch (reason) {
    say(`This could not be mended: ${reason instanceof Error ? reason.message : 'the worker stopped'}.`);
  } finally {
    isDone = true;
    useMending.setState({ busy: null });
  }
}
