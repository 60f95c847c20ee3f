/** The proof of the document on the bench, and how far its run is played on the sheet. */
import { proxy } from 'comlink';
import { create } from 'zustand';
import type { Job } from '@/core/document/schema';
import type { ExportScope } from '@/core/job/export';
import { openGroups } from '@/core/rules/groups';
import { computing } from '@/worker/client';
import type { ProofView } from '@/worker/proof-view';
import type { JobView } from '@/worker/view';
import { useBench } from '../store';

/** How many seconds of a run pass in one of watching. */
export const RATES = [1, 5, 20, 100] as const;
/** A run is played in about so many seconds unless another speed is chosen. */
const WATCHED_S = 20;

/** A proof with the document it is of, and the parts that were proved; null for all. */
type Proved = { readonly of: Job; readonly partIds: readonly string[] | null; readonly view: ProofView };

type ProofState = {
  readonly proved: Proved | null;
  readonly progress: { readonly done: number; readonly of: number } | null;
  /** Why it could not be proved. */
  readonly fault: string | null;
  /** Whether the run is on the sheet. */
  readonly isShown: boolean;
  readonly isPlaying: boolean;
  /** How far it is, in seconds. */
  readonly at: number;
  readonly rate: (typeof RATES)[number];
};

const NOTHING: ProofState = {
  proved: null,
  progress: null,
  fault: null,
  isShown: false,
  isPlaying: false,
  at: 0,
  rate: 1,
};

/** The proof of the bench in this window. */
export const useProof = create<ProofState>(() => NOTHING);
const set = useProof.setState;
const get = useProof.getState;

const rateFor = (seconds: number): ProofState['rate'] =>
  RATES.find((rate) => seconds / rate <= WATCHED_S) ?? RATES[RATES.length - 1] ?? 1;

/** The proof that holds: of just this document; null where there is none, or it was changed since. */
export const proofOf = (proved: Proved | null, job: Job): ProofView | null =>
  proved !== null && proved.of === job ? proved.view : null;

/** Faults of a job that are not left as they are. */
export const openFaults = (view: JobView | null): number =>
  openGroups(view?.findings ?? []).filter((f) => f.severity === 'fault').length;

/** Whether a document is proved as a whole: nothing differs, and no fault of its own is open. */
export const isProved = (proved: Proved | null, job: Job, seen: JobView | null): boolean => {
  const view = proofOf(proved, job);
  const isAsMeant = view !== null && view.files.length > 0 && view.findings.length === 0;
  return isAsMeant && proved?.partIds === null && openFaults(seen) === 0;
};

/** Prove the document as it is. */
export async function proveNow(scope: ExportScope): Promise<ProofView | null> {
  const { job } = useBench.getState();
  set({ ...NOTHING, progress: { done: 0, of: 1 } });
  try {
    const view = await computing().prove(
      job,
      scope,
      proxy((done: number, of: number) => {
        if (get().progress && useBench.getState().job === job) set({ progress: { done, of } });
      }),
    );
    if (view === null || useBench.getState().job !== job) {
      set({ progress: null });
      return null;
    }
    set({ progress: null, proved: { of: job, partIds: scope.partIds, view }, rate: rateFor(view.run?.seconds ?? 0) });
    return view;
  } catch (reason) {
    const why = reason instanceof Error ? reason.message : 'the worker stopped';
    set({ progress: null, fault: `It could not be proved: ${why}. The job itself is safe.` });
    return null;
  }
}

/** The run that can be played: of the document as it is. */
const runNow = () => proofOf(get().proved, useBench.getState().job)?.run ?? null;

/** Play the run, or hold it; from the start where it is over. */
export function playOrHold(): void {
  const run = runNow();
  if (!run) return;
  const { isPlaying, at, isShown } = get();
  if (isPlaying) set({ isPlaying: false });
  else set({ isShown: true, isPlaying: true, at: isShown && at < run.seconds ? at : 0 });
}

/** Look at the run at a time, in seconds; it is held there. */
export const lookAt = (at: number): void => set({ isShown: true, isPlaying: false, at });

/** Go to where the next operation begins, or the one before. */
export function stepOperation(way: 1 | -1): void {
  const run = runNow();
  if (!run) return;
  const { at } = get();
  const stops = [...run.operations.map((o) => o.begin), run.seconds].sort((a, b) => a - b);
  const next = way > 0 ? stops.find((s) => s > at + NEAR_S) : stops.findLast((s) => s < at - NEAR_S);
  lookAt(next ?? (way > 0 ? run.seconds : 0));
}
const NEAR_S = 0.01;

/** How fast it is played. */
export const setRate = (rate: ProofState['rate']): void => set({ rate });

/** Take the run off the sheet. */
export const hideRun = (): void => set({ isShown: false, isPlaying: false });

/** Let go of what was proved, when another job is opened. */
export const forgetProof = (): void => set(NOTHING);

/** Go on by what passed, in seconds of watching; at the end it is held. */
export function passTime(seconds: number): void {
  const run = runNow();
  const { isPlaying, at, rate } = get();
  if (!isPlaying) return;
  const next = at + seconds * rate;
  if (!run) hideRun();
  else if (next >= run.seconds) set({ at: run.seconds, isPlaying: false });
  else set({ at: next });
}
