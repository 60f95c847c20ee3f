/** Saving by itself: nothing is lost, nothing is said to be saved that is not, and nothing is written over another's work. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { keepSaved, type Saving, saveAsCopy } from '../../src/bench/saving';
import type { SaveState } from '../../src/bench/state';
import { change, openBench, undo, useBench } from '../../src/bench/store';
import type { Job } from '../../src/core/document/schema';
import type { Draft } from '../../src/drafts/drafts';
import { answer } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';

const extras = { picture: { width: 1, height: 1, shapes: [] }, openFindings: 3 };
const summary = vi.fn(async (): Promise<typeof extras> => extras);

const NEW = '123e4567-e89b-42d3-a456-426614174000';
type Sent = { version: number; document: Job; extras: unknown };
const job = jobWith([partOf([lettering('Lane')])]);
const state = useBench.getState;
const saveKind = () => state().save.kind;
const retitle = (title: string) =>
  change((draft) => {
    draft.title = title;
  });

/** What the browser keeps: drafts by job and window; and whether it keeps any. */
let kept: Map<string, Draft>;
let keeps: boolean;
let sent: Sent[];
/** What the server answers next; the last answer stays. */
let answers: (() => Promise<Response>)[];
let saving: Saving | null;
let windowEvents: EventTarget;
let done: number;

const ok = (version: number) => async () => Response.json({ version, changedAt: `at ${version}` });
const refuse = (status: number, body: object) => async () => Response.json(body, { status });
const away = () => Promise.reject(new TypeError('Failed to fetch'));
/** An answer that comes when it is released. */
const heldAnswer = () => {
  let release: (r: Response) => void = () => {};
  const coming = new Promise<Response>((resolve) => {
    release = resolve;
  });
  return { release: (r: Response) => release(r), held: () => coming };
};
const draft = () => {
  const at = kept.get('trial/this');
  return at ? { version: at.version, document: at.document } : null;
};
const start = (unsaved = false) => {
  saving = keepSaved({
    window: 'this',
    drafts: {
      keepDraft: async (one) => {
        if (keeps) kept.set(`${one.jobId}/${one.window}`, one);
        return keeps;
      },
      dropDraft: async (id, name) => kept.delete(`${id}/${name}`),
    },
    unsaved,
    onSaved: () => {},
    onDone: () => {
      done += 1;
    },
  });
};
/** Whether the window asks before it is closed. */
const asks = () => {
  const closing = new Event('beforeunload', { cancelable: true });
  windowEvents.dispatchEvent(closing);
  return closing.defaultPrevented;
};
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  kept = new Map();
  keeps = true;
  done = 0;
  sent = [];
  answers = [ok(5)];
  summary.mockReset().mockResolvedValue(extras);
  windowEvents = new EventTarget();
  vi.stubGlobal('window', windowEvents);
  vi.stubGlobal('document', new EventTarget());
  vi.stubGlobal('fetch', async (_url: string, { body }: { body: string }) => {
    sent.push(JSON.parse(body));
    return (answers.length > 1 ? answers.shift() : answers[0])?.();
  });
  answer({ summary });
  openBench('trial', job, {
    version: 4,
    savedAt: 'before',
    selection: { partId: null, memberId: null },
    station: 'compose',
  });
  saving = null;
});
afterEach(() => {
  saving?.stop();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a change', () => {
  beforeEach(() => {
    start();
  });

  test('goes to the server half a second later, from the version it was made of', async () => {
    await wait(10_000);
    expect(sent).toEqual([]);
    retitle('one');
    expect(saveKind()).toBe('waiting');
    await wait(490);
    expect(sent).toEqual([]);
    await wait(20);
    expect(sent).toEqual([{ version: 4, document: { ...job, title: 'one' }, extras }]);
    expect(state()).toMatchObject({ version: 5, save: { kind: 'saved', at: 'at 5' } });
    await wait(60_000);
    expect(sent).toHaveLength(1);
  });

  test('undone before it was sent leaves nothing to save', async () => {
    retitle('one');
    await wait(200);
    expect(draft()?.document.title).toBe('one');
    undo();
    expect(saveKind()).toBe('waiting');
    await wait(600);
    expect(sent).toEqual([]);
    expect(state().save).toEqual({ kind: 'saved', at: 'before' });
    expect(draft()).toBeNull();
    retitle('two');
    await wait(600);
    retitle('three');
    undo();
    await wait(600);
    expect(sent.map((s) => s.document.title)).toEqual(['two']);
    expect(state().save).toEqual({ kind: 'saved', at: 'at 5' });
  });

  test('is waited out while others follow', async () => {
    for (const title of ['a', 'ab', 'abc']) {
      retitle(title);
      await wait(400);
    }
    await wait(200);
    expect(sent.map((s) => s.document.title)).toEqual(['abc']);
  });

  test('made while one is being saved goes after it, from the new version', async () => {
    const { release, held } = heldAnswer();
    answers = [held, ok(6)];
    retitle('one');
    await wait(510);
    expect(saveKind()).toBe('saving');
    retitle('two');
    await wait(2_000);
    expect(sent).toHaveLength(1);
    release(await ok(5)());
    await wait(0);
    expect(saveKind()).toBe('saving');
    expect(draft()).toMatchObject({ version: 5, document: { title: 'two' } });
    await wait(510);
    expect(sent.map((s) => [s.version, s.document.title])).toEqual([
      [4, 'one'],
      [5, 'two'],
    ]);
    expect(state()).toMatchObject({ version: 6, save: { kind: 'saved', at: 'at 6' } });
    expect(draft()).toBeNull();
  });

  test('stays in the browser until the server has it', async () => {
    retitle('one');
    expect(draft()).toBeNull();
    await wait(160);
    expect(draft()).toEqual({ version: 4, document: { ...job, title: 'one' } });
    await wait(400);
    expect(draft()).toBeNull();
  });

  test('is saved without a picture when that takes too long, or fails', async () => {
    summary.mockReturnValueOnce(new Promise(() => {}));
    retitle('slow');
    await wait(3_400);
    expect(sent).toEqual([]);
    await wait(200);
    expect(sent[0]).toMatchObject({ document: { title: 'slow' }, extras: null });
    summary.mockRejectedValueOnce(new Error('stopped'));
    retitle('failed');
    await wait(510);
    expect(sent[1]).toMatchObject({ document: { title: 'failed' }, extras: null });
  });
});

describe('when the server is away', () => {
  beforeEach(() => {
    start();
  });

  test('it is said, the draft is kept, and it is tried again every two seconds', async () => {
    answers = [away, refuse(503, { sentence: 'Away.' }), refuse(500, {}), ok(5)];
    retitle('one');
    await wait(510);
    expect(state().save).toEqual({
      kind: 'away',
      sentence: 'The server is away.',
    });
    expect(state().isKept).toBe(true);
    expect(draft()?.document.title).toBe('one');
    await wait(1_900);
    expect(sent).toHaveLength(1);
    // A change meanwhile goes along with the next try, not before.
    retitle('two');
    await wait(200);
    expect(sent.map((s) => s.document.title)).toEqual(['one', 'two']);
    expect(state().save).toEqual({ kind: 'away', sentence: 'The database is away.' });
    await wait(2_010);
    expect(state().save).toEqual({ kind: 'away', sentence: 'The server could not do that.' });
    await wait(2_010);
    expect(state().save).toEqual({ kind: 'saved', at: 'at 5' });
    expect(draft()).toBeNull();
  });

  test('and back, it is saved at once', async () => {
    answers = [away, ok(5)];
    retitle('one');
    await wait(510);
    windowEvents.dispatchEvent(new Event('online'));
    await wait(1);
    expect(saveKind()).toBe('saved');
  });

  test('an answer that is no JSON still counts as saved, from the next version', async () => {
    answers = [async () => new Response('ok')];
    retitle('one');
    await wait(510);
    expect(state()).toMatchObject({ version: 5, save: { kind: 'saved' } });
  });
});

describe('what the server does not take', () => {
  beforeEach(() => {
    start();
  });

  test('a document that is refused is kept here, and tried again once it has changed', async () => {
    answers = [refuse(413, { sentence: 'This job is larger than can be saved.' }), ok(5)];
    retitle('one');
    await wait(510);
    expect(state().save).toEqual({ kind: 'refused', sentence: 'This job is larger than can be saved.' });
    expect(draft()?.document.title).toBe('one');
    await wait(60_000);
    expect(sent).toHaveLength(1);
    retitle('two');
    expect(saveKind()).toBe('waiting');
    await wait(510);
    expect(saveKind()).toBe('saved');
  });

  test('a document refused while it was changed again is tried again by itself', async () => {
    const { release, held } = heldAnswer();
    answers = [held, ok(5)];
    retitle('one');
    await wait(510);
    retitle('two');
    release(Response.json({ sentence: 'No.' }, { status: 422 }));
    await wait(510);
    expect(sent.map((s) => s.document.title)).toEqual(['one', 'two']);
    expect(saveKind()).toBe('saved');
  });

  test('one saved over by another window is not sent again until the user has chosen', async () => {
    const theirs = { version: 9, document: { ...job, title: 'theirs' } };
    answers = [refuse(409, { sentence: 'changed', stored: theirs }), ok(10)];
    retitle('mine');
    await wait(510);
    expect(state().save).toEqual({ kind: 'stale', stored: theirs } satisfies SaveState);
    retitle('mine 2');
    await wait(60_000);
    expect(sent).toHaveLength(1);
    expect(draft()?.document.title).toBe('mine 2');
    // Chosen: mine goes over theirs, at once.
    useBench.setState({ version: 9, save: { kind: 'waiting' } });
    await wait(1);
    expect(sent[1]).toMatchObject({ version: 9, document: { title: 'mine 2' } });
    expect(state()).toMatchObject({ version: 10, save: { kind: 'saved' } });
  });

  test('what the server has already is saved, however its answer was lost', async () => {
    const asSent = { ...job, title: 'mine' };
    const turned = Object.fromEntries(Object.entries(asSent).reverse());
    answers = [away, refuse(409, { sentence: 'changed', stored: { version: 5, document: turned } }), ok(6)];
    retitle('mine');
    await wait(510);
    await wait(2_010);
    expect(state()).toMatchObject({ version: 5, save: { kind: 'saved' } });
    expect(draft()).toBeNull();
    retitle('mine 2');
    await wait(510);
    expect(sent.at(-1)).toMatchObject({ version: 5, document: { title: 'mine 2' } });
  });

  test('a conflict without the stored version is no conflict to choose in', async () => {
    answers = [refuse(409, { sentence: 'changed' })];
    retitle('mine');
    await wait(510);
    expect(state().save).toEqual({ kind: 'refused', sentence: 'changed' });
  });

  test('a job that is gone is not sent again', async () => {
    answers = [refuse(404, { sentence: 'gone' })];
    retitle('one');
    await wait(510);
    expect(saveKind()).toBe('gone');
    retitle('two');
    await wait(60_000);
    expect(sent).toHaveLength(1);
  });
});

describe('a server that does not answer', () => {
  test('is told after three seconds, and what it answers later counts', async () => {
    const { release, held } = heldAnswer();
    answers = [held];
    start();
    retitle('one');
    await wait(510);
    await wait(2_900);
    expect(saveKind()).toBe('saving');
    await wait(200);
    expect(state().save).toEqual({ kind: 'away', sentence: 'The server does not answer.' });
    expect(draft()?.document.title).toBe('one');
    release(await ok(5)());
    await wait(1);
    expect(state().save).toEqual({ kind: 'saved', at: 'at 5' });
    expect(sent).toHaveLength(1);
    await wait(10_000);
    expect(saveKind()).toBe('saved');
  });
});

describe('what the browser keeps', () => {
  test('is told only where it is so, and anew where that changes', async () => {
    answers = [away];
    start();
    expect(state().isKept).toBeNull();
    keeps = false;
    retitle('one');
    await wait(510);
    expect(state()).toMatchObject({ save: { kind: 'away' }, isKept: false });
    keeps = true;
    retitle('two');
    await wait(110);
    expect(state().isKept).toBe(true);
  });

  test('closing the window asks while neither server nor browser has the newest', async () => {
    start();
    expect(asks()).toBe(false);
    retitle('one');
    expect(asks()).toBe(true);
    // Asking has it kept, too.
    await wait(1);
    expect(asks()).toBe(false);
    await wait(510);
    expect(saveKind()).toBe('saved');
    expect(asks()).toBe(false);
    keeps = false;
    answers = [away];
    retitle('two');
    await wait(510);
    expect(asks()).toBe(true);
    answers = [ok(6)];
    await wait(2_010);
    expect(asks()).toBe(false);
  });

  test('another window’s draft of the job is left alone', async () => {
    const theirs = { jobId: 'trial', window: 'other', version: 4, document: job, at: 1 };
    kept.set('trial/other', theirs);
    start();
    retitle('one');
    await wait(510);
    expect([...kept.values()]).toEqual([theirs]);
  });
});

describe('coming and going', () => {
  test('what differs from the server when it is opened is saved', async () => {
    start(true);
    await wait(510);
    expect(sent).toEqual([{ version: 4, document: job, extras }]);
  });

  test.each([
    ['closed', () => windowEvents.dispatchEvent(new Event('pagehide'))],
    ['hidden', () => document.dispatchEvent(new Event('visibilitychange'))],
  ])('a window that is %s keeps and sends what is not saved yet, at once', async (_how, hide) => {
    start();
    hide();
    await wait(1);
    expect(sent).toEqual([]);
    expect(draft()).toBeNull();
    const { release, held } = heldAnswer();
    answers = [held];
    retitle('one');
    hide();
    await wait(1);
    expect(draft()).toMatchObject({ version: 4, document: { title: 'one' } });
    expect(sent.map((s) => s.document.title)).toEqual(['one']);
    release(await ok(5)());
    await wait(1);
    expect(draft()).toBeNull();
  });

  test('leaving sends at once, and waits for the answer', async () => {
    start();
    expect(await saving?.leave()).toBe('saved');
    retitle('one');
    const left = saving?.leave();
    await wait(50);
    expect(await left).toBe('saved');
    expect(sent.map((s) => s.document.title)).toEqual(['one']);
    expect(draft()).toBeNull();
  });

  test('leaving while an older document is on its way sends the newest right after it', async () => {
    const { release, held } = heldAnswer();
    answers = [held, ok(6)];
    start();
    retitle('one');
    await wait(510);
    retitle('two');
    const left = saving?.leave();
    await wait(100);
    release(await ok(5)());
    await wait(100);
    expect(await left).toBe('saved');
    expect(sent.map((s) => [s.version, s.document.title])).toEqual([
      [4, 'one'],
      [5, 'two'],
    ]);
  });

  test('leaving waits a second at most, and no longer than for its draft where the server is away', async () => {
    answers = [() => new Promise(() => {})];
    summary.mockReturnValue(new Promise(() => {}));
    start();
    retitle('one');
    let where: string | undefined;
    void saving?.leave().then((w) => {
      where = w;
    });
    // Its picture is waited for less than else.
    await wait(290);
    expect(sent).toEqual([]);
    await wait(50);
    expect(sent).toMatchObject([{ extras: null }]);
    await wait(600);
    expect(where).toBeUndefined();
    await wait(100);
    expect(where).toBe('kept');
  });

  test('leaving tells where nobody has it', async () => {
    keeps = false;
    answers = [away];
    start();
    retitle('one');
    const left = saving?.leave();
    await wait(1_100);
    expect(await left).toBe('nowhere');
    answers = [ok(5)];
    await wait(2_000);
    expect(saveKind()).toBe('saved');
  });

  test('stopped, it sends what is not saved, follows the bench no more, and says when it is done', async () => {
    start();
    retitle('one');
    saving?.stop();
    retitle('of another job');
    openBench('other', job, {
      version: 1,
      savedAt: '',
      selection: { partId: null, memberId: null },
      station: 'compose',
    });
    await wait(10);
    expect(sent.map((s) => [s.version, s.document.title])).toEqual([[4, 'one']]);
    expect(state()).toMatchObject({ id: 'other', version: 1, save: { kind: 'saved', at: '' } });
    expect(draft()).toBeNull();
    expect(done).toBe(1);
    windowEvents.dispatchEvent(new Event('online'));
    await wait(60_000);
    expect(sent).toHaveLength(1);
    expect(done).toBe(1);
  });

  test('stopped with all saved, it is done at once', async () => {
    start();
    retitle('one');
    await wait(510);
    saving?.stop();
    expect(done).toBe(1);
    expect(sent).toHaveLength(1);
  });

  test('stopped while one is being saved, the newest goes after it', async () => {
    const { release, held } = heldAnswer();
    answers = [held, ok(6)];
    start();
    retitle('one');
    await wait(510);
    retitle('two');
    saving?.stop();
    await wait(10);
    expect(done).toBe(0);
    release(await ok(5)());
    await wait(10);
    expect(sent.map((s) => [s.version, s.document.title])).toEqual([
      [4, 'one'],
      [5, 'two'],
    ]);
    expect(state().version).toBe(4);
    expect([done, kept.size]).toEqual([1, 0]);
  });

  test('stopped with the server away, the draft stays, and that is all', async () => {
    answers = [away];
    start();
    retitle('one');
    saving?.stop();
    await wait(60_000);
    expect(sent).toHaveLength(1);
    expect(draft()).toMatchObject({ version: 4, document: { title: 'one' } });
    expect(done).toBe(1);
  });

  test('stopped with the server away and no draft, it is tried again, and closing asks', async () => {
    keeps = false;
    answers = [away, away, ok(5)];
    start();
    retitle('one');
    saving?.stop();
    await wait(10);
    expect([done, asks()]).toEqual([0, true]);
    await wait(2_100);
    await wait(2_100);
    expect(sent).toHaveLength(3);
    expect([done, asks()]).toEqual([1, false]);
  });

  test('stopped over another window’s version with no draft, it becomes a job of its own', async () => {
    keeps = false;
    const theirs = { version: 9, document: { ...job, title: 'theirs' } };
    answers = [refuse(409, { sentence: 'changed', stored: theirs }), away, async () => Response.json({ id: NEW })];
    start();
    retitle('mine');
    saving?.stop();
    await wait(10);
    expect([done, asks()]).toEqual([0, true]);
    await wait(2_100);
    expect(sent.at(-1)?.document.title).toBe('mine (my version)');
    expect([done, asks()]).toEqual([1, false]);
  });

  test('stopped with what the server refuses and no draft, it is not sent again, and closing asks', async () => {
    keeps = false;
    answers = [refuse(413, { sentence: 'Too large.' })];
    start();
    retitle('mine');
    saving?.stop();
    await wait(60_000);
    expect(sent).toHaveLength(1);
    expect([done, asks()]).toEqual([0, true]);
  });

  test('forgotten, it is not saved as this job any more', async () => {
    answers = [refuse(404, { sentence: 'gone' })];
    start();
    retitle('one');
    await wait(510);
    expect(draft()).not.toBeNull();
    await saving?.forget();
    expect(draft()).toBeNull();
    saving?.stop();
    await wait(60_000);
    expect(sent).toHaveLength(1);
    expect([draft(), done, asks()]).toEqual([null, 1, false]);
  });
});

describe('kept as a job of its own', () => {
  test('it has a name that tells it from the other, no longer than a name may be', async () => {
    answers = [async () => Response.json({ id: NEW }, { status: 201 })];
    expect(await saveAsCopy(job)).toBe(NEW);
    expect(sent[0]).toMatchObject({ document: { ...job, title: 'Trial (my version)' }, extras });
    await saveAsCopy({ ...job, title: 'x'.repeat(200) });
    expect(sent[1]?.document.title).toHaveLength(200);
  });

  test('when it can’t be, that is told by there being no id', async () => {
    answers = [away, refuse(500, {})];
    expect(await saveAsCopy(job)).toBeNull();
    expect(await saveAsCopy(job)).toBeNull();
  });
});
