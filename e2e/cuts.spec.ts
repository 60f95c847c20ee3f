import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import type { Job } from '../src/core/document/schema';
import { addLettering, computed, expect, kept, newJob, saved, station, test } from './fixtures';

const document = async (page: Page, id: string) => (await kept(page, id)).document as unknown as Job;

test('a start and a tab are moved on the sheet and stay with their letter; the file has the gaps', async ({
  page,
}, info) => {
  const id = await newJob(page, 'Tabs');
  await addLettering(page, 'L');
  await station(page, 'Assign').click();
  await page.getByRole('button', { name: 'Settings of Cut' }).click();
  await page.getByText('arc', { exact: true }).click();
  await page.getByText('leave', { exact: true }).click();
  await page.getByLabel('Tabs each').fill('3');
  await computed(page);
  const marks = (place: 'start' | 'tab') => page.locator(`[data-cut-place="${place}"]`);
  await expect(marks('tab')).toHaveCount(3);

  const drag = async (mark: Locator, dx: number, dy: number) => {
    const box = await mark.boundingBox();
    if (!box) throw new Error('no mark');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 3 });
    await page.mouse.move(x + dx, y + dy, { steps: 3 });
    await page.mouse.up();
    await computed(page);
  };
  // The foot of an L is straight: along it both go where they are dragged.
  await drag(marks('start'), 12, 0);
  await expect(marks('start')).toHaveAttribute('data-by-hand', 'true');
  // The second is on an upright edge, clear of the mark of the start.
  await drag(marks('tab').nth(1), 0, -6);
  await expect(page.locator('[data-cut-place="tab"][data-by-hand="true"]')).toHaveCount(3);
  await saved(page);
  const part = async () => (await document(page, id)).parts[0];
  expect((await part())?.starts).toMatchObject([{ letter: expect.stringMatching(/:0$/) }]);
  expect((await part())?.tabs).toHaveLength(3);

  // Chosen by the keyboard’s list it is moved by arrows, and taken out; undo brings it back.
  await page.getByRole('group', { name: 'Cut 1' }).getByRole('button', { name: 'tab 3' }).click();
  await page.keyboard.press('Delete');
  await expect(marks('tab')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(marks('tab')).toHaveCount(3);

  // Another letter before it, and they are still on the L.
  await station(page, 'Compose').click();
  await page.getByRole('textbox', { name: 'Words' }).fill('IL');
  await computed(page);
  await saved(page);
  expect((await part())?.starts).toMatchObject([{ letter: expect.stringMatching(/:1$/) }]);

  await station(page, 'Prove').click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write SVG', exact: true }).click(),
  ]);
  const path = info.outputPath('tabs.svg');
  await file.saveAs(path);
  const paths = [...readFileSync(path, 'utf8').matchAll(/ d="([^"]*)"/g)].map(([, d = '']) => d);
  // Three gaps part each letter into four paths where a lead-in begins it, and none of them closes.
  expect(paths.join('').match(/M/g)).toHaveLength(8);
  expect(paths.join('')).not.toMatch(/z/i);
});

test('the dots of i go to another pen, and are alone in its layer', async ({ page }, info) => {
  const id = await newJob(page, 'Dots');
  await addLettering(page, 'fig');
  await station(page, 'Assign').click();
  await page.getByRole('button', { name: 'Letters by themselves' }).click();
  await page.getByRole('button', { name: 'all dots of i and j' }).click();
  await page.getByLabel('Give the chosen letters to').selectOption('Mark');
  await expect(page.getByText('dots of i and j: outline by Mark')).toBeVisible();
  await computed(page);
  await saved(page);
  expect((await document(page, id)).parts[0]?.work).toMatchObject([
    { what: 'outline', operation: 'cut', only: null },
    { what: 'outline', operation: 'mark', only: { dots: true } },
  ]);
  await station(page, 'Prove').click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write SVG', exact: true }).click(),
  ]);
  const path = info.outputPath('dots.svg');
  await file.saveAs(path);
  const text = readFileSync(path, 'utf8');
  const inLayer = (name: string) =>
    (new RegExp(`<g[^>]*id="${name}"[^>]*>([\\s\\S]*?)</g>`).exec(text)?.[1] ?? '').match(/<path/g)?.length ?? 0;
  expect([inLayer('Mark'), inLayer('Cut')]).toEqual([1, 5]);
});

test('a job on two stocks: letters of acrylic on a backing of ply, a file for each', async ({ page }) => {
  const id = await newJob(page, 'Two');
  await page.getByLabel('Material').fill('Acrylic');
  await addLettering(page, 'Bay');
  await page.getByRole('button', { name: 'A backing' }).click();
  await computed(page);
  await page.getByRole('region', { name: 'Place and size' }).waitFor();
  await expect(page.getByLabel('On sheet')).toHaveCount(0);

  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Another sheet' }).click();
  const sheets = page.getByRole('navigation', { name: 'Sheets' });
  await expect(sheets.getByRole('button', { name: 'Sheet 2' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('Material').fill('Birch plywood');
  await expect(sheets.getByRole('button', { name: 'Birch plywood' })).toBeVisible();
  await expect(page.getByText('An empty sheet. What shall it say?')).toBeVisible();

  // The backing is put on the second, where it lies as it did.
  await sheets.getByRole('button', { name: 'Acrylic' }).click();
  const parts = page.getByRole('list', { name: 'Parts' }).getByRole('listitem');
  await expect(parts).toHaveCount(2);
  await parts.filter({ hasText: 'Border of Bay' }).getByRole('button').first().click();
  await page.getByLabel('On sheet').selectOption({ label: 'Birch plywood' });
  await computed(page);
  await expect(parts).toHaveCount(1);
  await expect(parts).toContainText('Border of Bay');
  await saved(page);
  const job = await document(page, id);
  expect(job.sheetId).toBe('sheet-2');
  expect(job.parts.map((p) => p.sheet)).toEqual(['sheet', 'sheet-2']);

  // Both side by side, and back to one.
  await sheets.getByRole('button', { name: 'All' }).click();
  const all = page.getByRole('region', { name: 'All sheets' });
  await expect(all.getByRole('img')).toHaveCount(2);
  await all.getByRole('button', { name: /Acrylic/ }).click();
  await expect(all).toHaveCount(0);
  await expect(parts).toContainText('Bay');

  await station(page, 'Prove').click();
  await expect(page.getByLabel('a file for each of the 2')).toBeChecked();
  const names: string[] = [];
  page.on('download', (file) => void names.push(file.suggestedFilename()));
  await page.getByRole('button', { name: 'Write SVG', exact: true }).click();
  await expect(page.getByText(/^Written: /)).toBeVisible();
  await expect.poll(() => [...names].sort()).toEqual(['two_acrylic_sheet-1.svg', 'two_birch-plywood_sheet-2.svg']);

  // Taken out again everything is on one, and undo brings the sheet back.
  await station(page, 'Compose').click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take this one out' }).click();
  await expect(sheets).toHaveCount(0);
  await expect(parts).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(sheets.getByRole('button', { name: 'All' })).toBeVisible();
});
