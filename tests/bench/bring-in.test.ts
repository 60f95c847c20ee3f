/** Bringing files in: one after the other, kept whole or not at all, and put on the sheet in one step. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import {
  bringIn,
  bringInFiles,
  leaveBringingIn,
  stopBringingIn,
  takeIn,
  useBringIn,
} from '../../src/bench/bring-in/bring-in';
import { undo, useBench } from '../../src/bench/store';
import { type Look, lookAt } from '../../src/worker/reading';
import { now, openJob } from '../support/bench';
import { wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

type Reading = {
  bytes: Uint8Array;
  progress: (share: number) => void;
  done: (look: Look) => Promise<void>;
  stopped: boolean;
};
const readings: Reading[] = [];
vi.mock('@/worker/client', () => ({
  computing: () => ({}),
  readingFile: (bytes: Uint8Array, progress: (share: number) => void) => {
    let finish: (look: Look) => void = () => {};
    const done = new Promise<Look>((resolve) => {
      finish = resolve;
    });
    const reading: Reading = {
      bytes,
      progress,
      stopped: false,
      done: async (look) => {
        finish(look);
        await new Promise((resolve) => setImmediate(resolve));
      },
    };
    readings.push(reading);
    return {
      done,
      stop: () => {
        reading.stopped = true;
        finish({ ok: false, sentence: 'Stopped.' });
      },
    };
  },
}));

const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><path d="M0 0h20v10h-20z"/></svg>';
const look = await lookAt(
  new TextEncoder().encode(SVG),
  () => {},
  async () => wasmEngine,
);
if (!look.ok) throw new Error(look.sentence);
const choices = { factor: 1, operations: look.groups.map(() => 'cut') };

const incoming = () => useBringIn.getState().incoming;
const file = (name: string) => new File([name], name);
const turn = () => new Promise((resolve) => setImmediate(resolve));
const last = () => readings.at(-1) as Reading;
let kept: { name: string; text: string }[];
let answer: () => Promise<Response>;

beforeEach(() => {
  readings.length = 0;
  kept = [];
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
  leaveBringingIn();
  vi.unstubAllGlobals();
});

describe('reading', () => {
  test('shows how far it has come, then what is in the file', async () => {
    const done = bringIn('plate.svg', new Uint8Array([1, 2]));
    expect(incoming()).toMatchObject({ name: 'plate.svg', share: 0, look: null, fault: null, keeping: false });
    last().progress(0.5);
    expect(incoming()?.share).toBe(0.5);
    await last().done(look);
    await done;
    expect(incoming()?.look).toMatchObject({ ok: true });
  });

  test('a newer file takes the place of one that is being read, whose answer is then nobody’s', async () => {
    void bringIn('first.svg', new Uint8Array([1]));
    const [first] = readings;
    void bringIn('second.svg', new Uint8Array([2]));
    expect(first?.stopped).toBe(true);
    await first?.done(look);
    expect(incoming()).toMatchObject({ name: 'second.svg', look: null });
  });

  test('stopped, it says so; left, there is nothing', async () => {
    void bringIn('first.svg', new Uint8Array([1]));
    stopBringingIn();
    await turn();
    expect(incoming()?.look).toEqual({ ok: false, sentence: 'Stopped.' });
    leaveBringingIn();
    expect(incoming()).toBeNull();
    last().progress(0.7);
    expect(incoming()).toBeNull();
  });

  test('several come one after the other, in order', async () => {
    await Promise.race([bringInFiles([file('a.svg'), file('b.svg')]), turn()]);
    await turn();
    void bringInFiles([file('c.svg')]);
    await turn();
    expect(incoming()?.name).toBe('a.svg');
    leaveBringingIn();
    await turn();
    expect(incoming()?.name).toBe('b.svg');
    leaveBringingIn();
    await turn();
    expect(incoming()?.name).toBe('c.svg');
    leaveBringingIn();
    await turn();
    expect(incoming()).toBeNull();
  });
});

describe('taking in', () => {
  const begin = async () => {
    void bringIn('Pläne.svg', new TextEncoder().encode(SVG));
    await last().done(look);
  };

  test('keeps the file and its drawing, puts it on the sheet as one step, and chooses it', async () => {
    await begin();
    await takeIn(look, choices);
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
      memberId: added[0]?.members[0]?.id,
    });
    undo();
    expect(now().parts).toHaveLength(1);
  });

  test('a second press while it is being kept does nothing', async () => {
    await begin();
    const both = [takeIn(look, choices), takeIn(look, choices)];
    expect(incoming()?.keeping).toBe(true);
    await Promise.all(both);
    expect(kept).toHaveLength(2);
    expect(now().parts.length).toBe(2);
    await takeIn(look, choices);
    expect(kept).toHaveLength(2);
  });

  test('what can’t be kept is said, changes nothing, and can be tried again', async () => {
    await begin();
    const before = now();
    const faults: [() => Promise<Response>, string][] = [
      [() => Promise.reject(new TypeError('Failed to fetch')), 'The server is away. '],
      [async () => Response.json({ sentence: 'This file is too large.' }, { status: 413 }), 'This file is too large. '],
      [async () => Response.json({}, { status: 201 }), 'The server could not keep the file. '],
    ];
    for (const [fails, sentence] of faults) {
      answer = fails;
      await takeIn(look, choices);
      expect(incoming()).toMatchObject({
        keeping: false,
        fault: `${sentence}Nothing was changed; try again when it is back.`,
      });
      expect(now()).toBe(before);
    }
    answer = async () => Response.json({ id: 'f'.repeat(64) }, { status: 201 });
    await takeIn(look, choices);
    expect(now().parts).toHaveLength(2);
  });
});
