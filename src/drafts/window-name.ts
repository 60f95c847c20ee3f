/**
 * The name of this window, by which its drafts are told from those of others. It holds a lock of that name as long as it is open, so
 * that others can tell whether a draft's window is still there.
 */

const KEY = 'needlefile:window';
const LOCK = 'needlefile:window:';
/** How long the window that this one was before a reload may take to let its name go, in ms. */
const LETS_GO_MS = 500;

const newName = (): string =>
  [...crypto.getRandomValues(new Uint8Array(12))].map((byte) => byte.toString(16).padStart(2, '0')).join('');

/** Browsers have locks only where the line is safe: on this machine, and where the page came encrypted. */
const locks = (): LockManager | undefined => globalThis.navigator?.locks;

/** Hold a name until this window is closed; false where another one holds it. */
const hold = (name: string, waits: number): Promise<boolean> =>
  new Promise((resolve) => {
    const held = locks()?.request(LOCK + name, { signal: AbortSignal.timeout(waits) }, () => {
      resolve(true);
      return new Promise<never>(() => {});
    });
    held?.catch(() => resolve(false));
  });

/** The name it had before a reload; a duplicated window starts with that of the one it was made from. */
function nameBefore(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

function rememberName(name: string): void {
  try {
    sessionStorage.setItem(KEY, name);
  } catch {
    // Then it has another one after a reload, and the draft is found as that of a window that is gone.
  }
}

/** Give this window a name, and hold it; done once for each window. */
export async function nameWindow(): Promise<string> {
  const before = nameBefore();
  if (!locks()) return newName();
  if (before !== null && (await hold(before, LETS_GO_MS))) return before;
  const name = newName();
  await hold(name, LETS_GO_MS);
  rememberName(name);
  return name;
}

let named: Promise<string> | undefined;

/** The name of this window: no other one has it while this is open, and it has the same after a reload. */
export function windowName(): Promise<string> {
  named ??= nameWindow();
  return named;
}

/** Names of the windows of this browser that are open; none where it can't tell. */
export async function openWindows(): Promise<ReadonlySet<string>> {
  const held = (await locks()?.query())?.held ?? [];
  return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])));
}
