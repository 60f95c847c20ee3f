/** Drafts in the browser: one for each job and window, found again where their window is gone, and no fault where there is no store. */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { type Draft, draftsAtHand, dropDraft, keepDraft, takeDraft } from '../../src/drafts/drafts';
import { jobWith, lettering, partOf } from '../support/jobs';

const job = jobWith([partOf([lettering('Lane')])]);
/** Names of windows that are open. */
let open: string[];

const draftOf = (jobId: string, window: string, at = 1, title = 'Lane'): Draft => ({
  jobId,
  window,
  version: 4,
  document: { ...job, title },
  at,
});

beforeEach(() => {
  open = ['here', 'there'];
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('navigator', {
    locks: { query: async () => ({ held: [...open.map((name) => ({ name: `needlefile:window:${name}` })), {}] }) },
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a draft', () => {
  test('is kept and dropped by its job and window', async () => {
    expect(await keepDraft(draftOf('a', 'here'))).toBe(true);
    expect(await keepDraft(draftOf('a', 'gone', 2))).toBe(true);
    expect(await keepDraft(draftOf('b', 'here', 3))).toBe(true);
    expect(await draftsAtHand('a', 'here')).toEqual([draftOf('a', 'gone', 2), draftOf('a', 'here')]);
    expect(await draftsAtHand(null, 'here')).toHaveLength(3);
    expect(await dropDraft('a', 'here')).toBe(true);
    expect(await draftsAtHand('a', 'here')).toEqual([draftOf('a', 'gone', 2)]);
    expect(await draftsAtHand('b', 'here')).toEqual([draftOf('b', 'here', 3)]);
  });

  test('takes the place of the one before', async () => {
    await keepDraft(draftOf('a', 'here', 1, 'one'));
    await keepDraft(draftOf('a', 'here', 2, 'two'));
    expect(await draftsAtHand('a', 'here')).toEqual([draftOf('a', 'here', 2, 'two')]);
  });

  test('of a window that is open is that window’s alone; where nobody can tell, it is shown', async () => {
    await keepDraft(draftOf('a', 'there'));
    expect(await draftsAtHand('a', 'here')).toEqual([]);
    open = ['here'];
    expect(await draftsAtHand('a', 'here')).toHaveLength(1);
    open = ['here', 'there'];
    vi.stubGlobal('navigator', {});
    expect(await draftsAtHand('a', 'here')).toHaveLength(1);
  });

  test('is taken over once', async () => {
    await keepDraft(draftOf('a', 'gone'));
    const [found] = await draftsAtHand('a', 'here');
    const taken = await Promise.all([takeDraft(found as Draft, 'here'), takeDraft(found as Draft, 'another')]);
    expect(taken).toEqual([true, false]);
    expect(await draftsAtHand(null, 'here')).toEqual([draftOf('a', 'here')]);
    expect(await takeDraft(draftOf('a', 'here'), 'here')).toBe(true);
    expect(await draftsAtHand(null, 'here')).toEqual([draftOf('a', 'here')]);
  });

  test('that can’t be read is none, and stays', async () => {
    await keepDraft({ ...draftOf('a', 'here'), document: { format: 99 } as never });
    expect(await draftsAtHand('a', 'here')).toEqual([]);
    expect(await takeDraft(draftOf('a', 'here'), 'here')).toBe(true);
  });
});

describe('where there is no store', () => {
  test.each([
    ['none at all', undefined],
    [
      'one that is off',
      {
        open: () => {
          throw new DOMException('off', 'SecurityError');
        },
      },
    ],
  ])('%s: nothing is kept, and that is told', async (_what, indexedDB) => {
    vi.stubGlobal('indexedDB', indexedDB);
    expect(await keepDraft(draftOf('a', 'here'))).toBe(false);
    expect(await dropDraft('a', 'here')).toBe(false);
    expect(await takeDraft(draftOf('a', 'here'), 'here')).toBe(false);
    expect(await draftsAtHand('a', 'here')).toEqual([]);
  });

  test('one that does not answer is waited for no longer than two seconds', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const silent = Reflect.construct(IDBOpenDBRequest, []) as IDBOpenDBRequest;
    vi.stubGlobal('indexedDB', { open: () => silent });
    let isKept: boolean | undefined;
    void keepDraft(draftOf('a', 'here')).then((kept) => {
      isKept = kept;
    });
    await vi.advanceTimersByTimeAsync(1_900);
    expect(isKept).toBeUndefined();
    await vi.advanceTimersByTimeAsync(200);
    expect(isKept).toBe(false);
  });

  test('one without room keeps the draft that was there', async () => {
    await keepDraft(draftOf('a', 'here', 1, 'one'));
    const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    expect(await keepDraft(draftOf('a', 'here', 2, 'two'))).toBe(false);
    full.mockRestore();
    expect(await draftsAtHand('a', 'here')).toEqual([draftOf('a', 'here', 1, 'one')]);
  });
});
