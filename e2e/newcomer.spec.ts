import { readFileSync } from 'node:fs';
import { addLettering, expect, kept, newJob, saved, station, stored, test } from './fixtures';

test('from nothing to three files, and the same again after a reload', async ({ page }) => {
  const id = await newJob(page, 'House name');

  // Sheet, in inches and back.
  await page.getByLabel('Width', { exact: true }).fill('12in');
  await expect(page.getByText(/304\.8 × 400 mm/)).toBeVisible();
  await page.getByLabel('Height').fill('2 * 100');
  await page.getByLabel('Material').fill('Birch ply');
  await page.getByLabel('Thickness').fill('1/8 in');
  await page.getByRole('button', { name: /Unit mm/ }).click();
  await expect(page.getByText(/12 × 7\.874 in · Birch ply 0\.125 in/)).toBeVisible();
  await page.getByRole('button', { name: /Unit in/ }).click();

  // Words, typeface, size.
  await addLettering(page, 'Willow');
  await page.getByRole('button', { name: 'Archivo Black' }).click();
  const faces = page.getByRole('listbox', { name: 'Typefaces' });
  await expect(page.getByText(/^\d+ families$/)).toBeVisible();
  await expect(faces.getByRole('option').first().locator('path')).toHaveAttribute('d', /^M/);
  await page.getByLabel('Find typefaces').fill('paci');
  await faces.getByRole('option', { name: /Pacifico/ }).click();
  await page.getByLabel('Size by').selectOption('width');
  await page.getByLabel('Widest line').fill('220');
  await expect(page.getByText(/Selected 220 × /)).toBeVisible();

  // Weld: on by itself; off is a finding.
  await station(page, 'Close').click();
  const weld = page.getByLabel('Weld what overlaps');
  await expect(weld).toBeChecked();
  await weld.uncheck();
  await expect(page.getByText('every overlap would be cut.')).toBeVisible();
  await weld.check();
  await expect(page.getByText('every overlap would be cut.')).toBeHidden();

  // Does it hold?
  await station(page, 'Hold').click();
  await page.getByRole('list', { name: 'Findings' }).getByRole('button', { name: 'Yes', exact: true }).click();
  await expect(page.getByRole('complementary', { name: 'Station Hold' })).toContainText('2 pieces · 1 loose');
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('The dot of i is not attached.');

  // Operations.
  await station(page, 'Assign').click();
  await expect(page.getByLabel('Outline of Willow')).toHaveValue('cut');
  await page.getByLabel('Inside of Willow').selectOption('engrave');
  await expect(page.getByText(/both a fill \(Engrave\) and a cut \(Cut\)/)).toBeVisible();
  await page.getByLabel('Inside of Willow').selectOption('');
  await expect(page.getByText(/both a fill/)).toBeHidden();

  // Files.
  await page.getByRole('button', { name: 'Export' }).click();
  const texts: Record<string, string> = {};
  for (const format of ['SVG', 'DXF', 'PDF']) {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: `Write ${format}` }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe(`house-name_birch-ply-1-8in.${format.toLowerCase()}`);
    texts[format] = readFileSync(await file.path(), 'latin1');
  }
  // The words and half of the drawn line on each side.
  expect(texts.SVG).toMatch(/<svg [^>]*width="220\.025mm"/);
  expect(texts.DXF).toContain('AC1021');
  expect(texts.PDF).toMatch(/^%PDF-1\.7/);

  expect((await kept(page, id)).document.parts[0]?.members[0]).toMatchObject({ text: 'Willow', face: 'Pacifico' });
  const before = await page.getByRole('contentinfo').textContent();

  await page.reload();
  await expect(page.getByRole('heading', { name: 'Prove' })).toBeVisible();
  await expect(page.getByRole('contentinfo')).toContainText(/segments/);
  await station(page, 'Compose').click();
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('Willow');
  await expect(page.getByLabel('Widest line')).toHaveValue('220');
  const figures = (text: string | null) => /Selected.*segments/.exec(text ?? '')?.[0];
  await expect.poll(async () => figures(await page.getByRole('contentinfo').textContent())).toBe(figures(before));
});

test('the words stay words: they change after everything is set', async ({ page }) => {
  const id = await newJob(page, 'Late change');
  await addLettering(page, 'Oak');
  await station(page, 'Hold').click();
  await page.getByText('the stock', { exact: true }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('2 islands will drop out.');
  await station(page, 'Compose').click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Elm');
  await expect(page.getByText(/will drop out/)).toHaveCount(0);
  await saved(page);
  await expect.poll(async () => (await stored(page, id)).document.parts[0]?.members[0]?.text).toBe('Elm');
});
