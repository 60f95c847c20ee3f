/** Several parts at once: rows chosen and given in one press, what differs shown as mixed, parts found among many. */
import type { Page } from '@playwright/test';
import type { Part } from '../src/core/document/schema';
import { stepIn } from '../src/core/kinds/steps';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { computed, expect, kept, openJob, station, test } from './fixtures';

const tags = (n: number, more: (i: number) => object = () => ({})) =>
  jobWith(
    Array.from({ length: n }, (_, i) =>
      partOf([lettering(`Tag ${i + 1}`, 'Poppins', { size: { by: 'capital', mm: 6 } })], {
        id: `t${i}`,
        placement: { x: 30 + 50 * (i % 5), y: 20 + 12 * Math.floor(i / 5) },
        ...more(i),
      }),
    ),
    { sheet: { width: 300, height: 600 } },
  );
const panel = (page: Page, name: string) => page.getByRole('complementary', { name: `Station ${name}` });
const partsOf = async (page: Page, id: string) => (await kept(page, id)).document.parts as unknown as Part[];
const worksOf = async (page: Page, id: string) =>
  (await partsOf(page, id)).map((p) => p.work.map((w) => `${w.what} ${w.operation}`).join());

test('six texts are engraved in one press, and taken back in one', async ({ page }) => {
  const id = await openJob(page, 'Six tags', tags(6));
  await computed(page);
  await station(page, 'Assign').click();
  const assign = panel(page, 'Assign');
  await assign.getByLabel('Choose all parts').check();
  await expect(assign.getByText('6 chosen', { exact: true })).toBeVisible();
  await assign.getByLabel('Inside of all 6 chosen').selectOption('Engrave');
  await assign.getByLabel('Outline of all 6 chosen').selectOption('');
  await expect.poll(() => worksOf(page, id)).toEqual(Array(6).fill('fill engrave'));
  await page.keyboard.press('Control+z');
  await expect.poll(() => worksOf(page, id)).toEqual(Array(6).fill('outline cut,fill engrave'));
  // One of them is taken out of the choice, and given to another: what differs is shown as mixed.
  await assign.getByLabel('Choose Tag 1', { exact: true }).uncheck();
  await assign.getByLabel('Outline of Tag 1', { exact: true }).selectOption('Score');
  await expect(assign.getByLabel('Outline of all 5 chosen')).toHaveValue('cut');
  await assign.getByLabel('Choose Tag 1', { exact: true }).check();
  await expect(assign.getByLabel('Outline of all 6 chosen').locator('option:checked')).toHaveText('mixed');
});

test('Hold and Fill set what is common to all that are chosen', async ({ page }) => {
  const id = await openJob(
    page,
    'Three tags',
    tags(3, (i) => (i === 2 ? { locked: true } : {})),
  );
  await station(page, 'Hold').click();
  const hold = panel(page, 'Hold');
  const sheet = page.getByRole('list', { name: 'Parts', exact: true });
  await expect(hold.getByRole('list', { name: 'Parts in short' }).getByRole('button')).toHaveCount(3);
  await page.keyboard.press('Control+a');
  await sheet.getByRole('button', { name: /^Tag 3/ }).click({ modifiers: ['Shift'] });
  await expect(hold.getByRole('heading', { name: '2 parts' })).toBeVisible();
  await expect(hold.getByText(/1 more is locked/)).toBeVisible();
  await hold.getByLabel('Thicken or thin', { exact: true }).check();
  await hold.getByRole('textbox', { name: 'By', exact: true }).fill('0.4');
  const thick = async () => (await partsOf(page, id)).map((part) => stepIn(part, 'thicken')?.by ?? null);
  await expect.poll(thick).toEqual([0.4, 0.4, null]);
  await page.keyboard.press('Escape');
  await sheet.getByRole('button', { name: /^Tag 1/ }).click();
  await hold.getByLabel('Thicken or thin', { exact: true }).uncheck();
  await sheet.getByRole('button', { name: /^Tag 2/ }).click({ modifiers: ['Shift'] });
  await expect(hold.getByText('on for some of them')).toBeVisible();
  await station(page, 'Fill').click();
  const fill = panel(page, 'Fill');
  await fill.getByText('lines', { exact: true }).click();
  await expect.poll(() => worksOf(page, id)).toEqual(['hatch mark', 'hatch mark', 'outline cut']);
  await fill.getByRole('textbox', { name: 'Direction' }).fill('30');
  const angles = async () => (await partsOf(page, id)).map((part) => stepIn(part, 'hatch')?.angle ?? null);
  await expect.poll(angles).toEqual([30, 30, null]);
  await page.getByRole('button', { name: 'Choose' }).click();
  await page.getByRole('button', { name: 'None' }).click();
  await expect(fill.getByRole('list', { name: 'Parts in short' })).toContainText(/Tag 1.*lines, .* covered/);
});

test('what is locked says so where it would be changed, alone and when all that are chosen are', async ({ page }) => {
  await openJob(
    page,
    'Locked tags',
    tags(3, (i) => ({ locked: i < 2 })),
  );
  await computed(page);
  const sheet = page.getByRole('list', { name: 'Parts', exact: true });
  await sheet.getByRole('button', { name: /^Tag 1/ }).click();
  for (const name of ['Hold', 'Fill']) {
    await station(page, name).click();
    await expect(panel(page, name).getByText('It is locked: it is not changed by hand.')).toBeVisible();
    await expect(panel(page, name).locator('input:enabled, select:enabled')).toHaveCount(0);
  }
  await sheet.getByRole('button', { name: /^Tag 2/ }).click({ modifiers: ['Shift'] });
  for (const name of ['Hold', 'Fill']) {
    await station(page, name).click();
    await expect(panel(page, name).getByText('It is locked: it is not changed by hand.')).toBeVisible();
    await expect(panel(page, name).locator('input:enabled, select:enabled')).toHaveCount(0);
  }
});

test('among two hundred parts some are found, filtered and chosen together; only rows in sight are there', async ({
  page,
}) => {
  await openJob(
    page,
    'Many',
    tags(200, (i) => ({ work: [{ what: 'outline', operation: i % 20 ? 'cut' : 'score' }] })),
  );
  await computed(page);
  const sheet = page.getByRole('complementary', { name: 'Job sheet' });
  const rows = sheet.getByRole('list', { name: 'Parts' }).getByRole('listitem');
  expect(await rows.count()).toBeLessThan(60);
  await expect(rows.first()).toHaveAttribute('aria-setsize', '200');
  await sheet.getByLabel('Find parts').fill('tag 14');
  await expect(rows).toHaveCount(12);
  await sheet.getByLabel('Find parts').fill('');
  await sheet.getByLabel('Which parts').selectOption('Score');
  await expect(rows).toHaveCount(10);
  await rows.first().getByRole('button').first().click();
  await sheet.getByRole('button', { name: 'Choose' }).click();
  await sheet.getByRole('button', { name: 'With the same operations' }).click();
  await expect(page.locator('[data-chosen]')).toHaveText('10 parts as one');
  await station(page, 'Assign').click();
  await panel(page, 'Assign').getByLabel('Outline of all 10 chosen').selectOption('Mark');
  await expect(sheet.getByText('No part fits.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Show all' }).click();
  await expect(rows.first()).toHaveAttribute('aria-setsize', '200');
});
