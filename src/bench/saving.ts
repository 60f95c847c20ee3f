/**
 * Saving by itself: every change goes to the server soon after it is made, with the version it was made from. A draft
 * stays in this browser until the server has it, so that neither a lost connection nor a reload loses anything.
 */
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import { checkJob } from '@/core/document/read';
import type { Job } from '@/core/document/schema';
import { type SavedExtras, type StoredJob, storedJobSchema } from '@/core/job/summary';
import { LIMITS } from '@/core/limits';
import { computing } from '@/worker/client';
import { type SaveState, useBench } from './store';

const storedSchema = storedJobSchema.pick({ version: true, document: true });
const AWAY = 'The server is away. Your work is kept here and saved when it is back.';

const SAVE_AFTER_MS = 500;
const DRAFT_AFTER_MS = 150;
const RETRY_MS = 2_000;
/** A save waits no longer than this for its picture; without one the old picture stays. */
const PICTURE_MS = 3_000;

/** A document that the server does not have yet, and the version it was made from. */
export type Draft = { readonly version: number; readonly document: Job };

const draftKey = (id: string) => `needlefile:draft:${id}`;

/** The draft of a job that is kept in this browser; null where there is none, or it can't be read. */
export function readDraft(id: string): Draft | null {
  try {
    const stored = JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as {
      version?: unknown;
      document?: unknown;
    } | null;
    if (!stored || typeof stored.version !== 'number') return null;
    const read = checkJob(stored.document);
    return read.ok ? { version: stored.version, document: read.job } : null;
  } catch {
    return null;
  }
}

/** Forget the draft of a job. */
export function dropDraft(id: string): void {
  try {
    localStorage.removeItem(draftKey(id));
  } catch {
    // Storage may be switched off; then there is no draft either.
  }
}

function keepDraft(id: string, draft: Draft): void {
  try {
    localStorage.setItem(draftKey(id), JSON.stringify(draft));
  } catch {
    // Too large or switched off: the document is still here in the page and on its way to the server.
  }
}

const setSave = (save: SaveState) => useBench.setState({ save });

/** The picture and the count of findings a document is saved with; null when they do not come in time. */
const extrasFor = (job: Job): Promise<SavedExtras | null> =>
  Promise.race([
    computing()
      .summary(job)
      .catch(() => null),
    new Promise<null>((resolve) => setTimeout(() => resolve(null), PICTURE_MS)),
  ]);

/**
 * Start saving; `unsaved` when the document already differs from the server's. `onSaved` hears of each save. Returns how to stop.
 */
export function keepSaved(unsaved: boolean, onSaved: (job: StoredJob) => void = () => {}): () => void {
  let stopped = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let draftTimer: ReturnType<typeof setTimeout> | undefined;
  let sending = false;
  const opened = useBench.getState();
  let savedJob = unsaved ? null : opened.job;
  let savedAt = opened.save.kind === 'saved' ? opened.save.at : '';

  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void send(), ms);
  };

  const send = async () => {
    if (sending || stopped) return;
    const { id, job, version, save } = useBench.getState();
    if (save.kind === 'stale' || save.kind === 'gone') return;
    if (job === savedJob) {
      // Undone to what the server has.
      clearTimeout(draftTimer);
      dropDraft(id);
      if (save.kind !== 'saved') setSave({ kind: 'saved', at: savedAt });
      return;
    }
    sending = true;
    if (save.kind !== 'away') setSave({ kind: 'saving' });
    const outcome = await put(id, version, job);
    sending = false;
    if (stopped) return;
    if (outcome.kind === 'saved') {
      savedJob = job;
      savedAt = outcome.at;
      useBench.setState({ version: outcome.version });
      onSaved({ id, version: outcome.version, changedAt: outcome.at, document: job });
      if (useBench.getState().job === job) {
        clearTimeout(draftTimer);
        dropDraft(id);
        setSave({ kind: 'saved', at: outcome.at });
      } else {
        keepDraft(id, { version: outcome.version, document: useBench.getState().job });
        later(SAVE_AFTER_MS);
      }
    } else {
      setSave(outcome);
      if (outcome.kind === 'away') later(RETRY_MS);
      else if (useBench.getState().job !== job) later(SAVE_AFTER_MS);
    }
  };

  const onChange = () => {
    const { id, version, job, save } = useBench.getState();
    clearTimeout(draftTimer);
    draftTimer = setTimeout(() => keepDraft(id, { version, document: job }), DRAFT_AFTER_MS);
    if (save.kind === 'saved' || save.kind === 'refused') setSave({ kind: 'waiting' });
    if (save.kind !== 'away') later(SAVE_AFTER_MS);
  };

  const leave = useBench.subscribe((now, before) => {
    if (now.job !== before.job) onChange();
    else if (before.save.kind === 'stale' && now.save.kind === 'waiting') later(0);
  });
  const onLeaving = () => {
    const { id, version, job } = useBench.getState();
    if (job !== savedJob) keepDraft(id, { version, document: job });
  };
  const onBack = () => later(0);
  window.addEventListener('pagehide', onLeaving);
  window.addEventListener('online', onBack);
  if (unsaved) onChange();

  return () => {
    onLeaving();
    stopped = true;
    clearTimeout(timer);
    clearTimeout(draftTimer);
    leave();
    window.removeEventListener('pagehide', onLeaving);
    window.removeEventListener('online', onBack);
  };
}

type Outcome =
  | { readonly kind: 'saved'; readonly version: number; readonly at: string }
  | Extract<SaveState, { kind: 'away' | 'refused' | 'stale' | 'gone' }>;

async function put(id: string, version: number, job: Job): Promise<Outcome> {
  const extras = await extrasFor(job);
  try {
    const saved = await call(API.saveJob, { id }, { version, document: job, extras });
    return { kind: 'saved', version: saved.version, at: saved.changedAt };
  } catch (reason) {
    if (!(reason instanceof CallFault)) throw reason;
    const { status, message: sentence, more } = reason;
    // It was saved, whatever the answer says.
    if (status !== null && status < 300) return { kind: 'saved', version: version + 1, at: '' };
    const stored = storedSchema.safeParse(more.stored);
    if (status === 409 && stored.success) return { kind: 'stale', stored: stored.data };
    if (status === 404) return { kind: 'gone' };
    if (status === null) return { kind: 'away', sentence: AWAY };
    return { kind: reason.isAway ? 'away' : 'refused', sentence };
  }
}

/** Keep this window's document as a job of its own; returns its id, null when the server is away. */
export async function saveAsCopy(job: Job): Promise<string | null> {
  const document = { ...job, title: `${job.title} (my version)`.slice(0, LIMITS.nameCharacters) };
  const extras = await extrasFor(job);
  const made = await call(API.createJob, {}, { document, extras }).catch(() => null);
  return made?.id ?? null;
}
