/** Plotter files: read with their pens given to operations, written with the pens of operations, and the pens offered again. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { addLettering, computed, expect, kept, newJob, saved, station, test } from './fixtures';

/** A plate with two holes by the second pen, wrapped for a plotter. */
const PLATE =
  '\x1b.(;IN;SP1;PU0,0;PD4800,0,4800,2400,0,2400,0,0;PU;SP2;PU600,1200;CI200;PU4200,1200;CI200;PU2400,300;LBno words\x03PU;SP0;';

const bringIn = (page: Page, name: string, text: string) =>
  page
    .getByLabel('Drawing or picture to bring in')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(text, 'latin1') });

async function written(page: Page): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write HPGL' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('hinge-plate.plt');
  return readFileSync(await file.path(), 'latin1');
}

test('pens become operations, are kept with the job, and are written again', async ({ page }) => {
  const id = await newJob(page, 'Hinge plate');
  await bringIn(page, 'plate.plt', PLATE);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('120 mm (4.724 in) wide, 60 mm (2.362 in) high').first()).toBeVisible();
  await expect(dialog.getByText('as the file says: plotter steps of 0.025 mm')).toBeVisible();
  await expect(dialog.getByLabel('Operation for Pen 1, lines')).toHaveValue('cut');
  await dialog.getByLabel('Operation for Pen 2, lines').selectOption({ label: 'Mark' });
  await dialog.getByLabel('Operation for Pen 2, words').selectOption({ label: 'Leave out' });
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(dialog).toBeHidden();
  await computed(page);

  await addLettering(page, 'H');
  await station(page, 'Assign').click();
  await expect(page.getByRole('textbox', { name: 'Mark', exact: true })).toHaveValue('2');
  const score = page.getByRole('textbox', { name: 'Score', exact: true });
  await score.fill('5');
  await score.press('Enter');

  await station(page, 'Prove').click();
  const text = await written(page);
  expect(text.match(/SP\d+/g)).toEqual(['SP2', 'SP1', 'SP0']);
  // A fitted page: the corner of the work is 0, 0.
  const numbers = [...text.matchAll(/P[UD](-?\d+),(-?\d+)/g)].map(([, x, y]) => [Number(x), Number(y)] as const);
  expect(Math.min(...numbers.map(([x]) => x))).toBe(0);
  await page.getByText('middle', { exact: true }).click();
  expect((await written(page)).match(/-\d+/)).not.toBeNull();

  // The same pens are offered with the next file.
  await saved(page);
  await page.reload();
  await station(page, 'Compose').click();
  // What was chosen is chosen again; the way to bring in stands where nothing is.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await bringIn(page, 'again.hpgl', PLATE);
  await expect(dialog.getByLabel('Operation for Pen 2, lines')).toHaveValue('mark');
  await page.keyboard.press('Escape');
  const { document } = await kept(page, id);
  expect((document as unknown as { operations: { id: string; pens: number[] }[] }).operations).toMatchObject([
    { id: 'engrave', pens: [] },
    { id: 'mark', pens: [2] },
    { id: 'score', pens: [5] },
    { id: 'cut', pens: [1] },
  ]);
});

test('an EPS is answered with what to ask for', async ({ page }) => {
  await newJob(page, 'Emblem');
  await bringIn(page, 'emblem.eps', '%!PS-Adobe-3.0 EPSF-3.0\n');
  await expect(page.getByRole('dialog').getByText(/This file is an EPS or PostScript drawing/)).toBeVisible();
});
