import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Job } from '../src/core/document/schema';
import { addLettering, computed, expect, kept, newJob, saved, station, test } from './fixtures';

// There is one shop, and a file brought in puts back what another test has changed meanwhile.
test.describe.configure({ mode: 'default' });

const shelf = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Shelves' }).getByRole('button', { name });
const inHand = (page: Page) => page.getByRole('region', { name: 'In hand' });
const row = (page: Page, name: string | RegExp) => page.getByRole('row', { name });
const settled = (page: Page) => page.waitForLoadState('networkidle');

/** Something new on a shelf, called so. */
async function added(page: Page, what: string, fresh: string, name: string): Promise<void> {
  await page.getByRole('button', { name: `+ ${what}`, exact: true }).click();
  await expect(inHand(page).getByLabel('Name')).toHaveValue(fresh);
  await inHand(page).getByLabel('Name').fill(name);
  await expect(row(page, new RegExp(`^${name} `))).toBeVisible();
}

const cutOf = async (page: Page, id: string) => {
  const job = (await kept(page, id)).document as Job;
  return { job, cut: job.operations.find((o) => o.kind === 'cut') };
};

test('a machine, a material and a row of their chart, used by a new job, overridden, and what another thickness changes', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Shop' }).click();
  await added(page, 'machine', 'New machine', 'Long laser');
  await inHand(page).getByLabel('Width').fill('1400');
  await shelf(page, 'Materials').click();
  await added(page, 'material', 'New material', 'Larch board');
  await inHand(page).getByLabel('Least width').fill('2');

  // Two rows for it: 3 mm and 6 mm.
  await shelf(page, 'Cut charts').click();
  await page.getByLabel('Machine of the chart').selectOption('Long laser');
  await page.getByLabel('Material of the chart').selectOption('Larch board');
  await expect(page.getByText('No rows for this machine and material yet.')).toBeVisible();
  for (const [thickness, speed] of [
    ['3', '24'],
    ['6', '12'],
  ] as const) {
    await page.getByRole('button', { name: '+ row', exact: true }).click();
    await expect(inHand(page).getByLabel('Power')).toHaveValue('0');
    await inHand(page).getByLabel('Thickness').fill(thickness);
    await inHand(page).getByLabel('Speed').fill(speed);
    await inHand(page).getByLabel('Power').fill('60');
    await inHand(page).getByLabel('Kerf').fill('0.25');
    await expect(row(page, `Larch board cut ${thickness} mm ${speed} mm/s 60 % 1 not tried`)).toBeVisible();
  }
  await inHand(page).getByText('Tried', { exact: true }).click();
  await expect(row(page, /6 mm 12 mm\/s 60 % 1 tried/)).toBeVisible();
  await settled(page);

  // A new job on both.
  await page.goto('/new');
  await page.getByRole('list', { name: 'Starters' }).getByRole('button', { name: 'Empty sheet', exact: true }).click();
  const form = page.getByRole('form', { name: 'Empty sheet' });
  await form.getByLabel('Machine').selectOption('Long laser');
  await form.getByLabel('Material').fill('Larch board');
  await form.getByLabel('Thickness').fill('3');
  await form.getByRole('button', { name: 'Start the job' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
  const id = page.url().split('/').pop() as string;
  await addLettering(page, 'Fern');
  await station(page, 'Assign').click();
  const settings = page.getByRole('button', { name: 'Settings of Cut' });
  await expect(settings).toHaveText('24 mm/s · 60 % · kerf 0.25 mm');
  await expect(page.getByText('from the cut chart, not tried').first()).toBeVisible();

  // Typed over, and taken back.
  await settings.click();
  await page.getByLabel('Speed').fill('20');
  await expect(settings).toHaveText(/^20 mm\/s/);
  await expect(page.getByText('typed; 24 mm/s from the chart')).toBeVisible();

  // Between the two rows it is reckoned, and what changed is said; what was typed stays.
  await station(page, 'Compose').click();
  await page.keyboard.press('Escape');
  await page.getByLabel('Thickness').fill('4.5');
  const followed = page.getByRole('status').filter({ hasText: 'What changed with it' });
  await expect(followed).toContainText('least safe width 2 mm → 2.25 mm');
  await followed.getByRole('button', { name: 'Seen' }).click();
  await expect(followed).toBeHidden();
  await station(page, 'Assign').click();
  await expect(page.getByText('reckoned between two rows of the chart, not tried')).toBeVisible();
  await expect(settings).toHaveText(/^20 mm\/s/);
  await settings.click();
  await page.getByRole('button', { name: '16 mm/s from the chart' }).click();
  await expect(settings).toHaveText(/^16 mm\/s/);
  await saved(page);
  const { job, cut } = await cutOf(page, id);
  expect(job.machine).toMatchObject({ name: 'Long laser', bed: { width: 1400 } });
  expect(cut?.settings).toMatchObject({ from: 'between', typed: {}, charted: { speed: 16 } });

  // A chart that is put right later is offered to jobs that took their settings before.
  await page.goto('/shop');
  await expect(row(page, /^Long laser/)).toBeVisible();
  await row(page, /^Long laser/).click();
  await expect(inHand(page).getByRole('link', { name: job.title })).toBeVisible();
});

test('what is taken out of the shop comes back; the shop is taken along and brought in', async ({ page }, info) => {
  await page.goto('/shop');
  await shelf(page, 'Tools').click();
  await added(page, 'tool', 'New tool', 'Fine cone');
  await inHand(page).getByText('cone', { exact: true }).click();
  await inHand(page).getByLabel('Angle').fill('20');
  await expect(row(page, /^Fine cone cone .* 20°/)).toBeVisible();
  await settled(page);

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take along' }).click(),
  ]);
  const path = info.outputPath('shop.json');
  await file.saveAs(path);
  expect(readFileSync(path, 'utf8')).toContain('"Fine cone"');

  await inHand(page).getByRole('button', { name: 'Take it out of the shop' }).click();
  await expect(row(page, /^Fine cone/)).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, /^Fine cone/)).toBeVisible();

  await row(page, /^Fine cone/).click();
  await inHand(page).getByRole('button', { name: 'Take it out of the shop' }).click();
  await expect(row(page, /^Fine cone/)).toBeHidden();
  await page.getByLabel('A file with a shop').setInputFiles(path);
  await expect(page.getByText(/^From “shop.json”: 1 added, 0 changed, \d+ there already\./)).toBeVisible();
  await expect(row(page, /^Fine cone cone .* 20°/)).toBeVisible();

  const odd = { name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('{"is":"a lathe"}') };
  await page.getByLabel('A file with a shop').setInputFiles(odd);
  await expect(page.getByText('There is no shop in this file.')).toBeVisible();
});

test.describe('while the server is away', () => {
  test.use({ expectedErrors: /ERR_FAILED/ });
  test('what is typed stays, and is kept by a press once it is back', async ({ page }) => {
    await page.goto('/shop');
    await added(page, 'machine', 'New machine', 'Far');
    await settled(page);
    await page.route('**/api/shop/machines/*', (route) => route.abort());
    await inHand(page).getByLabel('Width').fill('750');
    await expect(inHand(page).getByText('This is not kept yet.')).toBeVisible();
    await expect(inHand(page).getByLabel('Width')).toHaveValue('750');
    await page.unroute('**/api/shop/machines/*');
    await inHand(page).getByRole('button', { name: 'Keep it now' }).click();
    await expect(row(page, /^Far laser 750 mm/)).toBeVisible();
    await expect(inHand(page).getByText('This is not kept yet.')).toBeHidden();
  });
});

test.describe('two windows', () => {
  test.use({ expectedErrors: /409/ });
  test('a change over another one is not kept, and what is there is shown', async ({ page, context }) => {
    await page.goto('/shop');
    await added(page, 'machine', 'New machine', 'Twin');
    await settled(page);
    const other = await context.newPage();
    await other.goto('/shop');
    await row(other, /^Twin/).click();
    await inHand(other).getByLabel('Width').fill('700');
    await expect(row(other, /^Twin laser 700 mm/)).toBeVisible();
    await settled(other);
    await inHand(page).getByLabel('Width').fill('800');
    await expect(page.getByText('changed or removed in another window')).toBeVisible();
    await expect(row(page, /^Twin laser 700 mm/)).toBeVisible();
    await expect(inHand(page).getByLabel('Width')).toHaveValue('700');
  });
});

test('a plasma cut runs beside what is kept and begins in scrap; its file is what the machine reads', async ({
  page,
}, info) => {
  const id = await newJob(page, 'Barn');
  await page.getByLabel('Machine').selectOption('Plasma table');
  await page.getByLabel('Material').fill('Mild steel');
  await page.getByRole('button', { name: '3 mm', exact: true }).click();
  await addLettering(page, 'Bar');
  await station(page, 'Assign').click();
  await expect(page.getByText('Plasma table can’t do this').first()).toBeVisible();
  await page.getByRole('button', { name: 'Settings of Cut' }).click();
  await page.getByText('beside', { exact: true }).click();
  await page.getByText('arc', { exact: true }).click();
  await page.getByLabel('Length in').fill('4');
  await page.getByLabel('Overrun').fill('2');
  await computed(page);
  await saved(page);
  const { cut } = await cutOf(page, id);
  expect(cut).toMatchObject({ kerfSide: 'beside', lead: { shape: 'arc', in: 4, over: 2 } });

  await station(page, 'Prove').click();
  await expect(page.getByText('It reads DXF R12 in mm, arcs and lines.')).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write for Plasma table' }).click(),
  ]);
  const path = info.outputPath('barn.dxf');
  await file.saveAs(path);
  const text = readFileSync(path, 'utf8');
  expect(text).toContain('AC1009');
  expect(text).toMatch(/999\r\nCut: 46 mm\/s, 42 A, air, kerf 1\.2 mm\./);
  // Six cuts, all of them open: B has two counters, a has one.
  const flags = [...text.matchAll(/\r\nPOLYLINE\r\n(?:.*\r\n)*? {1,2}70\r\n *(\d+)\r\n/g)].map(
    ([, flag]) => Number(flag) % 2,
  );
  expect(flags).toEqual([0, 0, 0, 0, 0, 0]);
});
