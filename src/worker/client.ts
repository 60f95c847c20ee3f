/** The page's end of the workers. */
import { proxy, type Remote, wrap } from 'comlink';
import type { Job } from '../core/document/schema';
import type { OpenedJob } from '../core/job/taken-along';
import type { FacesInFile } from '../core/lettering/about';
import { LIMITS } from '../core/limits';
import type { ReadList, ReadListAs } from '../core/roster/read-list';
import { ASKED_OF_DOCUMENTS, ASKED_OF_FACES, type AskedOfDocument, type Computing, type WorkerApi } from './api';
import { DocumentSender } from './documents';
import type { ReaderApi } from './reader';
import type { FilePreview, PagePicture } from './reading';

let connected: Computing | null = null;
let connectedForRows: Computing | null = null;

/** The worker of this page that computes what is on the sheet; started when first asked for. */
export function computing(): Computing {
  connected ??= overThere(
    wrap<WorkerApi>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'needlefile' })),
  );
  return connected;
}

/** A worker by itself for the rows of a roster, so that the sheet does not wait for them; started when first asked for. */
export function computingRows(): Computing {
  connectedForRows ??= overThere(
    wrap<WorkerApi>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'needlefile-rows' })),
  );
  return connectedForRows;
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
    ...Object.fromEntries(
      ASKED_OF_FACES.map((name) => [name, (...args: unknown[]) => (worker[name] as unknown as Ask)(...args)]),
    ),
    ...Object.fromEntries(ASKED_OF_DOCUMENTS.map((name) => [name, ask(name)])),
  } as Computing;
}

/** Let something else than the page's worker answer: the host itself, where it runs in the same thread. */
export const computeWith = (answering: Computing): void => {
  connected = answering;
  connectedForRows = answering;
};

/** Something that is read elsewhere, and how to stop it. */
type Reading<T> = { readonly done: Promise<T | Unread>; readonly stop: () => void };
type Unread = { readonly ok: false; readonly sentence: string };

/** A worker that files are read in: whatever takes longer than it may ends it. */
class Reader {
  private worker: Worker | null = null;
  private reader: Remote<ReaderApi> | null = null;

  /** What a question to the worker comes to. */
  read<T>(seconds: number, ask: (reader: Remote<ReaderApi>) => Promise<T>): Reading<T> {
    let settle: (said: T | Unread) => void = () => {};
    const done = new Promise<T | Unread>((resolve) => {
      settle = (said) => {
        clearTimeout(timer);
        resolve(said);
      };
    });
    const fail = (sentence: string) => {
      this.end();
      settle({ ok: false, sentence });
    };
    const timer = setTimeout(
      () => fail(`Reading this file took longer than ${seconds} seconds and was stopped. Nothing was changed.`),
      seconds * 1000,
    );
    const gaveUp = () =>
      fail('This file could not be read: it asks for more than there is room for. Nothing was changed.');
    ask(this.begun(gaveUp)).then(settle, gaveUp);
    return { done, stop: () => fail('Stopped. Nothing was changed.') };
  }

  end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.reader = null;
  }

  private begun(gaveUp: () => void): Remote<ReaderApi> {
    this.worker ??= new Worker(new URL('./reader.ts', import.meta.url), { type: 'module', name: 'needlefile-reader' });
    this.worker.onerror = gaveUp;
    this.reader ??= wrap<ReaderApi>(this.worker);
    return this.reader;
  }
}

/** Read a page of a file, from 0, in a worker of its own. */
export function readingFile(bytes: Uint8Array, page: number, progress: (share: number) => void): Reading<FilePreview> {
  const reader = new Reader();
  const reading = reader.read<FilePreview>(LIMITS.readSeconds, async (r) => r.preview(bytes, page, proxy(progress)));
  void reading.done.then(() => reader.end());
  return reading;
}

/** Read a list of names, in a worker of its own. */
export async function readingList(bytes: Uint8Array, as: ReadListAs): Promise<ReadList> {
  const reader = new Reader();
  try {
    return await reader.read<ReadList>(LIMITS.readSeconds, async (r) => r.list(bytes, as)).done;
  } finally {
    reader.end();
  }
}

/** Unpack a job that was taken along, in a worker of its own. */
export async function readingTaken(bytes: Uint8Array): Promise<OpenedJob> {
  const reader = new Reader();
  try {
    return await reader.read<OpenedJob>(LIMITS.readSeconds, async (r) => r.taken(bytes)).done;
  } finally {
    reader.end();
  }
}

/** Describes typeface files one after the other, in one worker as long as none ends it; `end` it when there are no more. */
export class TypefaceReader {
  private readonly reader = new Reader();

  /** What faces a file holds. */
  describe(bytes: Uint8Array): Promise<FacesInFile> {
    return this.reader.read<FacesInFile>(LIMITS.typefaceSeconds, async (r) => r.typeface(bytes)).done;
  }

  end(): void {
    this.reader.end();
  }
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
