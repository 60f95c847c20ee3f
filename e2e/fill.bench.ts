/** Whether the page stays fluid while a sign of a metre is filled: the longest wait for a frame, against the same page at rest. */
import type { Page } from '@playwright/test';
import { figure } from '../tests/support/figures';
import { SIGN } from '../tests/support/sign';
import { computed, expect, station, test } from './fixtures';

/** The longest time between two frames from now on, in ms, told when asked for. */
const watchFrames = (page: Page) =>
  page.evaluate(() => {
    const watch = { longest: 0, on: true };
    let last = performance.now();
    const next = () => {
      const now = performance.now();
      watch.longest = Math.max(watch.longest, now - last);
      last = now;
      if (watch.on) requestAnimationFrame(next);
    };
    requestAnimationFrame(next);
    (window as unknown as { watch: typeof watch }).watch = watch;
  });
const longestFrame = (page: Page) =>
  page.evaluate(() => {
    const { watch } = window as unknown as { watch: { longest: number; on: boolean } };
    watch.on = false;
    return watch.longest;
  });

test('a sign of a metre', async ({ page }) => {
  const made = await page.request.post('/api/jobs', { data: { document: SIGN, extras: null } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/jobs/${id}`);
  await station(page, 'Fill').click();
  await computed(page);
  await page
    .getByRole('complementary', { name: 'Job sheet' })
    .getByRole('button', { name: /^ALDER/ })
    .click();
  await watchFrames(page);
  await page.waitForTimeout(3_000);
  const atRest = await longestFrame(page);

  const slider = page.getByLabel('Slide the direction');
  await watchFrames(page);
  const began = Date.now();
  await slider.fill('40');
  await expect(page.getByText(/^Computing … \d+ %/)).toBeVisible();
  // A newer direction takes the place of the one under way.
  await slider.fill('50');
  await computed(page);
  const took = (Date.now() - began) / 1000;
  const working = await longestFrame(page);
  await expect(page.getByText(/^Covered/)).toBeVisible();
  figure({
    name: 'a sign of 1 m by 0.6 m at 0.1 mm filled in the page: longest wait for a frame, against the page at rest',
    value: working / atRest,
    digits: 1,
    note: `${working.toFixed(0)} ms against ${atRest.toFixed(0)} ms; two directions, one given up, in ${took.toFixed(1)} s`,
  });
});
