/** Help: opened where one stands, found by words, with pictures and keys; one sentence on first use. */
import { computed, expect, newJob, station, test } from './fixtures';

test('? opens the page of the station, with three pictures and its keys; words find another', async ({ page }) => {
  await newJob(page, 'Helped');
  await station(page, 'Hold').click();
  await computed(page);
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Help' });
  const article = help.getByRole('article', { name: 'Hold' });
  await expect(article.getByRole('img')).toHaveCount(3);
  await expect(
    article.getByRole('img', { name: 'Drawing of islands held by bridges' }).locator('path').first(),
  ).toBeVisible();
  await expect(article.getByRole('table', { name: 'Keys here' })).toContainText('Shift while dragging a bridge');
  await expect(article.getByRole('table', { name: 'Keys at every station' })).toContainText('go to a station');

  await help.getByLabel('Find in the help').fill('plotter pens');
  await expect(help.getByRole('navigation').getByRole('listitem')).toHaveText(['Assign']);
  await expect(help.getByRole('article', { name: 'Assign' })).toBeVisible();
  await help.getByLabel('Find in the help').fill('xylophone');
  await expect(help.getByText('Nothing here has these words. Try fewer, or others.')).toBeVisible();
  await help.getByLabel('Find in the help').fill('');
  await help.getByRole('button', { name: 'Compose', exact: true }).click();
  await expect(help.getByRole('article', { name: 'Compose' }).getByRole('img')).toHaveCount(3);
  await page.keyboard.press('Escape');
  await expect(help).toBeHidden();
});

test('the other screens have a page too', async ({ page }) => {
  for (const [path, name] of [
    ['/', 'Jobs'],
    ['/new', 'New job'],
    ['/typefaces', 'Typefaces'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole('button', { name: 'Help', exact: true })).toBeVisible();
    // The page is there before it listens to keys.
    await expect(async () => {
      await page.keyboard.press('?');
      const article = page.getByRole('dialog', { name: 'Help' }).getByRole('article', { name });
      await expect(article).toBeVisible({ timeout: 3_000 });
    }).toPass();
  }
});

test('one sentence is said on first use, once', async ({ page }) => {
  await page.addInitScript(() => {
    if (!sessionStorage.getItem('cleared')) localStorage.setItem('needlefile:met', ' ');
    sessionStorage.setItem('cleared', 'yes');
  });
  await newJob(page, 'For the first time');
  const panel = (name: string) => page.getByRole('complementary', { name: `Station ${name}` });
  await expect(panel('Compose').getByText(/they stay words you can change/)).toBeVisible();
  await panel('Compose').getByRole('button', { name: 'Understood' }).click();
  await expect(panel('Compose').getByText(/they stay words you can change/)).toBeHidden();
  await station(page, 'Assign').click();
  await panel('Assign').getByRole('button', { name: 'More' }).click();
  await expect(page.getByRole('dialog', { name: 'Help' }).getByRole('article', { name: 'Assign' })).toBeVisible();
  await page.keyboard.press('Escape');
  await station(page, 'Compose').click();
  await station(page, 'Assign').click();
  await page.reload();
  await expect(panel('Assign').getByRole('heading', { name: 'Assign', level: 1 })).toBeVisible();
  await expect(page.getByText('Choose rows by their boxes')).toHaveCount(0);
});
