/** Saving by itself: nothing is lost, nothing is said to be saved that is not, and nothing is written over another's work. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { dropDraft, keepSaved, readDraft, saveAsCopy } from '../../src/bench/saving';
import { change, openBench, type SaveState, undo, useBench } from '../../src/bench/store';
import type { Job } from '../../src/core/document/schema';
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

let stored: Map<string, string>;
let sent: Sent[];
/** What the server answers next; the last answer stays. */
let answers: (() => Promise<Response>)[];
let stop: () => void;
let windowEvents: EventTarget;

const ok = (version: number) => async () => Response.json({ version, changedAt: `at ${version}` });
const refuse = (status: number, body: object) => async () => Response.json(body, { status });
const away = () => Promise.reject(new TypeError('Failed to fetch'));
const draft = () => readDraft('trial');
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  stored = new Map();
  sent = [];
  answers = [ok(5)];
  summary.mockReset().mockResolvedValue(extras);
  windowEvents = new EventTarget();
  vi.stubGlobal('window', windowEvents);
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => stored.get(key) ?? null,
    setItem: (key: string, value: string) => stored.set(key, value),
    removeItem: (key: string) => stored.delete(key),
  });
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
  stop = () => {};
});
afterEach(() => {
  stop();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a change', () => {
  beforeEach(() => {
    stop = keepSaved(false);
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
    let release: (r: Response) => void = () => {};
    answers = [
      () =>
        new Promise((resolve) => {
          release = resolve;
        }),
      ok(6),
    ];
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
    stop = keepSaved(false);
  });

  test('it is said, the draft is kept, and it is tried again every two seconds', async () => {
    answers = [away, refuse(503, { sentence: 'The database is away.' }), refuse(500, {}), ok(5)];
    retitle('one');
    await wait(510);
    expect(state().save).toEqual({
      kind: 'away',
      sentence: 'The server is away. Your work is kept here and saved when it is back.',
    });
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
    stop = keepSaved(false);
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
    let release: (r: Response) => void = () => {};
    answers = [
      () =>
        new Promise((resolve) => {
          release = resolve;
        }),
      ok(5),
    ];
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

describe('coming and going', () => {
  test('what differs from the server when it is opened is saved', async () => {
    stop = keepSaved(true);
    await wait(510);
    expect(sent).toEqual([{ version: 4, document: job, extras }]);
  });

  test('leaving keeps what is not saved yet, and only that', async () => {
    stop = keepSaved(false);
    windowEvents.dispatchEvent(new Event('pagehide'));
    expect(draft()).toBeNull();
    retitle('one');
    windowEvents.dispatchEvent(new Event('pagehide'));
    expect(draft()).toMatchObject({ version: 4, document: { title: 'one' } });
    await wait(510);
    windowEvents.dispatchEvent(new Event('pagehide'));
    expect(draft()).toBeNull();
  });

  test('stopped, nothing more is sent; what was not saved is kept', async () => {
    stop = keepSaved(false);
    retitle('one');
    stop();
    await wait(60_000);
    expect(sent).toEqual([]);
    expect(draft()).toMatchObject({ document: { title: 'one' } });
    retitle('two');
    windowEvents.dispatchEvent(new Event('online'));
    await wait(60_000);
    expect(sent).toEqual([]);
    expect(draft()).toMatchObject({ document: { title: 'one' } });
  });

  test('stopped while one is being saved, its answer changes nothing any more', async () => {
    let release: (r: Response) => void = () => {};
    answers = [
      () =>
        new Promise((resolve) => {
          release = resolve;
        }),
    ];
    stop = keepSaved(false);
    retitle('one');
    await wait(510);
    stop();
    release(await ok(5)());
    await wait(10);
    expect(state().version).toBe(4);
  });

  test('drafts that can’t be read are none; storage that is off or full is done without', async () => {
    for (const held of ['', 'nonsense', '7', '{}', '{"version":"4","document":{}}', '{"version":4,"document":{}}']) {
      stored.set('needlefile:draft:trial', held);
      expect(draft(), held).toBeNull();
    }
    const fails = () => {
      throw new Error('off');
    };
    vi.stubGlobal('localStorage', { getItem: fails, setItem: fails, removeItem: fails });
    expect(draft()).toBeNull();
    dropDraft('trial');
    stop = keepSaved(false);
    retitle('one');
    await wait(510);
    expect(saveKind()).toBe('saved');
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
