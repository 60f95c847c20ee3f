/** Lines of their own, a ring around an emblem, words that fill a panel, and the job taken along to an empty installation. */
import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect as expectThere, type Page } from '@playwright/test';
import { freePort } from '../scripts/lib/postgres.mjs';
import { renamed, restricted } from '../tests/support/font';
import { ownDatabase } from '../tests/support/own-database';
import { addLettering, chooseFace, computed, expect, kept, newJob, saved, station, test } from './fixtures';

const TSX = 'node_modules/tsx/dist/cli.mjs';
const sheet = (page: Page) => page.getByRole('region', { name: 'Sheet' });
const words = (page: Page) => page.getByRole('textbox', { name: 'Words' });

type Member = { kind: string; text?: string; [key: string]: unknown };
const membersOf = async (page: Page, id: string): Promise<Member[]> => {
  const job = (await kept(page, id)).document as unknown as { parts: { members: Member[] }[] };
  return job.parts.flatMap((p) => p.members);
};
const wordsOf = async (page: Page, id: string) => (await membersOf(page, id)).find((m) => m.kind === 'lettering');

async function addEllipse(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Shape' }).click();
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await computed(page);
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
}

/** Another installation, with nothing in it. */
async function installation(): Promise<{ readonly url: string; readonly end: () => Promise<void> }> {
  const own = await ownDatabase('there');
  const port = await freePort();
  const address = new URL(process.env.DATABASE_URL ?? '');
  address.pathname = `/test_there_${process.pid}`;
  const served: ChildProcess = spawn(process.execPath, [TSX, 'src/serve/main.ts'], {
    env: { ...process.env, PORT: String(port), NODE_ENV: 'production', DATABASE_URL: address.href },
    stdio: 'ignore',
  });
  const url = `http://127.0.0.1:${port}`;
  await expect
    .poll(
      () =>
        fetch(`${url}/api/health`).then(
          (r) => r.status,
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200);
  return {
    url,
    end: async () => {
      const ended = new Promise((resolve) => served.on('exit', resolve));
      served.kill('SIGTERM');
      await ended;
      await own.close();
    },
  };
}

test('any line of the words has its own typeface, size and spacing', async ({ page }) => {
  const id = await newJob(page, 'Two faces');
  await addLettering(page, 'Seedlings\nsow in March');
  await page.getByRole('button', { name: /^Line 1: Seedlings/ }).click();
  await chooseFace(page, 'Pacifico');
  await page.getByRole('button', { name: /^Line 2: sow in March/ }).click();
  await page.getByRole('textbox', { name: 'Capital height' }).fill('14');
  await page.getByRole('textbox', { name: 'Letter spacing' }).fill('10');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'all lines' }).click();
  await expect(page.getByRole('button', { name: 'Pacifico, Archivo Black' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Letter spacing' })).toHaveAttribute('placeholder', 'mixed');
  // Words typed above leave the lines what they are.
  await words(page).fill('Alder Lane\nSeedlings\nsow in March');
  await computed(page);
  await saved(page);
  expect((await wordsOf(page, id))?.lines).toMatchObject([
    { line: 1, face: { face: 'Pacifico' } },
    { line: 2, face: null, letterSpacing: 0.1 },
  ]);
  await page.getByRole('button', { name: /^Line 3: sow in March/ }).click();
  await page.getByRole('button', { name: 'This line as the others' }).click();
  await saved(page);
  await expect.poll(async () => (await wordsOf(page, id))?.lines).toHaveLength(1);
});

test('a ring around an emblem, dragged by its handles; and the words set straight again', async ({ page }) => {
  const id = await newJob(page, 'Emblem');
  await addEllipse(page);
  await addLettering(page, 'ALDER LANE\nGARDEN');
  await page.getByRole('textbox', { name: 'Capital height' }).fill('14');
  await page.getByLabel('Runs along').selectOption({ label: 'Ellipse' });
  await computed(page);
  await page.getByText('Last line along the bottom').click();
  await page.getByRole('textbox', { name: 'Room to it' }).fill('5');
  await page.keyboard.press('Enter');
  await computed(page);
  await saved(page);
  expect((await wordsOf(page, id))?.along).toMatchObject({
    line: { kind: 'outline', outline: 0 },
    bottom: true,
    distance: 5,
  });
  // The handle takes the words around.
  const handle = page.locator('[data-along="start"]');
  const box = await handle.boundingBox();
  if (!box) throw new Error('no handle');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 30, { steps: 5 });
  await page.mouse.up();
  await computed(page);
  await expect(page.getByRole('textbox', { name: 'Moved on by' })).not.toHaveValue('0');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('textbox', { name: 'Moved on by' })).toHaveValue('0');

  // The emblem made larger takes the words along.
  await page.getByLabel('Runs along').selectOption('arc');
  await computed(page);
  const bend = page.locator('[data-along="bend"]');
  const at = await bend.boundingBox();
  if (!at) throw new Error('no handle');
  const rise = page.getByRole('textbox', { name: 'Rise' });
  const before = await rise.inputValue();
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2 + 40, { steps: 5 });
  await page.mouse.up();
  await computed(page);
  await expect(rise).not.toHaveValue(before);
  await page.getByLabel('Runs along').selectOption('straight');
  await computed(page);
  await saved(page);
  expect((await wordsOf(page, id))?.along).toBeNull();

  // A line drawn for them.
  await page.getByLabel('Runs along').selectOption('path');
  await expect(page.getByRole('heading', { name: 'Draw the line that the words run along' })).toBeVisible();
  const area = await sheet(page).boundingBox();
  if (!area) throw new Error('no sheet');
  for (const [x, y] of [
    [0.3, 0.6],
    [0.5, 0.45],
    [0.7, 0.6],
  ] as const)
    await page.mouse.click(area.x + x * area.width, area.y + y * area.height);
  await page.keyboard.press('Enter');
  await computed(page);
  await expect(page.getByLabel('Runs along')).toHaveValue('path');
  await expect(page.locator('[data-along^="node-"]')).toHaveCount(3);
});

test('words fill the panel that is pressed, and go on filling it', async ({ page }) => {
  const id = await newJob(page, 'Panel');
  await addEllipse(page);
  await addLettering(page, 'Oak');
  await computed(page);
  await page.getByLabel('Size by').selectOption('panel');
  await expect(page.getByText('Press the panel on the sheet')).toBeVisible();
  const area = await sheet(page).boundingBox();
  if (!area) throw new Error('no sheet');
  await page.mouse.click(area.x + area.width / 2 + 20, area.y + area.height / 2 - 10);
  await expect(page.getByLabel('Size by')).toHaveValue('panel');
  await computed(page);
  await page.getByRole('textbox', { name: 'Margin' }).fill('6');
  await page.keyboard.press('Enter');
  await words(page).fill('Alder Lane');
  await computed(page);
  await page.getByText('capitals', { exact: true }).click();
  await saved(page);
  expect((await wordsOf(page, id))?.fit).toMatchObject({ to: 'panel', outline: 0, margin: 6, centre: 'capitals' });
  await expect(page.getByText(/The capitals come to/)).toBeVisible();
  // A size of their own, the one they have.
  await page.getByLabel('Size by').selectOption('capital');
  await expect(page.getByRole('textbox', { name: 'Capital height' })).not.toHaveValue('60');
});

test('a job is taken along with its typefaces, and opened in an empty installation', async ({
  page,
  browser,
}, info) => {
  const script = readFileSync('public/typefaces/pacifico.ttf');
  const house = info.outputPath('house.ttf');
  const customer = info.outputPath('customer.ttf');
  writeFileSync(house, renamed(new Uint8Array(script), 'House Script'));
  writeFileSync(customer, restricted(renamed(new Uint8Array(script), 'Customer Script')));
  await page.goto('/typefaces');
  await page.getByLabel('Typefaces to bring in').setInputFiles([house, customer]);
  await expect(page.getByText('2 typeface files brought in.')).toBeVisible();
  await newJob(page, 'To take along');
  await addLettering(page, 'Seedlings\nin March');
  await page.getByRole('button', { name: /^Line 1/ }).click();
  await chooseFace(page, 'House Script');
  await page.getByRole('button', { name: /^Line 2/ }).click();
  await chooseFace(page, 'Customer Script');
  await computed(page);
  const drawn = await page.locator('[data-member]').first().getAttribute('d');
  await station(page, 'Prove').click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take the job along' }).click(),
  ]);
  await expect(page.getByText(/Customer Script Regular stays here: its licence does not allow it/)).toBeVisible();
  const taken = info.outputPath(download.suggestedFilename());
  await download.saveAs(taken);
  // Other tests find no more typefaces than they bring in themselves.
  const { typefaces } = (await (await page.request.get('/api/typefaces', { maxRetries: 3 })).json()) as {
    typefaces: { content: string; name: string }[];
  };
  for (const { content, name } of typefaces)
    if (name === 'house.ttf' || name === 'customer.ttf')
      expect((await page.request.delete(`/api/typefaces/${content}`)).status()).toBe(200);

  const other = await installation();
  try {
    const there = await browser.newPage();
    const errors: string[] = [];
    there.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
    there.on('pageerror', (error) => errors.push(error.message));
    await there.goto(other.url);
    await expectThere(there.getByText('No jobs yet.')).toBeVisible();
    await there.getByLabel('Jobs taken along').setInputFiles([taken]);
    await there.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
    await computed(there);
    await expectThere(there.getByText(/The typeface Customer Script is not here/).first()).toBeVisible();
    expect(await there.locator('[data-member]').first().getAttribute('d')).toBe(drawn);
    await there.goto(`${other.url}/typefaces`);
    await there.getByLabel('Find typefaces').fill('script');
    await expectThere(there.getByRole('option', { name: /House Script/ })).toBeVisible();
    await expectThere(there.getByRole('option', { name: /Customer Script/ })).toHaveCount(0);
    // Broken on the way it is refused, and nothing comes of it.
    writeFileSync(taken, readFileSync(taken).subarray(0, 3_000));
    // Chosen before the page answers it is taken as soon as it does.
    let letScripts = () => {};
    const scripts = new Promise<void>((resolve) => {
      letScripts = resolve;
    });
    await there.route('**/*.js', async (route) => {
      await scripts;
      await route.continue();
    });
    await there.goto(other.url, { waitUntil: 'commit' });
    await there.getByLabel('Jobs taken along').setInputFiles([taken]);
    letScripts();
    await expectThere(there.getByText(/did not arrive whole/)).toBeVisible();
    await expectThere(there.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(1);
    expect(errors).toEqual([]);
    await there.close();
  } finally {
    await other.end();
  }
});
