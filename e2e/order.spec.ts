import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { JOB_FORMAT, type Job, jobSchema } from '../src/core/document/schema';
import { addLettering, computed, expect, kept, moveUp, newJob, openJob, saved, station, test } from './fixtures';

const document = async (page: Page, id: string) => (await kept(page, id)).document as unknown as Job;

/** To where the sheet, its stock and the machine are: at Compose with nothing chosen. */
async function ofSheet(page: Page): Promise<void> {
  await station(page, 'Compose').click();
  await page.locator('[data-sheet]').click({ position: { x: 5, y: 300 } });
}

async function onLaser(page: Page): Promise<void> {
  await ofSheet(page);
  await page.getByLabel('Machine').selectOption({ label: 'Laser' });
  await page.getByLabel('Material').fill('Birch plywood');
  await page.getByLabel('Thickness').fill('3');
  await page.getByLabel('Thickness').press('Enter');
  await computed(page);
}

test('the order is shown, parts are pinned first by keyboard, another machine takes another time', async ({ page }) => {
  const id = await newJob(page, 'Order');
  for (const words of ['Elm', 'Oak', 'Ash']) await addLettering(page, words);
  await onLaser(page);
  await station(page, 'Assign').click();
  const foot = page.getByRole('contentinfo');
  await expect(foot).toContainText(/Takes \d/);
  const takes = async () => /Takes\s+([\d.]+ (?:s|min \d+ s))/.exec((await foot.textContent()) ?? '')?.[1];

  // Every outline is numbered, and the way is one line over the sheet.
  await page.getByLabel('Show the order on the sheet').check();
  await expect(page.locator('[data-order]')).toHaveAttribute('data-order', /^\d+$/);
  const count = Number(await page.locator('[data-order]').getAttribute('data-order'));
  expect(count).toBeGreaterThan(8);

  // A part is run first by a press, and moved behind another by keys.
  await page.getByRole('button', { name: 'Run Ash first in Cut' }).click();
  await page.getByRole('button', { name: 'Run Elm first in Cut' }).click();
  await saved(page);
  const partIds = (await document(page, id)).parts.map((p) => p.id);
  const pinned = async () => (await document(page, id)).operations.find((o) => o.kind === 'cut')?.order.pinned;
  expect(await pinned()).toEqual([partIds[2], partIds[0]]);
  await moveUp(page, page.getByRole('button', { name: 'Move Elm in the order of Cut' }));
  await expect.poll(pinned).toEqual([partIds[0], partIds[2]]);

  // Row by row takes longer or as long, and says so beside the time.
  await page.getByLabel('Order of Cut', { exact: true }).selectOption('rows');
  await computed(page);
  await saved(page);
  expect((await document(page, id)).operations.find((o) => o.kind === 'cut')?.order.by).toBe('rows');

  const before = await takes();
  await ofSheet(page);
  await page.getByLabel('Machine').selectOption({ label: 'Router' });
  await computed(page);
  await expect.poll(takes).not.toBe(before);
});

test('a time that was measured is typed back, and the file has all that is run', async ({ page }, info) => {
  const id = await newJob(page, 'Measured');
  await addLettering(page, 'Bog');
  await onLaser(page);
  await station(page, 'Assign').click();
  await page.getByRole('button', { name: 'Type a measured time' }).click();
  await page.getByLabel('It took').fill('90');
  await page.getByLabel('It took').press('Enter');
  await computed(page);
  await expect(page.getByText(/, as measured/)).toBeVisible();
  await saved(page);
  expect((await document(page, id)).machine?.factors.cut).toBeGreaterThan(1);
  await page.getByRole('button', { name: 'As reckoned' }).click();
  await saved(page);
  expect((await document(page, id)).machine?.factors.cut).toBe(1);

  await station(page, 'Prove').click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write SVG', exact: true }).click(),
  ]);
  const target = info.outputPath('order.svg');
  await file.saveAs(target);
  const paths = readFileSync(target, 'utf8').match(/<path[^>]* d="[^"]+"/g) ?? [];
  expect(paths).toHaveLength(8);
});

test('areas far apart are gone over in goes of their own: told, taken in one press, undone', async ({ page }) => {
  const block = (partId: string, x: number, y: number) => ({
    id: partId,
    placement: { x, y },
    members: [{ id: 'b', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 40, height: 30 }],
    work: [{ what: 'fill', operation: 'engrave' }],
  });
  // Half of the rows in common, with much to cross.
  const job = jobSchema.parse({
    format: JOB_FORMAT,
    title: 'Apart',
    sheet: { width: 600, height: 200 },
    machine: { id: 'm', name: 'M', kind: 'laser', areas: {} },
    parts: [block('near', 40, 40), block('far', 340, 50)],
    operations: [
      { id: 'engrave', name: 'Engrave', kind: 'engrave', settings: { typed: { speed: 100, rowDistance: 0.5 } } },
    ],
  });
  const id = await openJob(page, 'Apart', job);
  await station(page, 'Assign').click();
  const apart = page.getByRole('button', { name: 'Go over them apart' });
  await expect(apart).toBeVisible();
  await expect(page.getByText(/In 2 goes it takes .* less/)).toBeVisible();
  await apart.click();
  await computed(page);
  await saved(page);
  const engraved = (await document(page, id)).operations.filter((o) => o.kind === 'engrave');
  expect(engraved).toHaveLength(2);
  expect(engraved[1]?.colour).not.toBeNull();
  await expect(apart).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(apart).toBeVisible();
});
