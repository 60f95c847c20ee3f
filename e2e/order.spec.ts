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

/** The SVG that is written at Prove, as text. */
async function writtenSvg(page: Page): Promise<string> {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write SVG', exact: true }).click(),
  ]);
  return readFileSync(await file.path(), 'utf8');
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

test('a time that was measured is typed back, and the file has all that is run', async ({ page }) => {
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
  const paths = (await writtenSvg(page)).match(/<path[^>]* d="[^"]+"/g) ?? [];
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

test('five texts, a score and a cut: split, seen on the sheet, taken, put together, exported in order', async ({
  page,
}) => {
  const words = (partId: string, text: string, x: number, y: number) => ({
    id: partId,
    placement: { x, y },
    members: [
      {
        id: 'w',
        kind: 'lettering',
        placement: { x: 0, y: 0 },
        text,
        face: 'Archivo Black',
        size: { by: 'capital', mm: 25 },
      },
    ],
    work: [{ what: 'fill', operation: 'engrave' }],
  });
  const frame = (partId: string, inset: number, operation: string) => ({
    id: partId,
    placement: { x: 450, y: 300 },
    members: [{ id: 'f', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 880 - inset, height: 580 - inset }],
    work: [{ what: 'outline', operation }],
  });
  const typed = { settings: { typed: { speed: 100, rowDistance: 0.2 } } };
  const job = jobSchema.parse({
    format: JOB_FORMAT,
    title: 'Five texts',
    sheet: { width: 900, height: 600 },
    machine: { id: 'm', name: 'M', kind: 'laser', areas: {} },
    parts: [
      words('elm', 'Elm', 60, 60),
      words('oak', 'Oak', 700, 75),
      words('ash', 'Ash', 70, 300),
      words('fir', 'Fir', 690, 318),
      words('yew', 'Yew', 380, 480),
      frame('fold', 40, 'score'),
      frame('edge', 0, 'cut'),
    ],
    operations: [
      { id: 'engrave', name: 'Engrave', kind: 'engrave', ...typed },
      { id: 'score', name: 'Score', kind: 'score', settings: { typed: { speed: 40 } } },
      { id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 10 } } },
    ],
  });
  const id = await openJob(page, 'Five texts', job);
  const foot = page.getByRole('contentinfo');
  await station(page, 'Assign').click();
  const told = page.getByText(/In \d goes it takes .* less/);
  await expect(told).toBeVisible();
  const goes = Number(/In (\d)/.exec((await told.textContent()) ?? '')?.[1]);
  expect(goes).toBeGreaterThan(1);
  await page.getByLabel(/Show the \d goes on the sheet/).check();
  await expect(page.locator('[data-goes]')).toHaveAttribute('data-goes', String(goes));
  await expect(page.locator('[data-goes] rect')).toHaveCount(5);

  // Taken in one press: an operation for each go, and less time, which is told beside the total.
  await page.getByRole('button', { name: 'Go over them apart' }).click();
  await expect(foot).toContainText(/\(−\d/);
  await computed(page);
  await saved(page);
  const engraved = async () => (await document(page, id)).operations.filter((o) => o.kind === 'engrave');
  expect(await engraved()).toHaveLength(goes);
  await expect(told).toHaveCount(0);
  // And as easily put together again, which takes longer; and that undone.
  await page.getByRole('button', { name: 'Go over them together' }).click();
  await expect(told).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(told).toHaveCount(0);

  // The last go is run first, by keys.
  const names = async () => (await document(page, id)).operations.map((o) => o.name);
  const before = await names();
  await moveUp(page, page.getByRole('button', { name: `Move ${before[goes - 1]}`, exact: true }));
  await expect
    .poll(names)
    .toEqual([...before.slice(0, goes - 2), before[goes - 1], before[goes - 2], ...before.slice(goes)]);
  const order = await names();

  await station(page, 'Prove').click();
  const layers = [...(await writtenSvg(page)).matchAll(/<g id="([^"]+)"/g)].map(([, name]) => name);
  expect(layers).toHaveLength(order.length);
  layers.forEach((layer, i) => {
    expect((layer ?? '').replace(/[-_]/g, ' ')).toBe((order[i] ?? '').replace(/[-_]/g, ' '));
  });
});

test('a longer search is stopped and kept; time by a setting is shown and taken; a price', async ({ page }) => {
  const text = Array.from({ length: 10 }, () => 'Gate sign Alder Lane no 7').join('\n');
  const member = {
    id: 'w',
    kind: 'lettering',
    placement: { x: 0, y: 0 },
    text,
    face: 'Archivo Black',
    size: { by: 'capital', mm: 20 },
  };
  const sign = jobSchema.parse({
    format: JOB_FORMAT,
    title: 'Longer',
    sheet: { width: 900, height: 700 },
    machine: { id: 'm', name: 'M', kind: 'laser' },
    parts: [
      {
        id: 'words',
        placement: { x: 60, y: 600 },
        members: [member],
        work: [{ what: 'outline', operation: 'cut' }],
      },
    ],
    operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }],
  });
  const id = await openJob(page, 'Longer', sign);
  await station(page, 'Assign').click();
  // Of some three hundred outlines it searches for longer than it takes to press.
  await page.getByRole('button', { name: 'Search longer for a better order' }).click();
  await expect(page.getByText(/Searching … \d+ %/)).toBeVisible();
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect(page.getByRole('button', { name: 'Search longer for a better order' })).toBeVisible();
  await expect(page.getByText(/The order is kept\.|No better order was found\./)).toBeVisible();

  await page.getByRole('button', { name: 'Time by setting' }).click();
  const times = page.getByRole('list', { name: 'Time of Cut by speed' });
  await expect(times.getByRole('button').first()).toBeVisible();
  await expect(page.getByRole('img', { name: 'Time by speed' })).toBeVisible();
  const fastest = times.getByRole('button').last();
  const speed = Number.parseFloat((await fastest.textContent()) ?? '');
  await fastest.click();
  await expect(times.getByRole('button', { pressed: true })).toContainText(`${speed}`);
  await saved(page);
  expect((await document(page, id)).operations.find((o) => o.kind === 'cut')?.settings.typed.speed).toBe(speed);

  await page.getByRole('button', { name: 'Where the time goes' }).click();
  await expect(page.getByRole('img', { name: 'Where the time of each operation goes' })).toBeVisible();

  await page.getByRole('button', { name: 'Reckon a price' }).click();
  await page.getByLabel('Machine', { exact: true }).fill('60');
  await page.getByLabel('Machine', { exact: true }).press('Enter');
  await expect(page.getByLabel('Price', { exact: true })).toContainText('Time on the machine');
});

test('a price in the shop is that of a job on this stock', async ({ page }) => {
  await page.goto('/shop');
  await page.getByRole('button', { name: 'Materials' }).click();
  await page.getByRole('row', { name: /^Cork/ }).click();
  const price = page.getByRole('textbox', { name: '3 mm', exact: true });
  await price.fill('24');
  const kept = page.waitForResponse((answer) => answer.request().method() === 'PUT' && answer.ok());
  await price.press('Enter');
  await kept;

  await newJob(page, 'Priced');
  await addLettering(page, 'Elm');
  await ofSheet(page);
  await page.getByLabel('Material').fill('Cork');
  await page.getByLabel('Thickness').fill('3');
  await page.getByLabel('Thickness').press('Enter');
  await computed(page);
  await station(page, 'Assign').click();
  await expect(page.getByLabel('Price', { exact: true })).toContainText('Stock');
  await page.getByRole('button', { name: 'What it is reckoned by' }).click();
  await expect(page.getByRole('textbox', { name: 'Stock', exact: true })).toHaveValue('24');
});
