import { postgres } from '../scripts/lib/postgres.mjs';
import { addLettering, draftsOf, expect, newJob, saved, stored, test } from './fixtures';

test.use({ expectedErrors: /50[03]/ });

test('the database goes away and comes back: the bench goes on and nothing is lost', async ({ page }) => {
  const database = postgres('test-database', { fast: true });
  const id = await newJob(page, 'Storm');
  await addLettering(page, 'Before');
  await saved(page);
  database.stop();
  try {
    await page.getByRole('textbox', { name: 'Words' }).fill('During');
    await expect(page.getByText('Not saved yet: away')).toBeVisible();
    await expect(
      page.getByRole('alert').filter({ hasText: 'kept in this browser, and saved when it is back' }),
    ).toBeVisible();
    await page.getByLabel('Capital height').fill('33');
    await expect(page.getByRole('contentinfo')).toContainText(/segments/);

    // A reload while it is away comes back to the kept draft; before it is kept, closing would ask.
    await expect.poll(() => draftsOf(page)).toContain('"mm":33');
    await page.reload();
    await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('During');
    await expect(page.getByLabel('Capital height')).toHaveValue('33');
  } finally {
    await database.start();
  }
  await expect(page.getByText(/^Saved/)).toBeVisible({ timeout: 60_000 });
  expect((await stored(page, id)).document.parts[0]?.members[0]?.text).toBe('During');
});
