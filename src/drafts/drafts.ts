/**
 * What this browser keeps of jobs that the server does not have yet: a draft for each job and window, in IndexedDB. So a window's save
 * never drops what another one has not saved.
 */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { checkJob } from '@/core/document/read';
import type { Job } from '@/core/document/schema';
import { openWindows } from './window-name';

/** A document that the server does not have yet. */
export type Draft = {
  readonly jobId: string;
  /** The window that it was changed in. */
  readonly window: string;
  /** The version on the server that it was made from. */
  readonly version: number;
  readonly document: Job;
  /** When it was kept, in ms since 1970. */
  readonly at: number;
};

interface Schema extends DBSchema {
  drafts: { key: [jobId: string, window: string]; value: Omit<Draft, 'document'> & { document: unknown } };
}

const NAME = 'needlefile';
/** A store that does not open is done without: nothing waits for it longer than this, in ms. */
const OPENS_WITHIN_MS = 2_000;

const later = <T>(ms: number, value: T): Promise<T> => new Promise((resolve) => setTimeout(() => resolve(value), ms));

/** Do something with the store; `otherwise` where there is none, it is full, or it does not answer. */
async function withStore<T>(otherwise: T, act: (store: IDBPDatabase<Schema>) => Promise<T>): Promise<T> {
  const acted = (async () => {
    const store = await openDB<Schema>(NAME, 1, {
      upgrade: (made) => void made.createObjectStore('drafts', { keyPath: ['jobId', 'window'] }),
    });
    try {
      return await act(store);
    } finally {
      store.close();
    }
  })().catch(() => otherwise);
  return Promise.race([acted, later(OPENS_WITHIN_MS, otherwise)]);
}

/** Keep a draft in place of the one there was of its job and window; whether it is kept. */
export const keepDraft = (draft: Draft): Promise<boolean> =>
  withStore(false, async (store) => {
    const change = store.transaction('drafts', 'readwrite', { durability: 'strict' });
    await Promise.all([change.store.put(draft), change.done]);
    return true;
  });

/** Forget the draft of a job in a window; whether there is none of it any more. */
export const dropDraft = (jobId: string, window: string): Promise<boolean> =>
  withStore(false, async (store) => {
    await store.delete('drafts', [jobId, window]);
    return true;
  });

/**
 * Drafts that no other window works on, the newest first: this window's own, and those of windows that are gone. One that can't be
 * read is left where it is.
 * @param jobId of one job; null for those of all
 */
export async function draftsAtHand(jobId: string | null, window: string): Promise<Draft[]> {
  const [kept, open] = await Promise.all([
    withStore([], (store) =>
      store.getAll('drafts', jobId === null ? null : IDBKeyRange.bound([jobId, ''], [jobId, '\uffff'])),
    ),
    openWindows(),
  ]);
  return kept
    .filter((draft) => draft.window === window || !open.has(draft.window))
    .flatMap((draft) => {
      const read = checkJob(draft.document);
      return read.ok ? [{ ...draft, document: read.job }] : [];
    })
    .sort((a, b) => b.at - a.at);
}

/** Make a draft this window's own; false where it is gone meanwhile: another window has taken it. */
export const takeDraft = (draft: Draft, window: string): Promise<boolean> =>
  withStore(false, async (store) => {
    const change = store.transaction('drafts', 'readwrite');
    const from: [string, string] = [draft.jobId, draft.window];
    const isThere = (await change.store.get(from)) !== undefined;
    if (isThere && draft.window !== window) {
      await change.store.delete(from);
      await change.store.put({ ...draft, window });
    }
    await change.done;
    return isThere;
  });
