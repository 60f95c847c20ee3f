/** The page's end of the workers. */
import { proxy, type Remote, wrap } from 'comlink';
import type { Job } from '../core/document/schema';
import { LIMITS } from '../core/limits';
import { ASKED_OF_DOCUMENTS, type AskedOfDocument, type Computing, type WorkerApi } from './api';
import { DocumentSender } from './documents';
import type { ReaderApi } from './reader';
import type { FilePreview, PagePicture } from './reading';

let connected: Computing | null = null;

/** The one worker of this page; started when first asked for. */
export function computing(): Computing {
  connected ??= overThere(
    wrap<WorkerApi>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'needlefile' })),
  );
  return connected;
}

type Ask = (...args: unknown[]) => Promise<unknown>;

/** Questions about documents as the worker takes them: the document first, where it does not have it, then the question. */
function overThere(worker: Remote<WorkerApi>): Computing {
  const sender = new DocumentSender();
  const ask =
    (name: AskedOfDocument): Ask =>
    (job, ...args) => {
      const { serial, update } = sender.send(job as Job);
      // Messages come in their order, so that this one need not be waited for.
      if (update) void worker.hold(update);
      return (worker[name] as unknown as Ask)(serial, ...args);
    };
  return {
    samples: (text: string) => worker.samples(text),
    ...Object.fromEntries(ASKED_OF_DOCUMENTS.map((name) => [name, ask(name)])),
  } as Computing;
}

/** Let something else than the page's worker answer: the host itself, where it runs in the same thread. */
export const computeWith = (answering: Computing): void => {
  connected = answering;
};

/** Read a page of a file, from 0, in a worker of its own. Stopping, or taking longer than the limit, ends that worker whatever it does. */
export function readingFile(
  bytes: Uint8Array,
  page: number,
  progress: (share: number) => void,
): { done: Promise<FilePreview>; stop: () => void } {
  const worker = new Worker(new URL('./reader.ts', import.meta.url), { type: 'module', name: 'needlefile-reader' });
  let settle: (preview: FilePreview) => void = () => {};
  const done = new Promise<FilePreview>((resolve) => {
    settle = (preview) => {
      clearTimeout(timer);
      worker.terminate();
      resolve(preview);
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
    .preview(bytes, page, proxy(progress))
    .then((preview) => settle(preview), gaveUp);
  return { done, stop: () => fail('Stopped. Nothing was changed.') };
}

/**
 * Small pictures of pages of a file, made one after the other in a worker of its own; the function given back ends it. It ends by
 * itself when all are there, or no more come.
 */
export function picturingPages(
  bytes: Uint8Array,
  range: { readonly from: number; readonly to: number },
  put: (picture: PagePicture) => void,
): () => void {
  const worker = new Worker(new URL('./reader.ts', import.meta.url), { type: 'module', name: 'needlefile-pages' });
  const end = () => {
    clearTimeout(timer);
    worker.terminate();
  };
  const timer = setTimeout(end, LIMITS.readSeconds * 1000);
  worker.onerror = end;
  wrap<ReaderApi>(worker).pictures(bytes, range.from, range.to, proxy(put)).then(end, end);
  return end;
}
