/**
 * Time from a key press to the redrawn sheet, for a sign of forty letters; as a ratio against a bare page that draws
 * the same path itself as soon as the key comes.
 */
import type { Page } from '@playwright/test';
import { figure } from '../tests/support/figures';
import { addLettering, computed, expect, newJob, test } from './fixtures';

const SIGN = 'Alder Lane Gardens\nopen every day\nuntil the dusk';
const PRESSES = 41;

/** A change is saved after this, in ms. */
const SAVED_AFTER_MS = 500;

/**
 * Milliseconds from each key press to the frame that shows the change of a path. `atSave`, each is made just when the one before
 * is being saved.
 */
async function measure(page: Page, selector: string, atSave = false): Promise<number> {
  await page.evaluate((wanted) => {
    const times: number[] = [];
    let pressed = 0;
    window.addEventListener(
      'keydown',
      () => {
        pressed = performance.now();
      },
      true,
    );
    new MutationObserver(() => {
      if (pressed === 0) return;
      const from = pressed;
      pressed = 0;
      requestAnimationFrame(() => setTimeout(() => times.push(performance.now() - from)));
    }).observe(document.querySelector(wanted) as Element, { attributes: true, attributeFilter: ['d'] });
    (window as unknown as { times: number[] }).times = times;
  }, selector);
  const taken = () => page.evaluate(() => (window as unknown as { times: number[] }).times.length);
  for (let i = 0; i < PRESSES; i++) {
    await page.keyboard.press(i % 2 === 0 ? 'e' : 'Backspace');
    await expect.poll(taken, { intervals: [10, 20, 50] }).toBe(i + 1);
    // Sooner or later within the second after the save has begun.
    if (atSave) await page.waitForTimeout(SAVED_AFTER_MS + (i % 5) * 40);
  }
  const times = await page.evaluate(() => (window as unknown as { times: number[] }).times);
  return times.slice(5).sort((a, b) => a - b)[Math.floor((times.length - 5) / 2)] as number;
}

for (const family of ['Archivo Black', 'Pacifico'])
  test(`key press to redrawn sheet, ${family}`, async ({ page, context }) => {
    await newJob(page, 'Key press');
    await addLettering(page, SIGN);
    if (family !== 'Archivo Black') {
      await page.getByRole('button', { name: 'Archivo Black' }).click();
      await page.getByRole('option', { name: new RegExp(family) }).click();
    }
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

    const bare = await context.newPage();
    await bare.setContent('<textarea></textarea><svg width="800" height="600"><path id="drawn" d="M0 0"/></svg>');
    await bare.evaluate(
      ([a, b]) => {
        let turn = false;
        document.querySelector('textarea')?.addEventListener('input', () => {
          turn = !turn;
          document.querySelector('#drawn')?.setAttribute('d', (turn ? a : b) ?? '');
        });
      },
      [longer, shorter],
    );
    await bare.locator('textarea').fill(SIGN);
    await bare.locator('textarea').press('Control+End');
    const least = await measure(bare, '#drawn');
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
