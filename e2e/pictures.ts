/** Takes the pictures of docs/screenshots from the sample jobs; run by `npm run pictures`. */
import type { Page } from '@playwright/test';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { rosterOfNames } from '../tests/support/names';
import {
  addLettering,
  chooseFace,
  computed,
  expect,
  newJob,
  onScreen,
  openJob,
  startEmpty,
  startOf,
  station,
  test,
} from './fixtures';

test.describe.configure({ mode: 'serial' });
test.use({ viewport: { width: 1280, height: 800 } });

const shoot = async (page: Page, name: string) => {
  await page.mouse.move(2, 798);
  await page.evaluate(() => Promise.all(document.getAnimations().map((animation) => animation.finished)));
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};

async function open(page: Page, title: string, at: string, part?: RegExp): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: title, exact: true }).click();
  await expect(page.getByRole('contentinfo')).toContainText('segments');
  await station(page, at).click();
  const sheet = page.getByRole('complementary', { name: 'Job sheet' });
  if (part) await sheet.getByRole('button', { name: part }).click();
}

test('jobs', async ({ page }) => {
  await page.goto('/');
  // Each sample has its picture.
  await expect(page.locator('li svg[role=img]:has(path)')).toHaveCount(7);
  await shoot(page, 'jobs');
});

test('starters', async ({ page }) => {
  await page.goto('/new');
  const { card, form } = startOf(page, 'Name to hang');
  await card.click();
  await expect(form.getByRole('status')).toHaveText('Nothing to look at.');
  await shoot(page, 'starters');
});

test('compose', async ({ page }) => {
  await open(page, 'Gate sign', 'Compose', /^Gate plate/);
  await page.getByRole('button', { name: /^ALDER LANE/ }).click();
  await page.getByRole('complementary', { name: 'Station Compose' }).evaluate((panel) => panel.scrollTo(0, 0));
  await shoot(page, 'compose');
});

test('ring', async ({ page }) => {
  await newJob(page, 'Garden emblem');
  await addLettering(page, 'ALDER LANE\nCOMMUNITY GARDEN');
  await page.getByRole('textbox', { name: 'Capital height' }).fill('36');
  await chooseFace(page, 'Poppins');
  await page.getByLabel('Runs along').selectOption('circle');
  await page.getByText('Last line along the bottom').click();
  await page.getByRole('textbox', { name: 'Radius' }).fill('135');
  await page.keyboard.press('Enter');
  await computed(page);
  await page.getByLabel('Runs along').evaluate((field) => field.scrollIntoView({ block: 'start' }));
  await shoot(page, 'ring');
});

test('typefaces', async ({ page }) => {
  await page.goto('/typefaces');
  await page.getByLabel('Your words').fill('Rosemary');
  // One that says nothing of its makers: no names in the pictures.
  await page.getByRole('option', { name: /^EMS Elfin/ }).click();
  await expect(page.getByRole('region', { name: 'EMS Elfin' }).getByText('Latin')).toBeVisible();
  await expect(page.getByRole('option', { name: /^Dancing Script/ }).getByText('islands')).toBeVisible();
  await shoot(page, 'typefaces');
});

test('close', async ({ page }) => {
  await open(page, 'Bed markers', 'Close', /^Thyme/);
  await page.getByText('Outlines', { exact: true }).click();
  await page.locator('[data-sheet]').hover();
  await shoot(page, 'close');
});

test('a drawing brought in', async ({ page }) => {
  await page.goto('/');
  await startEmpty(page);
  await page.getByRole('textbox', { name: 'Name of the job' }).fill('Tool shed');
  await page.getByLabel('Drawing or picture to bring in').setInputFiles('demo/drawings/tool-shed.dxf');
  await page.getByLabel(/if its numbers are inches/).check();
  await shoot(page, 'bring-in');
});

test('a picture brought in', async ({ page }) => {
  await page.goto('/');
  await startEmpty(page);
  await page.getByRole('textbox', { name: 'Name of the job' }).fill('Leaf plaque');
  await page.getByLabel('Drawing or picture to bring in').setInputFiles('demo/pictures/leaf.jpg');
  await page.getByRole('button', { name: /Photo or scan/ }).hover();
  await page.screenshot({ path: 'docs/screenshots/picture.png' });
});

test('hold', async ({ page }) => {
  await open(page, 'Greenhouse nameplate', 'Hold', /^Name/);
  await shoot(page, 'hold');
});

test('names', async ({ page }) => {
  await newJob(page, 'Bed markers');
  await addLettering(page, 'Rosemary');
  await chooseFace(page, 'Pacifico');
  await page.getByRole('button', { name: 'For a list of names' }).click();
  const names = page.getByRole('region', { name: 'Names' });
  await names.getByRole('textbox', { name: 'Name, a further row' }).focus();
  await page.evaluate((words) => {
    const data = new DataTransfer();
    data.setData('text/plain', words);
    const paste = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
    document.activeElement?.dispatchEvent(paste);
  }, 'Thyme Mint Jasmine Dill Basil Sage Fennel Chives Sorrel Marigold Lavender'.split(' ').join('\n'));
  await names.getByText('Pictures', { exact: true }).click();
  await expect(names.getByRole('status')).toHaveText(/of 12 come off as one piece/);
  await shoot(page, 'names');
});

test('sheets', async ({ page }) => {
  const plants =
    'Thyme Mint Jasmine Dill Basil Sage Fennel Chives Sorrel Marigold Lavender Rosemary Lovage Borage Parsley Savory';
  const job = jobWith(
    [
      partOf([lettering('‹Name›', 'Pacifico', { size: { by: 'capital', mm: 30 } })], {
        steps: [{ kind: 'weld' }, { kind: 'tie', width: 2 }],
      }),
    ],
    {
      roster: rosterOfNames(plants.split(' ')),
      sheet: { width: 600, height: 300, material: 'Birch plywood', thickness: 4 },
    },
  );
  await openJob(page, 'Bed markers', job);
  const names = page.getByRole('region', { name: 'Names' });
  await names.getByText('On sheets', { exact: true }).click();
  await expect(names.getByRole('status').first()).toHaveText(/come off as one piece/);
  await names.getByRole('button', { name: 'Lay them on sheets' }).click();
  await expect(names.getByRole('button', { name: 'Lay them anew' })).toBeVisible({ timeout: 180_000 });
  await shoot(page, 'sheets');
});

test('as cut', async ({ page }) => {
  await open(page, 'Gate sign', 'Hold');
  await page.getByText('As cut', { exact: true }).click();
  await shoot(page, 'as-cut');
});

test('fill', async ({ page }) => {
  await open(page, 'Apron lettering', 'Fill', /^Workshop/);
  await shoot(page, 'fill');
});

test('letters filled with lines', async ({ page }) => {
  await open(page, 'Greenhouse nameplate', 'Fill', /^Shelf label/);
  await expect(page.locator('[data-fills]')).toBeAttached();
  const at = await onScreen(page, 210, 20);
  await page.mouse.move(at.x, at.y);
  await page.mouse.wheel(0, -500);
  await shoot(page, 'hatch');
});

test('assign', async ({ page }) => {
  await newJob(page, 'Bay sign');
  await page.getByLabel('Machine').selectOption('Plasma table');
  await page.getByLabel('Material').fill('Mild steel');
  await page.getByRole('button', { name: '3 mm', exact: true }).click();
  await addLettering(page, 'Bay 8');
  await page.getByRole('textbox', { name: 'Capital height' }).fill('120');
  await page.keyboard.press('Enter');
  await station(page, 'Assign').click();
  await page.getByRole('button', { name: 'Settings of Cut' }).click();
  await page.getByText('beside', { exact: true }).click();
  await page.getByText('arc', { exact: true }).click();
  await page.getByText('leave', { exact: true }).click();
  await page.getByLabel('Tab width').fill('3');
  await page.keyboard.press('Enter');
  await computed(page);
  await page.getByLabel('Show the order on the sheet').check();
  await page.getByRole('heading', { name: 'Order and time' }).evaluate((e) => e.scrollIntoView({ block: 'center' }));
  await expect(page.getByText(/works .* moves .* pierces/)).toBeVisible();
  await shoot(page, 'assign');
});

test('prove', async ({ page }) => {
  await open(page, 'Bench plaque', 'Compose');
  await page.locator('[data-sheet]').click({ position: { x: 5, y: 300 } });
  await page.getByLabel('Machine').selectOption({ label: 'Laser' });
  await computed(page);
  await page.getByRole('navigation', { name: 'Route' }).getByRole('button', { name: /Prove/ }).click();
  const panel = page.getByRole('complementary', { name: 'Station Prove' });
  await panel.getByRole('button', { name: 'Prove', exact: true }).click();
  await panel.getByRole('button', { name: /^Play the run/ }).click();
  await page.getByRole('slider', { name: 'Time of the run' }).fill('430');
  await shoot(page, 'prove');
});

test('shop', async ({ page }) => {
  await page.goto('/shop');
  await page.getByRole('button', { name: 'Cut charts', exact: true }).click();
  await page.getByLabel('Machine of the chart').selectOption('Plasma table');
  await page.getByRole('table').getByRole('row').nth(3).getByRole('button').click();
  await expect(page.getByRole('button', { name: 'Take it out of the shop' })).toBeVisible();
  await shoot(page, 'shop');
});

test('dark', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Dark scheme' }).click();
  await open(page, 'Gate sign', 'Hold');
  await shoot(page, 'dark');
});

// Last, because it changes the job that others show.
test('plate', async ({ page }) => {
  await open(page, 'Gate sign', 'Hold', /^Gate plate/);
  await page.getByRole('button', { name: 'Bridge every island' }).click();
  await page.getByRole('button', { name: 'Compare side by side' }).click();
  await expect(page.getByRole('list', { name: 'Ways to bridge' }).getByRole('button')).toHaveCount(6);
  await page.getByRole('list', { name: 'Ways to bridge' }).scrollIntoViewIfNeeded();
  await shoot(page, 'plate');
});
