/**
 * Two windows edit one job while the server, the database and the network are killed, frozen and brought back at random. At the end
 * every edit is on the server, in a draft, or was given up by whoever was asked.
 *
 * NEEDLEFILE_CHAOS_MINUTES: how long; NEEDLEFILE_CHAOS_SEED: which way it goes.
 */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { freePort, postgres } from '../scripts/lib/postgres.mjs';
import { ask } from '../tests/support/ask';
import { figure } from '../tests/support/figures';
import { chance } from '../tests/support/random';
import { draftsOf } from './fixtures';

const MINUTES = Number(process.env.NEEDLEFILE_CHAOS_MINUTES ?? 10);
const SEED = Number(process.env.NEEDLEFILE_CHAOS_SEED ?? 1);
const TSX = 'node_modules/tsx/dist/cli.mjs';

test.setTimeout((MINUTES + 8) * 60_000);

const random = chance(SEED);
const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const between = (least: number, most: number) => least + random() * (most - least);
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** All processes below one, itself among them. */
function family(pid: number): number[] {
  const parents = new Map<number, number>();
  for (const name of readdirSync('/proc').filter((n) => /^\d+$/.test(n))) {
    try {
      const stat = readFileSync(`/proc/${name}/stat`, 'utf8');
      parents.set(Number(name), Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]));
    } catch {
      // It has ended meanwhile.
    }
  }
  const all = [pid];
  for (let i = 0; i < all.length; i++) for (const [child, parent] of parents) if (parent === all[i]) all.push(child);
  return all;
}

const signal = (pids: readonly number[], name: NodeJS.Signals) => {
  for (const pid of pids) {
    try {
      process.kill(pid, name);
    } catch {
      // It has ended meanwhile.
    }
  }
};

const database = postgres('chaos-database', { fast: true });
let url = '';
let port = 0;
let server: ChildProcess | null = null;
const base = () => `http://127.0.0.1:${port}`;

const query = <T>(sql: string): Promise<T[]> => ask<T>(url, sql);

function startServer(): void {
  server = spawn(process.execPath, [TSX, 'src/serve/main.ts'], {
    env: { ...process.env, DATABASE_URL: url, PORT: String(port), NODE_ENV: 'production', NEEDLEFILE_HOST: '' },
    stdio: 'ignore',
  });
}
const isUp = () =>
  fetch(`${base()}/api/materials`, { signal: AbortSignal.timeout(3_000) }).then(
    (r) => r.ok,
    () => false,
  );
async function whenUp(): Promise<void> {
  for (let i = 0; i < 240 && !(await isUp()); i++) await wait(500);
}
const postmaster = async (): Promise<number> => {
  const [row] = await query<{ folder: string }>("select current_setting('data_directory') as folder");
  return Number(readFileSync(`${row?.folder}/postmaster.pid`, 'utf8').split('\n')[0]);
};

/** What goes wrong, each until it is over. */
const MISHAPS: Readonly<Record<string, (windows: readonly Page[], context: BrowserContext) => Promise<void>>> = {
  'the server is killed': async () => {
    signal(family(server?.pid ?? 0), 'SIGKILL');
    await wait(between(200, 6_000));
    startServer();
  },
  'the server is frozen': async () => {
    const pids = family(server?.pid ?? 0);
    signal(pids, 'SIGSTOP');
    await wait(between(500, 8_000));
    signal(pids, 'SIGCONT');
  },
  'the database is killed': async () => {
    signal(family(await postmaster()), 'SIGKILL');
    await wait(between(200, 6_000));
    await database.start();
  },
  'the database is frozen': async () => {
    const pids = family(await postmaster());
    signal(pids, 'SIGSTOP');
    await wait(between(500, 8_000));
    signal(pids, 'SIGCONT');
  },
  'the network is away': async (_windows, context) => {
    await context.setOffline(true);
    await wait(between(200, 8_000));
    await context.setOffline(false);
  },
  'a window is reloaded': async (windows) => {
    await any(windows)
      .reload({ timeout: 5_000 })
      .catch(() => {});
  },
  'a window is left for the list and comes back': async (windows) => {
    const page = any(windows);
    await page
      .getByRole('link', { name: 'All jobs' })
      .click({ timeout: 2_000 })
      .catch(() => {});
    await wait(between(0, 3_000));
    await page.goBack({ timeout: 5_000 }).catch(() => {});
  },
};

/** What a window has written down: its words, as they were typed into parts of their own. */
type Window = { readonly name: string; readonly page: Page; readonly written: string[]; count: number };

/** All documents that the server has, earlier versions among them. */
const onServer = async (): Promise<string> =>
  JSON.stringify([await query('select document from jobs'), await query('select document from job_revisions')]);
const isIn = (word: string, text: string): boolean => text.includes(`"${word}"`);

/** Answer what a window asks: at random while all goes on, so that nothing is given up at the end. */
async function answerQuestions(window: Window, given: Set<string>, isEnd: boolean): Promise<void> {
  const { page } = window;
  const asked = page.getByRole('dialog').filter({ hasText: 'another window' });
  if (!(await asked.isVisible().catch(() => false))) return;
  const [mine, copy, other] = ['Go on with mine', 'Keep mine as a copy', 'Take the other version'] as const;
  const answer = isEnd ? copy : any([mine, mine, mine, copy, copy, other]);
  if (answer === other) {
    // Given up is what only this window has; what the server cannot be asked about is asked again.
    const kept = await onServer().catch(() => null);
    if (kept === null) return;
    for (const word of window.written) if (!isIn(word, kept)) given.add(word);
  }
  await asked
    .getByRole('button', { name: answer })
    .click({ timeout: 2_000 })
    .catch(() => {});
}

/** Have a window at the job, whatever has become of it. */
async function atJob(window: Window, address: string): Promise<boolean> {
  const { page } = window;
  const button = page.getByRole('button', { name: 'Lettering', exact: true });
  if (await button.isVisible().catch(() => false)) return true;
  if (
    /\/jobs\//.test(page.url()) &&
    (await button.waitFor({ timeout: 2_000 }).then(
      () => true,
      () => false,
    ))
  )
    return true;
  await page.goto(address, { timeout: 8_000 }).catch(() => {});
  return button.waitFor({ timeout: 3_000 }).then(
    () => true,
    () => false,
  );
}

/** Type a word nobody else types into a part of its own; whether it stands there. */
async function edit(window: Window): Promise<void> {
  const { page } = window;
  const word = `${window.name}${++window.count}x`;
  try {
    await page.getByRole('button', { name: 'Lettering', exact: true }).click({ timeout: 2_000 });
    const words = page.getByRole('textbox', { name: 'Words' });
    await words.fill(word, { timeout: 2_000 });
    if ((await words.inputValue({ timeout: 2_000 })) === word) window.written.push(word);
  } catch {
    // Something lies over it; nothing was typed.
  }
}

test('whatever happens to server, database and network, every edit is somewhere', async ({ browser }) => {
  database.remove();
  url = await database.start();
  expect(
    spawnSync(process.execPath, [TSX, 'scripts/migrate.ts'], { env: { ...process.env, DATABASE_URL: url } }).status,
  ).toBe(0);
  port = await freePort();
  startServer();
  const context = await browser.newContext({ baseURL: base() });
  const mishaps = new Map<string, number>();
  try {
    await whenUp();
    const document = { format: 3, title: 'Chaos', sheet: { width: 3_000, height: 3_000 } };
    const made = await context.request.post('/api/jobs', { data: { document } });
    const { id } = (await made.json()) as { id: string };
    const address = `${base()}/jobs/${id}`;
    const windows: Window[] = [];
    for (const name of ['oak', 'elm']) {
      const page = await context.newPage();
      // Closing asks while nobody has the newest: then it stays.
      page.on('dialog', (dialog) => void dialog.dismiss().catch(() => {}));
      windows.push({ name, page, written: [], count: 0 });
    }
    /** All words that were ever typed, and those that were given up by whoever was asked. */
    const all = new Set<string>();
    const given = new Set<string>();

    const until = Date.now() + MINUTES * 60_000;
    let mishap: Promise<void> = Promise.resolve();
    let isBusy = false;
    while (Date.now() < until) {
      if (!isBusy && random() < 0.4) {
        const what = any(Object.keys(MISHAPS));
        mishaps.set(what, (mishaps.get(what) ?? 0) + 1);
        isBusy = true;
        mishap = (MISHAPS[what] as (typeof MISHAPS)[string])(
          windows.map((w) => w.page),
          context,
        )
          .catch(() => {})
          .finally(() => {
            isBusy = false;
          });
      }
      const window = any(windows);
      await answerQuestions(window, given, false);
      if (await atJob(window, address)) await edit(window);
      for (const word of window.written) all.add(word);
      await wait(between(0, 1_200));
    }
    await mishap;
    await context.setOffline(false);
    await whenUp();
    // In peace, all that is asked is answered so that nothing is given up, and all that is on its way arrives.
    for (let i = 0; i < 40; i++) {
      for (const window of windows) {
        await atJob(window, address);
        await answerQuestions(window, given, true);
      }
      await wait(500);
    }
    const kept = await onServer();
    const inDrafts = await draftsOf((windows[0] as Window).page);
    const lost = [...all].filter((word) => !given.has(word) && !isIn(word, kept) && !isIn(word, inDrafts));
    const told = [...mishaps].map(([what, times]) => `${what} ${times}×`).join(', ');
    console.log(`${all.size} edits, ${given.size} given up by choice; ${told}`);
    figure({
      name: `Edits lost while server, database and network came and went (${MINUTES} minutes, seed ${SEED})`,
      value: lost.length,
      digits: 0,
      aim: { most: 0 },
      note: `of ${all.size}; ${told}`,
    });
    expect(lost).toEqual([]);
    expect(all.size).toBeGreaterThan(10 * MINUTES);
  } finally {
    await context.close();
    signal(family(server?.pid ?? 0), 'SIGKILL');
    database.remove();
  }
});
