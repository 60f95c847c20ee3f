import type { Page } from '@playwright/test';
import { addLettering, expect, kept, newJob, saved, stored, test } from './fixtures';

const words = (page: Page) => page.getByRole('textbox', { name: 'Words' });
const wordsKept = async (page: Page, id: string) => (await stored(page, id)).document.parts[0]?.members[0]?.text;

test('an earlier version is looked at, kept for good and brought back, from the bench and from the list', async ({
  page,
}) => {
  const title = `Fence ${Date.now()}`;
  const id = await newJob(page, title);
  await addLettering(page, 'North');
  const { version } = await kept(page, id);
  await page.getByRole('button', { name: 'Earlier versions' }).click();
  const dialog = page.getByRole('dialog', { name: `Earlier versions of ${title}` });
  await dialog.getByRole('tab', { name: /as it is now/ }).click();
  await dialog.getByRole('textbox', { name: 'Name' }).fill('as ordered');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('tab', { name: /as ordered/ })).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Bring back' })).toBeDisabled();
  // Keys pressed in a dialog are for the dialog: nothing is nudged, removed or let go behind it.
  await dialog.getByRole('tab', { name: /as ordered/ }).focus();
  for (const key of ['ArrowDown', 'Delete', 'Escape']) await page.keyboard.press(key);
  await expect(dialog).toBeHidden();
  await expect(words(page)).toHaveValue('North');
  expect((await kept(page, id)).version).toBe(version);

  await words(page).fill('South');
  await kept(page, id);
  await page.getByRole('button', { name: 'Earlier versions' }).click();
  await dialog.getByRole('tab', { name: /as ordered/ }).click();
  await expect(
    dialog
      .getByRole('img', { name: `Drawing of ${title}` })
      .locator('path')
      .first(),
  ).toHaveAttribute('d', /^M/);
  await dialog.getByRole('button', { name: 'Bring back' }).click();
  await expect(dialog).toBeHidden();
  await expect(words(page)).toHaveValue('North');
  // On the bench it is a change like others.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(words(page)).toHaveValue('South');
  await saved(page);
  await expect.poll(() => wordsKept(page, id)).toBe('South');

  await page.getByRole('link', { name: 'All jobs' }).click();
  await page.getByLabel('Find jobs').fill(title);
  await page.getByRole('button', { name: `More for ${title}` }).click();
  await page.getByRole('button', { name: 'Earlier versions' }).click();
  await dialog.getByRole('tab', { name: /as ordered/ }).click();
  await dialog.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByText(/What it was before is an earlier version/)).toBeVisible();
  expect(await wordsKept(page, id)).toBe('North');
  // What it was is there too: nothing is lost by bringing back.
  await page.getByRole('link', { name: title, exact: true }).click();
  await page
    .getByRole('complementary', { name: 'Job sheet' })
    .getByRole('button', { name: /^North/ })
    .click();
  // The list as it was when the dialog was open last is not shown meanwhile: what is chosen in it would be another one.
  await page.route('**/versions/before/*', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1_000));
    await route.fallback();
  });
  await page.getByRole('button', { name: 'Earlier versions' }).click();
  await expect(dialog.getByRole('tab').nth(1)).toHaveAttribute('aria-selected', 'true');
  await dialog.getByRole('button', { name: 'Bring back' }).click();
  await expect(
    page.getByRole('complementary', { name: 'Job sheet' }).getByRole('button', { name: /^South/ }),
  ).toBeVisible();
});

test('going back to a job shows it as it was saved last', async ({ page }) => {
  const id = await newJob(page, 'Back and forth');
  await addLettering(page, 'One');
  await kept(page, id);
  await page.reload();
  await words(page).fill('Two');
  await kept(page, id);
  await page.getByRole('link', { name: 'All jobs' }).click();
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
  await page.goBack();
  await expect(words(page)).toHaveValue('Two');
  await words(page).fill('Three');
  await kept(page, id);
  await expect.poll(() => wordsKept(page, id)).toBe('Three');

  // What was done to it in the list is there too.
  await page.getByRole('link', { name: 'All jobs' }).click();
  await page.getByLabel('Find jobs').fill('Back');
  await page.getByRole('button', { name: 'More for Back and forth' }).first().click();
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Name of the job' }).fill('Back again');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Back again', exact: true })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Back again');
});

test.describe('what is not there', () => {
  test.use({ expectedErrors: /404/ });

  test('is answered with 404 and a way on', async ({ page }) => {
    for (const [address, sentence] of [
      ['/jobs/123e4567-e89b-42d3-a456-426614174000', 'There is no such job'],
      ['/jobs/nonsense', 'There is no such job'],
      ['/nowhere', 'There is no such page'],
    ] as const) {
      const response = await page.goto(address);
      expect(response?.status(), address).toBe(404);
      await expect(page.getByRole('alert').filter({ hasText: sentence })).toBeVisible();
    }
    await page.getByRole('link', { name: 'All jobs' }).click();
    await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
  });
});

test('a page is titled by its job', async ({ page, request }) => {
  const id = await newJob(page, 'Orchard gate');
  await saved(page);
  await expect(page).toHaveTitle('Orchard gate · Needlefile');
  await kept(page, id);
  expect(await (await request.get(`/jobs/${id}`, { maxRetries: 3 })).text()).toContain(
    '<title>Orchard gate · Needlefile</title>',
  );
});
