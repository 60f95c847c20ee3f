/** The bench without a page: a job opened in its store and computed, and the worker's host answering in the same process. */
import { readFile } from 'node:fs/promises';
import { openBench, useBench } from '../../src/bench/store';
import type { Job, Part, Step, StepOf } from '../../src/core/document/schema';
import type { Station } from '../../src/core/inspect/stations';
import { Evaluator } from '../../src/core/job/evaluate';
import { computeWith } from '../../src/worker/client';
import { Host } from '../../src/worker/host';
import { type PartView, viewOf } from '../../src/worker/view';
import { faces, wasmEngine } from './faces';

const evaluator = new Evaluator(wasmEngine);

/** The worker's host over the shipped typefaces, with no drawings at hand; stands in for the worker of the page. */
export const hostHere = (): Host =>
  new Host(
    async (file) => new Uint8Array(await readFile(`public/typefaces/${file}`)),
    async () => {
      throw new Error('no assets here');
    },
    () => new Promise<void>((resolve) => setImmediate(resolve)),
    () => performance.now(),
    Promise.resolve(wasmEngine),
  );

/** What the page's worker is asked is answered by this from now on. */
export const answer = (by: Partial<Host>): void => computeWith(by as Parameters<typeof computeWith>[0]);

/** Put the pixels of a picture at hand for what is computed from now on. */
export const withPixels = (id: string, bytes: Uint8Array): boolean => evaluator.addPicture(id, bytes);

/** Put the view of the document as it is now into the store, as the worker would. */
export function compute(): void {
  const { job } = useBench.getState();
  useBench.setState({ view: viewOf(evaluator.evaluate(job, faces)), viewOf: job });
}

/** Open a job and compute it; the part called “part”, else the first, and its first member are selected. */
export function openJob(job: Job, station: Station = 'compose'): void {
  const part = job.parts.find((p) => p.id === 'part') ?? job.parts[0];
  openBench('trial', job, {
    version: 1,
    savedAt: '',
    selection: { partId: part?.id ?? null, memberId: part?.members[0]?.id ?? null },
    station,
  });
  compute();
}

export const now = (): Job => useBench.getState().job;

export function partNow(id = 'part'): Part {
  const part = now().parts.find((p) => p.id === id);
  if (!part) throw new Error(`no part ${id}`);
  return part;
}

export function stepNow<K extends Step['kind']>(kind: K, id = 'part'): StepOf<K> {
  const step = partNow(id).steps.find((s): s is StepOf<K> => s.kind === kind);
  if (!step) throw new Error(`no step ${kind}`);
  return step;
}

export function viewNow(id = 'part'): PartView {
  const view = useBench.getState().view?.parts.find((p) => p.id === id);
  if (!view) throw new Error(`no view of ${id}`);
  return view;
}
