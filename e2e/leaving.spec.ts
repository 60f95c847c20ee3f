import type { Page } from '@playwright/test';
import { addLettering, expect, newJob, saved, stored, test } from './fixtures';
import { reached } from './reached';

// Conflicts, jobs that are gone, saves that do not arrive.
test.use({ expectedErrors: /40[49]|ERR_FAILED/ });

const words = (page: Page) => page.getByRole('textbox', { name: 'Words' });
const notSaved = (page: Page) => page.getByRole('region', { name: 'Not saved yet' });

/** Words of the first member of a job as the server has it. */
const wordsOf = async (page: Page, id: string) => (await stored(page, id)).document.parts[0]?.members[0]?.text;

/** The browser has no place to keep drafts in. */
const withoutStorage = (page: Page) =>
  page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));

/** No save arrives at the server, nor is it answered, from now on. */
const hang = (page: Page) =>
  page.route('**/api/jobs/*', (route) => (route.request().method() === 'PUT' ? undefined : route.fallback()));

test('leaving for the list right after an edit leaves nothing behind', async ({ page }) => {
  const id = await newJob(page, 'Quick leave');
  await addLettering(page, 'Start');
  await saved(page);
  for (const text of ['One', 'Two', 'Three']) {
    await words(page).fill(text);
    await page.getByRole('link', { name: 'All jobs' }).click();
    await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
    expect(await wordsOf(page, id)).toBe(text);
    await page.getByRole('link', { name: 'Quick leave', exact: true }).first().click();
    await page
      .getByRole('button', { name: new RegExp(`^${text}`) })
      .first()
      .click();
    await expect(words(page)).toHaveValue(text);
  }
  // By the browser's own button nobody can wait; it is sent all the same.
  await words(page).fill('Back');
  await page.goBack();
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
  await expect.poll(() => wordsOf(page, id)).toBe('Back');
  await expect(notSaved(page)).toBeHidden();
});

test('what was done can be undone after going to the list and back', async ({ page }) => {
  await newJob(page, 'There and back');
  await addLettering(page, 'Start');
  await page.getByRole('button', { name: 'CAPITALS' }).click();
  await expect(words(page)).toHaveValue('START');
  await page.getByRole('link', { name: 'All jobs' }).click();
  await page.getByRole('link', { name: 'There and back', exact: true }).first().click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page
    .getByRole('button', { name: /^Start/ })
    .first()
    .click();
  await expect(words(page)).toHaveValue('Start');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(words(page)).toHaveValue('START');
});

test('a list that could not be fetched comes by itself when the server is back', async ({ page }) => {
  await page.goto('/typefaces');
  await page.route('**/api/jobs?**', (route) => route.abort());
  await page.getByRole('link', { name: 'All jobs' }).click();
  await expect(page.getByText('The server is away').first()).toBeVisible();
  await page.unroute('**/api/jobs?**');
  await expect(page.getByText('The server is away')).toHaveCount(0);
});

test('a server that does not answer is told, the draft is kept, and goes on from the list', async ({ page }) => {
  const id = await newJob(page, 'Silent server');
  await addLettering(page, 'Before');
  await saved(page);
  await hang(page);
  await words(page).fill('During');
  await expect(page.getByText('The server does not answer. Your work is kept in this browser')).toBeVisible();
  await page.getByRole('link', { name: 'All jobs' }).click();
  await expect(notSaved(page)).toContainText('Silent server');
  expect(await wordsOf(page, id)).toBe('Before');
  await notSaved(page).getByRole('link', { name: 'Open and save' }).click();
  await page
    .getByRole('complementary', { name: 'Job sheet' })
    .getByRole('button', { name: /^During/ })
    .click();
  await expect(words(page)).toHaveValue('During');
  // Both saves that hang arrive: the second one finds what it brings, and is no conflict.
  await page.unroute('**/api/jobs/*');
  await saved(page);
  expect(await wordsOf(page, id)).toBe('During');
  await page.getByRole('link', { name: 'All jobs' }).click();
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
  await expect(notSaved(page)).toBeHidden();
});

test('where the browser keeps nothing, leaving and closing ask first', async ({ page }) => {
  await withoutStorage(page);
  const id = await newJob(page, 'No storage');
  await addLettering(page, 'Before');
  await saved(page);
  await hang(page);
  await words(page).fill('During');
  await expect(page.getByText('this browser can’t keep your work either')).toBeVisible();
  await page.getByRole('link', { name: 'All jobs' }).click();
  const asked = page.getByRole('dialog', { name: 'This job is not saved yet' });
  await expect(asked).toBeVisible();
  await reached(page, 'leaving');
  await asked.getByRole('button', { name: 'Stay here' }).click();
  await expect(words(page)).toHaveValue('During');
  const closing = page.waitForEvent('dialog');
  await page.close({ runBeforeUnload: true });
  const dialog = await closing;
  expect(dialog.type()).toBe('beforeunload');
  await dialog.dismiss();
  // Left all the same, it goes on being sent.
  await page.getByRole('link', { name: 'All jobs' }).click();
  await asked.getByRole('button', { name: 'All jobs' }).click();
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
  await page.unroute('**/api/jobs/*');
  await expect.poll(() => wordsOf(page, id), { timeout: 90_000 }).toBe('During');
});

test.describe('two windows', () => {
  test('another window’s save leaves the draft of a conflict where it is', async ({ page, context }) => {
    const id = await newJob(page, 'Two windows');
    await addLettering(page, 'Start');
    await saved(page);
    const other = await context.newPage();
    await other.goto(page.url());
    await page.getByRole('textbox', { name: 'Name of the job' }).fill('Two windows A');
    await saved(page);
    await other.getByRole('textbox', { name: 'Name of the job' }).fill('Two windows B');
    const asked = other.getByRole('dialog', { name: 'changed in another window' });
    await expect(asked).toBeVisible();
    await page.getByRole('textbox', { name: 'Name of the job' }).fill('Two windows C');
    await saved(page);
    // The window with the conflict is reloaded: its version is still there, and asked for again.
    await other.reload();
    await expect(other.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Two windows B');
    await asked.getByRole('button', { name: 'Take the other version' }).click();
    await expect(other.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Two windows C');
    await other.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(other.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Two windows B');
    await saved(other);
    await expect.poll(async () => (await stored(page, id)).document.title).toBe('Two windows B');
    // The first window is behind now: it goes on with its own, and the other one's is kept for good.
    await page.getByRole('textbox', { name: 'Name of the job' }).fill('Two windows D');
    await page.getByRole('button', { name: 'Go on with mine' }).click();
    await saved(page);
    await expect.poll(async () => (await stored(page, id)).document.title).toBe('Two windows D');
    await page.getByRole('textbox', { name: 'Name of the job' }).fill('Two windows E');
    await expect.poll(async () => (await stored(page, id)).document.title).toBe('Two windows E');
    await page.getByRole('button', { name: 'Earlier versions' }).click();
    await page.getByRole('tab', { name: /As the other window had it/ }).click();
    await expect(page.getByRole('tabpanel')).toContainText('Two windows B');
  });

  test('a job deleted elsewhere offers its draft as a job of its own', async ({ page }) => {
    const id = await newJob(page, 'Deleted elsewhere');
    await addLettering(page, 'Kept');
    await saved(page);
    await page.route('**/api/jobs/*', (route) =>
      route.request().method() === 'PUT' ? route.abort() : route.fallback(),
    );
    await words(page).fill('Not lost');
    await expect(page.getByText('Your work is kept in this browser')).toBeVisible();
    await page.request.delete(`/api/jobs/${id}`);
    await page.reload();
    await expect(page.getByRole('alert').filter({ hasText: 'There is no such job' })).toBeVisible();
    await expect(notSaved(page)).toContainText('Deleted elsewhere');
    await page.goto('/');
    await expect(notSaved(page)).toContainText('the job was deleted');
    await page.unroute('**/api/jobs/*');
    await notSaved(page)
      .getByRole('listitem')
      .filter({ hasText: 'Deleted elsewhere' })
      .getByRole('button', { name: 'Keep as a job of its own' })
      .click();
    await page.waitForURL((url) => /\/jobs\//.test(url.pathname) && !url.pathname.includes(id));
    const own = page.url().replace(/.*\/jobs\/([0-9a-f-]+).*/, '$1');
    expect(await wordsOf(page, own)).toBe('Not lost');
  });
});
