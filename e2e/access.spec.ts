/** What can be told by a machine of how a screen is reached and read: every screen and dialog, in both schemes. */
import type { Page } from '@playwright/test';
import { addLettering, computed, expect, newJob, startOf, station, test } from './fixtures';
import { reached } from './reached';

test('the list of jobs, the starters, the typefaces', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').first()).toBeVisible();
  await reached(page, 'jobs');
  await page.goto('/new');
  const { card, form } = startOf(page, 'Ring emblem');
  await card.click();
  await expect(form.getByRole('status')).not.toHaveText('Drawing …');
  await reached(page, 'starters');
  await page.goto('/typefaces');
  await expect(page.getByRole('option', { name: /^EMS Elfin/ })).toBeVisible();
  await reached(page, 'typefaces');
});

test('every shelf of the shop, with something in hand', async ({ page }) => {
  await page.goto('/shop');
  for (const name of ['Machines', 'Materials', 'Tools', 'Cut charts']) {
    await page.getByRole('button', { name, exact: true }).click();
    await reached(page, name);
    await page.getByRole('table').getByRole('row').nth(1).getByRole('button').click();
    await expect(page.getByRole('button', { name: 'Take it out of the shop' })).toBeVisible();
    await reached(page, `${name}, one in hand`);
  }
});

test('every station of the bench, with a part chosen and without', async ({ page }) => {
  await newJob(page, 'Reached');
  await page.getByLabel('Material').fill('birch plywood');
  await reached(page, 'an empty sheet');
  await addLettering(page, 'Alder 8');
  await computed(page);
  for (const name of ['Compose', 'Close', 'Hold', 'Fill', 'Assign', 'Prove']) {
    await station(page, name).click();
    await computed(page);
    await reached(page, name);
  }
  await page.keyboard.press('Escape');
  for (const name of ['Compose', 'Assign']) {
    await station(page, name).click();
    await reached(page, `${name}, nothing chosen`);
  }
  // Two parts, one of them hung and mounted.
  await station(page, 'Compose').click();
  await addLettering(page, 'Elm');
  await station(page, 'Hold').click();
  await computed(page);
  await page.getByRole('checkbox', { name: 'To hang by' }).check();
  await computed(page);
  await page.getByRole('checkbox', { name: 'Studs or stand-offs' }).check();
  await computed(page);
  await page.getByRole('button', { name: 'Choose' }).click();
  await page.getByRole('button', { name: 'All 2 in the list' }).click();
  for (const name of ['Hold', 'Fill', 'Assign']) {
    await station(page, name).click();
    await reached(page, `${name}, two chosen`);
  }
});

test('dialogs', async ({ page }) => {
  await newJob(page, 'Dialogs');
  await addLettering(page, 'Lane');
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Help' })).toBeVisible();
  await reached(page, 'help');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Earlier versions' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await reached(page, 'versions');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  await page.getByLabel('Drawing or picture to bring in').setInputFiles('demo/drawings/tool-shed.dxf');
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Bring in', exact: true })).toBeVisible();
  await reached(page, 'bring in');
  await page.keyboard.press('Escape');
  await page.getByLabel('Drawing or picture to bring in').setInputFiles('demo/pictures/leaf.jpg');
  await expect(page.getByRole('dialog').getByRole('button', { name: /Photo or scan/ })).toBeVisible();
  await reached(page, 'picture');
});

/** Presses Tab until a control has the focus; so many presses at most. */
async function tabTo(
  page: Page,
  role: 'button' | 'link' | 'textbox' | 'radio' | 'switch',
  name: RegExp,
): Promise<void> {
  const wanted = page.getByRole(role, { name }).first();
  for (let n = 0; n < 90; n++) {
    if (await wanted.evaluate((e) => e === document.activeElement).catch(() => false)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`the keyboard does not get to ${role} ${name}`);
}

test('from a name to a file by keyboard alone', async ({ page }) => {
  await page.goto('/');
  await tabTo(page, 'link', /^New job$/);
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/new/);
  await tabTo(page, 'button', /^Name to hang$/);
  await page.keyboard.press('Enter');
  // The words are in hand.
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused();
  await page.keyboard.type('Linden');
  await tabTo(page, 'button', /^Start the job$/);
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/jobs\//);
  await computed(page);
  await page.keyboard.press('e');
  await expect(page.getByRole('heading', { name: 'Prove', level: 1 })).toBeFocused();
  await tabTo(page, 'button', /^Write SVG/);
  const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(file.suggestedFilename()).toMatch(/^linden.*\.svg$/);
});

test('from words to a stencil and its file by keyboard alone', async ({ page }) => {
  await newJob(page, 'Stencil by keys');
  await tabTo(page, 'button', /^Lettering$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Words' })).toBeFocused();
  await page.keyboard.type('BED 4');
  await computed(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('3');
  await expect(page.getByRole('heading', { name: 'Hold', level: 1 })).toBeFocused();
  await tabTo(page, 'radio', /^the shape$/);
  await page.keyboard.press('ArrowRight');
  await computed(page);
  await tabTo(page, 'button', /^Bridge every island$/);
  await page.keyboard.press('Enter');
  await computed(page);
  await expect(page.getByText('It comes off as one piece.')).toBeVisible();
  // What follows quickly is said once, so that only the last of it is sure to be heard.
  await expect(page.getByRole('status', { name: 'What has changed' })).not.toBeEmpty();
  await page.keyboard.press('6');
  await tabTo(page, 'button', /^Write DXF/);
  const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(file.suggestedFilename()).toMatch(/\.dxf$/);
});

test('Tab goes through the parts on the sheet and out of it again; Esc in a number takes back the number only', async ({
  page,
}) => {
  await newJob(page, 'Tab');
  for (const word of ['One', 'Two']) {
    await addLettering(page, word);
    await computed(page);
    await page.getByRole('button', { name: 'Back to the sheet' }).click();
  }
  const sheet = page.locator('[data-sheet]');
  const chosen = page.locator('[data-chosen]');
  await sheet.focus();
  await page.keyboard.press('Tab');
  await expect(chosen).toHaveText(/One/);
  await page.keyboard.press('Tab');
  await expect(chosen).toHaveText(/Two/);
  await expect(page.getByRole('status', { name: 'What has changed' })).toContainText('Two');
  await expect(sheet).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(sheet).not.toBeFocused();
  await page.keyboard.press('Shift+Tab');
  await expect(sheet).toBeFocused();
  await page.keyboard.press('Shift+Tab');
  await expect(chosen).toHaveText(/One/);

  const width = page.getByLabel('Width as cut or drawn');
  const before = await width.inputValue();
  await width.focus();
  await page.keyboard.type('77');
  await expect(page.getByRole('contentinfo')).toContainText('Selected 77 ×');
  await page.keyboard.press('Escape');
  await expect(width).toHaveValue(before);
  await expect(width).toBeFocused();
  await expect(chosen).toHaveText(/One/);
});
