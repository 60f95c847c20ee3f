/** The page's end of the worker. */
import { type Remote, wrap } from 'comlink';
import type { WorkerApi } from './worker';

let held: Remote<WorkerApi> | null = null;

/** The one worker of this page; started when first asked for. */
export function computing(): Remote<WorkerApi> {
  held ??= wrap<WorkerApi>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'needlefile' }));
  return held;
}
