import { addLettering, computed, expect, kept, newJob, saved, startOf, station, test } from './fixtures';

test('a starter becomes a job: words, size and stock, seen before it is made, and three files', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'New job' }).first().click();
  await expect(page.getByRole('heading', { name: 'What is it to become?' })).toBeVisible();
  const { card, form } = startOf(page, 'Name to hang');
  // Pictures are drawn by the core.
  await expect(page.getByRole('img', { name: 'Drawing of Name to hang' }).locator('path').first()).toHaveAttribute(
    'd',
    /^M/,
  );
  await card.click();
  // The words are in hand: they are typed over.
  await page.keyboard.type('Thyme');
  await form.getByLabel('Width', { exact: true }).fill('300');
  await form.getByLabel('Material').fill('Cork');
  await form.getByLabel('Thickness').fill('5');
  await expect(form.getByRole('status')).toHaveText('Nothing to look at.');
  await form.getByRole('button', { name: 'Start the job' }).dblclick();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
  await computed(page);
  await expect(page.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Thyme');
  await expect(page.getByText(/· Cork 5 mm/)).toBeVisible();
  const { document } = await kept(page, page.url().replace(/.*\/jobs\/([0-9a-f-]+).*/, '$1'));
  expect(document.starter).toBeNull();
  expect(document.parts[0]?.members[0]?.text).toBe('Thyme');
  // Cork asks for 3 mm, and joints of it are as strong.
  expect(document.parts[0]?.members[0]).toMatchObject({ closeUp: { overlap: 3.6 } });
  await page
    .getByRole('complementary', { name: 'Job sheet' })
    .getByRole('button', { name: /^Thyme/ })
    .first()
    .click();
  await expect(page.getByRole('contentinfo')).toContainText('Selected 300 ×');
  await station(page, 'Prove').click();
  await page.getByRole('button', { name: 'Export' }).first().click();
  // It is in the list once.
  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('link', { name: 'Thyme', exact: true })).toHaveCount(
    1,
  );
});

test('any job is kept as a starter; it is changed, begun from, deleted, and brought back', async ({ page }) => {
  const name = `Bin label ${Date.now()}`;
  await newJob(page, name);
  await addLettering(page, 'OATS');
  await saved(page);
  await page.goto('/');
  await page.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('button', { name: 'Keep as a starter' }).click();
  await expect(page.getByText(/is one of your starters now/)).toBeVisible();
  // The list has the job, not the starter.
  await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('link', { name, exact: true })).toHaveCount(1);

  await page.getByRole('link', { name: 'New job' }).first().click();
  const mine = page.getByRole('list', { name: 'Your starters' });
  await mine.getByRole('button', { name: `More for ${name}` }).click();
  await page
    .getByRole('link', { name: 'Change it' })
    .or(page.getByRole('button', { name: 'Change it' }))
    .click();
  await page.waitForURL(/\/jobs\//);
  await expect(page.getByText('This is a starter.')).toBeVisible();
  await page.getByLabel('What comes of it').fill('A label for a bin.');
  await page.getByRole('complementary', { name: 'Job sheet' }).getByRole('button', { name: /^OATS/ }).first().click();
  await page.getByRole('textbox', { name: 'Asked for as' }).fill('Grain');
  await saved(page);

  await page.getByRole('link', { name: 'Start a job from it' }).click();
  const form = page.getByRole('form', { name });
  await expect(form.getByText('A label for a bin.')).toBeVisible();
  await form.getByLabel('Grain').fill('RYE');
  await form.getByRole('button', { name: 'Start the job' }).click();
  await page.waitForURL(/\/jobs\//);
  await expect(page.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('RYE');
  await expect(page.getByText('This is a starter.')).toHaveCount(0);

  await page.goto('/new');
  await mine.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(mine.getByRole('button', { name, exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(mine.getByRole('button', { name, exact: true })).toHaveCount(1);
});

test.describe('what is not there', () => {
  test.use({ expectedErrors: /404/ });

  test('a starter that is gone is told, and another can be chosen', async ({ page }) => {
    await page.goto('/new?from=00000000-0000-4000-8000-000000000000');
    await expect(page.getByRole('main').getByRole('alert')).toHaveText('There is no such job.');
    const { card, form } = startOf(page, 'Part number to scribe');
    await card.focus();
    await page.keyboard.press('Enter');
    await expect(form.getByRole('textbox', { name: 'Number' })).toBeFocused();
  });
});
