/**
 * Time from a key press to the redrawn sheet, for a sign of forty letters; as a ratio against a bare page that draws
 * the same path itself as soon as the key comes, and against one whose worker has nothing to do but to hand the path back: what
 * comes from a worker is seen a frame later than the letter in the field.
 */
import type { Page } from '@playwright/test';
import { figure } from '../tests/support/figures';
import { addLettering, chooseFace, computed, expect, newJob, test } from './fixtures';
import { median, timesToRedraw } from './redrawn';

const SIGN = 'Alder Lane Gardens\nopen every day\nuntil the dusk';
const PRESSES = 41;

/** A change is saved after this, in ms. */
const SAVED_AFTER_MS = 500;

/** What a press takes, the first few aside; `atSave`, each is made just when the one before is being saved. */
async function measure(page: Page, selector: string, atSave = false): Promise<number> {
  // Sooner or later within the second after the save has begun.
  const between = (i: number) => (atSave ? page.waitForTimeout(SAVED_AFTER_MS + (i % 5) * 40) : Promise.resolve());
  return median((await timesToRedraw(page, selector, PRESSES, between)).slice(5));
}

for (const family of ['Archivo Black', 'Pacifico'])
  test(`key press to redrawn sheet, ${family}`, async ({ page, context }) => {
    await newJob(page, 'Key press');
    await addLettering(page, SIGN);
    if (family !== 'Archivo Black') await chooseFace(page, family);
    const letters = page.locator('[data-member]');
    await expect(letters).toHaveAttribute('d', /^M/);
    await page.getByText(/^Saved/).waitFor();
    const drawn = async (words: string) => {
      await page.getByRole('textbox', { name: 'Words' }).fill(words);
      await computed(page);
      return letters.getAttribute('d');
    };
    const longer = await drawn(`${SIGN}e`);
    const shorter = await drawn(SIGN);
    await page.getByRole('textbox', { name: 'Words' }).press('Control+End');
    const ours = await measure(page, '[data-member]');
    const saving = await measure(page, '[data-member]', true);

    const bare = async (asksWorker: boolean): Promise<number> => {
      const page = await context.newPage();
      await page.setContent('<textarea></textarea><svg width="800" height="600"><path id="drawn" d="M0 0"/></svg>');
      await page.evaluate(
        ({ paths, asksWorker }) => {
          const draw = (d: string) => document.querySelector('#drawn')?.setAttribute('d', d);
          const echo = new Worker(URL.createObjectURL(new Blob(['onmessage = (e) => postMessage(e.data)'])));
          echo.onmessage = ({ data }) => draw(data);
          let turn = false;
          document.querySelector('textarea')?.addEventListener('input', () => {
            turn = !turn;
            const d = paths[turn ? 0 : 1] ?? '';
            if (asksWorker) echo.postMessage(d);
            else draw(d);
          });
        },
        { paths: [longer, shorter], asksWorker },
      );
      await page.locator('textarea').fill(SIGN);
      await page.locator('textarea').press('Control+End');
      const time = await measure(page, '#drawn');
      await page.close();
      return time;
    };
    const least = await bare(false);
    const asked = await bare(true);
    figure({
      name: `Key press to redrawn sheet, sign of ${SIGN.replace(/\s/g, '').length} letters, against a bare page that asks an idle worker, ${family}`,
      value: ours / asked,
      digits: 1,
      note: `${ours.toFixed(0)} ms against ${asked.toFixed(0)} ms`,
    });
    figure({
      name: `Key press to redrawn sheet, sign of ${SIGN.replace(/\s/g, '').length} letters, against a bare page that draws the same, ${family}`,
      value: ours / least,
      digits: 1,
      aim: { most: 3 },
      note: `${ours.toFixed(0)} ms against ${least.toFixed(0)} ms`,
    });
    figure({
      name: `The same while the change before is saved, ${family}`,
      value: saving / least,
      digits: 1,
      aim: { most: 3 },
      note: `${saving.toFixed(0)} ms`,
    });
  });
