/** The page's end of the workers. */
import { proxy, type Remote, wrap } from 'comlink';
import { LIMITS } from '../core/limits';
import type { ReaderApi } from './reader';
import type { Look } from './reading';
import type { WorkerApi } from './worker';

let held: Remote<WorkerApi> | null = null;

/** The one worker of this page; started when first asked for. */
export function computing(): Remote<WorkerApi> {
  held ??= wrap<WorkerApi>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'needlefile' }));
  return held;
}

/** Let something else than the page's worker answer: the host itself, where it runs in the same thread. */
export const computeWith = (answering: Remote<WorkerApi>): void => {
  held = answering;
};

/** Read a file in a worker of its own. Stopping, or taking longer than the limit, ends that worker whatever it does. */
export function readingFile(
  bytes: Uint8Array,
  progress: (share: number) => void,
): { done: Promise<Look>; stop: () => void } {
  const worker = new Worker(new URL('./reader.ts', import.meta.url), { type: 'module', name: 'needlefile-reader' });
  let settle: (look: Look) => void = () => {};
  const done = new Promise<Look>((resolve) => {
    settle = (look) => {
      clearTimeout(timer);
      worker.terminate();
      resolve(look);
    };
  });
  const fail = (sentence: string) => settle({ ok: false, sentence });
  const timer = setTimeout(
    () =>
      fail(`Reading this file took longer than ${LIMITS.readSeconds} seconds and was stopped. Nothing was changed.`),
    LIMITS.readSeconds * 1000,
  );
  const gaveUp = () =>
    fail('This file could not be read: it asks for more than there is room for. Nothing was changed.');
  worker.onerror = gaveUp;
  wrap<ReaderApi>(worker)
    .look(bytes, proxy(progress))
    .then((look) => settle(look), gaveUp);
  return { done, stop: () => fail('Stopped. Nothing was changed.') };
}
