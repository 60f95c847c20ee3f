import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { freePort } from '../scripts/lib/postgres.mjs';
import { addLettering, expect, saved, startEmpty, test } from './fixtures';
import { reached } from './reached';

const WORDS = 'four oak boards';
/** Stands for the address of a shop's network: this machine's second one. */
const THERE = '127.0.0.2';
const TSX = 'node_modules/tsx/dist/cli.mjs';

// A wrong passphrase, and one before its time.
test.use({ expectedErrors: /403|429/ });

const settings = (args: readonly string[], input = '') =>
  spawnSync(process.execPath, [TSX, 'scripts/settings.ts', ...args], { input, encoding: 'utf8' });

const served = (host: string, port: number): ChildProcess =>
  spawn(process.execPath, [TSX, 'src/serve/main.ts'], {
    env: { ...process.env, PORT: String(port), NODE_ENV: 'production', NEEDLEFILE_HOST: host },
    stdio: ['ignore', 'pipe', 'pipe'],
  });

/** All that a process says until it ends. */
const saidBy = (started: ChildProcess): Promise<string> =>
  new Promise((resolve) => {
    let said = '';
    for (const stream of [started.stdout, started.stderr])
      stream?.on('data', (text: Buffer) => {
        said += text;
      });
    started.on('exit', () => resolve(said));
  });

test('others of the network are let in by a passphrase, and not without one set', async ({ page }) => {
  const port = await freePort();
  expect(await saidBy(served(THERE, port))).toContain('by a passphrase only');
  expect(settings(['passphrase'], 'short\n').stderr).toContain('at least 8 characters');
  expect(settings(['passphrase'], `${WORDS}\n`).stdout).toContain('Passphrase for the network: set');
  expect(await saidBy(served('0.0.0.0', port))).toContain('no address to serve on');

  const started = served(THERE, port);
  try {
    await expect
      .poll(
        () =>
          fetch(`http://${THERE}:${port}/api/health`).then(
            (r) => r.status,
            () => 0,
          ),
        { timeout: 60_000 },
      )
      .toBe(200);
    await page.goto(`http://${THERE}:${port}/?shelf`);
    await expect(page).toHaveURL(/\/enter\?to=/);
    await expect(page.getByText('The line to the server is not encrypted')).toBeVisible();
    await reached(page, 'the passphrase');
    await page.getByLabel('Passphrase of this shop').fill('five oak boards');
    await page.keyboard.press('Enter');
    await expect(page.getByText('This is not the passphrase. Try again in a second.')).toBeVisible();
    await page.getByLabel('Passphrase of this shop').fill(WORDS);
    await expect(async () => {
      // Let in, but slowly: there is nothing to press any more.
      if (!page.url().endsWith('/?shelf')) await page.getByRole('button', { name: 'Go in' }).click({ timeout: 3_000 });
      await expect(page).toHaveURL(/\/\?shelf$/, { timeout: 3_000 });
    }).toPass();
    await expect(page.getByText('The line to the server is not encrypted')).toBeVisible();
    // The address is there before the page is: a press on what has not woken up yet would be lost.
    await page.waitForLoadState();
    await startEmpty(page);
    await addLettering(page, 'From the shop');
    await saved(page);
    await page.reload();
    await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('From the shop');
    // On this machine's own line nothing is asked.
    expect((await fetch(`http://127.0.0.1:${port}/api/jobs`)).status).toBe(200);
  } finally {
    started.kill('SIGTERM');
    settings(['passphrase', 'none']);
  }
});
