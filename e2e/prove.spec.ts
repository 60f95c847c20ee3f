import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { JOB_FORMAT, jobSchema } from '../src/core/document/schema';
import { addLettering, computed, expect, newJob, openJob, saved, station, test } from './fixtures';

/** A name cut out on the laser, with its machine and stock. */
async function onLaser(page: Page, title: string): Promise<void> {
  await newJob(page, title);
  await addLettering(page, 'Elm');
  await station(page, 'Compose').click();
  await page.locator('[data-sheet]').click({ position: { x: 5, y: 300 } });
  await page.getByLabel('Machine').selectOption({ label: 'Laser' });
  await page.getByLabel('Material').fill('Birch plywood');
  await page.getByLabel('Thickness').fill('3');
  await page.getByLabel('Thickness').press('Enter');
  await computed(page);
}

const panel = (page: Page) => page.getByRole('complementary', { name: 'Station Prove' });

async function prove(page: Page): Promise<void> {
  await station(page, 'Prove').click();
  await panel(page)
    .getByRole('button', { name: /^Prove( again)?$/ })
    .click();
  await expect(panel(page).getByText(/what is drawn|differ/)).toBeVisible();
}

test('proved, played by mouse and keys, gone with a change and back with undo; the very bytes are written', async ({
  page,
}) => {
  await onLaser(page, 'Proof');
  await station(page, 'Prove').click();
  await expect(station(page, 'Prove')).not.toHaveAccessibleName(/, proved/);
  await prove(page);
  const said = panel(page).getByText(/Run as Laser does, the file does what is drawn/);
  await expect(said).toBeVisible();

  // The run: from the start, held, by operation, and to the end.
  await panel(page)
    .getByRole('button', { name: /^Play the run/ })
    .click();
  const strip = page.getByRole('region', { name: 'Run' });
  await expect(strip).toBeVisible();
  await page.keyboard.press('r');
  await expect(strip.getByRole('button', { name: 'Play' })).toBeVisible();
  const time = strip.getByRole('slider', { name: 'Time of the run' });
  await time.fill('0');
  await expect(strip).toContainText(/0 of 3 free/);
  await time.press('End');
  await expect(strip).toContainText(/3 of 3 free/);
  await time.press('Home');
  await time.press('ArrowRight');
  await expect(time).toHaveAttribute('aria-valuetext', /, Cut$/);
  await strip.getByRole('button', { name: 'Next operation' }).click();
  await strip.getByLabel('How fast it is played').selectOption('100');
  await strip.getByRole('button', { name: 'Take the run off the sheet' }).click();
  await expect(strip).toBeHidden();

  // What was proved is what is written.
  const hash = await panel(page).locator('[title^="SHA-256"]').getAttribute('title');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write for Laser', exact: true }).click(),
  ]);
  expect(hash).toBe(
    `SHA-256 ${createHash('sha256')
      .update(readFileSync(await file.path()))
      .digest('hex')}`,
  );

  // Any change takes it away; undo brings it back.
  await page.getByLabel('Name of the job').fill('Proof of another');
  await page.getByLabel('Name of the job').press('Enter');
  await expect(panel(page).getByText('The job has changed since it was proved.')).toBeVisible();
  await expect(said).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(said).toBeVisible();
  await saved(page);
});

test('files that were given out are kept: had again byte for byte, and compared with now', async ({ page }) => {
  await onLaser(page, 'Given out');
  await prove(page);
  const given = panel(page);
  const bytesOf = async (press: () => Promise<void>) => {
    const [file] = await Promise.all([page.waitForEvent('download'), press()]);
    return createHash('sha256')
      .update(readFileSync(await file.path()))
      .digest('hex');
  };
  const first = await bytesOf(() => page.getByRole('button', { name: 'Write for Laser', exact: true }).click());
  const again = given.getByRole('button', { name: /^Have given-out.*again$/ });
  await expect(again).toBeVisible();
  await expect(given.getByText(/version \d+ · (proved|with faults open)/)).toBeVisible();
  expect(await bytesOf(() => again.click())).toBe(first);
  await given.getByRole('button', { name: /^Compare given-out/ }).click();
  await expect(given.getByText('What would be written now draws the same.')).toBeVisible();

  // After a reload it is there still; after a change it says what is another.
  await saved(page);
  await page.reload();
  await station(page, 'Compose').click();
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Tab');
  await page.getByRole('textbox', { name: 'Words' }).fill('Elms');
  await computed(page);
  await station(page, 'Prove').click();
  await given.getByRole('button', { name: /^Compare given-out/ }).click();
  await expect(given.getByText(/is missing|in place of|lies elsewhere|is not meant/).first()).toBeVisible();
  expect(await bytesOf(() => again.click())).toBe(first);
});

test('sent to the bench machine it is run there: watched, paused, stopped, taken out', async ({ page }) => {
  await onLaser(page, `Sent ${Date.now()}`);
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Send to the bench machine' }).click();
  const runs = panel(page).getByRole('list', { name: 'Runs of the bench machine' });
  const own = runs.getByRole('listitem').filter({ hasText: /sent-\d+/ });
  await expect(own).toHaveCount(1);
  await expect(own).toContainText(/(in line|running), as Laser/);
  await own.getByRole('button', { name: /^Pause/ }).click();
  await expect(own).toContainText('paused, as Laser');
  await expect(own.getByRole('progressbar')).toBeVisible();
  await own.getByRole('button', { name: /^Go on/ }).click();
  await expect(own).toContainText('running, as Laser');
  await own.getByRole('button', { name: /^Stop/ }).click();
  await expect(own).toContainText('stopped, as Laser');
  await panel(page).getByText('Its log').click();
  await expect(
    panel(page)
      .getByText(/was paused at \d+ %/)
      .first(),
  ).toBeVisible();
  await own.getByRole('button', { name: /^Take out/ }).click();
  await expect(own).toHaveCount(0);
});

test('what a machine can’t do is told before the metal is: too many chords, areas, the bed', async ({ page }) => {
  const made = (machine: object) =>
    jobSchema.parse({
      format: JOB_FORMAT,
      sheet: { width: 300, height: 200 },
      machine: { id: 'm', name: 'Old table', kind: 'plasma', ...machine },
      parts: [
        {
          id: 'plate',
          placement: { x: 150, y: 100 },
          members: [{ id: 'e', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 200, height: 120 }],
          work: [
            { what: 'outline', operation: 'cut' },
            { what: 'fill', operation: 'engrave' },
          ],
        },
      ],
    });
  await openJob(page, 'Chords', made({ file: { curves: 'lines', mostSegments: 40 } }));
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Prove', exact: true }).click();
  await expect(panel(page).getByText(/Old table takes 40 segments in a file/)).toBeVisible();
  await expect(panel(page).getByRole('button', { name: /^Play the run/ })).toBeHidden();

  await openJob(page, 'Areas', made({ bed: { width: 150, height: 150 } }));
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Prove', exact: true }).click();
  await expect(panel(page).getByText(/is filled, and Old table does not go over areas/)).toBeVisible();
  await expect(panel(page).getByText(/the bed of Old table is 150 mm × 150 mm/)).toBeVisible();
  await expect(panel(page).getByText('2 things differ')).toBeVisible();
});
