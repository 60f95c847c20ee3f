/** What the rows of the roster come to: looked over by a worker of their own, and told as they are there. */
import { proxy } from 'comlink';
import { create } from 'zustand';
import type { Job } from '@/core/document/schema';
import type { RowDone, RowSeen } from '@/core/job/rows';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import { useBench } from '../store';
import { isForWorkers, preparedByWorkers } from './row-batch';

type RowsState = {
  /** What was seen of rows, by their ids; of an earlier document until the new one is there. */
  readonly seen: ReadonlyMap<string, RowSeen>;
  /** The document that all of them are of; null while they are looked over, or were stopped. */
  readonly of: Job | null;
  /** How far they are looked over; `workers`: how many row workers share them, 0 where the page does it by itself. */
  readonly progress: { readonly done: number; readonly of: number; readonly workers: number } | null;
  readonly isStopped: boolean;
  readonly fault: string | null;
};

const INITIAL: RowsState = { seen: new Map(), of: null, progress: null, isStopped: false, fault: null };

/** The rows of the roster on the bench. */
export const useRows = create<RowsState>(() => INITIAL);

/** Rows are looked over when nothing was changed for so long, in ms. */
const QUIET_MS = 350;

const withRows = (seen: RowsState['seen'], rows: readonly RowDone[]): RowsState['seen'] =>
  new Map([...seen, ...rows.map(({ rowId, seen }) => [rowId, seen] as const)]);

/** The rows that there are, of what was seen. */
function stillThere(document: Job, seen: RowsState['seen']): RowsState['seen'] {
  const rows = new Set(document.roster?.rows.filter((row) => !row.out).map((row) => row.id));
  return [...seen.keys()].every((id) => rows.has(id)) ? seen : new Map([...seen].filter(([id]) => rows.has(id)));
}

/** What came in is shown at most so often, in ms: rows come by the hundred a second, and the whole strip follows them. */
const SHOWN_MS = 250;

/** Rows and progress that came in, shown together. */
class Shown {
  private rows: RowDone[] = [];
  private progress: RowsState['progress'] = null;
  private later: ReturnType<typeof setTimeout> | undefined;

  take(rows: readonly RowDone[]): void {
    this.rows.push(...rows);
    this.later ??= setTimeout(() => this.show(), SHOWN_MS);
  }

  tell(progress: RowsState['progress']): void {
    this.progress = progress;
    this.later ??= setTimeout(() => this.show(), SHOWN_MS);
  }

  /** Nothing of it is to be shown any more. */
  drop(): void {
    clearTimeout(this.later);
    this.later = undefined;
    this.rows = [];
    this.progress = null;
  }

  private show(): void {
    const { rows, progress } = this;
    this.later = undefined;
    this.rows = [];
    this.progress = null;
    useRows.setState(({ seen, of }) => ({
      ...(rows.length > 0 && { seen: withRows(seen, rows) }),
      // Once all of them are there, there is no progress any more.
      ...(of === null && progress && { progress }),
    }));
  }
}

const shown = new Shown();

async function look(document: Job): Promise<void> {
  shown.drop();
  // Rows and progress may still be on their way when the answer is there.
  let isDone = false;
  const isOld = () => useBench.getState().document !== document || useRows.getState().isStopped;
  useRows.setState(({ seen }) => ({ seen: stillThere(document, seen), of: null, fault: null }));
  const onRows = (rows: readonly RowDone[]) => {
    if (!isOld()) shown.take(rows);
  };
  const onProgress = (done: number, of: number, workers = 0) => {
    if (!isDone && !isOld()) shown.tell({ done, of, workers });
  };
  try {
    const isByWorkers =
      isForWorkers(document) && (await preparedByWorkers(document, today(), { onRows, onProgress, isOld }));
    if (!isByWorkers && isOld()) return;
    const done = isByWorkers || (await computingRows().rows(document, today(), proxy(onRows), proxy(onProgress)));
    if (done && !isOld()) useRows.setState({ of: document, progress: null });
    isDone = done === true;
  } catch (reason) {
    if (!isOld())
      useRows.setState({
        progress: null,
        fault: `The names could not be computed: ${reason instanceof Error ? reason.message : 'the worker stopped'}. The list itself is safe.`,
      });
  }
}

/** Look over rows whenever the document changes; returns how to stop. */
export function followRows(): () => void {
  let later: ReturnType<typeof setTimeout> | undefined;
  useRows.setState(INITIAL);
  const ask = (ms: number) => {
    clearTimeout(later);
    const { document } = useBench.getState();
    if (!document?.roster) {
      if (useRows.getState() !== INITIAL) useRows.setState(INITIAL, true);
      return;
    }
    later = setTimeout(() => void look(document), ms);
  };
  ask(0);
  const leave = useBench.subscribe((now, before) => {
    if (now.document === before.document) return;
    useRows.setState({ of: null, isStopped: false });
    ask(QUIET_MS);
  });
  return () => {
    clearTimeout(later);
    leave();
  };
}

/** Stop looking rows over: those that are there stay. */
export function stopRows(): void {
  const { document } = useBench.getState();
  shown.drop();
  useRows.setState({ isStopped: true, progress: null });
  // A newer question, of no rows at all, ends the one under way; what rows came to stays remembered.
  void computingRows()
    .rows(
      { ...document, roster: null },
      today(),
      proxy(() => {}),
    )
    .catch(() => {});
}

/** Go on looking rows over. */
export function resumeRows(): void {
  useRows.setState({ isStopped: false });
  void look(useBench.getState().document);
}
