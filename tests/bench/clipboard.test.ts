/** Copy, cut, paste and duplicate at the bench. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { copiedWords, copyChosen, cutChosen, duplicateChosen, pasteCopied, pasteText } from '../../src/bench/clipboard';
import { change, select, selectedParts, selectParts, undo, useBench } from '../../src/bench/store';
import { now, openJob } from '../support/bench';
import { rectangle } from '../support/commands';
import { jobWith, lettering, partOf } from '../support/jobs';

const state = useBench.getState;
const ids = () => now().parts.map((p) => p.id);
const job = () =>
  jobWith([
    partOf([lettering('Oak'), rectangle('r', 20)], { id: 'a' }),
    partOf([rectangle('r', 60)], { id: 'b' }),
    partOf([rectangle('r', 90)], { id: 'c', locked: true }),
  ]);
let kept: Map<string, string>;
let isFull: boolean;

beforeEach(() => {
  kept = new Map();
  isFull = false;
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (isFull) throw new Error('QuotaExceededError');
      kept.set(key, value);
    },
  });
  openJob(job());
  select('a');
});
afterEach(() => vi.unstubAllGlobals());

describe('what is copied', () => {
  test('is put in as one step of undo and chosen, here and in another job', () => {
    selectParts(['a', 'b']);
    expect(copyChosen()).toBe(true);
    pasteCopied();
    expect(ids()).toEqual(['a', 'b', 'c', 'part-1', 'part-2']);
    expect(selectedParts(state().selection)).toEqual(['part-1', 'part-2']);
    undo();
    expect(ids()).toEqual(['a', 'b', 'c']);
    openJob(jobWith([]));
    pasteCopied();
    expect(ids()).toEqual(['part-1', 'part-2']);
  });

  test('of a part that was gone into is the member, which goes into the part that is chosen', () => {
    select('a', 'words');
    copyChosen();
    select('b');
    pasteCopied();
    expect(now().parts[1]?.members.map((m) => m.kind)).toEqual(['rectangle', 'lettering']);
    expect(state().selection).toEqual({ partId: 'b', memberId: now().parts[1]?.members[1]?.id, others: [] });
  });

  test('has its words for other programs, and theirs become lettering', () => {
    expect(copiedWords()).toBe('');
    selectParts(['a', 'b']);
    copyChosen();
    expect(copiedWords()).toBe('Oak');
    select('a', 'r');
    copyChosen();
    expect(copiedWords()).toBe('');
    pasteText('Elm');
    expect(now().parts.at(-1)?.members).toMatchObject([{ kind: 'lettering', text: 'Elm' }]);
    expect(state().selection.partId).toBe('part-1');
    pasteText(' ');
    expect(state().said).toBe('There are no words to paste.');
  });

  test('is taken out when it is cut, but what is locked stays', () => {
    selectParts(['b', 'c']);
    cutChosen();
    expect(ids()).toEqual(['a', 'c']);
    select('a', 'words');
    cutChosen();
    expect(now().parts[0]?.members.map((m) => m.id)).toEqual(['r']);
    pasteCopied();
    expect(now().parts[0]?.members.map((m) => m.kind)).toEqual(['rectangle', 'lettering']);
    select('c');
    const before = now();
    cutChosen();
    select(null);
    cutChosen();
    expect(copyChosen()).toBe(false);
    expect(now()).toBe(before);
  });

  test('that is too large to be kept, or is none, is said; the next change takes that away', () => {
    pasteCopied();
    expect(state().said).toBe('Nothing was copied yet.');
    change((draft) => {
      draft.title = 'on';
    });
    expect(state().said).toBeNull();
    isFull = true;
    expect(copyChosen()).toBe(false);
    expect(state().said).toBe('This is too large for the browser to hold; nothing was copied.');
    isFull = false;
    copyChosen();
    expect(state().said).toBeNull();
    kept.set('needlefile:copied', '{');
    pasteCopied();
    expect(state().said).toBe('Nothing was copied yet.');
    kept.clear();
    // What is too large is not taken out either: it would be gone.
    isFull = true;
    cutChosen();
    expect(ids()).toEqual(['a', 'b', 'c']);
  });
});

test('a double lies beside and is chosen: of parts, of a member; of nothing there is none', () => {
  duplicateChosen();
  expect(ids()).toEqual(['a', 'part-1', 'b', 'c']);
  expect(state().selection).toEqual({ partId: 'part-1', memberId: null, others: [] });
  select('b', 'r');
  duplicateChosen();
  expect(now().parts[2]?.members).toHaveLength(2);
  expect(state().selection).toMatchObject({ partId: 'b', memberId: 'rectangle-1' });
  select(null);
  const before = now();
  duplicateChosen();
  expect(now()).toBe(before);
});
