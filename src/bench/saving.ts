/**
 * Saving by itself: every change goes to the server soon after it is made, with the version it was made from. A draft
 * stays in this browser until the server has it, so that neither a lost connection nor a reload loses anything; where the
 * browser keeps none either, leaving asks first.
 */
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import { checkJob } from '@/core/document/read';
import type { Job } from '@/core/document/schema';
import { type SavedExtras, type StoredJob, storedJobSchema } from '@/core/job/summary';
import { LIMITS } from '@/core/limits';
import { cutTo } from '@/core/units/text';
import type { dropDraft, keepDraft } from '@/drafts/drafts';
import { computing } from '@/worker/client';
import type { SaveState } from './state';
import { useBench } from './store';

const storedSchema = storedJobSchema.pick({ version: true, document: true });
const AWAY = 'The server is away.';
const DATABASE_AWAY = 'The database is away.';
const SLOW = 'The server does not answer.';
const MINE = ' (my version)';

const SAVE_AFTER_MS = 500;
const DRAFT_AFTER_MS = 100;
const RETRY_MS = 2_000;
/** A save waits no longer than this for its picture; without one the old picture stays. */
const PICTURE_MS = 3_000;
/** The same where the user is leaving. */
const LEAVING_PICTURE_MS = 300;
/** A save that has no answer after this long is told. */
const ANSWERS_WITHIN_MS = 3_000;
/** How long leaving waits for the server. */
const LEAVE_MS = 1_000;
const LOOK_MS = 20;

/** Where the newest document is: on the server, in this browser, or in this window alone. */
export type Whereabouts = 'saved' | 'kept' | 'nowhere';

/** A job that is being saved. */
export type Saving = {
  /** Send what is not saved at once, and wait up to a second for it. */
  readonly leave: () => Promise<Whereabouts>;
  /** The document was kept as another job, or is not wanted: it is not saved as this one any more. */
  readonly forget: () => Promise<unknown>;
  /** Stop following the bench; what is not saved yet goes on its way, as long as this window is there. */
  readonly stop: () => void;
};

/** Who saves, and who hears of it. */
type SavingOptions = {
  /** The name of this window. */
  readonly window: string;
  /** Where drafts are kept. */
  readonly drafts: { readonly keepDraft: typeof keepDraft; readonly dropDraft: typeof dropDraft };
  /** Whether the document already differs from the server's. */
  readonly unsaved: boolean;
  /** Hears of each save. */
  readonly onSaved: (job: StoredJob) => void;
  /** Hears that all is done that stopping left to do. */
  readonly onDone: () => void;
};

/** What saving knows of the bench; after it was stopped, as it was then. */
type Followed = { readonly id: string; readonly job: Job; readonly version: number; readonly save: SaveState };

/** What is on the bench, as it is saved. */
const followed = (): Followed => {
  const { id, document: job, version, save } = useBench.getState();
  return { id, job, version, save };
};

const after = <T>(ms: number, value: T): Promise<T> => new Promise((resolve) => setTimeout(() => resolve(value), ms));

/** The picture and the count of findings a document is saved with; null when they do not come in time. */
const extrasFor = (job: Job, within: number): Promise<SavedExtras | null> =>
  Promise.race([
    computing()
      .summary(job)
      .catch(() => null),
    after(within, null),
  ]);

/** Start saving the job that is on the bench. */
export function keepSaved({ window: name, drafts, unsaved, onSaved, onDone }: SavingOptions): Saving {
  /** What was on the bench when it was stopped; null while it is followed. */
  let left: Followed | null = null;
  let isLeaving = false;
  let isSending = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let draftTimer: ReturnType<typeof setTimeout> | undefined;
  const opened = useBench.getState();
  let savedJob = unsaved ? null : opened.document;
  let savedAt = opened.save.kind === 'saved' ? opened.save.at : '';
  let keptJob: Job | null = null;
  /** Drafts are written and dropped one after the other. */
  let written: Promise<unknown> = Promise.resolve();

  const now = (): Followed => left ?? followed();
  const tell = (news: Partial<Pick<Followed, 'version' | 'save'>> & { readonly isKept?: boolean }) => {
    if (left) left = { ...left, ...news };
    else useBench.setState(news);
  };
  const whereabouts = (): Whereabouts => {
    const { job } = now();
    if (job === savedJob) return 'saved';
    return job === keptJob ? 'kept' : 'nowhere';
  };

  /** Write the draft of the document as it is when its turn has come. */
  const keepNow = (): Promise<unknown> => {
    clearTimeout(draftTimer);
    written = written.then(async () => {
      const { id, job, version } = now();
      if (job === savedJob) return;
      const isKept = await drafts.keepDraft({ jobId: id, window: name, version, document: job, at: Date.now() });
      keptJob = isKept ? job : null;
      tell({ isKept });
    });
    return written;
  };
  const dropIt = () => {
    clearTimeout(draftTimer);
    keptJob = null;
    const { id } = now();
    written = written.then(() => drafts.dropDraft(id, name));
  };

  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(async () => {
      timer = undefined;
      await send();
      if (left) await finish();
    }, ms);
  };
  const isUnderWay = () => isSending || timer !== undefined;

  const send = async () => {
    if (isSending) return;
    const { id, job, version, save } = now();
    if (save.kind === 'stale' || save.kind === 'gone') return;
    if (job === savedJob) {
      // Undone to what the server has.
      dropIt();
      if (save.kind !== 'saved') tell({ save: { kind: 'saved', at: savedAt } });
      return;
    }
    isSending = true;
    if (save.kind !== 'away') tell({ save: { kind: 'saving' } });
    const extras = await extrasFor(job, isLeaving ? LEAVING_PICTURE_MS : PICTURE_MS);
    const isLate = setTimeout(() => tell({ save: { kind: 'away', sentence: SLOW } }), ANSWERS_WITHIN_MS);
    const outcome = await put(id, { version, document: job, extras });
    clearTimeout(isLate);
    isSending = false;
    if (outcome.kind === 'saved') {
      savedJob = job;
      savedAt = outcome.at;
      tell({ version: outcome.version });
      onSaved({ id, version: outcome.version, changedAt: outcome.at, document: job });
      if (now().job === job) {
        dropIt();
        tell({ save: { kind: 'saved', at: outcome.at } });
      } else {
        void keepNow();
        later(isLeaving ? 0 : SAVE_AFTER_MS);
      }
    } else {
      tell({ save: outcome });
      if (now().job !== job && outcome.kind === 'refused') later(isLeaving ? 0 : SAVE_AFTER_MS);
      else if (outcome.kind === 'away' && !left) later(RETRY_MS);
    }
  };

  /** What is to be done where the bench is no longer there: end, try again, or find another place for it. */
  const finish = async () => {
    await written;
    if (isUnderWay()) return;
    if (whereabouts() !== 'nowhere') return end();
    const { job, save } = now();
    const isOthers = save.kind === 'stale' || save.kind === 'gone';
    if (isOthers && (await saveAsCopy(job)) !== null) return end();
    // What the server refuses it refuses again; closing the window asks.
    if (save.kind !== 'refused') later(RETRY_MS);
  };
  const end = () => {
    window.removeEventListener('beforeunload', onUnload);
    onDone();
  };

  const onChange = () => {
    const { save } = now();
    clearTimeout(draftTimer);
    draftTimer = setTimeout(() => void keepNow(), DRAFT_AFTER_MS);
    if (save.kind === 'saved' || save.kind === 'refused') tell({ save: { kind: 'waiting' } });
    if (save.kind !== 'away') later(SAVE_AFTER_MS);
  };

  const unfollow = useBench.subscribe((state, before) => {
    if (state.document !== before.document) onChange();
    else if (before.save.kind === 'stale' && state.save.kind === 'waiting') later(0);
  });
  const onHidden = () => {
    if (now().job === savedJob) return;
    void keepNow();
    later(0);
  };
  /** Asks before the window is closed over what is nowhere else. */
  const onUnload = (event: Event) => {
    if (whereabouts() !== 'nowhere') return;
    void keepNow();
    event.preventDefault();
  };
  const onBack = () => later(0);
  window.addEventListener('pagehide', onHidden);
  document.addEventListener('visibilitychange', onHidden);
  window.addEventListener('beforeunload', onUnload);
  window.addEventListener('online', onBack);
  if (unsaved) onChange();

  return {
    leave: async () => {
      isLeaving = true;
      const until = Date.now() + LEAVE_MS;
      void keepNow();
      later(0);
      const isToWait = () => whereabouts() === 'nowhere' || (whereabouts() === 'kept' && isUnderWay());
      while (isToWait() && Date.now() < until) await after(LOOK_MS, null);
      isLeaving = false;
      return whereabouts();
    },
    forget: () => {
      clearTimeout(timer);
      savedJob = now().job;
      dropIt();
      return written;
    },
    stop: () => {
      left = followed();
      isLeaving = true;
      unfollow();
      window.removeEventListener('pagehide', onHidden);
      document.removeEventListener('visibilitychange', onHidden);
      window.removeEventListener('online', onBack);
      if (whereabouts() === 'saved') {
        clearTimeout(timer);
        return end();
      }
      void keepNow();
      later(0);
    },
  };
}

type Outcome =
  | { readonly kind: 'saved'; readonly version: number; readonly at: string }
  | Extract<SaveState, { kind: 'away' | 'refused' | 'stale' | 'gone' }>;

async function put(
  id: string,
  sent: { readonly version: number; readonly document: Job; readonly extras: SavedExtras | null },
): Promise<Outcome> {
  try {
    const saved = await call(API.saveJob, { id }, sent);
    return { kind: 'saved', version: saved.version, at: saved.changedAt };
  } catch (reason) {
    if (!(reason instanceof CallFault)) throw reason;
    const { status, message: sentence, more } = reason;
    // It was saved, whatever the answer says.
    if (status !== null && status < 300) return { kind: 'saved', version: sent.version + 1, at: '' };
    const stored = storedSchema.safeParse(more.stored);
    if (status === 409 && stored.success) {
      // What is there is what was sent: an answer was lost on its way, or another window has sent the same.
      if (isSame(stored.data.document, sent.document)) return { kind: 'saved', version: stored.data.version, at: '' };
      return { kind: 'stale', stored: stored.data };
    }
    if (status === 404) return { kind: 'gone' };
    if (status === null) return { kind: 'away', sentence: AWAY };
    // The session has ended: once the passphrase was given again in another window, it goes on.
    if (status === 401) return { kind: 'away', sentence };
    if (status === 503) return { kind: 'away', sentence: DATABASE_AWAY };
    return { kind: reason.isAway ? 'away' : 'refused', sentence };
  }
}

/** Whether two documents say the same, in whatever order. */
function isSame(a: unknown, b: unknown): boolean {
  const [one, other] = [checkJob(a), checkJob(b)];
  return one.ok && other.ok && JSON.stringify(one.job) === JSON.stringify(other.job);
}

/** Keep a document as a job of its own; returns its id, null when the server is away. */
export async function saveAsCopy(job: Job): Promise<string | null> {
  const document = { ...job, title: `${cutTo(job.title, LIMITS.nameCharacters - MINE.length)}${MINE}` };
  const extras = await extrasFor(job, PICTURE_MS);
  const made = await call(API.createJob, {}, { document, extras }).catch(() => null);
  return made?.id ?? null;
}
