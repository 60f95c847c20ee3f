/** The proof of all names of the list, or of the sheets they lie on, by the worker that looks them over. */
import { proxy } from 'comlink';
import { create } from 'zustand';
import type { Job } from '@/core/document/schema';
import type { ExportScope } from '@/core/job/export';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import type { NameProof } from '@/worker/proving-names';
import { useBench } from '../store';

type NamesProofState = {
  /** What was proved last, with the document it is of. */
  readonly proved: { readonly of: Job; readonly proofs: readonly NameProof[] } | null;
  readonly progress: { readonly done: number; readonly of: number } | null;
  readonly fault: string | null;
};

const NOTHING: NamesProofState = { proved: null, progress: null, fault: null };

/** The proof of the names in this window. */
export const useNamesProof = create<NamesProofState>(() => NOTHING);

/** Prove all names as they are now; a change of the job ends it. */
export async function proveNames(scope: ExportScope): Promise<void> {
  const { document } = useBench.getState();
  useNamesProof.setState({ ...NOTHING, progress: { done: 0, of: 1 } });
  const isOld = () => useBench.getState().document !== document;
  const leave = useBench.subscribe(() => {
    if (isOld()) stopProvingNames();
  });
  // Progress may still be on its way when the result is there.
  let isDone = false;
  try {
    const proofs = await computingRows().proveNames(
      document,
      { scope, today: scope.date ?? today() },
      proxy((done: number, of: number) => {
        if (!isDone && !isOld()) useNamesProof.setState({ progress: { done, of } });
      }),
    );
    isDone = true;
    useNamesProof.setState({ progress: null, proved: proofs && !isOld() ? { of: document, proofs } : null });
  } catch (reason) {
    isDone = true;
    const why = reason instanceof Error ? reason.message : 'the worker stopped';
    useNamesProof.setState({ progress: null, fault: `They could not be proved: ${why}. The list itself is safe.` });
  } finally {
    leave();
  }
}

/** End the proving under way: nothing comes of it. */
export const stopProvingNames = (): void =>
  void computingRows()
    .stopProvingNames(useBench.getState().document)
    .catch(() => {});
