/** Bringing files in: one after the other, kept whole or not at all, and put on the sheet in one step. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import {
  bringIn,
  bringInFiles,
  keepBroughtIn,
  leaveBringingIn,
  putOnSheet,
  stopBringingIn,
  useBringIn,
} from '../../src/bench/bring-in/bring-in';
import { undo, useBench } from '../../src/bench/store';
import { LIMITS } from '../../src/core/limits';
import { type FilePreview, previewFile } from '../../src/worker/reading';
import { now, openJob } from '../support/bench';
import { wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';
import { type Started, workersAnswer } from '../support/workers';

type Reading = { progress: (share: number) => void; done: (preview: FilePreview) => void };
/** Files that are being read, in order. */
const readings: Reading[] = [];
const reader = {
  preview: (_bytes: Uint8Array, _page: number, progress: (share: number) => void) =>
    new Promise<FilePreview>((resolve) => {
      readings.push({ progress, done: resolve });
    }),
};
let workers: Started[];

const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><path d="M0 0h20v10h-20z"/></svg>';
const look = await previewFile(new TextEncoder().encode(SVG), { page: 0, progress: () => {} }, async () => wasmEngine);
if (!look.ok) throw new Error(look.sentence);
const choices = { factor: 1, operations: look.groups.map(() => 'cut') };

const incoming = () => useBringIn.getState().incoming;
const file = (name: string) => new File([name], name);
const begun = (count: number) => vi.waitFor(() => expect(readings.length).toBe(count), { timeout: 10_000 });
const soon = (check: () => void) => vi.waitFor(check, { timeout: 10_000 });
let kept: { name: string; text: string }[];
let answer: () => Promise<Response>;

beforeEach(() => {
  readings.length = 0;
  kept = [];
  workers = workersAnswer(reader);
  answer = async () => Response.json({ id: String(kept.length).repeat(64) }, { status: 201 });
  vi.stubGlobal(
    'fetch',
    async (_url: string, { body, headers }: { body: Blob | string; headers: Record<string, string> }) => {
      kept.push({ name: headers['x-name'] ?? '', text: await new Response(body).text() });
      return answer();
    },
  );
  openJob(jobWith([partOf([lettering('Lane')])]));
});
afterEach(() => {
  vi.useRealTimers();
  leaveBringingIn();
  vi.unstubAllGlobals();
});

describe('reading', () => {
  test('shows how far it has come, then what is in the file', async () => {
    const done = bringIn('plate.svg', new Uint8Array([1, 2]));
    expect(incoming()).toMatchObject({ name: 'plate.svg', share: 0, preview: null });
    await begun(1);
    readings[0]?.progress(0.5);
    await soon(() => expect(incoming()?.share).toBe(0.5));
    readings[0]?.done(look);
    await done;
    expect(incoming()?.preview).toMatchObject({ ok: true });
    expect(workers).toMatchObject([{ name: 'needlefile-reader', ended: true }]);
  });

  test('a newer file takes the place of one that is being read, whose answer is then nobody’s', async () => {
    const first = bringIn('first.svg', new Uint8Array([1]));
    await begun(1);
    const second = bringIn('second.svg', new Uint8Array([2]));
    expect(workers.map((w) => w.ended)).toEqual([true, false]);
    await first;
    expect(incoming()).toMatchObject({ name: 'second.svg', preview: null });
    await begun(2);
    readings[1]?.done(look);
    await second;
    expect(incoming()?.preview).toMatchObject({ ok: true });
  });

  test('stopped, it says so; left, there is nothing', async () => {
    const done = bringIn('first.svg', new Uint8Array([1]));
    stopBringingIn();
    await done;
    expect(incoming()?.preview).toEqual({ ok: false, sentence: 'Stopped. Nothing was changed.' });
    leaveBringingIn();
    expect(incoming()).toBeNull();
  });

  test('a reader that fails, or takes longer than it may, is ended, and says so', async () => {
    const failing = bringIn('first.svg', new Uint8Array([1]));
    workers[0]?.fail();
    await failing;
    expect(incoming()?.preview).toEqual({
      ok: false,
      sentence: 'This file could not be read: it asks for more than there is room for. Nothing was changed.',
    });
    vi.useFakeTimers();
    const slow = bringIn('second.svg', new Uint8Array([2]));
    await vi.advanceTimersByTimeAsync(LIMITS.readSeconds * 1000 - 1);
    expect([workers[1]?.ended, incoming()?.preview]).toEqual([false, null]);
    await vi.advanceTimersByTimeAsync(2);
    vi.useRealTimers();
    await slow;
    expect(workers[1]?.ended).toBe(true);
    expect(incoming()?.preview).toEqual({
      ok: false,
      sentence: 'Reading this file took longer than 60 seconds and was stopped. Nothing was changed.',
    });
  });

  test('several come one after the other, in order', async () => {
    const named = (name: string | undefined) => soon(() => expect(incoming()?.name).toBe(name));
    void bringInFiles([file('a.svg'), file('b.svg')]);
    await named('a.svg');
    void bringInFiles([file('c.svg')]);
    for (const name of ['a.svg', 'b.svg', 'c.svg', undefined]) {
      await named(name);
      if (name) leaveBringingIn();
    }
    expect(workers.map((w) => w.ended)).toEqual([true, true, true]);
  });
});

describe('taking in', () => {
  const begin = async () => {
    const done = bringIn('Pläne.svg', new TextEncoder().encode(SVG));
    await begun(1);
    readings[0]?.done(look);
    await done;
  };

  /** What the dialog does when it is pressed. */
  const takeIn = async () => {
    const done = await keepBroughtIn(look);
    if (done) putOnSheet(done, look, choices);
  };

  test('keeps the file and its drawing, puts it on the sheet as one step, and chooses it', async () => {
    await begin();
    await takeIn();
    expect(kept).toEqual([
      { name: 'Pl%C3%A4ne.svg', text: SVG },
      { name: '', text: look.drawing },
    ]);
    expect(incoming()).toBeNull();
    const added = now().parts.slice(1);
    expect(added.length).toBeGreaterThan(0);
    expect(added[0]?.members[0]).toMatchObject({
      kind: 'artwork',
      name: 'Pläne.svg',
      original: '1'.repeat(64),
      drawing: '2'.repeat(64),
    });
    expect(useBench.getState().selection).toMatchObject({
      partId: added[0]?.id,
      memberId: null,
    });
    undo();
    expect(now().parts).toHaveLength(1);
  });

  test('what was left while it was being kept is not put on the sheet', async () => {
    await begin();
    const taking = takeIn();
    leaveBringingIn();
    await taking;
    expect(kept).toHaveLength(2);
    expect(now().parts).toHaveLength(1);
    await takeIn();
    expect(kept).toHaveLength(2);
  });

  test('what can’t be kept is said, changes nothing, and can be tried again', async () => {
    await begin();
    const before = now();
    const faults: [() => Promise<Response>, string][] = [
      [() => Promise.reject(new TypeError('Failed to fetch')), 'The server is away. Nothing was changed'],
      [async () => Response.json({ sentence: 'This file is too large.' }, { status: 413 }), 'This file is too large.'],
      [async () => Response.json({}, { status: 201 }), 'The server gave an answer that can’t be read.'],
    ];
    for (const [fails, sentence] of faults) {
      answer = fails;
      await expect(takeIn()).rejects.toThrow(sentence);
      expect(incoming()?.name).toBe('Pläne.svg');
      expect(now()).toBe(before);
    }
    answer = async () => Response.json({ id: 'f'.repeat(64) }, { status: 201 });
    await takeIn();
    expect(now().parts).toHaveLength(2);
  });
});
