/** Names of windows: no two open ones have the same, and a window has the same after a reload. */

import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { nameWindow, openWindows } from '../../src/drafts/window-name';

type Held = { readonly name: string; readonly by: object };

let held: Held[];
let session: Map<string, string>;
/** The window that asks, told apart by an object of its own. */
let me: object;

/** Locks as browsers have them: each by its name, held until what it was given for is over. */
const locks = {
  request: async (name: string, { signal }: { signal: AbortSignal }, run: () => Promise<never>) => {
    while (held.some((lock) => lock.name === name)) {
      if (signal.aborted) throw signal.reason;
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    held.push({ name, by: me });
    return run();
  },
  query: async () => ({ held }),
};

const closeWindow = (by: object) => {
  held = held.filter((lock) => lock.by !== by);
};

/** A window opens with what its session has kept. */
async function openWindow(): Promise<{ name: string; window: object }> {
  const window = {};
  me = window;
  return { name: await nameWindow(), window };
}

beforeEach(() => {
  held = [];
  session = new Map();
  vi.stubGlobal('navigator', { locks });
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => session.get(key) ?? null,
    setItem: (key: string, value: string) => session.set(key, value),
  });
});
afterEach(() => vi.unstubAllGlobals());

test('a window has a name that stays after a reload', async () => {
  const first = await openWindow();
  expect(first.name).toMatch(/^[0-9a-f]{24}$/);
  closeWindow(first.window);
  expect((await openWindow()).name).toBe(first.name);
});

test('a reload waits for the name to be let go', async () => {
  const first = await openWindow();
  setTimeout(() => closeWindow(first.window), 100);
  expect((await openWindow()).name).toBe(first.name);
});

test('a duplicated window, which starts with what the first had kept, has a name of its own', async () => {
  const first = await openWindow();
  const second = await openWindow();
  expect(second.name).not.toBe(first.name);
  expect(await openWindows()).toEqual(new Set([first.name, second.name]));
});

test('without locks, or with storage off, each has a new name, and nobody can tell who is open', async () => {
  vi.stubGlobal('sessionStorage', {
    getItem: () => {
      throw new Error('off');
    },
    setItem: () => {
      throw new Error('off');
    },
  });
  expect((await openWindow()).name).not.toBe((await openWindow()).name);
  vi.stubGlobal('navigator', {});
  expect((await openWindow()).name).not.toBe((await openWindow()).name);
  expect(await openWindows()).toEqual(new Set());
});
